import { afterEach, beforeEach, expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { ProblemError } from '$core/problem';
import { choicesFor, findSession, planSession } from '../session';
import { readinessOf } from '../readiness';
import { buildHouse, makeUpInput, NINE, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import { draftFor, freezeDraft, makeDraft, reachOf, withdrawVersion } from '.';

let house: House;
beforeEach(async () => void (house = await buildHouse()));
afterEach(() => house.close());

const BY = { role: 'coordinator', id: 'ode' } as const;
const ALL = somebody('ode', 'coordinator', null);
const AUTHOR = somebody('edda', 'author', 'quayside');
const withdraw = (why: string | null) => withdrawVersion(house.otium, ALL, BY, 'numbers', why);
const findings = async (editing?: string) => {
	const { db } = house.otium;
	const input = { ...makeUpInput(), kind: 'live' as const, paperId: 'numbers' };
	const plan = await planSession(db, 'winter', input, NINE, editing);
	return plan.ok ? plan.plan.findings.filter(({ code }) => code === 'withdrawn').map(({ level }) => level) : null;
};

it('a version that is withdrawn is chosen no more, and what was sat stays; offered again it is as before', async () => {
	const reach = await reachOf(house.otium.db, ALL, 'numbers');
	expect(reach).toMatchObject({ withdrawn: null, sessions: [{ id: 's1', candidates: 3, working: 0 }], over: 0 });
	await withdraw('Question 3 has a wrong key.');
	// Told twice, it is noted once.
	await withdraw('Again.');
	expect((await reachOf(house.otium.db, ALL, 'numbers')).withdrawn).toMatchObject({
		why: 'Question 3 has a wrong key.'
	});
	expect(await house.otium.db('logbook').where({ kind: 'paper_withdrawn' })).toHaveLength(1);
	expect((await choicesFor(house.otium.db, ALL, [])).papers).toMatchObject([{ id: 'numbers', isWithdrawn: true }]);
	const ready = await readinessOf(house.otium.db, (await findSession(house.otium.db, 's1'))!, NINE);
	expect(ready!.lines.find(({ key }) => key === 'paper')).toMatchObject({
		state: 'blocked',
		detail: 'Question 3 has a wrong key.'
	});
	expect(await findings()).toEqual(['block']);
	expect(await findings('s1')).toEqual(['warn']);
	await withdraw(null);
	expect(await findings()).toEqual([]);
});

it('another site’s authors can neither see who uses a version nor withdraw it', async () => {
	const code = (work: Promise<unknown>) =>
		work.then(
			() => 'done',
			(error: unknown) => (error instanceof ProblemError ? error.problem.code : String(error))
		);
	expect(await code(reachOf(house.otium.db, AUTHOR, 'numbers'))).toBe('not_yours');
	expect(await code(withdrawVersion(house.otium, AUTHOR, BY, 'numbers', 'x'))).toBe('not_yours');
	expect(await code(reachOf(house.otium.db, ALL, 'none'))).toBe('not_found');
});

it('a copy is a paper of its own, with the questions of the version it was made of', async () => {
	const asked = { title: 'Numbers, evening', siteId: 'quayside', from: 'numbers', isCopy: true };
	const id = await makeDraft(house.otium, ALL, BY, asked);
	const draft = await draftFor(house.otium.db, AUTHOR, id);
	const row = await house.otium.db('paper').where({ id: 'numbers' }).first('content');
	const from: Paper = JSON.parse(row.content);
	expect(draft).toMatchObject({ basedOn: null, content: { ...from, title: 'Numbers, evening' } });
	expect(await freezeDraft(house.otium, AUTHOR, BY, id, draft.revision)).toMatchObject({ version: 1 });
	const again = await makeDraft(house.otium, ALL, BY, asked).catch((error: ProblemError) => error.problem.code);
	expect(again).toBe('title_taken');
});
