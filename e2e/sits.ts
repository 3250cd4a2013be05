import { expect, type Page } from '@playwright/test';
import type { Form } from '../src/core/paper';
import { SETTLING_MS } from '../src/core/shortcuts';
import type { Db } from '../src/lib/server/db';
import { loadSitting, OwnIds } from '../src/lib/server/sitting';
import { arrive, type House } from './house';

type Me = { id: string; number: string; family: string; given: string; sessionId: string };

/** Waits until a view that has just come takes keys. */
export const takesKeys = (page: Page) => page.waitForTimeout(1.1 * SETTLING_MS);

/** Candidates of the watched paper that opens at 10:30, each at work in a browser of their own. */
export function sitsIn(home: House) {
	/** The nth of its roster, let in and begun under changed rules; `asked` looks at "Is this you?". */
	async function begun(
		page: Page,
		nth: number,
		change: Record<string, unknown> = {},
		asked?: () => Promise<void>
	): Promise<Me> {
		const session = () => home.session('Lights and Shapes · Watch B');
		// The door opens by itself.
		await expect.poll(async () => (await session()).code).not.toBe('');
		const { id, code } = await session();
		const person = await home.read(async (db) => {
			const { rules } = await db('session').where({ id }).first('rules');
			const merged = JSON.parse(rules);
			for (const [part, values] of Object.entries(change)) merged[part] = { ...merged[part], ...(values as object) };
			merged.admission = 'automatic';
			merged.timing.clockStarts = 'candidate';
			await db('session')
				.where({ id })
				// As if its proctor had let work begin before 10:30.
				.update({ rules: JSON.stringify(merged), opened_early_at: await home.now() });
			const roster = db('sitting')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: id })
				.orderBy('number')
				.select('sitting.id', 'number', 'family', 'given');
			return (await roster)[nth];
		});
		await arrive(page, code, person.number, person.family, asked);
		await page.getByTestId('begin').click();
		await expect(page.locator('[data-question]').first()).toBeVisible();
		return { ...person, sessionId: id };
	}

	/** Moves the beginning of the work, so that so much is left now; less than nothing is time that has run out. */
	async function leave(page: Page, sittingId: string, leftMs: number) {
		await shorten(sittingId, leftMs);
		await page.reload();
	}

	/** The same while the page knows nothing of it, as without a line. */
	async function shorten(sittingId: string, leftMs: number) {
		// Until the first question has been told to be on the screen, the clock is taken to start a minute later.
		const waits = () => home.read((db) => db('sitting').where({ id: sittingId }).first('clock_waits'));
		await expect.poll(async () => Boolean((await waits())!.clock_waits)).toBe(false);
		const now = await home.now();
		await home.read(async (db) => {
			const { deadline } = (await loadSitting(db, sittingId, now))!.reckoning;
			const shift = now + leftMs - deadline!;
			await db('sitting')
				.where({ id: sittingId })
				.update({
					fold: db.raw(
						"json_set(fold, '$.beganAt', json_extract(fold, '$.beganAt') + ?, '$.clockStartedAt', json_extract(fold, '$.clockStartedAt') + ?)",
						[shift, shift]
					),
					deadline: db.raw('deadline + ?', [shift]),
					answers_until: db.raw('answers_until + ?', [shift]),
					due_at: db.raw('due_at + ?', [shift])
				});
		});
	}

	const dealt = async (db: Db, sittingId: string) => {
		const { questions } = JSON.parse((await db('form').where({ sitting_id: sittingId }).first('form')).form) as Form;
		return { questions, ids: new OwnIds(db, sittingId, questions) };
	};
	/** What the paper calls a question that the candidate's device knows by that name. */
	const questionIdOf = (db: Db, sittingId: string, name: string) =>
		dealt(db, sittingId).then(({ ids }) => ids.questionNamed(name));
	/** The questions as the candidate's device has them. */
	const formOf = (id: string) =>
		home.read(async (db) => {
			const { questions, ids } = await dealt(db, id);
			return questions.map((question) => ids.show(question));
		});
	const valueOf = (sittingId: string, name: string) =>
		home.read(async (db) => {
			const { ids } = await dealt(db, sittingId);
			const questionId = ids.questionNamed(name) ?? name;
			const row = await db('answer_standing').where({ sitting_id: sittingId, question_id: questionId }).first('value');
			return row ? ids.toDevice({ questionId, value: JSON.parse(row.value).value, struck: [] }).value : undefined;
		});
	const goTo = (page: Page, index: number) =>
		page.getByRole('button', { name: new RegExp(`^Question ${index + 1},`) }).click();

	return { begun, leave, shorten, formOf, valueOf, questionIdOf, goTo };
}
