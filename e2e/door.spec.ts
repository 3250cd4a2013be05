import { expect, test, type Page } from '@playwright/test';
import { markOf, sealSecret } from '../src/lib/server/db';
import { slipCodeFrom, turningCode } from '../src/core/access';
import { go, house, PROCTOR } from './house';

const home = house();
const WATCH_A = 'Tides and Currents · Watch A';

/** Rules of the running session, set by their paths; what was there before comes back after the test. */
let before = '';
test.beforeEach(async () => {
	const { id } = await home.session(WATCH_A);
	before = await home.read(async (db) => (await db('session').where({ id }).first('rules')).rules);
	await rules({ '$.timing.lastEntryMinutes': 600, '$.lockdown.level': 'open' });
	// Rook has not come yet, whatever the test before did.
	const rook = await sittingOf('DO-1020');
	const { state } = await home.read((db) => db('sitting').where({ id: rook }).first('state'));
	if (state !== 'expected') await home.act([rook], PROCTOR, { kind: 'turn_away', reason: 'Once more' });
});
test.afterEach(async () => {
	const { id } = await home.session(WATCH_A);
	await home.read((db) => db('session').where({ id }).update({ rules: before, turning_key: null }));
});
async function rules(values: Record<string, unknown>) {
	const { id } = await home.session(WATCH_A);
	for (const [path, value] of Object.entries(values))
		await home.read((db) =>
			db('session')
				.where({ id })
				.update({ rules: db.raw('json_set(rules, ?, json(?))', [path, JSON.stringify(value)]) })
		);
}
const sittingOf = (number: string) =>
	home.read(async (db) => {
		const { id } = await home.session(WATCH_A);
		return (
			await db('sitting')
				.join('candidate', 'candidate.id', 'candidate_id')
				.where({ number, session_id: id })
				.first('sitting.id')
		).id as string;
	});

async function type(page: Page, code: string, fields: Record<string, string>) {
	await page.goto('/sit');
	await page.getByLabel('Code').fill(code);
	for (const [label, text] of Object.entries(fields)) await page.getByLabel(label).fill(text);
	await page.getByTestId('knock').click();
}
const ROOK = { 'Candidate number': 'DO-1020', 'Family name': 'Rook' };
const isItYou = (page: Page) => expect(page.getByTestId('name')).toHaveText('Tobias Rook');
const told = (page: Page, text: string | RegExp) => expect(page.getByTestId('problem')).toContainText(text);
const open = async (page: Page) => go(page, `/live/${(await home.session(WATCH_A)).id}`);
const line = (page: Page, text: string) => page.getByTestId('needs').locator('li', { hasText: text });

test('by the code on the board: case, dashes, accents, spaces and order do not matter', async ({ browser }) => {
	const { code } = await home.session(WATCH_A);
	const page = await home.browser(browser);
	await home.read((db) => db('candidate').where({ number: 'DO-1020' }).update({ family: 'Ó Rook' }));
	for (const family of ['o rook', '  Ó  ROOK ', 'Órook']) {
		await type(page, ` ${code.toLowerCase().slice(0, 4)} ${code.slice(4)} `, {
			'Candidate number': ' do 1020 ',
			'Family name': family
		});
		await expect(page.getByTestId('name')).toHaveText('Tobias Ó Rook');
	}
	await home.read((db) => db('candidate').where({ number: 'DO-1020' }).update({ family: 'Rook' }));
});

test('what is typed before the page is alive, on a slow device, stays', async ({ browser }) => {
	const { code } = await home.session(WATCH_A);
	const page = await home.browser(browser);
	let letThrough = () => {};
	const slow = new Promise<void>((resolve) => (letThrough = resolve));
	await page.route('**/_app/immutable/entry/**', async (route) => {
		await slow;
		await route.continue();
	});
	await page.goto('/sit', { waitUntil: 'commit' });
	const fields = { Code: code, ...ROOK };
	for (const [label, text] of Object.entries(fields)) await page.getByLabel(label).fill(text);
	await expect(page.getByTestId('knock')).toBeDisabled();
	letThrough();
	await expect(page.getByTestId('knock')).toBeEnabled();
	for (const [label, text] of Object.entries(fields)) await expect(page.getByLabel(label)).toHaveValue(text);
	await page.getByTestId('knock').click();
	await isItYou(page);
});

test('by a code that turns: the one of now opens, the one of an hour ago does not', async ({ browser }) => {
	const { id } = await home.session(WATCH_A);
	const key = 'JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP';
	await rules({ '$.door.code': 'turning', '$.door.turnsEveryMinutes': 5 });
	await home.read((db) => db('session').where({ id }).update({ turning_key: key }));
	const page = await home.browser(browser);
	const now = await home.now();
	await type(page, turningCode(key, now - 60 * 60_000, 5), ROOK);
	await told(page, 'We could not find you with these details');
	await type(page, turningCode(key, now, 5), ROOK);
	await isItYou(page);
});

