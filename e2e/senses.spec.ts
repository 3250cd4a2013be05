import { chromium, expect, test, type Page } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();
const WATCH_A = 'Tides and Currents · Watch A';
const FLAGS = ['--no-sandbox', '--disable-gpu', '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'];

/** A candidate of the running session, begun in this page. */
async function begun(page: Page, number: string, change: Record<string, unknown> = {}) {
	const person = await home.makeWayFor(WATCH_A, number);
	for (const [path, value] of Object.entries(change))
		await home.read((db) =>
			db('session')
				.where({ id: person.id })
				.update({ rules: db.raw('json_set(rules, ?, ?)', [path, value as number]) })
		);
	await arrive(page, person.code, person.number, person.family);
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]')).toBeVisible();
	return person;
}

// First of all: candidates of the tests below leave lines behind that are lost a little later, which rings as well.
test('a sound tells of somebody new who presses, once, and only where it is wanted', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore');
	await page.addInitScript(() => {
		// What stood in the queue at each ring, so that a ring too many says what it was for.
		const rings: string[][] = [];
		class Context {
			currentTime = 0;
			destination = {};
			createOscillator() {
				const tone = {
					frequency: { value: 0 },
					connect: (next: unknown) => next,
					start: () => rings.push([...document.querySelectorAll('[data-need]')].map((need) => need.textContent)),
					stop() {},
					onended: null
				};
				return tone;
			}
			createGain() {
				return {
					gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} },
					connect: (next: unknown) => next
				};
			}
			close() {}
		}
		Object.assign(window, { AudioContext: Context, rings: () => rings });
	});
	const { id } = await home.session(WATCH_A);
	await home.regainLines();
	await go(page, `/live/${id}`);
	const rings = () => page.evaluate(() => (window as unknown as { rings: () => string[][] }).rings());
	const candidate = await home.browser(browser);
	await begun(candidate, 'DO-1009');
	const raise = async () => {
		await candidate.getByTestId('hand').click();
		await candidate.getByTestId('raise').click();
		await expect(page.getByTestId('needs')).toContainText('Inge Brandt');
	};
	await raise();
	// Whoever does not see the room hears it, in one sentence.
	await expect(page.getByTestId('said')).toContainText('Inge Brandt: hand up.');
	await page.waitForTimeout(400);
	expect(await rings()).toHaveLength(0);
	const need = page.getByTestId('needs').locator('li', { hasText: 'Inge Brandt' });
	await need.getByRole('button', { name: /^Done/ }).focus();
	await page.keyboard.press('Enter');
	await expect(need).toHaveCount(0);
	// The focus is with what comes next, not at the top of the page.
	await expect(page.locator('[data-need] [data-keyed]:focus, h2:focus')).toHaveCount(1);
	await page.getByLabel('sound').check();
	expect(await rings()).toHaveLength(1);
	await raise();
	await expect.poll(rings).toHaveLength(2);
	await page.waitForTimeout(2_500);
	expect(await rings()).toHaveLength(2);
});

test('snapshots come from the camera where the browser has one', async () => {
	// Chromium's own test camera: a moving picture through the same interface as a real one.
	const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: FLAGS });
	const context = await browser.newContext({ baseURL: home.url, permissions: ['camera'] });
	const page = await context.newPage();
	await begun(page, 'DO-1020', { '$.lockdown.snapshotSeconds': 2 });
	const sizes = async () => {
		const rows: { bytes: number }[] = await home.read((db) =>
			db('snapshot')
				.join('sitting', 'sitting.id', 'sitting_id')
				.join('candidate', 'candidate.id', 'candidate_id')
				.where({ number: 'DO-1020' })
				.select('bytes')
		);
		return rows.map((row) => row.bytes);
	};
	await expect.poll(async () => (await sizes()).length).toBeGreaterThanOrEqual(2);
	// Pictures of 160 by 120 are small, and one that is not blank is no mere header.
	for (const bytes of await sizes()) {
		expect(bytes).toBeGreaterThan(1_000);
		expect(bytes).toBeLessThan(20_000);
	}
	expect(
		await page.evaluate(() => navigator.mediaDevices.enumerateDevices().then((all) => all.map((one) => one.kind)))
	).toContain('videoinput');
	await context.close();
	await browser.close();
});

