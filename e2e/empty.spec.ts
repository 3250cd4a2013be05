import { expect, test } from '@playwright/test';
import { DEMO_PAPERS, DEMO_PASSWORD } from '../src/lib/server/demo';
import { choose, go, house, oneCoordinator } from './house';

/** As after the first start: one coordinator of all sites, and the papers, which come from elsewhere. */
const home = house({
	furnish: async ({ db }) => {
		await oneCoordinator({ db });
		for (const [i, { paper, version }] of DEMO_PAPERS.entries())
			await db('paper').insert({ id: `p${i}`, title: paper.title, version, content: JSON.stringify(paper) });
	}
});
const DAY = 24 * 3_600_000;
const day = (after: number) => new Date(Date.now() + after * DAY).toISOString().slice(0, 10);

const table = (prefix: string, group: string, count: number) => ({
	name: `${prefix}.csv`,
	mimeType: 'text/csv',
	buffer: Buffer.from(
		[
			'Number,Given name,Family name,Group,E-mail',
			...Array.from(
				{ length: count },
				(_, i) => `${prefix}-${100 + i},Ada${i},Tern${i},${group},${prefix}${i}@saltmarsh.example`
			)
		].join('\r\n')
	)
});

test('an empty house becomes two sites with a session each, ready for the day', async ({ browser }) => {
	const page = await home.staff(browser);
	await test.step('nothing is there, and each page says what comes first', async () => {
		for (const path of [
			'/',
			'/prepare',
			'/live',
			'/grants',
			'/close-out',
			'/logbook',
			'/prepare/people',
			'/prepare/rooms'
		]) {
			await go(page, path);
			await expect(page.locator('main')).toBeVisible();
		}
		await go(page, '/prepare/administration');
		await expect(page.getByRole('heading', { name: 'A first administration' })).toBeVisible();
	});

	await test.step('the administration, its sites, its papers and its sittings', async () => {
		for (const [name, zone] of [
			['Quayside', 'Europe/London'],
			['Lighthouse Point', 'Atlantic/Azores']
		]) {
			await page.getByLabel('New site').fill(name);
			await page.getByLabel('Time zone').fill(zone);
			await page.getByTestId('make-site').click();
			await expect(page.getByLabel('New site')).toHaveValue('');
		}
		await page.getByRole('textbox', { name: 'Name' }).fill('Winter Deck Officer Examinations');
		await page.getByRole('button', { name: 'Create' }).click();
		await expect(page.getByRole('heading', { name: 'Winter Deck Officer Examinations' })).toBeVisible();
		await page.getByLabel('First day').fill(day(0));
		await page.getByLabel('Last day').fill(day(20));
		await page.getByLabel('Sittings bought').fill('60');
		await page.getByLabel('Allotted to Quayside').fill('40');
		await page.getByLabel('Allotted to Lighthouse Point').fill('20');
		await page.locator('li', { hasText: 'Radio Procedure' }).getByLabel('everywhere').check();
		await page.getByTestId('save-administration').click();
		await expect(page.getByRole('status').filter({ hasText: 'saved' })).toBeVisible();
	});

	await test.step('a room at each, and a proctor', async () => {
		await go(page, '/prepare/rooms');
		for (const [site, name] of [
			['Quayside', 'Chart Room'],
			['Lighthouse Point', 'Lamp Room']
		]) {
			await page.getByLabel('Site of a new room').selectOption({ label: site });
			await page.getByTestId('new-room').click();
			await page.getByLabel('Name').fill(name);
			await expect.poll(() => home.read((db) => db('room').pluck('name'))).toContain(name);
		}
		await go(page, '/prepare/staff');
		await page.getByRole('button', { name: 'Add somebody' }).click();
		await page.getByLabel('Name', { exact: true }).fill('Rhys Dunmore');
		await page.getByLabel('Signs in as').fill('dunmore');
		await page.getByLabel('E-mail').fill('dunmore@saltmarsh.example');
		await page.getByLabel('Password').fill(DEMO_PASSWORD);
		for (const site of ['Quayside', 'Lighthouse Point']) await page.getByLabel(`Proctor, ${site}`).check();
		await page.getByTestId('save-staff').click();
		await expect(page.getByTestId('staff-form')).toHaveCount(0);
	});

	for (const [site, prefix, group, room, count] of [
		['Quayside', 'QS', 'Watch A', 'Chart Room', 20],
		['Lighthouse Point', 'LP', 'Harbour', 'Lamp Room', 8]
	] as const) {
		await test.step(`people from a file, and their session, at ${site}`, async () => {
			await go(page, '/prepare/people/import');
			await page.locator('#site').selectOption({ label: site });
			await page.locator('#file').setInputFiles(table(prefix, group, count));
			await page.getByLabel('make new groups').check();
			await expect(page.getByTestId('counts')).toContainText(`${count} added`);
			await page.getByTestId('apply').click();
			await expect(page.getByTestId('done')).toContainText(`${count} added`);
			await go(page, '/prepare/new');
			await choose(page, 'roomId', room);
			await choose(page, 'paperId', 'Radio Procedure');
			await page.locator('label', { hasText: group }).click();
			await page.locator('#date').fill(day(1));
			await page.locator('label', { hasText: 'Rhys Dunmore' }).click();
			await expect(page.getByTestId('sentence')).toContainText(`${count} candidates of ${group} sit Radio Procedure`);
			await expect(page.getByTestId('plan')).toBeEnabled();
			await page.getByTestId('plan').click();
			await page.waitForURL('**/prepare?planned=1');
		});
	}

	await go(page, `/prepare/ready?day=${day(1)}`);
	await expect(page.locator('h2')).toHaveCount(2);
	await expect(page.getByRole('img', { name: 'in the way' })).toHaveCount(0);
	await go(page, '/prepare/administration');
	await expect(page.getByRole('row', { name: /Quayside/ })).toContainText('20');
});
