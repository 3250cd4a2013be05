import { expect, test } from '@playwright/test';
import type { Paper, Question } from '../src/core/paper';
import { seedDemo } from '../src/lib/server/demo';
import { house } from './house';
import { sitsIn } from './sits';

const DERIVATIVE: Partial<Question> = {
	kind: 'single',
	stem: 'What is the derivative of $\\frac{x^3}{3}$?',
	choices: [
		{ id: 'fa', text: '$x^2$' },
		{ id: 'fb', text: '$\\sqrt{x}$' },
		{ id: 'fc', text: 'none of these' }
	],
	answer: 'fa'
};
const NUMBER: Partial<Question> = {
	kind: 'numeric',
	stem: 'What is the acceleration of free fall?',
	answer: 9.81,
	tolerance: { kind: 'absolute', amount: 0.01 }
};
const PAIRS: Partial<Question> = {
	kind: 'matching',
	stem: 'Which belongs to which?',
	items: [
		{ id: 'ia', text: '$2^2$' },
		{ id: 'ib', text: 'nine' }
	],
	matches: [
		{ id: 'ma', text: '$\\sqrt{16}$' },
		{ id: 'mb', text: '$3^2$' }
	],
	answer: { ia: 'ma', ib: 'mb' }
};

/** The demo day, with formulas in the first questions of the paper that opens at 10:30. */
const withFormulas: typeof seedDemo = async (otium, ...rest) => {
	await seedDemo(otium, ...rest);
	const row = await otium.db('paper').where('title', 'Lights and Shapes').orderBy('version', 'desc').first();
	const content: Paper = JSON.parse(row.content);
	for (const [at, change] of [DERIVATIVE, PAIRS, NUMBER].entries()) {
		const { id, topic, difficulty, points } = content.parts[0].questions[at];
		content.parts[0].questions[at] = { id, topic, difficulty, points, ...change } as Question;
	}
	await otium
		.db('paper')
		.where({ title: 'Lights and Shapes' })
		.update({ content: JSON.stringify(content) });
};
const home = house({ furnish: withFormulas, at: '10:22' });
const { begun, formOf, goTo } = sitsIn(home);

test('formulas are drawn by the server and heard in words, in names and where they can only be words', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const me = await begun(page, 0, { lockdown: { level: 'open' } });
	const form = await formOf(me.id);

	await goTo(
		page,
		form.findIndex(({ stem }) => stem.includes('derivative'))
	);
	const group = page.getByRole('group', { name: /What is the derivative of .*x cubed.*\?/ });
	await expect(group.locator('.katex')).toHaveCount(3);
	await expect(group.getByRole('radio', { name: /^x squared, key \d$/ })).toBeVisible();
	await group.getByRole('radio', { name: /^the square root of x, key \d$/ }).check();
	await expect(page.getByRole('button', { name: 'Strike out: x squared' })).toBeVisible();
	// For whoever explores a formula part by part it is there as MathML too.
	await expect(group.locator('math')).toHaveCount(3);

	await goTo(
		page,
		form.findIndex(({ kind }) => kind === 'matching')
	);
	await expect(page.getByTestId('drawn-matches').locator('.katex')).toHaveCount(2);
	const first = page.getByRole('combobox', { name: '2 squared' });
	await first.selectOption({ label: await first.locator('option', { hasText: 'the square root of 16' }).innerText() });
	await expect(first.locator('option:checked')).toHaveText(/^[AB]: the square root of 16$/);

	// What is drawn already needs no drawing here.
	await page.reload();
	await goTo(
		page,
		form.findIndex(({ stem }) => stem.includes('derivative'))
	);
	await expect(group.locator('.katex')).toHaveCount(3);
	const loaded = await page.evaluate(() => performance.getEntriesByType('resource').map(({ name }) => name));
	const scripts = loaded.filter((address) => address.endsWith('.js'));
	expect(scripts.length).toBeGreaterThan(5);
	for (const address of scripts) expect(await (await page.request.get(address)).text()).not.toContain('KaTeX parse');
});

test('a number is told as it was read; time and counts can be hidden, letters set apart', async ({ browser }) => {
	const page = await home.browser(browser);
	const me = await begun(page, 1, { lockdown: { level: 'open' } });
	const form = await formOf(me.id);
	await goTo(
		page,
		form.findIndex(({ kind }) => kind === 'numeric')
	);
	const field = page.getByRole('textbox', { name: /^Your answer/ });
	await field.fill('9,81 m/s^2');
	await expect(page.getByTestId('read-as')).toHaveText('Read as 9.81 m/s².');
	await expect(field).toHaveAccessibleDescription('Read as 9.81 m/s².');
	await field.fill('nine');
	await expect(page.getByTestId('read-as')).toHaveText('This can’t be read as a number yet.');
	await field.fill('9.81');
	await expect(page.getByTestId('read-as')).toHaveText('');

	await expect(page.getByTestId('time')).toBeVisible();
	await page.getByRole('button', { name: 'Display' }).click();
	await page.getByTestId('calm').click();
	await expect(page.getByTestId('time')).toHaveCount(0);
	await expect(page.getByTestId('open-map')).toHaveText('All questions');
	await page.getByRole('button', { name: 'far apart' }).click();
	await page.getByRole('button', { name: 'without serifs' }).click();
	const stem = page.locator('[data-question] legend .font-serif');
	expect(await stem.evaluate((one) => getComputedStyle(one).fontFamily)).toContain('Atkinson');
	expect(parseFloat(await stem.evaluate((one) => getComputedStyle(one).letterSpacing))).toBeGreaterThan(1);
	// It is this candidate's choice, also after a reload.
	await page.reload();
	await expect(page.getByTestId('open-map')).toHaveText('All questions');
	await expect(page.getByTestId('time')).toHaveCount(0);
});
