import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { DEMO_PASSWORD } from '../src/lib/server/demo';
import { choose, go, house, oneCoordinator } from './house';

/** A folder that nobody has furnished: one coordinator of all sites, and nothing else. */
const home = house({
	furnish: async ({ db }) => {
		await oneCoordinator({ db });
	}
});
// Each goes on with what the one before it has made.
test.describe.configure({ mode: 'serial' });
/** The house by another name over plain HTTP, as from another machine. */
const away = () => home.url.replace('localhost', 'exams.example');
const tomorrow = () => new Date(Date.now() + 24 * 3_600_000).toISOString().slice(0, 10);

/** What an office has: names, a class, a birthday, and extra time as it was written down. No numbers. */
const PUPILS = {
	name: 'year 8.csv',
	mimeType: 'text/csv',
	buffer: Buffer.from(
		[
			'sep=;',
			'Name;Class;Date of birth;Extra time;Bus',
			'Obi, Adaeze;8A;03.04.2010;;12',
			'Ferro, Nessa;8A;15.11.2009;25 %;7',
			'Ó Briain, Zoë;8B;28.02.2010;15 min;12',
			'Lee, Ann;8B;30.06.2010;;',
			'Lee, Ann;8A;01.02.2010;;'
		].join('\r\n')
	)
};
const DOCUMENT = {
	name: 'maths.docx',
	mimeType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	buffer: readFileSync('src/lib/server/testing/strangers/headings.docx')
};

