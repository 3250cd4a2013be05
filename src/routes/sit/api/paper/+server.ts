import { json } from '@sveltejs/kit';
import type { Paper } from '$core/paper';
import { NOT_AT_THE_DOOR, problem, refuse } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { clientFor, paperKey } from '$lib/server/identity';
import type { Query } from '$lib/server/db';
import { standingAnswers } from '$lib/server/answers';
import { formOf, loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

type Beside = Required<Pick<Paper, 'pictures' | 'formulaSheet' | 'language'>>;

/** A paper's version never changes, so what goes with its questions is read once. */
const known = new Map<string, Beside>();
async function besideQuestions(db: Query, paperId: string): Promise<Beside> {
	const before = known.get(paperId);
	if (before) return before;
	const { content } = await db('paper').where({ id: paperId }).first('content');
	const { pictures = {}, formulaSheet = [], language = 'en' }: Paper = JSON.parse(content);
	const fresh = { pictures, formulaSheet, language };
	known.set(paperId, fresh);
	return fresh;
}

/** The form and the answers that stand, for the bound device while its candidate may work. */
export const GET: RequestHandler = async ({ locals: { otium, device, client } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.device?.epoch !== device.epoch) return refuse(refusal('second_device'));
	if (one.sitting.state !== 'working') return refuse(refusal('not_from_this_state'));
	// Not a question leaves without a client that has proved itself, whoever's cookie asks.
	const proven = clientFor(one.session, client);
	if (proven === 'outdated') return refuse(refusal('client_outdated'));
	if (proven === 'missing') return refuse(refusal('client_unproven'));
	const form = await formOf(otium.db, device.sittingId);
	const answers = (await standingAnswers(otium.db, [device.sittingId])).get(device.sittingId) ?? [];
	const last = await otium
		.db('answer')
		.where({ sitting_id: device.sittingId, epoch: device.epoch })
		.max('seq as seq')
		.first();
	const paper = await besideQuestions(otium.db, one.paperId);
	const shown = new Set(form!.questions.map((question) => question.picture));
	const pictures = Object.fromEntries(Object.entries(paper.pictures).filter(([name]) => shown.has(name)));
	return json({
		key: await paperKey(otium.db, device.sittingId, device.epoch),
		questions: form!.questions,
		pictures,
		formulaSheet: paper.formulaSheet,
		language: paper.language,
		answers,
		lastSeq: (last?.seq as number | null) ?? 0
	});
};
