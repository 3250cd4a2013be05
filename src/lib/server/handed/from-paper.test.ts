import { afterEach, describe, expect, it, vi } from 'vitest';
import { printedDeal, typedFrom, type Paper } from '$core/paper';
import { verifyAnswers } from '../answers';
import { accountFor } from '../closing';
import { verifyLogbook } from '../logbook';
import { scoresOf, countingSittings, withForms } from '../marking';
import { signedReceipt, verifyReceipt } from '../proof';
import { findSession } from '../session';
import { act, formOf, loadSitting } from '../sitting';
import { COORDINATOR, PROCTOR, type House } from '../testing/house';
import { satHouse } from '../testing/sat';
import { paperToType, typeFromPaper } from '.';

vi.setConfig({ testTimeout: 30_000 });

const PAPER: Paper = {
	title: 'Coastal Navigation',
	parts: [
		{
			title: 'All',
			// Each is dealt three of four.
			draw: 3,
			questions: ['a', 'b', 'c', 'd'].map((id) => ({
				id,
				kind: 'single',
				stem: `${id}?`,
				points: 2,
				topic: 'Buoys',
				choices: ['w', 'x', 'y', 'z'].map((choice) => ({ id: choice, text: `${choice} of ${id}` })),
				answer: 'x'
			}))
		}
	]
};
let house: House;
afterEach(() => house.close());
const one = async (id: string) => (await loadSitting(house.otium.db, id, house.clock.at))!;
const pointsOf = async (id: string) => {
	const { db } = house.otium;
	for await (const [sitting] of withForms(db, await countingSittings(db, (query) => query.where('sitting.id', id))))
		return (await scoresOf(db, [{ ...sitting, marking: sitting.rules.marking }])).get(id)!.score.points;
	return null;
};
/** As it would be written: the right choice of each by its letter on the printed form. */
const right = (form: number, before: (id: string) => string = () => '') =>
	printedDeal(PAPER, form).questions.map((question) => ({
		questionId: question.id,
		text: typedFrom(question, 'x'),
		before: before(question.id)
	}));
const asked = { id: 'typed-by-ode', form: 7, reason: 'the power failed' };

describe('work on paper', () => {
	it('makes whoever was absent handed in, with the printed form as theirs, marked like any other', async () => {
		house = await satHouse(PAPER, 4, () => 'w', { absent: [3] });
		const { otium } = house;
		const before = await paperToType(otium.db, await one('sit3'), 7);
		expect([before.isNew, before.questions.map(({ typed }) => typed)]).toEqual([true, ['', '', '']]);
		await expect(typeFromPaper(otium, COORDINATOR, 'sit3', { ...asked, answers: [] })).rejects.toMatchObject({
			problem: { message: 'Nothing is typed in.' }
		});
		const answers = right(7);
		expect(await typeFromPaper(otium, COORDINATOR, 'sit3', { ...asked, answers })).toBe(3);
		// The same once more, after its answer was lost.
		expect(await typeFromPaper(otium, COORDINATOR, 'sit3', { ...asked, answers })).toBe(3);
		const { sitting } = await one('sit3');
		expect([sitting.state, sitting.reason, sitting.ended?.work?.answers]).toEqual(['handed_in', asked.reason, 3]);
		expect((await formOf(otium.db, 'sit3'))!.questions).toEqual(printedDeal(PAPER, 7).questions);
		expect(await pointsOf('sit3')).toBe(6);
		const { ledger } = await accountFor(otium.db, (await findSession(otium.db, 's1'))!);
		expect([ledger.addsUp, ledger.columns.handed_in.length, ledger.columns.absent.length]).toEqual([true, 4, 0]);
		const told = await otium.db('logbook').where({ sitting_id: 'sit3' }).orderBy('seq', 'desc').limit(2).pluck('kind');
		expect(told).toEqual(['typed_from_paper', 'taken_from_paper']);
		expect(await verifyAnswers(otium.db)).toMatchObject({ broken: null });
		expect((await verifyLogbook(otium.db)).broken).toBeNull();
		// Typed for the wrong person: set aside like any other sitting, and made good again.
		const set = { id: 'aside', sittingId: 'sit3', by: COORDINATOR };
		await act(otium, [{ ...set, body: { kind: 'set_aside', reason: 'the wrong paper' } }]);
		await act(otium, [{ ...set, id: 'back', body: { kind: 'restore' } }]);
		expect((await one('sit3')).sitting.state).toBe('handed_in');
	});

	it('adds to what was answered on a device before the power failed, by the letters of the print', async () => {
		house = await satHouse(PAPER, 2, (_, id) => (id === 'a' ? 'w' : null));
		const { otium } = house;
		const receipt = (await signedReceipt(otium.db, 'sit0', house.clock.at))!;
		const { questions } = await paperToType(otium.db, await one('sit0'), 2);
		const theirs = new Set((await formOf(otium.db, 'sit0'))!.questions.map(({ id }) => id));
		for (const { question, isForeign } of questions) expect(isForeign).toBe(!theirs.has(question.id));
		const mine = questions.filter(({ isForeign }) => !isForeign);
		const answers = mine.map(({ question, typed }) => ({
			questionId: question.id,
			text: typedFrom(question, 'x'),
			before: typed
		}));
		const answered = vi.spyOn(otium.hub, 'answered');
		expect(await typeFromPaper(otium, PROCTOR, 'sit0', { ...asked, form: 2, answers })).toBe(mine.length);
		// Whoever has the room open sees it.
		expect(answered.mock.calls).toEqual([[[{ sittingId: 'sit0', sessionId: 's1' }]]]);
		expect(await pointsOf('sit0')).toBe(2 * mine.length);
		expect(await verifyReceipt(otium.db, receipt)).toMatchObject({ now: 'went_on' });
		// Somebody who still has the page from before writes over nothing.
		const late = answers.map((answer) => ({ ...answer, text: typedFrom(questions[0].question, 'y') }));
		await expect(
			typeFromPaper(otium, COORDINATOR, 'sit0', { ...asked, id: 'another', form: 2, answers: late })
		).rejects.toMatchObject({ problem: { code: 'changed_meanwhile' } });
		expect(await pointsOf('sit0')).toBe(2 * mine.length);
		expect(await verifyAnswers(otium.db)).toMatchObject({ broken: null });
	});

	it('refuses what can’t be read, what is not theirs, and whose work is not over', async () => {
		house = await satHouse(PAPER, 3, () => 'w', { absent: [2] });
		const { otium } = house;
		const [first, ...others] = right(7);
		const refused = (answers: { questionId: string; text: string; before: string }[], id = 'sit2') =>
			expect(typeFromPaper(otium, COORDINATOR, id, { ...asked, answers })).rejects;
		await refused([{ ...first, text: 'E' }, ...others]).toMatchObject({
			problem: { message: 'Question 1: Type one letter, A to D.' }
		});
		await refused([{ questionId: 'none', text: 'A', before: '' }]).toMatchObject({ problem: { code: 'not_found' } });
		expect(await otium.db('form').where({ sitting_id: 'sit2' }).first()).toBeUndefined();
		expect((await one('sit2')).sitting.state).toBe('absent');
		await act(otium, [
			{ id: 'aside', sittingId: 'sit0', by: COORDINATOR, body: { kind: 'set_aside', reason: 'spoilt' } }
		]);
		await refused(right(7), 'sit0').toMatchObject({
			problem: { message: expect.stringContaining('set aside in Numbers') }
		});
	});
});
