import { expect, test, type Page } from '@playwright/test';
import { QUESTION_KINDS, type Paper, type Question } from '../src/core/paper';
import { go, house } from './house';
import { sitsIn } from './sits';

const home = house({ at: '10:22' });
const { begun } = sitsIn(home);

const choices = ['north', 'south', 'none of these'].map((text, i) => ({ id: 'abc'[i], text }));
const BY_KIND: Record<Question['kind'], object> = {
	single: { choices, answer: 'a' },
	multiple: { choices, answer: ['a', 'b'], partial: true },
	true_false: { answer: true },
	numeric: { answer: 4.8, tolerance: { kind: 'absolute', amount: 0.1 }, unit: 'm' },
	calculated: {
		parameters: [{ name: 'high', from: 4, to: 6, step: 1 }],
		conditions: [],
		formula: 'high * 2',
		tolerance: { kind: 'absolute', amount: 0 },
		unit: ''
	},
	short: { accepted: ['six'] },
	fill_in: { gaps: [{ id: 'x', accepted: ['ebb'] }], partial: true },
	matching: { items: choices.slice(0, 2), matches: choices, answer: { a: 'a', b: 'b' }, partial: true },
	ordering: { choices, answer: ['a', 'b', 'c'], partial: true },
	essay: { words: { from: 20, to: 80 } },
	upload: { most: 2 }
};
const PAPER: Paper = {
	title: 'One of each kind',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: QUESTION_KINDS.map((kind, i) => ({
				id: `q${i}`,
				kind,
				stem: `**${kind}**: with {high} m and $h = 4.8$, what of [x]?`,
				points: 2,
				topic: 'Tides',
				...BY_KIND[kind]
			})) as Question[]
		}
	]
};

/** Every element of the question on the screen, whatever their order: tag, look and words, without names and numbers. */
const shapeOf = (page: Page, within: string) =>
	page
		.locator(`${within} [data-question]`)
		.first()
		.evaluate((box) =>
			[box, ...box.querySelectorAll('*')]
				// Where files are handed over the preview takes none.
				.filter((one) => !one.closest('[data-testid=upload]'))
				.map((one) => {
					const own = [...one.childNodes]
						.filter(({ nodeType }) => nodeType === 3)
						.map(({ textContent }) => textContent!.trim());
					return `${one.tagName} ${one.getAttribute('class') ?? ''} ${own.join('')}`.replace(/\d+/g, '#');
				})
				.sort()
		);

test('the preview shows each kind of question as the candidate’s page does', async ({ browser }) => {
	const { id } = await home.session('Lights and Shapes · Watch B');
	await home.read(async (db) => {
		const content = JSON.stringify(PAPER);
		await db('paper_draft').insert({ id: 'each', title: PAPER.title, content, changed_at: 0, changed_by: 'brandreth' });
		await db('paper').insert({ id: 'each1', title: PAPER.title, version: 1, content });
		await db('session').where({ id }).update({ paper_id: 'each1' });
		await db('sitting').where({ session_id: id }).whereNull('device_epoch').update({ paper_id: 'each1' });
	});
	const page = await home.browser(browser);
	const order = { questionsInOwnOrder: false, choicesInOwnOrder: false };
	await begun(page, 0, { order, lockdown: { level: 'open' }, tools: { hints: true, striking: true } });
	const author = await home.staff(browser, 'brandreth');
	await go(author, '/papers/each');
	await author.getByTestId('preview-one').click();
	for (const name of ['own order of questions', 'own order of choices']) await author.getByLabel(name).uncheck();
	for (const [i, kind] of QUESTION_KINDS.entries()) {
		await expect(page.locator('[data-question]')).toContainText(kind);
		await expect(author.getByTestId('preview-page')).toContainText(kind);
		// Formulas come by themselves.
		await expect(page.locator('[data-question] .katex')).toHaveCount(1);
		await expect(author.getByTestId('preview-page').locator('.katex')).toHaveCount(1);
		expect(await shapeOf(author, '[data-testid=preview-page]'), kind).toEqual(await shapeOf(page, 'main'));
		if (i === QUESTION_KINDS.length - 1) break;
		await page.getByRole('button', { name: 'Next' }).click();
		await author.getByTestId('preview-next').click();
	}
	await expect(page.getByTestId('upload')).toBeVisible();
});
