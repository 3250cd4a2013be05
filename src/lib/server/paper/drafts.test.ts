import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import type { Question } from '$core/paper';
import { ProblemError } from '$core/problem';
import { planSession } from '../session';
import { buildHouse, makeUpInput, NINE, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import { draftFor, editDraft, EditSchema, freezeDraft, listPapers, makeDraft, paperVersion } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	await house.otium.db('site').insert({ id: 'lighthouse', name: 'Lighthouse Point', zone: 'Atlantic/Azores' });
});
afterEach(() => house.close());

const BY = { role: 'coordinator', id: 'ode' } as const;
const AUTHOR = somebody('edda', 'author', 'quayside');
const OTHER = somebody('ilse', 'author', 'lighthouse');
const ALL = somebody('ode', 'coordinator', null);
const question = (id: string, stem = 'How deep is the water?'): Question => ({
	id,
	kind: 'numeric',
	stem,
	points: 1,
	topic: 'Tides',
	answer: 6,
	tolerance: { kind: 'absolute', amount: 0 },
	unit: 'm'
});
const begin = (title = 'Soundings', who = AUTHOR, siteId: string | null = 'quayside') =>
	makeDraft(house.otium, who, BY, { title, siteId, from: null });
const add = (id: string, one: Question, who = AUTHOR) =>
	editDraft(house.otium, who, id, { kind: 'question', before: null, after: one, at: { part: 0, index: 99 } });
const code = (work: Promise<unknown>) =>
	work.then(
		() => 'done',
		(error: unknown) => (error instanceof ProblemError ? error.problem.code : String(error))
	);
const titles = async (who: StaffMember) => (await listPapers(house.otium.db, who)).map(({ title }) => title);

