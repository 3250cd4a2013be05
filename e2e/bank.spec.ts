import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { serious } from './axe';
import { choose, go, house } from './house';

const home = house();
const rows = (page: Page) => page.getByTestId('bank').locator('li');
const one = (page: Page) => page.getByTestId('one-question');
const search = (page: Page, text: string) => page.getByRole('searchbox', { name: 'Find questions' }).fill(text);

test('an author writes a question into the bank, a colleague remarks on it, both revise it at once', async ({
	browser
}) => {
	const page = await home.staff(browser, 'brandreth');
	await go(page, '/papers/bank');
	await expect(page.getByTestId('found')).toHaveText(/^\d\d+ questions$/);
	expect(await serious(page), 'the bank').toEqual([]);

	await page.keyboard.press('n');
	await expect(page.getByLabel('Question', { exact: true })).toBeFocused();
	await page.keyboard.type('A vessel aground by day shows in a vertical line');
	await page.keyboard.press('Enter');
	await page.keyboard.type('three black balls');
	await page.keyboard.press('Alt+Enter');
	await page.keyboard.press('Enter');
	await page.keyboard.type('two black cones');
	await one(page).getByLabel('Topic').fill('Lights and shapes / Aground');
	await page.getByTestId('about-question').click();
	await one(page).getByLabel('Difficulty').selectOption('easy');
	await page.getByTestId('save-question').click();
	await expect(one(page)).toContainText('Saved as revision 1.');
	await expect(page.getByTestId('topics')).toContainText('Aground');
	expect(await serious(page), 'one question').toEqual([]);

	await search(page, 'AGROUND cones vertical');
	await expect(rows(page)).toHaveCount(1);
	await expect(rows(page)).toContainText('in no paper');
	await expect(rows(page)).toContainText('easy');

	const other = await home.staff(browser);
	await go(other, '/papers/bank');
	await search(other, 'aground cones vertical');
	await expect(rows(other)).toHaveCount(1);
	await rows(other).getByRole('button').click();
	await other.getByLabel('Your remark').fill('A ball each, or three?');
	await other.getByTestId('remark').click();
	await expect(other.getByTestId('remarks')).toContainText('Maren Ode');
	await other.getByTestId('revise').click();
	await other.getByLabel('Points').fill('2');

	await page.getByTestId('revise').click();
	await page.getByLabel('Points').fill('3');
	await page.getByTestId('save-question').click();
	await expect(one(page)).toContainText('Saved as revision 2.');

	// The second is told, loses nothing, and sees what the other has saved.
	await other.getByTestId('save-question').click();
	await expect(one(other).getByRole('alert')).toContainText('Somebody else has saved revision 2.');
	await expect(other.getByLabel('Points')).toHaveValue('2');
	await other.getByTestId('save-question').click();
	await expect(one(other)).toContainText('Saved as revision 3.');
	await expect(one(other).getByText('Revisions (3)')).toBeVisible();
	// What is not saved is not lost by a press on another question.
	await other.getByTestId('revise').click();
	await other.getByLabel('Points').fill('9');
	await search(other, 'nautical mile metres');
	await rows(other).filter({ hasText: 'nautical mile' }).first().locator('[data-row]').click();
	await expect(other.getByRole('dialog')).toContainText('not saved');
	await other.getByTestId('cancel').click();
	await expect(other.getByLabel('Points')).toHaveValue('9');
	await other.getByLabel('Points').fill('2');
	await one(other).getByTestId('done').click();

	await other.getByRole('button', { name: 'Settle' }).click();
	await expect(other.getByRole('button', { name: 'Open again' })).toBeVisible();
});

test('many are changed at once, found by branch, and put into a paper that tells when the bank goes on', async ({
	browser
}) => {
	const page = await home.staff(browser, 'brandreth');
	await go(page, '/papers/bank');
	await search(page, 'neap tides range low water smaller');
	await expect(page.getByTestId('found')).toHaveText('1 question');
	await rows(page).getByRole('checkbox').check();
	await page.getByTestId('bulk').click();
	await page.getByLabel('What').selectOption('topic');
	await page.getByLabel('To', { exact: true }).fill('Tides / Ranges');
	await page.getByTestId('confirm').click();
	await expect(page.getByRole('dialog')).toBeHidden();
	await search(page, '');
	await page
		.getByTestId('topics')
		.getByRole('button', { name: /^Ranges/ })
		.click();
	await expect(page.getByTestId('found')).toHaveText('1 question');
	await rows(page).locator('[data-row]').click();
	await expect(page.getByTestId('papers-with')).toContainText('Tides and Currents, version');
	await page.getByTestId('into').selectOption({ label: 'Coastal Navigation I' });
	await page.getByTestId('put-into').click();
	await expect(one(page)).toContainText('Added at the end of part A of Coastal Navigation I.');

	// It goes on in the bank; the paper says so, and takes it with one press.
	await page.getByTestId('revise').click();
	await page.getByLabel('Points').fill('5');
	await page.getByTestId('save-question').click();
	await expect(one(page)).toContainText(/Saved as revision \d/);
	await go(page, '/papers');
	await page.getByTestId('papers').locator('li', { hasText: 'Coastal Navigation I' }).getByTestId('open-paper').click();
	await expect(page.getByTestId('newer')).toContainText('The bank has a newer revision.');
	await page.getByTestId('newer').getByRole('button', { name: 'Take it' }).click();
	await expect(page.getByTestId('newer')).toHaveCount(0);

	// What is written in a paper is found by others once it is kept in the bank.
	await expect(page.getByTestId('beside-bank')).toContainText(/\d questions are not in the bank/);
	await page.getByTestId('keep-in-bank').click();
	await expect(page.getByTestId('beside-bank')).toContainText('The bank has every question as it is here.');

	// The bank goes out as one file, and a file that comes in is told before anything is kept.
	await go(page, '/papers/bank');
	const coming = page.waitForEvent('download');
	await page.getByTestId('to-file').click();
	const path = await (await coming).path();
	await page.getByTestId('from-file').click();
	await page.getByLabel('File of questions').setInputFiles({
		name: 'bank.zip',
		mimeType: 'application/zip',
		buffer: await readFile(path)
	});
	await expect(page.getByTestId('bank-incoming')).toContainText(/\d{3} stay as they are/);
	await expect(page.getByTestId('take-bank-file')).toHaveText('Nothing to take');
	expect(await serious(page), 'questions from a file').toEqual([]);
});

