import { expect, test } from '@playwright/test';
import { CROWD_STAFF, makeCrowdSession } from '../scripts/crowd-session';
import { house } from './house';

const PEOPLE = 200;
const home = house({ made: '10:00', furnish: async () => {} });

test('a room of two hundred comes by its line, and a link to somebody in it waits for them', async ({ browser }) => {
	await home.kill();
	const { people } = await makeCrowdSession(home.dir, PEOPLE);
	await home.start();
	const page = await home.browser(browser);
	await page.request.post('/sign-in', {
		form: { name: CROWD_STAFF.signIn, password: CROWD_STAFF.password, to: '/' },
		headers: { origin: home.url, accept: 'text/html' },
		maxRedirects: 0
	});
	let goOn = () => {};
	const held = new Promise<void>((resolve) => (goOn = resolve));
	await page.route('**/live/s/stream', async (route) => {
		await held;
		await route.continue();
	});
	await page.goto('/live/s?seat=t150');
	// Nothing is told of a room that is not there yet: nobody would know that it is not empty.
	await expect(page.getByTestId('coming')).toContainText(`The ${PEOPLE} seats`);
	await expect(page.getByTestId('tally')).toHaveCount(0);
	await expect(page.getByText('Nobody needs you')).toHaveCount(0);
	await page.keyboard.press('e');
	await expect(page.getByRole('dialog')).toHaveCount(0);
	goOn();
	await expect(page.getByTestId('tally')).toContainText(`${PEOPLE} of ${PEOPLE} accounted for`);
	await expect(page.getByTestId('coming')).toHaveCount(0);
	await expect(page.getByRole('heading', { name: `Ada ${people[150].family}` })).toBeVisible();

	await page.goto('/live/s/board');
	await expect(page.getByText('expected')).toBeVisible();
});
