import { nanoid } from 'nanoid';
import { breakSince, refusal, type Actor, type Refusal } from '$core/sitting';
import { minutesInWords, MINUTE } from '$core/time';
import type { Acting } from '../house';
import { act } from './act';
import { loadSitting, loadSittings, type Loaded } from './load';

const BREAK: Actor = { role: 'system', id: 'break' };

/** Breaks that a candidate may take, granted to them or to all: how many are left, what the next is like, and until when one goes that is on. */
export type Breaks = { left: number; minutes: number; stopsClock: boolean; until: number | null };

/** null: there are none. What was granted is taken first, as its clock always stops. */
export function breaksOf({ sitting, merge, session }: Pick<Loaded, 'sitting' | 'merge' | 'session'>): Breaks | null {
	const { pauses } = session.rules;
	const granted = merge.breaks?.count ?? 0;
	const all = granted + pauses.most;
	if (all === 0) return null;
	const taken = sitting.stops.filter((stop) => stop.why === 'break').length;
	const on = breakSince(sitting);
	const kindOf = (number: number) => (number < granted ? { minutes: merge.breaks!.minutes, stopsClock: true } : pauses);
	const { minutes, stopsClock } = kindOf(on === null ? taken : taken - 1);
	return { left: Math.max(0, all - taken), minutes, stopsClock, until: on === null ? null : on + minutes * MINUTE };
}

type Answer = { ok: true } | { ok: false; refusal: Refusal };

/** The candidate takes a break that they may take; whether the clock stands still follows from whose it is. */
export async function takeBreak(otium: Acting, sittingId: string): Promise<Answer> {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	const breaks = one && breaksOf(one);
	if (!breaks || breaks.left === 0) return { ok: false, refusal: refusal('no_break_left') };
	const number = one.sitting.stops.filter((stop) => stop.why === 'break').length + 1;
	return change(otium, `break-${sittingId}-${number}`, sittingId, {
		kind: 'hold',
		reason: `Break ${number}, ${minutesInWords(breaks.minutes)}`,
		stopsClock: breaks.stopsClock,
		isBreak: true
	});
}

/** Back from it, of their own accord. A hold of the proctor's is not ended so. */
export async function endBreak(otium: Acting, sittingId: string): Promise<Answer> {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	if (!one || breakSince(one.sitting) === null) return { ok: false, refusal: refusal('not_from_this_state') };
	return change(otium, nanoid(), sittingId, { kind: 'resume' });
}

/** Ends the breaks that have lasted their time. */
export async function endDueBreaks(otium: Acting): Promise<void> {
	const now = otium.now();
	// A whole room may be on hold without a single break: only a fold that is in one is worth loading once a second.
	const held: { id: string; fold: string }[] = await otium
		.db('sitting')
		.where({ state: 'on_hold' })
		.select('id', 'fold');
	const onBreak = held.filter(({ fold }) => breakSince(JSON.parse(fold)) !== null).map(({ id }) => id);
	for (const one of await loadSittings(otium.db, onBreak, now)) {
		const until = breaksOf(one)?.until;
		if (until && now >= until) await change(otium, nanoid(), one.sitting.id, { kind: 'resume' });
	}
}

async function change(
	otium: Acting,
	id: string,
	sittingId: string,
	body: Parameters<typeof act>[1][number]['body']
): Promise<Answer> {
	const [outcome] = await act(otium, [{ id, sittingId, by: BREAK, body }]);
	return outcome.ok ? { ok: true } : { ok: false, refusal: outcome.refusal };
}
