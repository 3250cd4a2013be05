import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import type { Question } from '$core/paper';
import { findInBank, saveBankQuestion, writerOf } from '../bank';
import { keepMedium, readMedium } from '../media';
import { buildHouse, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import { bankFile, foreseeBankFile, takeBankFile } from '.';
import { runs } from '$core/testing/runs';

let [from, to]: House[] = [];
const BY = { role: 'coordinator', id: 'ode' } as const;
const AUTHOR = somebody('edda', 'author', 'quayside');
const OTHER = somebody('ilse', 'author', 'quayside');
const KEPT = { siteId: 'quayside', audience: 'site' as const };

beforeEach(async () => {
	[from, to] = [await buildHouse(), await buildHouse()];
	for (const { otium } of [from, to])
		for (const id of ['edda', 'ilse'])
			await otium.db('staff').insert({ id, name: id, sign_in: id, password_hash: '-' });
});
afterEach(async () => {
	await from.close();
	await to.close();
});

const question = (id: string, change: Partial<Question> = {}): Question =>
	({ id, kind: 'short', stem: `What is ${id}?`, points: 1, topic: 'Tides', accepted: ['6'], ...change }) as Question;
const keep = (house: House, one: Question, audience: 'site' | 'me' = 'site', who = AUTHOR) =>
	saveBankQuestion(house.otium, who, BY, { question: one, revision: null, siteId: 'quayside', audience, named: [] });
const contentsOf = async ({ otium }: House): Promise<Question[]> =>
	(await otium.db('question').orderBy('id').pluck('content')).map((text: string) => JSON.parse(text));
const problem = (work: Promise<unknown>) =>
	work.then(
		() => null,
		(error: { problem: { message: string } }) => error.problem.message
	);

describe('a bank as one file', () => {
	it('comes into another house as it was, pictures and shared texts with it; a second time nothing is left to take', async () => {
		const picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#446' } })
			.png()
			.toBuffer();
		const shown = await keepMedium(from.otium, picture, 'edda');
		await keep(from, question('a', { difficulty: 'hard', tags: ['chart'], seconds: 90, note: 'For authors.' }));
		await keep(from, question('b', { media: [{ ...shown, alt: 'a square' }], stimulus: { id: 's', text: 'Shared.' } }));
		await keep(from, question('c', { follows: 'b', stimulus: { id: 's', text: 'Shared.' } }));
		const bytes = await bankFile(from.otium, AUTHOR, {});
		expect(await foreseeBankFile(to.otium, AUTHOR, bytes)).toEqual({
			new: 3,
			changed: 0,
			same: 0,
			not_yours: 0,
			told: []
		});
		expect(await contentsOf(to)).toEqual([]);
		expect(await takeBankFile(to.otium, AUTHOR, BY, bytes, KEPT)).toEqual({ added: 3, changed: 0, told: [] });
		expect(await contentsOf(to)).toEqual(await contentsOf(from));
		expect(await readMedium(to.otium, shown.file)).not.toBeNull();
		expect(await foreseeBankFile(to.otium, AUTHOR, bytes)).toMatchObject({ new: 0, changed: 0, same: 3 });
		expect(await to.otium.db('logbook').where({ kind: 'bank_file_taken' }).count('* as n')).toEqual([{ n: 1 }]);
	});

	it('holds what the search finds; nothing of what its reader may not use is in it', async () => {
		await keep(from, question('a', { topic: 'Lights' }));
		await keep(from, question('b'));
		await keep(from, question('mine'), 'me', OTHER);
		const bytes = await bankFile(from.otium, AUTHOR, { topic: 'Tides' });
		await takeBankFile(to.otium, AUTHOR, BY, bytes, KEPT);
		expect((await contentsOf(to)).map(({ id }) => id)).toEqual(['b']);
		expect(await problem(bankFile(from.otium, AUTHOR, { text: 'nowhere' }))).toContain('no question to export');
	});

	it('changes what is theirs, and leaves what is somebody else’s as it is', async () => {
		for (const id of ['a', 'b', 'c']) await keep(from, question(id, { points: 5 }));
		await keep(to, question('a'));
		await keep(to, question('b'), 'me', OTHER);
		const bytes = await bankFile(from.otium, AUTHOR, {});
		expect(await foreseeBankFile(to.otium, AUTHOR, bytes)).toMatchObject({ new: 1, changed: 1, same: 0, not_yours: 1 });
		expect(await takeBankFile(to.otium, AUTHOR, BY, bytes, KEPT)).toMatchObject({ added: 1, changed: 1 });
		expect((await contentsOf(to)).map(({ id, points }) => [id, points])).toEqual([
			['a', 5],
			['b', 1],
			['c', 5]
		]);
		const { lines } = await findInBank(to.otium.db, writerOf(AUTHOR), {}, to.otium.now());
		expect(lines.map(({ id }) => id)).toEqual(['a', 'c']);
	});

	it('that is none is refused in words, and nothing is kept', async () => {
		expect(await problem(takeBankFile(to.otium, AUTHOR, BY, Buffer.from('no zip'), KEPT))).toContain('not a zip');
		expect(await contentsOf(to)).toEqual([]);
	});

	it('of a thousand is written and read', async () => {
		const many = runs(1_000);
		const rows = Array.from({ length: many }, (_, i) => question(`q${i}`, { points: 2 }));
		await from.otium.db.batchInsert(
			'question',
			rows.map((one) => ({
				id: one.id,
				site_id: 'quayside',
				audience: 'site',
				owner: 'edda',
				kind: one.kind,
				topic: one.topic,
				points: one.points,
				revision: 1,
				digest: 'x',
				content: JSON.stringify(one),
				said: '',
				languages: ',',
				changed_at: 0,
				changed_by: 'edda'
			})),
			50
		);
		const bytes = await bankFile(from.otium, AUTHOR, {});
		expect(await foreseeBankFile(to.otium, AUTHOR, bytes)).toMatchObject({ new: many, told: [] });
	}, 120_000);
});
