import type { LRUCache } from 'lru-cache';
import type { AlikePair } from '$core/alike';
import type { PaperFigures } from '$core/figures';
import { perHouse, type Query } from '../db';
import type { House } from '../house';
import { latest } from '../latest';
import { alikeIn, figuresFor } from './remark';

type Needs = Pick<House, 'db' | 'threads' | 'dataDir'>;
export type Alike = { pairs: AlikePair[]; compared: number };

const MOST = 200;
const kept = perHouse(() => ({
	figures: latest<Promise<PaperFigures>>(MOST),
	alike: latest<Promise<Alike>>(MOST)
}));

/**
 * How far the record of these sittings has come: it grows with whatever changes what their work is worth. By it what was
 * worked out from them is known to be of now.
 */
async function reach(db: Query, where: Record<string, string>): Promise<string> {
	const sittings = db('sitting').where(where).select('id');
	const [entry] = await db('logbook').whereIn('sitting_id', sittings).max<{ seq: number | null }[]>('seq as seq');
	const [correction] = await db('correction').max<{ place: number | null }[]>('confirmed_at as place');
	// Another tolerance or share of second marking changes what marks come to, and no entry of a sitting.
	const [plan] = await db('hand_plan').max<{ at: number | null }[]>('changed_at as at');
	return `${entry.seq ?? 0} ${correction.place ?? 0} ${plan.at ?? 0}`;
}

/** Worked out once for the record as it is; a failure is not remembered. */
async function once<T>(cache: LRUCache<string, Promise<T>>, key: string, work: () => Promise<T>): Promise<T> {
	const known = cache.get(key);
	if (known) return known;
	const fresh = work();
	cache.set(key, fresh);
	fresh.catch(() => cache.delete(key));
	return fresh;
}

/** How each question of a paper did in an administration. */
export async function figures(otium: Needs, administrationId: string, paperId: string): Promise<PaperFigures> {
	const far = await reach(otium.db, { administration_id: administrationId, paper_id: paperId });
	return once(kept(otium.db).figures, `${administrationId} ${paperId} ${far}`, () =>
		figuresFor(otium, { administrationId, paperId })
	);
}

/** Pairs of a session whose answers agree more than chance explains. */
export async function alike(otium: Needs, sessionId: string): Promise<Alike> {
	const far = await reach(otium.db, { session_id: sessionId });
	return once(kept(otium.db).alike, `${sessionId} ${far}`, () => alikeIn(otium, sessionId));
}
