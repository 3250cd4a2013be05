import { expect, test, type Page } from '@playwright/test';
import { CONTRAST, serious, WCAG } from './axe';
import { takesKeys } from './sits';
import { arrive, go, house } from './house';

const home = house();

/** Whatever is fading has faded: a button that is just being enabled has two colours for a moment. */
const settled = (page: Page) =>
	page.evaluate(() => Promise.allSettled(document.getAnimations().map((animation) => animation.finished)));

test('staff screens have no serious findings by axe-core, light and dark', async ({ browser }) => {
	// Some thirty screens, each looked through whole.
	test.setTimeout(240_000);
	const page = await home.staff(browser, 'ode', { reducedMotion: 'reduce' });
	const isFree = async (name: string) => {
		await settled(page);
		expect.soft(await serious(page, WCAG), name).toEqual([]);
		await page.evaluate(() => document.documentElement.classList.add('dark'));
		await settled(page);
		expect.soft(await serious(page, CONTRAST), `${name}, dark`).toEqual([]);
	};
	const live = await home.session('Tides and Currents · Watch A');
	const done = await home.session('Radio Procedure · Watch B');
	const screens: [string, (() => Promise<void>)?][] = [
		['/'],
		['/prepare'],
		['/prepare/new', async () => void (await page.locator('label', { hasText: 'Watch B' }).click())],
		['/prepare/ready'],
		[`/prepare/${live.id}/ready`],
		['/prepare/people'],
		['/prepare/people/import'],
		['/prepare/rules'],
		['/prepare/rules/class-test'],
		['/prepare/rules/compare?sheet=remote&sheet=practice'],
		['/prepare/rules/apply?sheet=remote'],
		['/prepare/rooms'],
		['/prepare/networks'],
		['/prepare/clients'],
		[`/prepare/devices?session=${live.id}`],
		[`/prepare/mail?session=${live.id}`],
		['/prepare/administration'],
		['/you'],
		['/you/sign-in'],
		['/prepare/staff', async () => void (await page.getByRole('button', { name: 'Add somebody' }).click())],
		['/you'],
		[
			`/live/${live.id}`,
			async () => void (await page.getByTestId('seats').getByRole('button', { name: 'Kemi Adler' }).click())
		],
		[`/live/${live.id}`, async () => void (await page.getByRole('radio', { name: 'List' }).check({ force: true }))],
		[
			`/live/${live.id}`,
			async () => {
				await page.getByTestId('end').click();
				// Until it knows what becomes of everyone its button is faint on purpose.
				await expect(page.getByTestId('confirm')).toBeEnabled();
			}
		],
		['/live?all'],
		['/grants', async () => void (await page.getByRole('button', { name: 'Kemi Adler' }).first().click())],
		['/close-out'],
		[`/close-out/${done.id}`],
		['/logbook']
	];
	for (const [path, prepare] of screens) {
		await go(page, path);
		await prepare?.();
		await isFree(path);
	}
	const [person] = await home.read((db) => db('candidate').where({ number: 'DO-1011' }).pluck('id'));
	await go(page, `/prepare/people/${person}`);
	await isFree('person');
	for (const path of ['/sit/rehearse', '/sit/client']) {
		await page.goto(path);
		// Its checks run first.
		await page.waitForLoadState('networkidle');
		await isFree(path);
	}
	await page.goto(`/live/${live.id}/board`);
	await isFree('board');
});

test('a preference for dark is followed from the first page', async ({ browser }) => {
	const page = await home.staff(browser, 'ode', { colorScheme: 'dark' });
	await page.goto('/');
	await expect(page.locator('html')).toHaveClass(/dark/);
});

