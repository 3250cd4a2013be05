import { nanoid } from 'nanoid';
import type { AnswerValue, Paper } from '$core/paper';
import { MINUTE } from '$core/time';
import { somebody } from './staff';
import { endSession, newReceipt } from '../session';
import { act, begin, formOf, startClock } from '../sitting';
import { arriveAt, buildHouse, CANDIDATE, COORDINATOR, NINE, openDoor, PROCTOR, type House } from './house';

export const ODE = somebody('ode', 'coordinator', null);
export const LORNE = somebody('lorne', 'closing_officer', null);
export const HOLT = somebody('holt', 'marker', null);

/** A question that is marked by its key, and one that people mark. */
export const SMALL_PAPER: Paper = {
	title: 'Coastal Navigation',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				{ id: 'c1', kind: 'true_false', stem: 'Is it?', points: 1, topic: 'x', answer: true },
				{ id: 'e1', kind: 'essay', stem: 'Say why.', points: 4, topic: 'x', words: null }
			]
		}
	]
};

/**
 * A house whose session has been sat and has ended: everyone handed in, but those who are absent.
 * @param answerOf what each gives to each question; null leaves it blank
 */
export async function satHouse(
	paper: Paper,
	candidates: number,
	answerOf: (candidate: number, questionId: string) => AnswerValue,
	{ absent = [] as number[], change = {} as Parameters<typeof buildHouse>[0] } = {}
): Promise<House> {
	const house = await buildHouse({ candidates, ...change });
	const { db } = house.otium;
	await db('paper')
		.where({ id: 'numbers' })
		.update({ content: JSON.stringify(paper), title: paper.title });
	for (const [id, name, role] of [
		['ode', 'Maren Ode', 'coordinator'],
		['lorne', 'Petra Lorne', 'closing_officer'],
		['holt', 'Anders Holt', 'marker'],
		['reed', 'Ilse Reed', 'marker']
	]) {
		await db('staff').insert({ id, name, sign_in: id, password_hash: '-' }).onConflict('id').ignore();
		await db('staff_role').insert({ staff_id: id, role, site_id: null });
	}
	const code = await openDoor(house);
	for (const [i, { sittingId }] of house.people.entries()) {
		if (absent.includes(i)) continue;
		const arrived = await arriveAt(house, i, code);
		if (!arrived.ok) throw new Error(arrived.refusal.code);
		await act(house.otium, [{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
		await begin(house.otium, sittingId, nanoid(), '');
		await startClock(house.otium, sittingId);
		const form = (await formOf(db, sittingId))!;
		const revisions = form.questions.map(({ id }, q) => ({
			seq: q + 1,
			questionId: id,
			value: answerOf(i, id),
			marked: false,
			struck: [],
			inViewMs: 40_000
		}));
		house.clock.at = NINE + 20 * MINUTE;
		await house.otium.answers.save(sittingId, arrived.device.epoch, revisions);
		await act(house.otium, [
			{
				id: nanoid(),
				sittingId,
				by: { ...CANDIDATE, id: `can${i}` },
				body: { kind: 'hand_in', receipt: newReceipt(), reason: null }
			}
		]);
		house.clock.at = NINE;
	}
	house.clock.at = NINE + 70 * MINUTE;
	await endSession(house.otium, house.sessionId, COORDINATOR);
	return house;
}