test('a question is read aloud by a voice of the device, in its words, and stops when told', async ({ browser }) => {
	const page = await home.browser(browser);
	await page.addInitScript(() => {
		const said: string[] = [];
		const voice = { name: 'Local', lang: 'en-GB', localService: true, default: true, voiceURI: 'local' };
		const away = { ...voice, name: 'From the network', localService: false };
		class Utterance {
			voice: unknown = null;
			lang = '';
			onend: (() => void) | null = null;
			onerror: (() => void) | null = null;
			constructor(public text: string) {}
			addEventListener() {}
		}
		const synthesis = {
			getVoices: () => [away, voice],
			speak: (one: Utterance) => said.push(`${(one.voice as { name: string } | null)?.name}: ${one.text}`),
			cancel: () => said.push('cancel'),
			addEventListener() {},
			removeEventListener() {}
		};
		Object.assign(window, { said, SpeechSynthesisUtterance: Utterance });
		Object.defineProperty(window, 'speechSynthesis', { value: synthesis });
	});
	await begun(page, 'DO-1013');
	await page.getByRole('button', { name: 'Read aloud' }).click();
	const said = () => page.evaluate(() => (window as unknown as { said: string[] }).said);
	const spoken = async () => (await said()).find((line) => line.startsWith('Local: '))?.slice(7) ?? '';
	await expect.poll(spoken).not.toBe('');
	const shown = (await page.locator('[data-question]').innerText()).replace(/\s+/g, ' ');
	expect(shown).toContain((await spoken()).replace(/\s+/g, ' ').slice(0, 25));
	// Only a voice of the device: a question must not leave for some server.
	expect((await said()).join()).not.toContain('From the network');
	await page.getByRole('button', { name: 'Stop reading' }).click();
	expect((await said()).at(-1)).toBe('cancel');
	// It ends with its question as well.
	await page.getByRole('button', { name: 'Read aloud' }).click();
	await page.getByTestId('next').click();
	await expect(page.getByRole('button', { name: 'Read aloud' })).toBeVisible();
	expect((await said()).at(-1)).toBe('cancel');
});

test('two proctors who settle the same hand, refusal and incident at once do it once', async ({ browser }) => {
	const { id } = await home.session(WATCH_A);
	const [one, two] = await Promise.all(['dunmore', 'ode'].map((name) => home.staff(browser, name)));
	for (const page of [one, two]) await go(page, `/live/${id}`);
	const candidate = await home.browser(browser);
	const person = await begun(candidate, 'DO-1012');
	await candidate.getByTestId('hand').click();
	await candidate.getByTestId('raise').click();
	const need = (page: Page) => page.getByTestId('needs').locator('li', { hasText: 'Lars Holt' });
	for (const page of [one, two]) await expect(need(page)).toContainText('Hand up');
	// Both have it before them; a click by pointer would find that the other's has taken it away.
	const buttons = await Promise.all(
		[one, two].map((page) => need(page).getByRole('button', { name: /^Done/ }).elementHandle())
	);
	await Promise.all(buttons.map((button) => button!.evaluate((element) => (element as HTMLElement).click())));
	for (const page of [one, two]) await expect(need(page)).toHaveCount(0);
	await expect(candidate.getByTestId('hand')).toHaveText('Raise a hand');

	// Both hold the same person at once: held once, and the second is told that it is so.
	for (const page of [one, two]) {
		await page.getByTestId('seats').getByRole('button', { name: 'Lars Holt' }).click();
		await page.keyboard.press('h');
		await page.getByLabel('Why').fill('To be spoken to');
	}
	await Promise.all([one, two].map((page) => page.getByTestId('confirm').click()));
	await expect(candidate.getByRole('heading', { name: 'A pause' })).toBeVisible();
	const held = await home.read((db) =>
		db('logbook')
			.join('sitting', 'sitting.id', 'logbook.sitting_id')
			.join('candidate', 'candidate.id', 'candidate_id')
			.where({ kind: 'held', number: person.number })
	);
	expect(held).toHaveLength(1);
});