test('a plan tells what is missing, and the bank fills it', async ({ browser }) => {
	const page = await home.staff(browser, 'brandreth');
	await go(page, '/papers');
	await page.keyboard.press('n');
	await page.getByLabel('Title').fill('A Mixed Paper');
	await page.keyboard.press('Enter');
	await page.waitForURL(/\/papers\/[^/]+$/);
	await go(page, page.url());
	await page.getByTestId('plan-open').click();
	const plan = page.getByTestId('plan-of-paper');
	for (const [count, topic] of [
		['3', 'Radio Procedure'],
		['2', 'Ship Stability'],
		['2', 'Cookery']
	]) {
		await plan.getByLabel('How many').fill(count);
		await plan.getByLabel('Topic, empty for any').fill(topic);
		await plan.getByTestId('add-cell').click();
	}
	await expect(plan.getByTestId('wanted')).toContainText('0 of 3');
	expect(await serious(page), 'a plan').toEqual([]);
	await plan.getByTestId('fill').click();
	await expect(plan.getByTestId('filling')).toContainText('The bank lacks 2 on Cookery.');
	await expect(plan.getByTestId('filling').locator('li')).toHaveCount(5);
	await plan.getByTestId('take-filling').click();
	await expect(page.getByTestId('questions').locator('> li')).toHaveCount(5);
	await expect(page.getByTestId('gets')).toContainText('3 of 3');
	await expect(page.getByTestId('gets')).toContainText('0 of 2');
	// The plan is kept with the paper.
	await expect(page.getByTestId('kept')).toHaveText(/^Saved/);
	await page.reload();
	await expect(page.getByTestId('gets').getByTestId('wanted')).toContainText('Cookery');
});

test('a paper is divided into forms that are as alike as can be', async ({ browser }) => {
	const page = await home.staff(browser, 'brandreth');
	await go(page, '/papers');
	await page.getByTestId('papers').locator('li', { hasText: 'Tides and Currents' }).getByTestId('open-paper').click();
	await page.waitForURL(/\/papers\/[^/]+$/);
	await page.getByTestId('forms-open').click();
	const dialog = page.getByTestId('parallel');
	await dialog.getByLabel('Questions in each').fill('40');
	await dialog.getByTestId('make-forms').click();
	await expect(dialog.getByRole('alert')).toContainText('2 forms of 40 take 80 questions, and this paper has 24.');
	await dialog.getByLabel('Questions in each').fill('12');
	await dialog.getByTestId('make-forms').click();
	const rows = dialog.getByTestId('made-forms').locator('tbody tr');
	await expect(rows).toHaveCount(2);
	const points = await rows.locator('td:nth-child(3)').allInnerTexts();
	expect(points[0]).toBe(points[1]);
	expect(await serious(page), 'forms').toEqual([]);
	await page.keyboard.press('Escape');
	await expect(page.getByRole('dialog')).toHaveCount(0);
	const gets = page.getByTestId('gets');
	await expect(gets).toContainText('12 of 24 questions');
	await expect(gets).toContainText('in each of 2 forms');
	// A question is taken out of its form by hand: the forms are not worth the same any more, and that is told.
	await page.getByTestId('form-letters').first().locator('[aria-pressed=true]').click();
	await expect(gets).toContainText('candidates could reach different scores');
	await expect(page.getByTestId('freeze')).toBeDisabled();
	await page.getByTestId('undo').click();
	await expect(gets).not.toContainText('candidates could reach different scores');
	await expect(page.getByTestId('kept')).toContainText('Saved');
	await page.getByTestId('freeze').click();
	await page.getByRole('button', { name: /^Freeze version/ }).click();
	await expect(page.getByTestId('frozen')).toBeVisible();
	// A coordinator reads which forms there are before saving.
	const coordinator = await home.staff(browser, 'ode');
	await go(coordinator, '/prepare/new');
	await choose(coordinator, 'paperId', 'Tides and Currents');
	await coordinator.locator('label', { hasText: 'Watch A' }).click();
	await choose(coordinator, 'roomId', 'Chart Room');
	await expect(coordinator.getByTestId('sentence')).toContainText('2 forms drawn');
});
