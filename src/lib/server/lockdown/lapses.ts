import { reactionTo, type Lapse } from '$core/lockdown';
import type { Query } from '../db';
import { transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import { newReceipt } from '../session';
import { actIn, loadSitting, tell, type Touched } from '../sitting';

export type NamedLapse = Lapse & { id: string };

/** What a room shows of a sitting's lapses. */
export type LapseCount = { left: number; tried: number; last: number; awaySince: number | null };

/**
 * Notes what a watched device did. The same id again only says until when it lasted. Leaving more often than the rules
 * allow has the consequence that they name, in the same transaction.
 */
export async function noteLapses(otium: Acting, sittingId: string, lapses: NamedLapse[]): Promise<void> {
	const touched: Touched = new Map();
	const now = otium.now();
	const sessionId = await transact(otium.db, async (trx) => {
		const one = await loadSitting(trx, sittingId, now);
		if (!one) return null;
		const known = new Set(
			await trx('lapse')
				.whereIn(
					'id',
					lapses.map((lapse) => lapse.id)
				)
				.pluck('id')
		);
		const ended: NamedLapse[] = [];
		for (const lapse of lapses) {
			const { id, kind, from, to } = lapse;
			const isNews = known.has(id)
				? (await trx('lapse').where({ id, sitting_id: sittingId, to_at: null }).update({ to_at: to })) > 0
				: (await trx('lapse').insert({ id, sitting_id: sittingId, kind, from_at: from, to_at: to })).length > 0;
			known.add(id);
			// Leaving is told when it is over, with its length; what was prevented, at once. Sent twice, it is told once.
			if (isNews && to !== null) ended.push(lapse);
		}
		await appendToLogbook(
			trx,
			ended.map(({ kind, from, to }) => ({
				at: now,
				by: { role: 'candidate' as const, id: one.candidate.id },
				kind: 'lapsed',
				sessionId: one.session.id,
				sittingId,
				body: { what: kind, lastedMs: to! - from }
			}))
		);
		await react(trx, otium, one, touched);
		return one.session.id;
	});
	if (sessionId === null) return;
	if (!touched.has(sessionId)) touched.set(sessionId, new Set([sittingId]));
	tell(otium, touched);
}

async function react(
	trx: Query,
	otium: Acting,
	one: NonNullable<Awaited<ReturnType<typeof loadSitting>>>,
	touched: Touched
) {
	const { sitting, session } = one;
	if (sitting.state !== 'working' || session.rules.lockdown.level === 'open') return;
	const left = await leftSince(trx, sitting.id, sitting.since);
	const reaction = reactionTo(session.rules.lockdown, left);
	if (reaction === 'nothing' || reaction === 'warn') return;
	const reason = `Left the screen ${left} ${left === 1 ? 'time' : 'times'}`;
	await actIn(
		trx,
		otium.now(),
		[
			{
				id: `left-${sitting.id}-${sitting.since}`,
				sittingId: sitting.id,
				by: { role: 'system', id: 'lockdown' },
				body:
					reaction === 'hold'
						? { kind: 'hold', reason, stopsClock: true }
						: { kind: 'hand_in', receipt: newReceipt(), reason }
			}
		],
		touched
	);
}

/** Times away since the work last went on: a proctor who resumed has dealt with those before. */
async function leftSince(trx: Query, sittingId: string, since: number): Promise<number> {
	const [{ count }] = (await trx('lapse')
		.where({ sitting_id: sittingId, kind: 'left' })
		.where('from_at', '>=', since)
		.count('* as count')) as { count: number }[];
	return count;
}

/** What rooms show, by sitting; sittings without a lapse are left out. */
export async function lapseCounts(db: Query, sittingIds: string[]): Promise<Map<string, LapseCount>> {
	const rows: { sitting_id: string; kind: Lapse['kind']; from_at: number; to_at: number | null }[] = await db('lapse')
		.whereIn('sitting_id', sittingIds)
		.select('sitting_id', 'kind', 'from_at', 'to_at');
	const counts = new Map<string, LapseCount>();
	for (const { sitting_id, kind, from_at, to_at } of rows) {
		const count = counts.get(sitting_id) ?? { left: 0, tried: 0, last: 0, awaySince: null };
		if (kind === 'left') count.left++;
		else if (kind !== 'site') count.tried++;
		count.last = Math.max(count.last, from_at);
		if (kind === 'left' && to_at === null) count.awaySince = Math.max(count.awaySince ?? 0, from_at);
		counts.set(sitting_id, count);
	}
	return counts;
}
