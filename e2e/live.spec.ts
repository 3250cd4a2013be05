import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { go, house } from './house';

const home = house();
const tides = () => home.session('Tides and Currents · Watch A');
const deadlineOf = (number: string) =>
	home.read(async (db) =>
		Number(
			(
				await db('sitting')
					.join('candidate', 'candidate.id', 'sitting.candidate_id')
					.where({ number, session_id: (await tides()).id })
					.first('deadline')
			).deadline
		)
	);

test('an alarm is told and its minutes are given to everyone in the room in one act, and taken back with it', async ({
	browser
}) => {
	const page = await home.staff(browser, 'dunmore');
	await go(page, `/live/${(await tides()).id}`);
	const before = await deadlineOf('DO-1013');
	await page.keyboard.press('i');
	await page.getByLabel('What happened').fill('Fire alarm, everyone outside');
	await page
		.getByLabel('Attach a picture or a PDF')
		.setInputFiles({ name: 'door list.txt', mimeType: 'text/plain', buffer: Buffer.from('All out by 09:44') });
	await page.getByLabel('Lost time given back').fill('7');
	await expect(page.getByTestId('incident-sentence')).toContainText('7 minutes given back, everyone in this room (28)');
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('notices')).toContainText('7 minutes given back to 28');
	await expect.poll(() => deadlineOf('DO-1013')).toBe(before + 7 * 60_000);

	await page.keyboard.press('5');
	const told = page.getByTestId('incidents').locator('li', { hasText: 'Fire alarm' });
	await expect(told).toContainText('28 candidates');
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		told.getByRole('link', { name: 'door list.txt' }).click()
	]);
	expect(download.suggestedFilename()).toBe('door list.txt');
	expect(readFileSync(await download.path(), 'utf8')).toBe('All out by 09:44');
	// What was told goes into the close-out.
	const { id } = await tides();
	const closing = await home.staff(browser);
	await go(closing, `/close-out/${id}`);
	await expect(closing.getByTestId('incidents')).toContainText('Fire alarm, everyone outside');
	await expect(closing.getByTestId('incidents')).toContainText('7 minutes given back');
	await told.getByRole('button', { name: 'Withdraw' }).click();
	await told.getByRole('button', { name: /Really withdraw it, and 7 minutes/ }).click();
	await expect(page.getByTestId('incidents')).toContainText('No incidents reported');
	await expect.poll(() => deadlineOf('DO-1013')).toBe(before);
});

test('the grid shows who has answered what, follows an answer, and hides names for projecting', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore');
	const { id } = await tides();
	await go(page, `/live/${id}`);
	await page.keyboard.press('3');
	const row = page.getByTestId('grid').getByRole('row').filter({ hasText: 'Inge Brandt' });
	const answered = () => row.locator('.answered').count();
	await expect.poll(answered).toBeGreaterThan(5);
	const shown = await home.read((db) =>
		db('progress')
			.join('sitting', 'sitting.id', 'progress.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ family: 'Brandt', given: 'Inge', session_id: id })
			.first('answered')
	);
	expect(await answered()).toBe(shown.answered);
	await page.keyboard.press('n');
	await expect(row).toHaveCount(0);
	await expect(page.getByTestId('grid')).toContainText('DO-1009');
	await page.keyboard.press('4');
	await expect(page.getByTestId('chart')).toBeVisible();
	await expect(page.getByText(/answers since\s+\d\d:\d\d/)).toBeVisible();
});

test('two who change seats change them on every proctor’s screen, and it can be undone', async ({ browser }) => {
	const [one, two] = await Promise.all(['dunmore', 'ode'].map((name) => home.staff(browser, name)));
	const { id } = await tides();
	for (const page of [one, two]) await go(page, `/live/${id}`);
	const at = (page: typeof one, name: string) => page.getByRole('group', { name: `Seat ${name}`, exact: true });
	const first = await at(one, 'A1').locator('button').innerText();
	await at(one, 'A1').dragTo(at(one, 'A2'));
	await expect(one.getByTestId('notices')).toContainText('sits at A2 now');
	await expect(at(two, 'A2')).toContainText(first.split('\n').find((line) => line.includes(' ')) ?? first);
	await one.keyboard.press('z');
	await expect(at(two, 'A1')).toContainText(first.split('\n').find((line) => line.includes(' ')) ?? first);

	await at(one, 'E5').locator('button').click();
	await one.keyboard.press('Alt+ArrowRight');
	await expect(at(two, 'E6').locator('button')).toBeVisible();
});

