import { nanoid } from 'nanoid';
import type { Actor } from '$core/sitting';
import type { Acting } from '../house';
import { act } from './act';

const SCREEN: Actor = { role: 'system', id: 'screen' };

/** The first question is on the candidate's screen: the time until now was the paper's loading and costs nothing. */
export async function startClock(otium: Acting, sittingId: string): Promise<void> {
	await act(otium, [{ id: nanoid(), sittingId, by: SCREEN, body: { kind: 'start_clock' } }]);
}
