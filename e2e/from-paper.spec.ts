import { expect, test } from '@playwright/test';
import { printedDeal, typedFrom } from '../src/core/paper';
import { seedWithAutumn } from '../src/lib/server/demo';
import { paperVersion } from '../src/lib/server/records';
import { serious } from './axe';
import { go, house } from './house';

const home = house({ made: '10:22', furnish: seedWithAutumn });

test('what an absent candidate wrote on paper is typed in by its letters, and they are handed in', async ({
	browser
}) => {
	const page = await home.staff(browser, 'ode');
	const { id } = await home.session('Marks and Signals · Watch A');
	await go(page, `/close-out/${id}`);
	await page
		.getByRole('row', { name: /Sanna Weir/ })
		.getByRole('link', { name: 'Written on paper' })
		.click();
	await expect(page.getByText('makes them handed in')).toBeVisible();
	await page.getByLabel('Number of the printed form').fill('12');
	await page.getByTestId('show-form').click();
	await page.waitForURL(/form=12/);
	expect(await serious(page)).toEqual([]);
	const { questions } = await home.read(async (db) => {
		const { paper_id } = await db('session').where({ id }).first('paper_id');
		return printedDeal((await paperVersion(db, paper_id)).content, 12);
	});
	const fields = page.locator('[data-typed]');
	await fields.first().focus();
	for (const [i, question] of questions.entries()) {
		const some =
			question.kind === 'true_false'
				? 'T'
				: question.choices
					? typedFrom(question, question.kind === 'single' ? question.choices[1].id : [question.choices[0].id])
					: question.items
						? '1 A'
						: 'seven';
		await page.keyboard.type(some);
		if (question.kind === 'essay') break;
		if (i < questions.length - 1) await page.keyboard.press('Enter');
	}
	// What can't be read is told where it stands.
	await fields.first().fill('Z');
	await expect(page.getByTestId('line-1').getByRole('alert')).toBeVisible();
	await expect(page.getByTestId('save-typed')).toBeDisabled();
	await fields.first().fill(questions[0].kind === 'true_false' ? 'F' : 'A');
	// Nothing that was typed goes by a slip of the hand.
	await page.getByRole('link', { name: 'Marks and Signals · Watch A' }).click();
	await expect(page.getByRole('dialog')).toContainText('answers of Sanna Weir are typed in and not kept yet');
	await page.getByTestId('cancel').click();
	await expect(page.getByRole('dialog')).toHaveCount(0);
	await page.getByLabel('Why it was written on paper').fill('The power failed at 16:40');
	await page.getByTestId('save-typed').click();
	await expect(page.getByRole('dialog')).toContainText('Sanna Weir (DO-1019), by printed form 12');
	await page.getByTestId('confirm').click();
	await expect(page.getByText('answers are kept.')).toBeVisible();
	await expect(page.getByText('Handed in. What is typed in here counts')).toBeVisible();
	await go(page, `/close-out/${id}`);
	await expect(page.getByTestId('ledger')).toContainText('29 expected: it adds up');
	await expect(page.getByRole('row', { name: /Sanna Weir/ })).toContainText('Handed in');
});