test('somebody who is not on the list is a line that a coordinator settles with one key, and then they come in', async ({
	browser
}) => {
	const { id, code } = await tides();
	const page = await home.staff(browser, 'ode');
	await go(page, `/live/${id}`);
	const candidate = await home.browser(browser);
	const stray = await home.read(async (db) => {
		const person = { id: 'stray', number: 'DO-7777', number_folded: 'do7777', given: 'Xi', family: 'Stray' };
		const group = await db('candidate_group').first('id');
		await db('candidate').insert({ ...person, group_id: group.id });
		return person;
	});
	const knock = async () => {
		await candidate.goto('/sit');
		await candidate.getByLabel('Code').fill(code);
		await candidate.getByLabel('Candidate number').fill(stray.number);
		await candidate.getByLabel('Family name').fill('stray');
		await candidate.getByTestId('knock').click();
	};
	await knock();
	await expect(candidate.getByTestId('problem')).toContainText('Your proctor can see this');
	const need = page.getByTestId('needs').locator('li', { hasText: 'Xi Stray' });
	await expect(need).toContainText('is not on this list', { ignoreCase: true });
	await need.getByRole('button', { name: /Add to this session/ }).click();
	await expect(page.getByTestId('notices')).toContainText('Xi Stray is on the list now');
	await expect(need).toHaveCount(0);
	await knock();
	await expect(candidate.getByTestId('name')).toHaveText('Xi Stray');
});

test('what was put off stays away until it changes, and the room is handed over with a word', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore');
	const { id } = await tides();
	await go(page, `/live/${id}`);
	const first = page.getByTestId('needs').locator('li').first();
	const name = await first.locator('.font-semibold').first().innerText();
	await page.keyboard.press('s');
	await expect(page.getByText(/1 postponed/)).toBeVisible();
	await expect(page.getByTestId('needs').locator('li', { hasText: name })).toHaveCount(0);
	await page.getByText(/1 postponed/).click();
	await expect(page.getByTestId('needs').locator('li', { hasText: name })).toHaveCount(1);

	await page.getByRole('button', { name: 'Hand this room over' }).click();
	await page.getByLabel('To whom').selectOption({ label: 'Alba Finch' });
	await page.getByLabel('What they should know').fill('Rook is not here yet');
	await page.getByTestId('confirm').click();
	await page.waitForURL((url) => url.pathname === '/');
	const next = await home.staff(browser, 'finch');
	await go(next, `/live/${id}`);
	const proctors = await home.read((db) =>
		db('session_proctor').join('staff', 'staff.id', 'staff_id').where({ session_id: id }).pluck('name')
	);
	expect(proctors.sort()).toEqual(['Alba Finch', 'Maren Ode']);
});

test('the proctor looks up who stands before them: the name as registered, and where they are expected today', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, `/live/${(await tides()).id}`);
	await page.keyboard.press('/');
	await page.getByLabel('Any part of name, number or group').fill('vance gre');
	const found = page.getByTestId('found').getByRole('listitem');
	// Everything that they sit today; what is here comes first.
	await expect(found.first()).toContainText('Greta Vance');
	await expect(found.first()).toContainText('in this session');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('dialog')).toHaveCount(0);
	await expect(page.getByRole('region', { name: 'One candidate' })).toContainText('Greta Vance');

	const elsewhere = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.join('session', 'session.id', 'sitting.session_id')
			.where('session.name', 'like', 'Lights and Shapes · Watch B%')
			.first('number', 'given', 'family')
	);
	await page.getByTestId('find').click();
	await page.getByLabel('Any part of name, number or group').fill(elsewhere.number.replace('-', ' ').toLowerCase());
	await expect(found.filter({ hasText: 'Lights and Shapes · Watch B' }).first()).toContainText(
		`${elsewhere.given} ${elsewhere.family}`
	);
	await page.getByLabel('Any part of name, number or group').fill('nobody at all');
	await expect(page.getByTestId('found')).toContainText('Nobody of that name has a paper here today.');
});
