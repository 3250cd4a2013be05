import fc from 'fast-check';
import { nanoid } from 'nanoid';
import { expect, it } from 'vitest';
import { protectionOf, SETTINGS, withValue, type Setting } from '$core/rules';
import { DEFAULT_RULES, forwardBy, type SessionRules } from '$core/session';
import { MINUTE, withWholeLimit } from '$core/time';
import { drawSitting } from '$lib/server/live';
import { act, begin, loadSitting, mayHavePaper, showQuestions, startClock, takeBreak } from '$lib/server/sitting';
import { sweep } from '$lib/server/sweep';
import { arriveAt, buildHouse, CANDIDATE, NINE, openDoor, PAPER, PROCTOR, type House } from '$lib/server/testing/house';
import { runs } from '$core/testing/runs';

/** Values that a rule can have; what needs something outside of the house stays as it is. */
function anyValue({ kind, path }: Setting): fc.Arbitrary<unknown> | null {
	if (
		['lockdown.level', 'lockdown.sites', 'door.networks', 'door.identity', 'door.checklist', 'door.code'].includes(path)
	)
		return null;
	// Short enough to be lived through by a clock that is moved.
	if (path === 'timing.limitMinutes') return fc.integer({ min: 10, max: 50 });
	// Fewer than the paper has, so that there is a page to leave.
	if (path === 'movement.perPage') return fc.integer({ min: 2, max: 5 });
	if (path === 'timing.lastEntryMinutes') return fc.constant(null);
	if (path === 'timing.clockStarts') return fc.constant('candidate');
	// As long as the shortest limit, so that the same can be lived through.
	if (path === 'timing.questionSeconds') return fc.option(fc.integer({ min: 110, max: 400 }));
	if (path === 'timing.endedBy') return fc.constant('clock');
	switch (kind.type) {
		case 'choice':
			return fc.constantFrom(...kind.options.map((option) => option.value));
		case 'switch':
			return fc.boolean();
		case 'number':
			return kind.decimals ? null : fc.integer({ min: kind.min, max: Math.min(kind.max, kind.min + 20) });
		case 'word':
			return fc.constantFrom(null, 'halyard');
		default:
			return null;
	}
}
const anyRules: fc.Arbitrary<SessionRules> = fc
	.tuple(
		...SETTINGS.map((setting) =>
			(anyValue(setting) ?? fc.constant(undefined)).map((value) => [setting.path, value] as const)
		)
	)
	.map((values) =>
		values.reduce(
			(rules, [path, value]) => (value === undefined ? rules : withValue(rules, path, value)),
			DEFAULT_RULES
		)
	)
	// What cannot be planned is not lived through: a question with a time of its own comes alone and never again.
	.map((rules) =>
		forwardBy(rules.movement) === 1
			? withWholeLimit(rules, PAPER.parts[0].questions.length)
			: withValue(rules, 'timing.questionSeconds', null)
	);

const of = async (house: House, id = 'sit0') => (await loadSitting(house.otium.db, id, house.clock.at))!;
const command = (house: House, by: typeof CANDIDATE, body: object, facts = {}) =>
	act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by, body, facts } as never]);

