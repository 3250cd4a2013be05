import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Question } from '$core/paper';
import { ProblemError } from '$core/problem';
import { editDraft, freezeDraft, keepOfDraft, makeDraft } from '../paper';
import { buildHouse, NINE, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import {
	bankQuestion,
	bankTopics,
	besideBank,
	changeMany,
	findInBank,
	remark,
	saveBankQuestion,
	settleRemark,
	writerOf,
	type BankAsk,
	type BankChange
} from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	const { db } = house.otium;
	await db('site').insert({ id: 'lighthouse', name: 'Lighthouse Point', zone: 'Atlantic/Azores' });
	for (const id of ['edda', 'ilse', 'ben']) await db('staff').insert({ id, name: id, sign_in: id, password_hash: '-' });
});
afterEach(() => house.close());

const BY = { role: 'coordinator', id: 'ode' } as const;
const AUTHOR = somebody('edda', 'author', 'quayside');
const COLLEAGUE = somebody('ben', 'author', 'quayside');
const OTHER = somebody('ilse', 'author', 'lighthouse');
const ALL = somebody('ode', 'coordinator', null);

const question = (id: string, change: Partial<Question> = {}): Question =>
	({ id, kind: 'short', stem: `What is ${id}?`, points: 1, topic: 'Tides', accepted: ['6'], ...change }) as Question;
const keep = (one: Question, change: Partial<BankChange> = {}, who = AUTHOR) =>
	saveBankQuestion(house.otium, who, BY, {
		question: one,
		revision: null,
		siteId: 'quayside',
		audience: 'site',
		named: [],
		...change
	});
const find = async (ask: BankAsk = {}, who = AUTHOR) =>
	(await findInBank(house.otium.db, writerOf(who), ask, NINE)).lines.map(({ id }) => id);
const read = (id: string, who = AUTHOR) => bankQuestion(house.otium.db, who, id, NINE);
const code = (work: Promise<unknown>) =>
	work.then(
		() => 'done',
		(error: unknown) => (error instanceof ProblemError ? error.problem.code : String(error))
	);

describe('the bank', () => {
	it('finds by words in any order, case and accents apart, by branch, kind, difficulty, language and remarks', async () => {
		await keep(question('range', { stem: 'Qual é a amplitude da maré?', topic: 'Tides / Heights' }));
		await keep(question('set', { stem: 'Set and drift', topic: 'Tides', difficulty: 'hard', tags: ['chart'] }));
		await keep(question('buoy', { stem: 'A cardinal mark', topic: 'Tides and buoys', inOther: { pt: { stem: 'x' } } }));
		expect(await find({ text: 'MARE amplitude' })).toEqual(['range']);
		expect(await find({ text: 'chart' })).toEqual(['set']);
		expect(await find({ text: '100%' })).toEqual([]);
		expect(await find({ topic: 'Tides' })).toEqual(['set', 'range']);
		expect(await find({ topic: 'Tides / Heights' })).toEqual(['range']);
		expect(await find({ difficulty: 'hard' })).toEqual(['set']);
		expect(await find({ difficulty: 'none' })).toEqual(['range', 'buoy']);
		expect(await find({ language: 'pt' })).toEqual(['buoy']);
		expect(await find({ kind: 'essay' })).toEqual([]);
		await remark(house.otium, COLLEAGUE, 'set', 'Which chart?');
		expect(await find({ remarks: 'open' })).toEqual(['set']);
		const [{ id }] = (await read('set')).remarks;
		await settleRemark(house.otium, AUTHOR, 'set', id, true);
		expect(await find({ remarks: 'open' })).toEqual([]);
		expect((await bankTopics(house.otium.db, writerOf(AUTHOR))).map(({ path, count }) => [path, count])).toEqual([
			['Tides', 2],
			['Tides / Heights', 1],
			['Tides and buoys', 1]
		]);
	});

	it('keeps every revision; two who revise at once are told', async () => {
		await keep(question('a'));
		await keep(question('a', { points: 2 }), { revision: 1 });
		expect(await code(keep(question('a', { points: 3 }), { revision: 1 }, COLLEAGUE))).toBe('paper_changed');
		expect(await code(keep(question('a')))).toBe('paper_changed');
		const { revision, revisions } = await read('a');
		expect([revision, revisions.map((one) => one.question.points)]).toEqual([2, [2, 1]]);
		// Who may use it changes without a revision.
		expect(await keep(question('a', { points: 2 }), { revision: 2, audience: 'all' })).toEqual({ revision: 2 });
	});

	it('shows a question to those whom its owner means, and to nobody else', async () => {
		await keep(question('mine'), { audience: 'me' });
		await keep(question('ours'));
		await keep(question('everyones'), { audience: 'all' });
		await keep(question('named'), { audience: 'named', named: ['ilse', 'nobody'] });
		expect((await find()).sort()).toEqual(['everyones', 'mine', 'named', 'ours']);
		expect(await find({}, COLLEAGUE)).toEqual(['everyones', 'ours']);
		expect(await find({}, OTHER)).toEqual(['everyones', 'named']);
		expect(await find({}, ALL)).toEqual(['everyones', 'ours']);
		for (const id of ['mine', 'ours']) {
			expect(await code(read(id, OTHER))).toBe('not_found');
			expect(await code(remark(house.otium, OTHER, id, 'x'))).toBe('not_found');
			expect(await code(keep(question(id, { points: 9 }), { revision: 1, siteId: 'lighthouse' }, OTHER))).toBe(
				'not_found'
			);
		}
		// To be used is not to be changed.
		expect(await code(keep(question('named', { points: 9 }), { revision: 1, siteId: 'lighthouse' }, OTHER))).toBe(
			'not_yours'
		);
		expect(await code(keep(question('x'), { siteId: 'lighthouse' }))).toBe('not_yours');
		expect(await code(keep(question('x'), { siteId: null }))).toBe('not_yours');
	});

	it('changes many at once, each with a revision, and leaves what belongs to others', async () => {
		await keep(question('a'));
		await keep(question('b'), { audience: 'all' });
		const change = { points: 3, topic: 'Tides / Heights', difficulty: 'easy' } as const;
		const changed = await changeMany(house.otium, COLLEAGUE, BY, ['a', 'b', 'a', 'gone'], change);
		expect(changed).toEqual({ changed: 2, notYours: 1 });
		expect((await read('a')).question).toMatchObject(change);
		expect((await read('a')).revision).toBe(2);
		expect(await changeMany(house.otium, OTHER, BY, ['b'], { points: 5 })).toEqual({ changed: 0, notYours: 1 });
		await changeMany(house.otium, AUTHOR, BY, ['b'], { retired: true, difficulty: 'none' });
		expect(await find()).toEqual(['a']);
		expect(await find({ retired: true })).toEqual(['b']);
		expect((await read('b')).question.difficulty).toBeUndefined();
	});

	it('names those that ask nearly the same', async () => {
		await keep(question('a', { stem: 'What is the range of the tide at Quayside?' }));
		await keep(question('b', { stem: 'What is the range of the tide at Quayside, please?' }));
		await keep(question('c', { stem: 'What is the height of the lamp at Quayside?' }));
		await keep(
			question('hidden', { stem: 'What is the range of the tide at Quayside?' }),
			{ audience: 'me' },
			COLLEAGUE
		);
		expect((await read('a')).alike.map(({ id }) => id)).toEqual(['b']);
	});
});