test('by a slip, typed or as a link, and by names and birthday', async ({ browser }) => {
	const { code } = await home.session(WATCH_A);
	await rules({ '$.door.slips': true, '$.door.identity': 'slip' });
	const slip = slipCodeFrom(Uint8Array.from({ length: 64 }, (_, i) => (i * 7) % 256));
	const sitting_id = await sittingOf('DO-1020');
	await home.read((db) =>
		db('slip')
			.insert({ sitting_id, code: sealSecret(db, slip), code_mark: markOf(db, slip) })
			.onConflict('sitting_id')
			.merge()
	);
	const page = await home.browser(browser);
	await type(page, code, ROOK);
	await told(page, 'This session is entered with a slip');
	await page.goto('/sit');
	await page.getByLabel('Code').fill(slip.toLowerCase());
	await page.getByTestId('knock').click();
	await isItYou(page);
	await page.goto(`/sit?code=${slip}`);
	await page.getByTestId('knock').click();
	await isItYou(page);

	await rules({ '$.door.identity': 'names_and_birthday' });
	await home.read((db) => db('candidate').where({ number: 'DO-1020' }).update({ birth: '2006-03-09' }));
	await type(page, code, ROOK);
	await told(page, 'sign in with your names and your birthday');
	await page.getByLabel('Given name').fill('rook');
	await page.getByLabel('Family name').fill('TOBIAS');
	await page.getByLabel('Day').fill('9');
	await page.getByLabel('Month').fill('3');
	await page.getByTestId('knock').click();
	await isItYou(page);
});

test('too late: who can help is said, and the proctor lets in by one act', async ({ browser }) => {
	const { code } = await home.session(WATCH_A);
	await rules({ '$.timing.lastEntryMinutes': 5 });
	const proctor = await home.staff(browser, 'dunmore');
	await open(proctor);
	const page = await home.browser(browser);
	await type(page, code, ROOK);
	await page.getByTestId('yes').click();
	await told(page, 'The last entry has passed');
	await told(page, 'they can give you a window of your own');
	await expect(line(proctor, 'Tobias Rook')).toContainText('Arrived after last entry');
	await line(proctor, 'Tobias Rook')
		.getByRole('button', { name: /Let in late/ })
		.click();
	await expect(line(proctor, 'Arrived after last entry')).toHaveCount(0);
	await type(page, code, ROOK);
	await page.getByTestId('yes').click();
	await expect(page.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
});

test('off the network, without the client, held, handed in: each has its own words and its own line', async ({
	browser
}) => {
	const { id, code } = await home.session(WATCH_A);
	const proctor = await home.staff(browser, 'dunmore');
	await open(proctor);
	const page = await home.browser(browser);

	await home.read((db) =>
		db('network').insert({ id: 'far', site_id: 'quayside', name: 'Far away', ranges: '198.51.100.0/24' })
	);
	await rules({ '$.door.networks': ['far'] });
	await type(page, code, ROOK);
	await told(page, 'only be sat from the networks of its site');
	await expect(line(proctor, 'is not on a network of this site')).toHaveCount(1);
	await rules({ '$.door.networks': [] });

	await rules({ '$.lockdown.level': 'sealed' });
	await type(page, code, ROOK);
	await expect(page.getByRole('link', { name: 'How to get the sealed client' })).toBeVisible();
	await expect(line(proctor, 'Tobias Rook')).toContainText('Does not use the sealed client');
	await line(proctor, 'Tobias Rook').getByRole('button', { name: /Seen/ }).click();
	await rules({ '$.lockdown.level': 'open' });

	await proctor.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' }).click();
	await proctor.keyboard.press('h');
	await proctor.getByLabel('Why').fill('To be spoken to');
	await proctor.getByTestId('confirm').click();
	await expect(proctor.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' })).toContainText('On hold');
	await type(page, code, ROOK);
	await page.getByTestId('yes').click();
	await told(page, 'speak to the proctor');
	await expect(line(proctor, 'Tobias Rook')).toContainText('Is on hold and tried to come in');
	await line(proctor, 'Tobias Rook')
		.getByRole('button', { name: /Resume/ })
		.click();
	await expect(proctor.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' })).toContainText('Expected');

	const [done] = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'candidate_id')
			.where({ session_id: id, state: 'handed_in' })
			.select('number', 'family', 'given')
	);
	await type(page, code, { 'Candidate number': done.number, 'Family name': done.family });
	await page.getByTestId('yes').click();
	await told(page, /handed in/i);
	await expect(line(proctor, `${done.given} ${done.family}`)).toContainText('Has handed in and tried to come in again');
});
