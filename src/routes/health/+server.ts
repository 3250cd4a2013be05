import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Says that the server answers. Does nothing else, so that it is also what a save is measured against. */
export const GET: RequestHandler = () => json({ ok: true });
export const POST: RequestHandler = () => json({ ok: true });
