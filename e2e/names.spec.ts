import { expect, test, type Page } from '@playwright/test';
import { seedDemo } from '../src/lib/server/demo';
import { arrive, go, house } from './house';

const WATCH_A = 'Tides and Currents · Watch A';
/** Names that a college meets: right to left, one word alone, and sixty letters; the last two without a place to break. */
const HIND = { given: 'هند', family: 'الفاسي' };
const SHIRA = { given: 'שירה', family: 'בן־דוד' };
const ARUNIKA = { given: '', family: 'Arunika' };
const LONG = { given: 'Wilhelminaalexandrinephilippina', family: 'Featherstonehaughcholmondeleys' };
const WHO = { Reyes: HIND, Moor: SHIRA, Rook: ARUNIKA, Weir: LONG };

const home = house({
	furnish: async (otium, clock, now) => {
		await seedDemo(otium, clock, now);
		for (const [family, name] of Object.entries(WHO)) await otium.db('candidate').where({ family }).update(name);
		const rooms = otium.db('session').where('name', 'like', 'Lights and Shapes · Watch B%').select('room_id');
		await otium.db('room').whereIn('id', rooms).update({ name: 'غرفة الخرائط 2' });
		await otium.db('candidate_group').where({ name: 'Watch B' }).update({ name: 'משמרת א' });
	}
});

/** Where these words of a text stand; null: they are not there. */
const placeOf = (page: Page, within: string, words: string) =>
	page.locator(within).evaluateAll((elements, words) => {
		for (const element of elements) {
			const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
			for (let node = walker.nextNode(); node; node = walker.nextNode()) {
				const at = node.textContent!.indexOf(words);
				if (at < 0) continue;
				const range = document.createRange();
				range.setStart(node, at);
				range.setEnd(node, at + words.length);
				const { left, right, top } = range.getBoundingClientRect();
				if (right > left) return { left, right, top };
			}
		}
		return null;
	}, words);

test('names of any script stand in our sentences where they belong, and none makes a page wider than its screen', async ({
	browser
}) => {
	const page = await home.staff(browser);
	const { id } = await home.session(WATCH_A);

	// A number behind a name that runs right to left stays behind it.
	await go(page, '/');
	await expect(page.getByText(/candidates of/).first()).toBeVisible();
	const room = (await placeOf(page, 'body', 'غرفة الخرائط 2'))!;
	const on = (await placeOf(page, 'body', ' on '))!;
	// Or on the next line.
	expect(on.left >= room.right - 1 || on.top > room.top + 5, JSON.stringify([room, on])).toBe(true);

	await go(page, `/live/${id}`);
	const line = page.getByTestId('needs').locator('li', { hasText: 'هند' }).first();
	await expect(line).toBeVisible();
	await expect(page.getByTestId('seats').getByRole('button', { name: 'Arunika' })).toBeVisible();
	await page.screenshot({ path: '/tmp/names-live.png' });
	const seat = page.getByTestId('seats').getByRole('button', { name: 'שירה' });
	await seat.click();
	await expect(page.getByRole('heading', { name: 'שירה' })).toBeVisible();

	const person = await home.read((db) => db('candidate').where({ family: LONG.family }).first('id'));
	const pages = ['/', '/prepare', `/prepare/${id}`, '/prepare/people', `/prepare/people/${person.id}`, `/live/${id}`];
	for (const path of [...pages, `/live/${id}/wall`, '/grants', '/close-out', '/logbook'])
		for (const width of [1280, 390]) {
			await page.setViewportSize({ width, height: 800 });
			const answer = await page.goto(path);
			if (answer!.status() === 404) continue;
			await expect(page.locator('main')).toBeAttached();
			const wider = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
			expect(wider, `${path} at ${width}`).toBeLessThanOrEqual(0);
		}
});

test('somebody with one name alone comes in by it', async ({ browser }) => {
	const { code } = await home.makeWayFor(WATCH_A, 'DO-1020');
	const page = await home.browser(browser);
	await arrive(page, code, 'DO-1020', 'arunika', () => expect(page.getByTestId('name')).toHaveText('Arunika'));
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]').first()).toBeVisible();
});
