import { nanoid } from 'nanoid';
import type { AlikePair } from '$core/alike';
import { fullName } from '$core/names';
import { transact, type Query } from '../db';
import type { House } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';
import { alike, countingSittings } from '../marking';
import type { Session } from '../session';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

/** Somebody of a pair, and where they sat. */
export type Sat = { sittingId: string; name: string; number: string; seat: string | null };
export type AlikeView = {
	pairs: (Omit<AlikePair, 'a' | 'b'> & { a: Sat; b: Sat; isNear: boolean })[];
	compared: number;
	sat: Sat[];
	decision: { note: string; by: string; at: number; holds: boolean } | null;
};

/** Pairs of a session whose answers agree too much, with their seats; and what somebody has decided about them. */
export async function alikeView(otium: Needs, session: Session): Promise<AlikeView> {
	const { pairs, compared } = await alike(otium, session.id);
	const sittings = await countingSittings(otium.db, (query) => query.where('sitting.session_id', session.id));
	const sat = sittings.map((one) => ({
		sittingId: one.sittingId,
		name: fullName(one),
		number: one.number,
		seat: one.seat
	}));
	const byId = new Map(sat.map((one) => [one.sittingId, one]));
	return {
		pairs: pairs.map((pair) => {
			const [a, b] = [byId.get(pair.a)!, byId.get(pair.b)!];
			return { ...pair, a, b, isNear: isNear(a.seat, b.seat) };
		}),
		compared,
		sat,
		decision: await decisionOn(otium.db, session.id, pairs)
	};
}

/** Seats side by side, one behind the other, or corner to corner: `B7` and `C8`. */
function isNear(a: string | null, b: string | null): boolean {
	const [one, other] = [a, b].map((seat) => /^([A-Z]+)(\d+)$/.exec(seat ?? ''));
	if (!one || !other) return false;
	// After Z come AA, BB and so on.
	const row = (letters: string) => (letters.length - 1) * 26 + letters.charCodeAt(0);
	return Math.abs(row(one[1]) - row(other[1])) <= 1 && Math.abs(Number(one[2]) - Number(other[2])) <= 1;
}

const namesOf = (pairs: Pick<AlikePair, 'a' | 'b'>[]) => pairs.map(({ a, b }) => [a, b].sort().join(' ')).sort();

async function decisionOn(db: Query, sessionId: string, pairs: AlikePair[]): Promise<AlikeView['decision']> {
	const row: { pairs: string; note: string; by: string; at: number } | undefined = await db('alike_decision')
		.leftJoin('staff', 'staff.id', 'alike_decision.by')
		.where({ session_id: sessionId })
		.orderBy('at', 'desc')
		.first('pairs', 'note', 'staff.name as by', 'at');
	if (!row) return null;
	const seen = new Set(JSON.parse(row.pairs) as string[]);
	return { note: row.note, by: row.by, at: row.at, holds: namesOf(pairs).every((pair) => seen.has(pair)) };
}

/** Somebody has looked at all pairs of a session; a pair that comes later is to be looked at again. */
export async function decideAlike(otium: Needs, by: NewEntry['by'], session: Session, note: string): Promise<void> {
	const { pairs } = await alike(otium, session.id);
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		await trx('alike_decision').insert({
			id: nanoid(),
			session_id: session.id,
			pairs: JSON.stringify(namesOf(pairs)),
			note,
			by: by.id,
			at
		});
		await appendToLogbook(trx, [
			{ at, by, kind: 'alike_decided', sessionId: session.id, body: { pairs: pairs.length, note } }
		]);
	});
}

/** Whether there is something to look at in a session that nobody has decided about. */
export async function isAlikeOpen(otium: Needs, session: Session): Promise<boolean> {
	const { pairs } = await alike(otium, session.id);
	return pairs.length > 0 && !(await decisionOn(otium.db, session.id, pairs))?.holds;
}