describe('a paper that is written', () => {
	it('from nothing to a version that may be sat at its site, and on to the next', async () => {
		const id = await begin();
		await add(id, question('a'));
		const { draft } = await add(id, question('b'));
		const first = await freezeDraft(house.otium, AUTHOR, BY, id, draft.revision);
		expect(first.version).toBe(1);
		expect((await paperVersion(house.otium.db, first.id)).questions).toBe(2);
		expect(await house.otium.db('paper_allowed').where({ paper_id: first.id })).toMatchObject([
			{ site_id: 'quayside', group_id: null }
		]);
		const before = question('a');
		const after = question('a', 'How deep is it?');
		const next = await editDraft(house.otium, AUTHOR, id, {
			kind: 'question',
			before,
			after,
			at: { part: 0, index: 0 }
		});
		const second = await freezeDraft(house.otium, AUTHOR, BY, id, next.draft.revision);
		expect(second.version).toBe(2);
		// The first is as it was, and its digest is that of its text (SHA-256, 64 hexadecimal digits).
		const row = await house.otium.db('paper').where({ id: first.id }).first();
		expect(JSON.parse(row.content).parts[0].questions[0].stem).toBe('How deep is the water?');
		expect(row.sha256).toMatch(/^[0-9a-f]{64}$/);
		expect(await house.otium.db('paper_allowed').where({ paper_id: second.id })).toHaveLength(1);
		expect((await listPapers(house.otium.db, AUTHOR))[0]).toMatchObject({
			title: 'Soundings',
			versions: [{ version: 2 }, { version: 1, questions: 2 }],
			draft: { id, questions: 2, site: 'Quayside' }
		});
	});

	it('by two at once: different questions are both kept, the same one is told with theirs', async () => {
		const id = await begin();
		await add(id, question('a'));
		await add(id, question('b'));
		const change = (name: string, stem: string, who = AUTHOR) =>
			editDraft(house.otium, who, id, {
				kind: 'question',
				before: question(name),
				after: question(name, stem),
				at: { part: 0, index: 0 }
			});
		const [mine, theirs] = await Promise.all([change('a', 'Mine'), change('b', 'Theirs', ALL)]);
		expect([mine.edited.outcome, theirs.edited.outcome]).toEqual(['done', 'done']);
		const late = await change('a', 'Late', ALL);
		expect(late.edited).toEqual({ outcome: 'changed_since', theirs: question('a', 'Mine') });
		const { content } = await draftFor(house.otium.db, AUTHOR, id);
		expect(content.parts[0].questions.map(({ stem }) => stem)).toEqual(['Mine', 'Theirs']);
	});

	it('is frozen only as it was read, and only if it can be sat', async () => {
		const id = await begin();
		expect(await code(freezeDraft(house.otium, AUTHOR, BY, id, 1))).toBe('paper_not_ready');
		const { draft } = await add(id, question('a'));
		await add(id, question('b'), ALL);
		expect(await code(freezeDraft(house.otium, AUTHOR, BY, id, draft.revision))).toBe('paper_changed');
		const broken = await add(id, { id: 'c', kind: 'short', stem: 'Port?', points: 1, topic: '', accepted: [] });
		expect(await code(freezeDraft(house.otium, AUTHOR, BY, id, broken.draft.revision))).toBe('paper_not_ready');
	});

	it('belongs to its site: whoever writes at another sees neither it nor its versions', async () => {
		const id = await begin();
		const { draft } = await add(id, question('a'));
		const { id: version } = await freezeDraft(house.otium, AUTHOR, BY, id, draft.revision);
		expect(await titles(AUTHOR)).toEqual(['Soundings']);
		expect(await titles(OTHER)).toEqual([]);
		expect(await titles(ALL)).toContain('Soundings');
		expect(await code(draftFor(house.otium.db, OTHER, id))).toBe('not_yours');
		expect(await code(add(id, question('x'), OTHER))).toBe('not_yours');
		expect(await code(freezeDraft(house.otium, OTHER, BY, id, draft.revision))).toBe('not_yours');
		const copy = { title: 'x', siteId: 'lighthouse', from: version };
		expect(await code(makeDraft(house.otium, OTHER, BY, copy))).toBe('not_found');
		expect(await code(begin('Mine', OTHER, 'quayside'))).toBe('not_yours');
		expect(await code(begin('For all', AUTHOR, null))).toBe('not_yours');
	});

	it('has a title of its own', async () => {
		await begin();
		expect(await code(begin())).toBe('title_taken');
		const second = await begin('Other');
		const about = { kind: 'about', before: { title: 'Other' }, after: { title: 'Soundings' } } as const;
		expect(await code(editDraft(house.otium, AUTHOR, second, about))).toBe('title_taken');
		const [old] = await house.otium.db('paper').select('title');
		expect(await code(begin(old.title))).toBe('title_taken');
	});

	it('that is frozen anew is told to whoever plans a session with the version before, and one press takes it', async () => {
		const [old] = await house.otium.db('paper').select('id', 'title');
		const id = await makeDraft(house.otium, ALL, BY, { title: '', siteId: null, from: old.id });
		const later = await freezeDraft(house.otium, ALL, BY, id, 1);
		const input = makeUpInput({ paperId: old.id, kind: 'live' });
		const toldFor = async (paperId: string) => {
			const planned = await planSession(house.otium.db, 'winter', { ...input, paperId }, NINE);
			return planned.ok ? planned.plan.findings.find(({ code }) => code === 'newer_version') : 'not planned';
		};
		expect(await toldFor(old.id)).toMatchObject({ level: 'warn', fixes: [{ set: { paperId: later.id } }] });
		expect(await toldFor(later.id)).toBeUndefined();
	});

	it('goes on from a version that was there before, once', async () => {
		const [old] = await house.otium.db('paper').select('id', 'title');
		const asked = { title: 'whatever', siteId: null, from: old.id };
		const id = await makeDraft(house.otium, ALL, BY, asked);
		expect(await makeDraft(house.otium, ALL, BY, asked)).toBe(id);
		const draft = await draftFor(house.otium.db, ALL, id);
		expect(draft).toMatchObject({ title: old.title, basedOn: { id: old.id } });
		// Called otherwise, and as before again.
		const { script, formulaSheet, language } = draft.content;
		const called = (title: string) => ({ title, script, formulaSheet, language });
		for (const [was, is] of [
			[old.title, 'Figures'],
			['Figures', old.title]
		]) {
			const edit = { kind: 'about', before: called(was), after: called(is) } as const;
			expect((await editDraft(house.otium, ALL, id, edit)).edited.outcome).toBe('done');
		}
	});

	it('takes a change in bounds alone', () => {
		const sized = (stem: string, choices: number) =>
			EditSchema.safeParse({
				kind: 'question',
				before: null,
				at: { part: 0, index: 0 },
				after: {
					id: 'a',
					kind: 'single',
					stem,
					points: 1,
					topic: '',
					answer: '',
					choices: Array.from({ length: choices }, (_, i) => ({ id: `c${i}`, text: 'x' }))
				}
			}).success;
		expect([sized('x'.repeat(20_000), 200), sized('x'.repeat(20_001), 2), sized('x', 201)]).toEqual([
			true,
			false,
			false
		]);
	});
});
