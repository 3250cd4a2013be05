import { expect, test, type Page } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();

/** Takes a candidate off the simulated device, under changed rules, and gives what is wanted. */
async function candidate(number: string, change: Record<string, unknown> = {}, grants: Record<string, unknown>[] = []) {
	const person = await home.makeWayFor('Tides and Currents · Watch A', number);
	await home.read(async (db) => {
		const row = await db('session').where({ id: person.id }).first('rules');
		const rules = JSON.parse(row.rules);
		for (const [part, values] of Object.entries(change)) rules[part] = { ...rules[part], ...(values as object) };
		await db('session')
			.where({ id: person.id })
			.update({ rules: JSON.stringify(rules) });
		const { id } = await db('candidate').where({ number }).first('id');
		const staff = await db('staff').first('id');
		for (const body of grants)
			await db('grant_given').insert({
				id: `${number} ${body.kind}`,
				candidate_id: id,
				scope_kind: 'standing',
				kind: body.kind,
				body: JSON.stringify(body),
				reason: 'agreed',
				given_by: staff.id,
				given_at: 0
			});
	});
	return person;
}
const signIn = (page: Page, { code, number, family }: { code: string; number: string; family: string }) =>
	arrive(page, code, number, family);

test('a device is looked over before anybody begins, where the rule sheet needs it', async ({ browser }) => {
	const page = await home.browser(browser);
	await signIn(page, await candidate('DO-1020', { door: { checklist: 'needed' } }));
	const begin = page.getByTestId('begin');
	await expect(begin).toBeDisabled();
	await expect(page.getByRole('region', { name: 'This device' })).toContainText('Keeping answers: answers are kept');
	await page.getByRole('button', { name: 'Play a tone' }).click();
	await page.getByRole('button', { name: 'I heard nothing' }).click();
	await expect(page.getByText('Something is not right yet')).toBeVisible();
	await expect(begin).toBeDisabled();
	await page.getByRole('button', { name: 'Play a tone' }).click();
	await page.getByTestId('heard').click();
	await expect(page.getByRole('region', { name: 'This device' })).toContainText('Other accounts: sign out of them');
	await expect(begin).toBeDisabled();
	await page.getByLabel('I am signed out of my own accounts').check();
	await page.getByRole('button', { name: 'Play a tone' }).click();
	await page.getByTestId('heard').click();
	await expect(begin).toBeEnabled();
	await begin.click();
	await expect(page.locator('[data-question]')).toBeVisible();
	const checks = await home.read((db) =>
		db('device_check').join('candidate', 'candidate.id', 'candidate_id').where({ number: 'DO-1020' }).pluck('ready')
	);
	expect(checks.map(Number).sort()).toEqual([0, 0, 1]);
});

test('a granted break stops the clock and the candidate comes back from it; granted sizes and colours are there at first', async ({
	browser
}) => {
	const page = await home.browser(browser);
	await signIn(
		page,
		await candidate('DO-1013', {}, [
			{ kind: 'breaks', count: 1, minutes: 10 },
			{ kind: 'display', magnification: 1.5, contrast: true }
		])
	);
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]')).toBeVisible();
	expect(await page.locator('main').evaluate((main) => getComputedStyle(main).fontSize)).toBe('24px');
	expect(await page.locator('main').evaluate((main) => getComputedStyle(main).color)).toBe('rgb(0, 0, 0)');

	await page.getByTestId('break').click();
	await expect(page.getByTestId('break')).toContainText('10 minutes, with the clock stopped');
	await page.getByTestId('break').click();
	await expect(page.getByRole('heading', { name: 'Your break' })).toBeVisible();
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${(await home.session('Tides and Currents · Watch A')).id}`);
	await expect(proctor.getByTestId('tally')).toContainText('On hold');
	await page.getByTestId('end-break').click();
	await expect(page.locator('[data-question]')).toBeVisible();
	await expect(page.getByTestId('break')).toHaveCount(0);
});

test('what may be seen afterwards is seen, and no more', async ({ browser }) => {
	const page = await home.browser(browser);
	await signIn(
		page,
		await candidate('DO-1009', {
			review: { shows: 'score', when: 'at_once' },
			result: {
				passPercent: 99,
				bands: [
					{ fromPercent: 0, name: 'Adrift', message: 'Sit it again.' },
					{ fromPercent: 99, name: 'Afloat', message: '' }
				]
			}
		})
	);
	await sitBlank(page);
	await page.getByTestId('review').click();
	await expect(page.getByTestId('score')).toHaveText(/^\d+ of \d+ points: not passed$/);
	await expect(page.getByTestId('band')).toHaveText('Adrift. Sit it again.');
	await expect(page.getByText('Right:')).toHaveCount(0);
});

test('what is watched while it is sat is watched while it is looked back at, where the rules say so', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const person = await candidate('DO-1010', {
		review: { shows: 'score', when: 'at_once' },
		lockdown: { level: 'watched', alsoForReview: true, onLeaving: 'warn' }
	});
	await signIn(page, person);
	await sitBlank(page);
	await page.evaluate(() => document.exitFullscreen().catch(() => {}));
	await expect(page.getByTestId('review')).toHaveCount(0);
	// A browser that is just leaving the full screen does not take it again at once: the button stays for another press.
	await expect(async () => {
		if (await page.getByTestId('review-full').count()) await page.getByTestId('review-full').click();
		await expect(page.getByTestId('review')).toBeVisible({ timeout: 1_000 });
	}).toPass({ timeout: 60_000 });
	await page.getByTestId('review').click();
	await expect(page.getByTestId('score')).toBeVisible();
	expect(await page.evaluate(() => document.fullscreenElement !== null)).toBe(true);
	const copied = await page.evaluate(() => document.dispatchEvent(new ClipboardEvent('copy', { cancelable: true })));
	expect(copied).toBe(false);
	// Out of the full screen, nothing is shown any more.
	await page.evaluate(() => document.exitFullscreen());
	await expect(page.getByTestId('score')).toHaveCount(0);
});

/** Begins and hands in with every question blank. */
async function sitBlank(page: Page) {
	await page.getByTestId('begin').click();
	await page.getByTestId('hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await expect(page.getByTestId('receipt')).toBeVisible();
}
