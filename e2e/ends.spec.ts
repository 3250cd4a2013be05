import { expect, test } from '@playwright/test';
import { actsIn, WATCH_A } from './acts';
import { arrive, go, house } from './house';

const home = house();
const { room, standing, list, one, onOneOnSomeOnAll } = actsIn(home);

test('set aside, restore, hand in, reopen and carry over, on one, on a selection, on all of a state', async ({
	browser
}) => {
	const page = await room(browser);
	await onOneOnSomeOnAll(page, { button: 'Set aside', from: ['working', 'Working'], to: 'set_aside', asks: true });
	await onOneOnSomeOnAll(page, { button: 'Restore', from: ['set_aside', 'Set aside'], to: 'working', asks: false });
	await onOneOnSomeOnAll(page, { key: 'f', from: ['working', 'Working'], to: 'handed_in', asks: true });
	await onOneOnSomeOnAll(page, { key: 'o', from: ['handed_in', 'Handed in'], to: 'let_in', asks: true });
	await onOneOnSomeOnAll(page, { button: 'Carry over', from: ['let_in', 'Let in'], to: 'carried_over', asks: true });
	expect((await standing()).carried_over).toBeGreaterThanOrEqual(24);
	const kept = await home.read((db) => db('answer_standing').count('* as n').first());
	expect(Number(kept!.n)).toBeGreaterThan(200);
});

test('a preview tells who is not touched, and why', async ({ browser }) => {
	const page = await room(browser);
	for (const name of ['Tobias Rook', 'Greta Vance']) await list(page).getByLabel(`Select ${name}`).check();
	await page.keyboard.press('a');
	await expect(page.getByRole('dialog')).toContainText('Mark absent: Tobias Rook');
	await expect(page.getByTestId('left-out')).toContainText('Greta Vance (carried over)');
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('notices')).toContainText('Marked absent: Tobias Rook.');
});

test('columns are chosen, kept for the next time, and the list is sorted by them', async ({ browser }) => {
	const page = await room(browser);
	const heads = list(page).getByRole('columnheader');
	await page.getByText('Columns', { exact: true }).click();
	await page.getByLabel('Device').check();
	await page.getByLabel('Answered').uncheck();
	await expect(heads).toContainText(['Seat', 'Candidate', 'Status', 'Left', 'Given', 'Device']);
	await expect(heads.filter({ hasText: 'Answered' })).toHaveCount(0);
	await page.getByRole('button', { name: 'Candidate' }).click();
	const names = () => list(page).locator('tbody [data-seat]').allInnerTexts();
	const { id } = await home.session(WATCH_A);
	const all: { line: string }[] = await home.read((db) =>
		db('roster')
			.join('sitting', 'sitting.id', 'roster.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ 'roster.session_id': id })
			.select(db.raw("given || ' ' || family || ' ' || number as line"))
	);
	const ascending = all.map((row) => row.line).sort((a, b) => a.localeCompare(b));
	// Only the rows in view are drawn.
	const drawn = await names();
	expect(drawn).toEqual(ascending.slice(0, drawn.length));
	await page.getByRole('button', { name: 'Candidate' }).click();
	expect((await names())[0]).toBe(ascending.at(-1));
	// The arrows follow the order that is on screen.
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('ArrowDown');
	await expect(page.locator('aside').last().getByRole('heading', { level: 2 })).toHaveText(
		(await names())[1].replace(/\s*DO-\d+/, '')
	);
	await page.reload();
	await page.locator('[data-ready=true]').waitFor();
	await page.keyboard.press('2');
	await expect(heads.filter({ hasText: 'Device' })).toHaveCount(1);
	await expect(heads.filter({ hasText: 'Answered' })).toHaveCount(0);
});

test('a proctor whose browser was closed opens it again and finds the room as it stands', async ({ browser }) => {
	const first = await home.browser(browser);
	await first.goto('/sign-in');
	await first.getByLabel('Name').fill('dunmore');
	await first.getByLabel('Password').fill('high-water-0510');
	await first.getByRole('button', { name: 'Sign in' }).click();
	await first.waitForURL((url) => url.pathname !== '/sign-in');
	const { id } = await home.session(WATCH_A);
	await go(first, `/live/${id}`);
	const kept = await first.context().storageState();
	await first.context().close();
	// Meanwhile a coordinator goes on.
	const other = await room(browser);
	await one(other, 'Tobias Rook');
	if ((await standing()).absent) {
		await other.locator('aside').last().getByRole('button', { name: 'Expect again' }).click();
		await expect(other.getByRole('row', { name: /Tobias Rook/ })).toContainText('Expected');
	}
	await other.keyboard.press('h');
	await other.getByLabel('Why').fill('Not here');
	await other.getByTestId('confirm').click();
	await expect.poll(async () => (await standing()).on_hold).toBeGreaterThanOrEqual(1);
	const again = await home.browser(browser, { storageState: kept });
	await go(again, `/live/${id}`);
	const rook = again.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' });
	await expect(rook).toContainText('On hold');
	await rook.click();
	await again.keyboard.press('r');
	await expect(rook).toContainText('Expected');
	await expect(other.getByRole('row', { name: /Tobias Rook/ })).toContainText('Expected');
});

test('wrong tries wait longer and longer, the proctor sees it and lets them try again', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore');
	const { id, code } = await home.session(WATCH_A);
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ rules: db.raw("json_set(rules, '$.timing.lastEntryMinutes', 600, '$.lockdown.level', 'open')") })
	);
	await go(page, `/live/${id}`);
	const candidate = await home.browser(browser);
	await candidate.goto('/sit');
	await candidate.getByLabel('Code').fill(code);
	await candidate.getByLabel('Candidate number').fill('DO-1020');
	await candidate.getByLabel('Family name').fill('Crow');
	for (let miss = 1; miss <= 8; miss++) {
		// From the sixth on each miss waits: two seconds, four, eight.
		await candidate.waitForTimeout(miss > 6 ? 1_200 * 2 ** (miss - 6) : 0);
		const answered = candidate.waitForResponse('**/sit/api/knock');
		await candidate.getByTestId('knock').click();
		expect((await answered).status()).not.toBe(429);
		await expect(candidate.getByTestId('knock')).toBeEnabled();
	}
	const need = page.getByTestId('needs').locator('li', { hasText: 'match nobody on the list' });
	await expect(need).toContainText(/Must wait 0:\d\d before the next try/);
	await need.getByRole('button', { name: /Let them try again/ }).click();
	await expect(need).toHaveCount(0);
	await arrive(candidate, code, 'DO-1020', 'Rook');
	await expect(candidate.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
});