async function signedIn(page: Page) {
	await page.goto('/sign-in');
	await page.getByLabel('Name').fill('ode');
	await page.getByLabel('Password').fill(DEMO_PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL((url) => url.pathname !== '/sign-in');
}

test('no page of an empty house is a dead end: each that has nothing says what comes first, and leads there', async ({
	browser
}) => {
	const page = await home.browser(browser, { baseURL: away() });
	await signedIn(page);
	const empty: string[] = [];
	for (const path of [
		'/',
		'/papers',
		'/prepare',
		'/prepare/new',
		'/prepare/people',
		'/prepare/people/import',
		'/prepare/rooms',
		'/prepare/networks',
		'/prepare/clients',
		'/prepare/devices',
		'/prepare/mail',
		'/prepare/administration',
		'/prepare/parts',
		'/prepare/contacts',
		'/prepare/staff',
		'/prepare/rules',
		'/prepare/ready',
		'/live',
		'/grants',
		'/grants/owed',
		'/grants/requests',
		'/close-out',
		'/technical',
		'/logbook'
	]) {
		await go(page, path);
		const main = page.locator('[data-ready=true]');
		await expect(main).toBeVisible();
		// A way on: a link or a button of the page itself that makes the first, or leads to where it is made.
		const ways = await page
			.locator('main, nav[aria-label=Rooms], [data-testid=comes-first]')
			.locator('a:visible, button:visible:enabled')
			.count();
		if (ways === 0) empty.push(path);
	}
	expect(empty).toEqual([]);
});

test('from an empty folder to a planned session with one’s own files, over plain HTTP under another name, each step leading to the next', async ({
	browser
}) => {
	const page = await home.browser(browser, { baseURL: away(), timezoneId: 'Europe/Lisbon' });
	const troubles: string[] = [];
	page.on('pageerror', (error) => troubles.push(error.message));
	await signedIn(page);
	const list = page.getByTestId('set-up-list');
	const next = () => list.locator('li', { hasText: ', next' });
	/** The one button of the step that is next, as whoever comes first presses it. */
	const goOn = async (name: string) => {
		await go(page, '/');
		await expect(next()).toHaveCount(1);
		await next().getByRole('link', { name }).click();
	};

	await test.step('nothing can be planned yet, and it says what comes first', async () => {
		await go(page, '/');
		await expect(list).toContainText('5 of 5 left');
		await expect(page.getByRole('link', { name: 'Set up your place' })).toBeVisible();
		await go(page, '/prepare/new');
		await expect(page.getByTestId('missing').getByRole('listitem')).toHaveCount(4);
		await expect(page.getByTestId('missing')).toContainText('Your place');
		await go(page, '/prepare/rooms');
		await expect(page.getByRole('link', { name: 'Make the first site' })).toBeVisible();
	});

	await test.step('the place: its name, its clock from the browser, the address by which it was reached', async () => {
		await goOn('Set up');
		await page.getByLabel('Name of your school or board').fill('Saltmarsh Maritime College');
		await expect(page.getByLabel('Its time zone')).toHaveValue('Europe/Lisbon');
		await expect(page.getByTestId('address-told')).toContainText('plain HTTP');
		await page.getByTestId('save-place').click();
		await expect(list).toContainText('4 of 5 left');
		expect(await home.read((db) => db('site').select('name', 'zone'))).toEqual([
			{ name: 'Saltmarsh Maritime College', zone: 'Europe/Lisbon' }
		]);
		expect(await home.read((db) => db('administration').pluck('name'))).toEqual([
			expect.stringMatching(/^School year \d{4}\/\d\d$/)
		]);
	});

	await test.step('a room', async () => {
		await goOn('Add a room');
		await page.getByTestId('new-room').click();
		await expect(page.getByLabel('Name')).toBeFocused();
		await page.getByLabel('Name').fill('Room 12');
		await expect.poll(() => home.read((db) => db('room').pluck('name'))).toEqual(['Room 12']);
	});

	await test.step('people without numbers: numbers are made, classes too, and a column that is not read is named', async () => {
		await goOn('Bring people in');
		await page.locator('#file').setInputFiles(PUPILS);
		await expect(page.getByTestId('counts')).toContainText('5 added');
		await expect(page.getByTestId('made-numbers')).toContainText('The file has no candidate numbers, so they are made');
		await expect(page.getByTestId('left-out')).toContainText('Bus (12, 7, 12)');
		await page.getByTestId('apply').click();
		await expect(page.getByTestId('done')).toContainText('5 added');
		const people = await home.read((db) =>
			db('candidate')
				.join('candidate_group', 'candidate_group.id', 'group_id')
				.orderBy('number')
				.select('number', 'given', 'family', 'name')
		);
		expect(people.map(({ given, family, name }) => `${given} ${family} ${name}`)).toEqual([
			'Adaeze Obi 8A',
			'Nessa Ferro 8A',
			'Zoë Ó Briain 8B',
			'Ann Lee 8B',
			'Ann Lee 8A'
		]);
		expect(people.every(({ number }) => /^\d{5}$/.test(number))).toBe(true);
		// The same file once more changes nothing.
		await page.locator('#file').setInputFiles(PUPILS);
		await expect(page.getByTestId('counts')).toContainText('5 as they are');
		await expect(page.getByTestId('apply')).toBeDisabled();
	});

	await test.step('a paper out of a document: parts by its headings, put right in place, all of it undone in one', async () => {
		await goOn('Make a paper');
		await page.getByRole('button', { name: 'New paper' }).click();
		await page.getByLabel('Title').fill('Fractions');
		await page.keyboard.press('Enter');
		await page.waitForURL(/\/papers\/(?!$)/);
		await expect(page.locator('[data-ready=true]')).toBeVisible();
		await page.getByRole('button', { name: /From text/ }).click();
		await page.getByTestId('document').setInputFiles(DOCUMENT);
		const read = page.getByTestId('read-question');
		await expect(read).toHaveCount(3);
		await read.first().getByRole('radio', { name: 'x' }).check();
		await expect(read.first()).toContainText('x · right');
		await read.nth(2).getByRole('button', { name: 'Leave out' }).click();
		await expect(read).toHaveCount(2);
		await page.getByTestId('take-over').click();
		const questions = () =>
			home.read(async (db) => JSON.parse((await db('paper_draft').first('content')).content).parts);
		await expect
			.poll(async () => (await questions()).map((part: { title: string }) => part.title))
			.toEqual(['Section A', 'Section B']);
		await page.getByRole('button', { name: /Undo/ }).click();
		await expect
			.poll(async () => (await questions()).flatMap((part: { questions: object[] }) => part.questions))
			.toEqual([]);
		await page.getByRole('button', { name: /From text/ }).click();
		await page.getByTestId('document').setInputFiles(DOCUMENT);
		await page.getByTestId('take-over').click();
		await expect
			.poll(async () => (await questions()).flatMap((part: { questions: object[] }) => part.questions))
			.toHaveLength(3);
		await page.getByTestId('freeze').click();
		await page.getByTestId('confirm').click();
		await expect.poll(() => home.read((db) => db('paper').pluck('title'))).toEqual(['Fractions']);
	});

	await test.step('and the session is planned, for both classes', async () => {
		await goOn('Plan a session');
		await expect(page.getByTestId('missing')).toHaveCount(0);
		await choose(page, 'roomId', 'Room 12');
		await choose(page, 'paperId', 'Fractions');
		for (const name of ['8A', '8B']) await page.locator('label', { hasText: name }).click();
		await page.locator('#date').fill(tomorrow());
		await expect(page.getByTestId('sentence')).toContainText('5 candidates');
		await page.getByTestId('plan').click();
		await page.waitForURL('**/prepare?planned=1');
	});

	await test.step('slips name the house’s address, whoever prints them', async () => {
		const { id } = await home.read((db) => db('session').first('id'));
		const there = await home.staff(browser);
		const board = await there.request.get(`${home.url}/live/${id}/board`);
		expect(await board.text()).toContain(new URL(away()).host);
	});

	await test.step('colleagues from a pasted list: a link for each, to be handed over, that works', async () => {
		await go(page, '/prepare/staff');
		await page.getByTestId('paste-staff').click();
		await page
			.getByLabel('One a line')
			.fill('Rhys Dunmore <dunmore@saltmarsh.example>\nInes Holt; holt@saltmarsh.example\nnobody@nowhere');
		await expect(page.getByTestId('staff-list')).toContainText('2 accounts, 1 line to put right');
		await expect(page.getByTestId('invite')).toBeDisabled();
		await page.getByTestId('staff-list').getByLabel('Proctor of a site').check();
		await page.getByTestId('invite').click();
		const links = page.getByTestId('links').locator('code');
		await expect(links).toHaveCount(2);
		const link = await links.first().innerText();
		expect(link).toContain(away());
		const colleague = await home.browser(browser, { baseURL: away() });
		await colleague.goto(link);
		await expect(colleague.getByText('Rhys Dunmore')).toBeVisible();
		// Nothing pretends to be on its way.
		expect(await home.read((db) => db('mail').where({ kind: 'password' }))).toEqual([]);
	});
	expect(troubles).toEqual([]);
});

test('a session that was planned by mistake is called off: named before, nobody owed, and what was planned stays as a draft', async ({
	browser
}) => {
	const page = await home.browser(browser, { baseURL: away() });
	await signedIn(page);
	await go(page, '/prepare?part=later');
	await page.getByRole('link', { name: 'Change' }).first().click();
	await page.getByTestId('call-off').click();
	const dialog = page.getByTestId('calling-off');
	await expect(dialog).toContainText('5 candidates are expected no more');
	await expect(dialog).toContainText('Nessa Ferro, Ann Lee');
	await expect(page.getByTestId('confirm-off')).toBeDisabled();
	await dialog.getByLabel('Why').fill('Planned for the wrong day');
	await page.getByTestId('confirm-off').click();
	await expect(page.getByTestId('off')).toContainText('a draft of yours');
	expect(await home.read(async (db) => [await db('session'), await db('sitting'), await db('roster')])).toEqual([
		[],
		[],
		[]
	]);
	await go(page, '/grants/owed');
	await expect(page.locator('main')).not.toContainText('Adaeze Obi');
	// Planned again from the draft, as it was.
	await go(page, '/prepare');
	await page.getByTestId('drafts').getByRole('link').first().click();
	await expect(page.getByTestId('sentence')).toContainText('5 candidates');
	await page.getByTestId('plan').click();
	await page.waitForURL('**/prepare?planned=1');
	await expect(page.getByRole('status').filter({ hasText: 'Next:' })).toContainText('what is left to do for it');
});

test('names that are pasted are people: with numbers, twice the same is asked about', async ({ browser }) => {
	const page = await home.browser(browser, { baseURL: away() });
	await signedIn(page);
	await go(page, '/prepare/people/import');
	await page.getByText('Or paste from a spreadsheet').click();
	await page.getByLabel('Names, one a line').fill('Hale, Ito\nMarsh Kettle\nHale, Ito');
	await page.getByTestId('read-pasted').click();
	await expect(page.getByTestId('problems')).toContainText('Ito Hale is on line 2 as well');
	await expect(page.getByTestId('apply')).toBeDisabled();
	await page.getByText('the same name twice is two people').click();
	await expect(page.getByTestId('counts')).toContainText('3 added');
	await page.getByTestId('apply').click();
	await expect(page.getByTestId('done')).toContainText('3 added');
});
