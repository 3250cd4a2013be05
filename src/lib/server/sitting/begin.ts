import { sameName, clientFor, type ProvenClient } from '$core/access';
import { deal, formFor, type Form, type FormPlace } from '$core/paper';
import { forwardBy } from '$core/session';
import { refusal, RefusalError, type Outcome } from '$core/sitting';
import { idsAsMade, macOf, transact, type Query } from '../db';
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

async function dealOnce(trx: Query, one: Loaded, now: number) {
	const { sitting, paperId, attempt, session, merge } = one;
	const sittingId = sitting.id;
	if (await trx('form').where({ sitting_id: sittingId }).first('sitting_id')) return;
	const { order, attempts } = session.rules;
	// Where nobody goes back, answers that stand already would be pages that lie behind.
	const mayStartFromLast = attempts.startsFromLast && forwardBy(session.rules.movement) === null;
	if (attempt > 1 && mayStartFromLast && (await startFromLast(trx, sittingId, now))) return;
	const { content } = await paperVersion(trx, paperId);
	// The seed follows from the sitting's id and a key of the house: whoever knows the id, as its candidate does at the door,
	// and the paper, as its author does, can't work out beforehand what will be dealt.
	const seed = Buffer.from(macOf(trx, 'marks', `form ${sittingId}`), 'base64url').readInt32BE();
	const name = content.forms ? formFor(content, order.forms, { seed, ...(await placeOf(trx, one)) }) : null;
	const form = deal(content, merge.otherForm ? OWN_ORDER : order, seed, name);
	await trx('form').insert({ sitting_id: sittingId, form: JSON.stringify(form) });
}

/** Where somebody belongs and sits, as far as a form of the paper can go by it. */
async function placeOf(trx: Query, { sitting, session, candidate }: Loaded): Promise<Omit<FormPlace, 'seed'>> {
	const sites = await idsAsMade(trx, 'site');
	const groups: string[] = await trx('session_group')
		.join('candidate_group', 'candidate_group.id', 'session_group.group_id')
		.where('session_group.session_id', session.id)
		.orderBy('candidate_group.name')
		.pluck('candidate_group.id');
	const mine = await trx('candidate').where({ id: candidate.id }).first('group_id');
	const seat = await trx('roster').where({ session_id: session.id, sitting_id: sitting.id }).first('seat');
	const indexIn = (ids: string[], id: string) => (ids.includes(id) ? ids.indexOf(id) : null);
	return {
		site: indexIn(sites, session.site.id),
		group: mine && indexIn(groups, mine.group_id),
		seat: candidate.elsewhere ? null : (seat?.seat ?? null)
	};
}

export async function formOf(db: Query, sittingId: string): Promise<Form | null> {
	const row = await db('form').where({ sitting_id: sittingId }).first('form');
	return row ? JSON.parse(row.form) : null;
}