/** Lives through a sitting under these rules, and compares what was claimed beforehand with what happens. */
async function live(rules: SessionRules) {
	const house = await buildHouse({ rules, timing: rules.timing, closes: NINE + 300 * MINUTE });
	const { otium, clock } = house;
	try {
		clock.at = NINE;
		await arriveAt(house, 0, await openDoor(house));
		const picture = await drawSitting(otium.db, 'sit0', clock.at);
		const told = picture.told.flatMap(({ lines }) => lines).join('\n');
		const claims = (text: RegExp) => text.test(told);

		expect(picture.state === 'at_door', 'who lets in').toBe(claims(/Your proctor lets you in/));
		if (picture.state === 'at_door') await command(house, PROCTOR, { kind: 'let_in' });
		const first = await begin(otium, 'sit0', nanoid(), '');
		expect(first.ok, 'a start word').toBe(!claims(/you type a start word/));
		if (!first.ok) expect((await begin(otium, 'sit0', nanoid(), rules.startWord!)).ok).toBe(true);
		await startClock(otium, 'sit0');
		const began = (await of(house)).sitting.clockStartedAt!;

		const shown = await showQuestions(otium, await of(house));
		const sent = shown.questions.length;
		const each = /You have (\d+) seconds for each question/.exec(told);
		const left = shown.question === null ? null : shown.question.ends - began;
		expect(left, 'time for each question').toBe(each && Number(each[1]) * 1_000);
		expect(sent < 6, 'no way back').toBe(claims(/can’t go back/));
		expect(
			protectionOf({
				rules,
				networks: [],
				lostNetworks: 0,
				ownQuestions: false,
				elsewhere: 0,
				siteHasClients: false
			}).inForce.includes('no way back')
		).toBe(sent < 6);

		const [, minutes] = /You have (?:at most )?(\d+) minutes?/.exec(told)!;
		expect((await of(house)).reckoning.allotted! / MINUTE, 'minutes').toBe(Number(minutes));

		await mayHavePaper(otium, await of(house), 'one page');
		const back = await mayHavePaper(otium, await of(house), 'opened anew');
		expect(back, 'coming back').toBe(!claims(/If you close or reload the paper/));
		const { state } = (await of(house)).sitting;
		expect(state === 'handed_in', 'coming back ends it').toBe(claims(/reload the paper, your work is handed in/));
		if (state === 'handed_in') return;
		if (state === 'on_hold') await command(house, PROCTOR, { kind: 'resume' });

		clock.at += 2 * MINUTE;
		const pause = await takeBreak(otium, 'sit0');
		expect(pause.ok, 'a pause').toBe(claims(/You may take .* pauses? of/));
		if (pause.ok) {
			expect((await of(house)).reckoning.standing, 'the clock in a pause').toBe(
				claims(/pauses? of \d+ minutes?( each)?; the clock stops/)
			);
			await command(house, PROCTOR, { kind: 'resume' });
		}
		await command(house, PROCTOR, { kind: 'hold', reason: 'x', stopsClock: true });
		expect((await of(house)).reckoning.standing, 'the clock on hold').toBe(!claims(/The clock never stops/));
		await command(house, PROCTOR, { kind: 'resume' });

		// In the minutes to finish up, an answer is taken and marked late.
		const { deadline, graceEnds } = (await of(house)).reckoning;
		const grace = Number(/and (\d+) more to finish/.exec(told)?.[1] ?? 0);
		expect((graceEnds! - deadline!) / MINUTE, 'minutes to finish up').toBe(grace);
		expect(deadline!).toBeGreaterThan(began);
		const answer = async (seq: number) => {
			const { device } = (await of(house)).sitting;
			const { questionId } = shown.ids.fromDevice({ questionId: shown.questions[0].id, value: null, struck: [] })!;
			const revision = { seq, questionId, value: true, marked: false, struck: [], inViewMs: 9_000 };
			return otium.answers.save('sit0', device!.epoch, [revision] as never);
		};
		if (grace > 0) {
			clock.at = deadline! + 10_000;
			expect((await answer(1)).kept, 'taken while finishing up').toBe(each ? 'question_over' : null);
			expect(Boolean((await otium.db('answer').where({ seq: 1 }).first('late')).late), 'marked late').toBe(true);
		}
		clock.at = graceEnds! + 5_000;
		await sweep(otium);
		const after = await of(house);
		expect(after.sitting.state === 'time_up', 'when time is up').toBe(
			claims(/your work is handed in for you|has not been handed in is not scored/)
		);
		expect(after.sitting.ended?.countsNothing === true, 'not scored').toBe(
			claims(/has not been handed in is not scored/)
		);
		if (after.sitting.state === 'working') {
			const kept = (await answer(2)).kept;
			expect(kept === null, 'going on after the time').toBe(
				each === null && claims(/you may go on; answers after it are marked late/)
			);
			await command(house, CANDIDATE, { kind: 'hand_in', receipt: 'R', reason: null }, { finishWord: 'right' });
		}
		const last = await drawSitting(otium.db, 'sit0', clock.at);
		expect(last.mayReview, 'looking back').toBe(!claims(/You see nothing of your result/));
		expect(last.again !== null, 'a further attempt').toBe(claims(/You may sit it \d+ times/));
	} finally {
		await house.close();
	}
}

it('what is claimed before is what happens, under any rules', { timeout: 180_000 }, async () => {
	await fc.assert(fc.asyncProperty(anyRules, live), { numRuns: runs(25), seed: 20261208 });
});