test('a candidate gets through by keyboard alone, on every page without serious findings', async ({ browser }) => {
	const { code } = await home.makeWayFor('Tides and Currents · Watch A', 'DO-1020');
	const page = await home.browser(browser, { reducedMotion: 'reduce' });
	await page.goto('/sit');
	expect(await serious(page), 'door').toEqual([]);
	await expect(page.getByTestId('knock')).toBeEnabled();
	await page.keyboard.press('Tab');
	for (const text of [code, 'DO-1020', 'Rook']) {
		await page.keyboard.type(text);
		await page.keyboard.press('Tab');
	}
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('name')).toBeVisible();
	expect(await serious(page), 'is this you').toEqual([]);
	await page.getByTestId('yes').focus();
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('begin')).toBeVisible();
	expect(await serious(page), 'begin').toEqual([]);
	await page.getByTestId('begin').focus();
	await page.keyboard.press('Enter');
	await expect(page.locator('[data-question]')).toBeVisible();
	expect(await serious(page), 'paper').toEqual([]);
	// A paper that has just come takes no key for a second.
	await takesKeys(page);
	for (let n = 0; n < 24; n++) {
		const box = page.getByRole('textbox');
		if (await box.count()) {
			await box.focus();
			await page.keyboard.type('4.8');
			// A field keeps its keys for itself; those of the paper act from the question.
			await page.locator('[data-question] h2').focus();
		} else await page.keyboard.press('1');
		await page.keyboard.press('n');
	}
	await expect(page.getByRole('button', { name: /^Question \d+, blank/ })).toHaveCount(0);
	await page.getByTestId('hand-in').focus();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('dialog')).toBeVisible();
	expect(await serious(page), 'hand in').toEqual([]);
	await page.getByTestId('confirm-hand-in').focus();
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('receipt')).toBeVisible();
	expect(await serious(page), 'receipt').toEqual([]);
});

// 1280 pixels at 200 % zoom are 640 wide for the page (WCAG 1.4.4), at 400 % 320 (WCAG 1.4.10); a phone is 390.
for (const [what, width, height] of [
	['200 % zoom', 640, 400],
	['400 % zoom', 320, 256],
	['a phone', 390, 844]
] as const) {
	test(`the candidate's side fits ${what} without scrolling sideways`, async ({ browser }) => {
		const page = await home.browser(browser, { viewport: { width, height }, hasTouch: true });
		const index = { 640: 15, 320: 16, 390: 17 }[width];
		const { code, number, family } = await home.makeWayFor('Tides and Currents · Watch A', `DO-10${index}`);
		const fits = async (name: string) =>
			expect(
				await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
				name
			).toBeLessThanOrEqual(0);
		await page.goto('/sit');
		await fits('door');
		await arrive(page, code, number, family);
		await expect(page.getByTestId('begin')).toBeVisible();
		await fits('begin');
		await page.getByTestId('begin').click();
		await expect(page.locator('[data-question]')).toBeVisible();
		for (const n of [1, 2, 3, 4, 5, 6]) {
			await page.getByTestId('open-map').click();
			await fits('map');
			await page
				.getByTestId('map')
				.getByRole('button', { name: new RegExp(`^Question ${n}, `) })
				.click();
			await fits(`question ${n}`);
		}
		if (width < 640) {
			await page.getByTestId('open-map').click();
			await page.getByTestId('map').getByRole('button', { name: 'Hand in' }).click();
		} else await page.getByTestId('hand-in').click();
		await expect(page.getByRole('dialog')).toBeVisible();
		await fits('hand in');
	});
}

test('the candidate’s first page loads under 100 kB of script, gzipped', async ({ browser }) => {
	const page = await home.browser(browser, { extraHTTPHeaders: { 'accept-encoding': 'gzip' } });
	const sizes: Promise<number>[] = [];
	page.on('requestfinished', (request) => {
		if (request.resourceType() === 'script') sizes.push(request.sizes().then((size) => size.responseBodySize));
	});
	await page.goto('/sit', { waitUntil: 'networkidle' });
	const total = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
	console.log(`script on the candidate's first page: ${Math.round(total / 1_000)} kB`);
	expect(total).toBeGreaterThan(10_000);
	expect(total).toBeLessThan(100_000);
});
