import { nanoid } from 'nanoid';
import type { Query } from '../db';
import type { Acting } from '../house';
import { newReceipt } from '../session';
import { act } from './act';
import type { Loaded } from './load';

const BY = { role: 'system', id: 'coming-back' } as const;

/**
 * Whether the paper may go to the page that asks for it. One that was opened anew since the first question was on the
 * screen belongs to somebody who left the paper: what they need to go on is done here, as the rules say. The same page may
 * ask as often as its connection needs.
 * @param view the page's own name, another each time it is opened
 */
export async function mayHavePaper(otium: Acting, one: Loaded, view: string): Promise<boolean> {
	const { sitting, session } = one;
	const { comingBack } = session.rules;
	if (comingBack === 'free') return true;
	const { paper_view: before } = await otium.db('sitting').where({ id: sitting.id }).first('paper_view');
	if (before === view) return true;
	if (before === null || sitting.clockStartedAt === null) {
		await otium.db('sitting').where({ id: sitting.id }).update({ paper_view: view });
		return true;
	}
	const reason = 'Closed or reloaded the paper';
	await act(otium, [
		{
			id: nanoid(),
			sittingId: sitting.id,
			by: BY,
			body:
				comingBack === 'released'
					? { kind: 'hold', reason, stopsClock: false }
					: { kind: 'hand_in', receipt: newReceipt(), reason }
		}
	]);
	// Whoever lets them go on lets this page have the paper.
	await forgetView(otium.db, sitting.id);
	return false;
}

/** The paper may be sent to whichever page asks next: work begins, or goes on elsewhere. */
export async function forgetView(db: Query, sittingId: string): Promise<void> {
	await db('sitting').where({ id: sittingId }).update({ paper_view: null });
}
