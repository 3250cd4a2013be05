import { practicePapers } from '$lib/server/practice';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { otium } }) => ({ papers: await practicePapers(otium.db) });
