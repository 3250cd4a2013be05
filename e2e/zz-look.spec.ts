import { expect, test } from '@playwright/test';
import { go, house } from './house';
const home = house();
test('look', async ({ browser }) => {
	test.setTimeout(120_000);
	const author = await home.staff(browser, 'brandreth');
	await author.setViewportSize({ width: 1280, height: 800 });
	await go(author, '/papers');
	await author.getByTestId('papers').locator('li', { hasText: 'Watchkeeping, practical' }).getByTestId('open-paper').click();
	await expect(author.getByTestId('parts')).toBeVisible();
	await author.keyboard.press('q');
	await author.keyboard.type('The table gives the tides of the day. Which range is **not** a spring range, if $r = h_{high} - h_{low}$?');
	await author.keyboard.press('Shift+Enter');
	await author.getByRole('button', { name: 'Table', exact: true }).click();
	await author.keyboard.type('Port');
	for (const t of ['High', 'Low', 'Saltmarsh', '5.8 m', '0.6 m', 'Quayside', '4.1 m', '1.9 m']) { await author.keyboard.press('Tab'); await author.keyboard.type(t); }
	await author.waitForTimeout(900);
	await author.screenshot({ path: '/tmp/look-rich.png' });
	await author.getByTestId('question-edit').locator('ol input[type=text]').first().fill('Saltmarsh');
	await author.keyboard.press('Alt+Enter');
	await author.getByTestId('question-edit').locator('ol input[type=text]').nth(1).fill('Quayside');
	await author.keyboard.press('Escape');
	await author.waitForTimeout(500);
	await author.keyboard.press('v');
	await author.waitForTimeout(500);
	for (let i = 0; i < 5; i++) { if (await author.getByTestId('preview').getByText('The table gives').count()) break; await author.getByTestId('preview-next').click(); await author.waitForTimeout(200); }
	await author.screenshot({ path: '/tmp/look-rich-preview.png' });
});
