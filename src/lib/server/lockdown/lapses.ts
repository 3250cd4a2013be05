import { reactionTo, type Lapse } from '$core/lockdown';
import type { Query } from '../db';
import { transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Otium } from '../otium';
import { newReceipt } from '../session';
import { actIn, loadSitting, tell, type Touched } from '../sitting';

export type NamedLapse = Lapse & { id: string };

/** What a room shows of a sitting's lapses. */
export type LapseCount = { left: number; tried: number; last: number; awaySince: number | null };

/**
 * Notes what a watched device did. The same id again only says until when it lasted. Leaving more often than the rules
 * allow has the consequence that they name, in the same transaction.
 */
export async function noteLapses(otium: Otium, sittingId: string, lapses: NamedLapse[]): Promise<void> {
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
		for (const { id, kind, from, to } of lapses) {
			if (known.has(id)) await trx('lapse').where({ id, sitting_id: sittingId, to_at: null }).update({ to_at: to });
			else await trx('lapse').insert({ id, sitting_id: sittingId, kind, from_at: from, to_at: to });
			known.add(id);
		}
		await appendToLogbook(
			trx,
			// Leaving is told when it is over, with its length; what was prevented, at once.
			lapses
				.filter((lapse) => lapse.to !== null)
				.map(({ kind, from, to }) => ({
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
	otium: Otium,
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
	const rows: { sitting_id: string; left: number; tried: number; last: number; away: number | null }[] = await db(
		'lapse'
	)
		.whereIn('sitting_id', sittingIds)
		.groupBy('sitting_id')
		.select(
			'sitting_id',
			db.raw(`sum(kind = 'left') as "left"`),
			db.raw(`sum(kind NOT IN ('left', 'site')) as tried`),
			db.raw('max(from_at) as last'),
			db.raw(`max(CASE WHEN to_at IS NULL AND kind = 'left' THEN from_at END) as away`)
		);
	return new Map(
		rows.map((row) => [row.sitting_id, { left: row.left, tried: row.tried, last: row.last, awaySince: row.away }])
	);
}
