import { createHash } from 'node:crypto';
import { sameName, clientFor, type ProvenClient } from '$core/access';
import { deal, type Form } from '$core/paper';
import { forwardBy } from '$core/session';
import { refusal, RefusalError, type Outcome } from '$core/sitting';
import { transact, type Query } from '../db';
import type { Acting } from '../house';
import { paperVersion } from '../paper';
import { actIn, tell, type Touched } from './act';
import { forgetView } from './coming-back';
import { startFromLast } from './from-last';
import { loadSitting, type Loaded } from './load';

/** Begins, or goes on after a move, a reopening or a carry-over. The form is dealt the first time and kept. */
export async function begin(
	otium: Acting,
	sittingId: string,
	commandId: string,
	startWord: string,
	client: ProvenClient | null = null
): Promise<Outcome> {
	const touched: Touched = new Map();
	const now = otium.now();
	const outcome = await transact(otium.db, async (trx) => {
		const one = await loadSitting(trx, sittingId, now);
		if (!one) throw new RefusalError(refusal('gone'));
		const wanted = one.session.rules.startWord;
		const asked = wanted !== null && one.sitting.beganAt === null;
		const facts = {
			// The device signed in after "Is this you?" was answered with yes; no other way leads here.
			identityConfirmed: true,
			client: clientFor(one.session, client),
			deviceChecked:
				one.session.rules.door.checklist !== 'needed' || (await wasChecked(trx, one.candidate.id, one.session.id)),
			startWord: asked
				? sameName(wanted, startWord)
					? ('right' as const)
					: ('wrong' as const)
				: ('not_asked' as const)
		};
		const by = { role: 'candidate' as const, id: one.candidate.id };
		const [result] = await actIn(trx, now, [{ id: commandId, sittingId, by, body: { kind: 'begin' }, facts }], touched);
		if (result.ok) {
			await forgetView(trx, sittingId);
			await dealOnce(trx, one, now);
		}
		return result;
	});
	tell(otium, touched);
	return outcome;
}

/** The device was looked over at this session's door, and nothing that is needed failed. */
async function wasChecked(trx: Query, candidateId: string, sessionId: string): Promise<boolean> {
	const row = await trx('device_check')
		.where({ candidate_id: candidateId, session_id: sessionId })
		.orderBy('at', 'desc')
		.first('ready');
	return Boolean(row?.ready);
}

/** What a grant of a form of one's own comes to. */
const OWN_ORDER = { questionsInOwnOrder: true, choicesInOwnOrder: true };

async function dealOnce(trx: Query, { sitting, paperId, attempt, session, merge }: Loaded, now: number) {
	const sittingId = sitting.id;
	if (await trx('form').where({ sitting_id: sittingId }).first('sitting_id')) return;
	const { order, attempts } = session.rules;
	// Where nobody goes back, answers that stand already would be pages that lie behind.
	const mayStartFromLast = attempts.startsFromLast && forwardBy(session.rules.movement) === null;
	if (attempt > 1 && mayStartFromLast && (await startFromLast(trx, sittingId, now))) return;
	const { content } = await paperVersion(trx, paperId);
	// The sitting's own id is the seed: nothing has to be drawn, and the form can be dealt again and compared.
	const seed = createHash('sha256').update(sittingId).digest().readInt32BE(0);
	const form = deal(content, merge.otherForm ? OWN_ORDER : order, seed);
	await trx('form').insert({ sitting_id: sittingId, form: JSON.stringify(form) });
}

export async function formOf(db: Query, sittingId: string): Promise<Form | null> {
	const row = await db('form').where({ sitting_id: sittingId }).first('form');
	return row ? JSON.parse(row.form) : null;
}
