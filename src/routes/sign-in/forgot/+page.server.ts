import { mailLeaves } from '$lib/server/mail';
import type { PageServerLoad } from './$types';

/** Whether a mail would arrive: nobody is told to wait for one that stays here. */
export const load: PageServerLoad = () => ({ mailLeaves: mailLeaves() });
