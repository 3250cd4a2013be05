import { expect, test, type Browser, type Page } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();
const enter = async (browser: Browser, who = 'ode'): Promise<Page> => {
	const page = await home.staff(browser, who);
	await go(page, `/live/${(await home.session('Tides and Currents · Watch A')).id}`);
	return page;
};
const seat = (page: Page, name: string) => page.getByTestId('seats').getByRole('button', { name });
const tally = (page: Page) => page.getByTestId('tally');

test('the key on the most urgent need settles it, and the queue moves up', async ({ browser }) => {
	const page = await enter(browser, 'dunmore');
	const first = page.getByTestId('needs').locator('li').first();
	await expect(first).toContainText(/lines lost|At the door/);
	await expect(page.getByTestId('needs')).toContainText('Oona Reyes');
	// Nobody is chosen: the key finds the first who waits for just this.
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('needs')).not.toContainText('Oona Reyes');
	await expect(seat(page, 'Oona Reyes')).toContainText('Let in');
	await expect(page.getByTestId('notices')).toContainText('Let in: Oona Reyes.');
});

test('somebody is turned away with a reason that they are shown, and can come again', async ({ browser }) => {
	const page = await enter(browser);
	const { id, code } = await home.session('Tides and Currents · Watch A');
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ rules: db.raw("json_set(rules, '$.timing.lastEntryMinutes', 600)") })
	);
	const candidate = await home.browser(browser);
	await arrive(candidate, code, 'DO-1020', 'Rook');
	await expect(candidate.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
	await seat(page, 'Tobias Rook').click();
	await page.keyboard.press('u');
	await expect(page.getByTestId('confirm')).toBeDisabled();
	await page.getByRole('button', { name: 'Wrong room' }).click();
	await page.getByTestId('confirm').click();
	await expect(candidate.getByRole('heading', { name: 'Please speak to your proctor' })).toBeVisible();
	await expect(candidate.getByText('Wrong room.')).toBeVisible();
	await candidate.getByRole('button', { name: 'To the door' }).click();
	await expect(candidate.getByLabel('Code')).toBeVisible();
	await arrive(candidate, code, 'DO-1020', 'Rook');
	await expect(candidate.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
});

test('several are chosen by keyboard, held together after being named, and taken off hold by undo', async ({
	browser
}) => {
	const page = await enter(browser);
	await seat(page, 'Wren Abara').click();
	await page.keyboard.press('Space');
	await page.keyboard.press('ArrowRight');
	await page.keyboard.press('Space');
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('Space');
	await expect(page.getByText('3 selected')).toBeVisible();
	await page.keyboard.press('h');
	const dialog = page.getByRole('dialog');
	await expect(dialog).toContainText('Hold: 3 candidates');
	await expect(dialog).toContainText('Wren Abara, Kemi Adler');
	await page.getByLabel('Why').fill('Fire alarm');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('notices')).toContainText('On hold: 3 candidates.');
	await expect(tally(page)).toContainText('On hold 4');
	await expect(page.getByText('3 selected')).toBeHidden();
	await page.keyboard.press('z');
	await expect(tally(page)).toContainText('On hold 1');
});

test('the tally filters, and all of one state can be chosen', async ({ browser }) => {
	const page = await enter(browser);
	await tally(page)
		.getByRole('button', { name: /Handed in/ })
		.click();
	await expect(page.getByTestId('seats').getByRole('button')).toHaveCount(2);
	await page.getByRole('button', { name: 'Select these 2' }).click();
	await expect(page.getByText('2 selected')).toBeVisible();
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('seats').getByRole('button')).toHaveCount(29);
});

