import { expect, test, type Page } from '@playwright/test';
import { go, house } from './house';

const home = house({ made: '14:12' });

/** Times that only a clock of 24 hours shows, told by their leading zero or by an hour after noon. */
const of24 = async (page: Page) =>
	(await page.locator('body').innerText()).match(/(?<![\d:.])(0\d|1[3-9]|2[0-3]):[0-5]\d\b(?!:)/g) ?? [];

test('a house that reads twelve hours shows them everywhere, and takes what is typed either way', async ({
	browser
}) => {
	await home.kill();
	process.env.OTIUM_HOURS = '12';
	try {
		await home.start();
	} finally {
		delete process.env.OTIUM_HOURS;
	}
	const staff = await home.staff(browser);
	const { id } = await home.session('Lights and Shapes · Watch B');
	// Not the logbook: the sentences that it has recorded stay as they were written.
	for (const path of [
		'/',
		'/live',
		`/live/${id}`,
		'/prepare',
		'/prepare/ready',
		'/grants',
		'/papers',
		'/papers/bank'
	]) {
		await go(staff, path);
		await expect(staff.locator('main, h1').first()).toBeVisible();
		expect(await of24(staff), path).toEqual([]);
	}
	await go(staff, '/prepare');
	await expect(staff.locator('body')).toContainText(/\d:\d\d\u00a0[ap]m/);

	await go(staff, '/prepare/new');
	await staff.locator('#time').fill('16:05');
	await staff.locator('#time').blur();
	await expect(staff.locator('#time')).toHaveValue('4:05\u00a0pm');
	await staff.locator('#time').fill('9.30 am');
	await staff.locator('#time').blur();
	await expect(staff.locator('#time')).toHaveValue('9:30\u00a0am');
	await staff.getByRole('button', { name: 'Pick a time' }).first().click();
	await expect(staff.getByRole('menuitem', { name: '12:15\u00a0pm' })).toBeVisible();
});
