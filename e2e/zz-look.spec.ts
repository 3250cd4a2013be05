import { expect, test } from '@playwright/test';
import { go, house } from './house';
import { sitsIn } from './sits';
const home = house();
test.beforeAll(() => home.moveTo('10:22'));
const { begun } = sitsIn(home);
test('look', async ({ browser }) => {
	const page = await home.browser(browser);
	test.setTimeout(120_000);
	const author = await home.staff(browser, 'brandreth');
	await author.setViewportSize({ width: 1280, height: 800 });
	await go(author, '/papers');
	await author.getByTestId('papers').locator('li', { hasText: 'Watchkeeping, practical' }).getByTestId('open-paper').click();
	await expect(author.getByTestId('parts')).toBeVisible();
	await author.waitForTimeout(800);
	await author.screenshot({ path: '/tmp/look-paper.png' });
	await author.getByTestId('edit-A1').click();
	await author.waitForTimeout(500);
	await author.screenshot({ path: '/tmp/look-edit.png' });
	await author.keyboard.press('Escape');
	await author.getByTestId('freeze').click();
	await author.getByTestId('confirm').click();
	await expect(author.getByTestId('frozen')).toBeVisible();
	const { id } = await home.session('Lights and Shapes · Watch B');
	await home.read(async (db) => {
		const paper = await db('paper').where({ title: 'Watchkeeping, practical' }).orderBy('version', 'desc').first('id');
		await db('session').where({ id }).update({ paper_id: paper.id });
		await db('sitting').where({ session_id: id }).update({ paper_id: paper.id });
	});
	await page.setViewportSize({ width: 1280, height: 800 });
	await begun(page, 3);
	for (let i = 0; i < 5; i++) {
		await page.waitForTimeout(700);
		if (await page.getByTestId('by-phone').count()) { await page.getByTestId('by-phone').click(); await page.getByTestId('hand-code').waitFor(); await page.getByTestId('hand-code').scrollIntoViewIfNeeded(); }
		await page.screenshot({ path: `/tmp/look-sit-${i}.png` });
		if (i < 4) await page.getByRole('button', { name: 'Next' }).click();
	}
});