test('handing in for somebody, absence, setting aside and carrying over say what becomes of the work, and what can be is undone', async ({
	browser
}) => {
	const page = await enter(browser);
	const act = async (name: string, button: string, reason: string | null) => {
		await seat(page, name).click();
		await page.locator('aside').getByRole('button', { name: button }).click();
		if (reason) await page.getByLabel('Why').fill(reason);
		await page.getByTestId('confirm').click();
	};
	await act('Greta Vance', 'Hand in…', 'Felt unwell');
	await expect(seat(page, 'Greta Vance')).toContainText('Handed in');
	// The seat may be told of it by the room before the act itself is answered.
	await expect(page.getByTestId('notices')).toContainText('Handed in');
	await page.keyboard.press('z');
	await expect(seat(page, 'Greta Vance')).toContainText('Let in');

	await act('Bo Castell', 'Set aside…', 'Notes under the desk');
	await expect(seat(page, 'Bo Castell')).toContainText('Set aside');
	await page.locator('aside').getByRole('button', { name: 'Restore' }).click();
	await expect(seat(page, 'Bo Castell')).not.toContainText('Set aside');

	await act('Nils Ferro', 'Carry over…', 'Unwell');
	await expect(seat(page, 'Nils Ferro')).toContainText('Carried over');
	await expect(page.locator('aside').last()).toContainText('Carried over: Unwell');
	const kept = await home.read((db) =>
		db('answer_standing')
			.join('sitting', 'sitting.id', 'answer_standing.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where('family', 'Ferro')
			.where('given', 'Nils')
	);
	expect(kept.length).toBeGreaterThan(5);
});

test('a proctor who acts on what has just changed is told so, and nothing else happens', async ({ browser }) => {
	const page = await enter(browser, 'dunmore');
	const name = 'Quill Dastan';
	await seat(page, name).click();
	await page.keyboard.press('f');
	await page.getByLabel('Why').fill('Asked to stop');
	// Somebody else was faster, and this screen has not heard of it yet.
	await page.route('**/stream', (route) => route.abort());
	const other = await enter(browser);
	await seat(other, name).click();
	await other.keyboard.press('f');
	await other.getByLabel('Why').fill('Left the room');
	await other.getByTestId('confirm').click();
	await expect(seat(other, name)).toContainText('Handed in');
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('notices')).toContainText(`${name}: Already done.`);
	const entries = await home.read((db) =>
		db('logbook')
			.join('sitting', 'sitting.id', 'logbook.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ kind: 'handed_in', family: 'Dastan', given: 'Quill' })
	);
	expect(entries).toHaveLength(1);
});

test('names can be hidden for a projector; the board has the code, counts and no names', async ({ browser }) => {
	const page = await enter(browser, 'dunmore');
	await expect(page.getByTestId('seats')).toContainText('Lars Holt');
	await page.keyboard.press('n');
	await expect(page.getByTestId('seats')).not.toContainText('Lars Holt');
	await expect(page.getByTestId('seats')).toContainText('DO-1012');
	await page.keyboard.press('?');
	await expect(page.getByRole('dialog')).toContainText('let in all at the door; it names them first');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('dialog')).toHaveCount(0);
	await page.keyboard.press('b');
	await page.waitForURL(/\/board$/);
	await page.locator('[data-ready=true]').waitFor({ state: 'attached' });
	await expect(page.getByRole('img', { name: /QR code for http/ })).toBeVisible();
	await page.keyboard.press('s');
	await expect(page.getByTestId('board-code')).toHaveText(/^[0-9A-Z]{4}-[0-9A-Z]{3}$/);
	await expect(page.locator('main')).toContainText('finished');
	await expect(page.locator('main')).not.toContainText('Lars Holt');
	await page.keyboard.press('Escape');
	await expect(tally(page)).toContainText('29 of 29 accounted for');
});

test('signing out ends it: the way back leads through the sign-in, and on to where one was', async ({ browser }) => {
	const page = await enter(browser, 'dunmore');
	const { pathname } = new URL(page.url());
	await page.getByText('Rhys Dunmore: account').locator('..').click();
	await page.getByRole('button', { name: 'Sign out' }).click();
	await expect(page).toHaveURL(/\/sign-in$/);
	await page.goto(pathname);
	await expect(page).toHaveURL(
		new RegExp(`/sign-in\\?to=${encodeURIComponent(pathname).replace(/[.*+?^$()|[\]\\]/g, '\\$&')}`)
	);
	await page.getByLabel('Name').fill('dunmore');
	await page.getByLabel('Password').fill('wrong');
	await page.getByRole('button', { name: 'Sign in' }).click();
	await expect(page.getByRole('alert')).toContainText('That name and password do not go together.');
	await page.getByLabel('Password').fill('high-water-0510');
	await page.getByRole('button', { name: 'Sign in' }).click();
	await expect(page).toHaveURL(new RegExp(`${pathname}$`));
});

test('at the end, what those at work have can be collected: handed in, and nobody continues', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore');
	const { id } = await home.session('Tides and Currents · Watch A');
	const states = (ids: string[]): Promise<string[]> =>
		home.read((db) => db('sitting').whereIn('id', ids).pluck('state'));
	const atWork: string[] = await home.read((db) =>
		db('sitting').where({ session_id: id, state: 'working' }).pluck('id')
	);
	expect(atWork.length).toBeGreaterThan(2);
	await go(page, `/live/${id}`);
	await page.getByTestId('end').click();
	const dialog = page.getByRole('dialog');
	await expect(dialog).toContainText('still at work');
	await dialog.getByText('collect what they have').click();
	await expect(dialog).toContainText('collected: what they have so far is handed in');
	await page.getByTestId('confirm').click();
	await expect(dialog).toHaveCount(0);
	// Whoever's time was over in that moment has handed in as well, by the clock.
	expect((await states(atWork)).filter((state) => !['handed_in', 'time_up'].includes(state))).toEqual([]);
});