describe('papers and the bank', () => {
	const write = async (questions: Question[], who = AUTHOR, siteId = 'quayside', title = 'Soundings') => {
		const id = await makeDraft(house.otium, who, BY, { title, siteId, from: null });
		let revision = 1;
		for (const after of questions)
			({
				draft: { revision }
			} = await editDraft(house.otium, who, id, { kind: 'question', before: null, after, at: { part: 0, index: 9 } }));
		return { id, freeze: () => freezeDraft(house.otium, who, BY, id, revision) };
	};

	it('what is frozen is in the bank, with the paper that has it; what is written only when it is kept', async () => {
		const { id, freeze } = await write([question('a'), question('b')]);
		expect(await find()).toEqual([]);
		expect(await keepOfDraft(house.otium, AUTHOR, BY, id, ['b', 'nowhere'])).toMatchObject({ added: 1, changed: 0 });
		expect(await find()).toEqual(['b']);
		expect(await find({ use: 'never' })).toEqual(['b']);
		await freeze();
		expect(await find({ use: 'used' })).toEqual(['a', 'b']);
		expect((await read('b')).papers).toMatchObject([{ title: 'Soundings', version: 1, sessions: 0, lastOpened: null }]);
	});

	it('a paper that lags behind the bank changes nothing there, and is told of the newer revision', async () => {
		const { freeze } = await write([question('a')]);
		await freeze();
		await keep(question('a', { points: 4 }), { revision: 1 });
		expect(await besideBank(house.otium.db, AUTHOR, [question('a')])).toEqual({
			known: ['a'],
			newer: [question('a', { points: 4 })]
		});
		// What the author of the paper has changed since is neither old nor known.
		expect(await besideBank(house.otium.db, AUTHOR, [question('a', { points: 5 })])).toEqual({ known: [], newer: [] });
		await freeze();
		expect((await read('a')).question.points).toBe(4);
	});

	it('a question that another site lets all use is told where it is used, and stays as it is', async () => {
		await keep(question('a'), { audience: 'all' });
		const { freeze } = await write([question('a', { points: 7 })], OTHER, 'lighthouse', 'Elsewhere');
		await freeze();
		const { question: kept, revision, papers } = await read('a');
		expect([kept.points, revision, papers.map(({ title }) => title)]).toEqual([1, 1, ['Elsewhere']]);
	});

	it('a paper of another site cannot reach into the bank by taking the id of a question there', async () => {
		await keep(question('a'));
		const { freeze } = await write([question('a', { stem: 'Overwritten?' })], OTHER, 'lighthouse', 'Elsewhere');
		await freeze();
		const { question: kept, revision, papers } = await read('a');
		expect([kept.stem, revision, papers]).toEqual(['What is a?', 1, []]);
		expect(await find({}, OTHER)).toEqual([]);
	});
});
