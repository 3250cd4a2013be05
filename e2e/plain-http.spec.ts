import { expect, test } from '@playwright/test';
import { go, house, arrive } from './house';

// Secure contexts (W3C): over plain HTTP a browser gives another machine's page no keys, workers, cameras or `randomUUID`.
const home = house();
const away = () => home.url.replace('localhost', 'exams.example');

test('from another machine over plain HTTP a candidate comes in, answers, is held and hands in, and the proctor sees it', async ({
	browser
}) => {
	const { id, code, number, family } = await home.makeWayFor('Tides and Currents · Watch A', 'DO-1020');
	const page = await home.browser(browser, { baseURL: away() });
	const troubles: string[] = [];
	page.on('pageerror', (error) => troubles.push(error.message));
	await page.goto('/sit');
	expect(await page.evaluate(() => isSecureContext)).toBe(false);
	await arrive(page, code, number, family);
	// A browser without keys is let in by a person, also where everybody else comes in by themselves.
	await expect(page.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
	const proctor = await home.browser(browser, { baseURL: away() });
	proctor.on('pageerror', (error) => troubles.push(error.message));
	await proctor.goto('/sign-in');
	await proctor.getByLabel('Name').fill('ode');
	await proctor.getByLabel('Password').fill('high-water-0510');
	await proctor.getByRole('button', { name: 'Sign in' }).click();
	await proctor.waitForURL((url) => url.pathname !== '/sign-in');
	await go(proctor, `/live/${id}`);
	await proctor.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' }).click();
	await proctor.keyboard.press('Enter');
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]')).toBeVisible();
	const answered = () =>
		home.read(async (db) =>
			db('answer')
				.join('sitting', 'sitting.id', 'answer.sitting_id')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: id, number })
				.orderBy('answer.seq', 'desc')
				.first('answer.value')
		);
	const before = await answered();
	await page.getByTestId('mark').click();
	await expect(page.getByTestId('saved')).toContainText(/Saved \d/);
	await expect.poll(answered).not.toEqual(before);

	await proctor.keyboard.press('h');
	await proctor.getByRole('dialog').getByLabel('Why').fill('Seen by the test');
	await proctor.getByTestId('confirm').click();
	await expect(page.getByRole('heading', { name: 'A pause' })).toBeVisible();
	await expect(proctor.getByRole('dialog')).toHaveCount(0);
	await expect(proctor.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' })).toContainText('On hold');
	await proctor.keyboard.press('r');
	await expect(page.locator('[data-question]')).toBeVisible();
	await page.getByTestId('hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await expect(page.getByTestId('receipt')).toBeVisible();
	// The other pages of a house's day come up as well.
	for (const path of ['/', '/prepare/new', '/papers', '/grants', '/close-out', '/logbook', '/you/sign-in']) {
		await go(proctor, path);
		await expect(proctor.getByRole('heading', { level: 1 }).first(), path).toBeVisible();
	}
	expect(troubles).toEqual([]);
});
