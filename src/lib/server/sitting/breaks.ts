import { nanoid } from 'nanoid';
import { breakSince, refusal, type Actor, type Refusal } from '$core/sitting';
import { MINUTE } from '$core/time';
import type { Acting } from '../house';
import { act } from './act';
import { loadSitting, loadSittings, type Loaded } from './load';

const BREAK: Actor = { role: 'system', id: 'break' };

/** Breaks that a candidate was granted: how many are left, how long each is, and until when the one goes that is on. */
export type Breaks = { left: number; minutes: number; until: number | null };

/** null: none were granted. */
export function breaksOf({ sitting, merge }: Pick<Loaded, 'sitting' | 'merge'>): Breaks | null {
	if (!merge.breaks) return null;
	const taken = sitting.stops.filter((stop) => stop.why === 'break');
	const on = breakSince(sitting);
	return {
		left: Math.max(0, merge.breaks.count - taken.length),
		minutes: merge.breaks.minutes,
		until: on === null ? null : on + merge.breaks.minutes * MINUTE
	};
}

type Answer = { ok: true } | { ok: false; refusal: Refusal };

/** The candidate takes a break that was granted; the clock stands still. */
export async function takeBreak(otium: Acting, sittingId: string): Promise<Answer> {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	const breaks = one && breaksOf(one);
	if (!breaks || breaks.left === 0) return { ok: false, refusal: refusal('no_break_left') };
	const number = one.sitting.stops.filter((stop) => stop.why === 'break').length + 1;
	return change(otium, `break-${sittingId}-${number}`, sittingId, {
		kind: 'hold',
		reason: `Break ${number}, ${breaks.minutes} minutes`,
		stopsClock: true,
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
