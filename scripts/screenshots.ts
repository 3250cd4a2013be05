import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import playwright from '../playwright.config';
import { showDoorCode } from '$core/access';
import { openDb } from '$lib/server/db';
import { DEMO_PASSWORD, demoDevices, seedWithAutumn, setDemoClock } from '$lib/server/demo';
import { startOtium } from '$lib/server/otium';
import { findSessions } from '$lib/server/session';
import { runCrowd } from '../stand-ins/crowd';
import { findRoster } from './crowd-roster';
import { readOptions } from './options';
import { freePort, startServer } from './server-process';

const { only } = readOptions({ only: { type: 'string' } });
const OUT = 'docs/screenshots';
mkdirSync(OUT, { recursive: true });

const dir = mkdtempSync(join(tmpdir(), 'otium-shots-'));
const clock = { at: setDemoClock(dir) };
const now = clock.at;
const otium = await startOtium({ dataDir: dir, now: () => clock.at, sweep: false, logLevel: 'silent' });
await seedWithAutumn(otium, clock, now);
await otium.stop();
setDemoClock(dir);

const port = await freePort();
const url = `http://localhost:${port}`;
const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
const db = await openDb(join(dir, 'otium.sqlite'));
const open = await findSessions(db, (query) => query.whereNotNull('door_code').whereNull('ended_at'));
const chart = open.find((session) => session.room.name === 'Chart Room')!;
for (const [i, session] of open.entries()) {
	const people = await findRoster(db, session.id, ['working', 'at_door', 'on_hold']);
	void runCrowd({
		url,
		code: session.doorCode!,
		candidates: people,
		devices: demoDevices(dir),
		seed: 7 + i,
		tempo: 1,
		kinds: ['steady', 'steady', 'slow'],
		promptly: true
	});
}
// Everyone's line is back, but for two.
await new Promise((resolve) => setTimeout(resolve, 4_000));

const browser = await chromium.launch(playwright.use!.launchOptions);
const staff = await signedIn(browser);

await shot(staff, 'today', '/');
await shot(staff, 'new-session', '/prepare/new', async (page) => {
	await page.getByLabel('Paper').selectOption({ index: 1 });
	await page.locator('label', { hasText: 'Lighthouse Watch' }).click();
	await page.getByLabel('Room').selectOption({ label: 'Lamp Room, 24 seats · Lighthouse Point' });
	await page.locator('label', { hasText: 'João Sorrel' }).click();
	await page.getByTestId('fold-Time').locator('summary').first().click();
	await page.locator('#rule-timing-graceMinutes').fill('2');
	await page.getByTestId('fold-Time').locator('summary').first().click();
	await page.locator('h1').scrollIntoViewIfNeeded();
});
const choose = (name: string) => async (page: Page) =>
	void (await page.getByTestId('seats').getByRole('button', { name }).click());
await shot(staff, 'readiness', '/prepare/ready');
const paper = await db('paper_draft').where({ title: 'Coastal Navigation I' }).first('id');
await shot(staff, 'paper', `/papers/${paper.id}`, async (page) => {
	await page.getByTestId('pool').waitFor();
});
await shot(staff, 'bank', '/papers/bank', async (page) => {
	await page
		.getByTestId('topics')
		.getByRole('button', { name: /^Heights/ })
		.click();
	await page.locator('[data-row]').filter({ hasText: 'under the keel' }).click();
	await page.getByTestId('one-question').getByText('Remarks').waitFor();
	await page.waitForTimeout(600);
});
await shot(staff, 'live-room', `/live/${chart.id}`, choose('Cecily Moor'));
await shot(staff, 'wall', '/live?all');
await shot(
	staff,
	'door-board',
	`/live/${chart.id}/board`,
	async (page) => void (await page.getByRole('button', { name: /Show the code/ }).click())
);
const tomorrow = new Date(clock.at + 86_400_000).toISOString().slice(0, 10);
await shot(staff, 'grants', `/grants?day=${tomorrow}`, async (page) => {
	await page.getByRole('button', { name: 'Zeb Corvin' }).click();
	await page.getByTestId('misfit').first().waitFor();
	await page.getByLabel('What is given').selectOption('own_window');
	await page.getByTestId('proposals').waitFor();
	await page.waitForTimeout(600);
});
await shot(staff, 'grants-for-all', `/grants/fit?site=quayside&day=${tomorrow}`, async (page) => {
	await page.getByRole('button', { name: /Find windows/ }).click();
	await page.getByTestId('quality').waitFor({ timeout: 45_000 });
});
await shot(staff, 'closing', '/close-out?of=autumn');
await shot(staff, 'question-figures', '/close-out/questions?of=autumn', async (page) => {
	await page.getByTestId('correct-for_all').click();
	await page.getByTestId('foreseen').waitFor();
});
await shot(await signedIn(browser, 'holt'), 'marking', '/close-out/marking', async (page) => {
	await page.getByTestId('hand-question').getByRole('link').click();
	await page.getByTestId('answer').waitFor();
});
const second = await db('candidate_group').where({ name: 'Second Years' }).first('id');
await shot(staff, 'parts', `/prepare/parts?group=${second.id}`);
await shot(await signedIn(browser, 'quill'), 'technical', '/technical');
await shot(staff, 'logbook', '/logbook', async (page) => {
	await page.getByTestId('verify').click();
	await page.getByTestId('verdict').waitFor();
});
await candidateShots(browser);

await browser.close();
await db.destroy();
server.kill('SIGKILL');
rmSync(dir, { recursive: true, force: true });
process.exit(0);

async function signedIn(browser: Browser, name = 'ode'): Promise<Page> {
	const page = await (
		await browser.newContext({ baseURL: url, viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
	).newPage();
	await page.goto('/sign-in');
	await page.getByLabel('Name').fill(name);
	await page.getByLabel('Password').fill(DEMO_PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL(({ pathname }) => pathname !== '/sign-in');
	return page;
}

async function shot(page: Page, name: string, path: string, prepare: (page: Page) => Promise<void> = async () => {}) {
	if (only && only !== name) return;
	await page.goto(path);
	await page.waitForTimeout(700);
	await prepare(page);
	await page.waitForTimeout(900);
	await keep(page, name);
}

async function keep(page: Page, name: string) {
	if (only && only !== name) return;
	await page.screenshot({ path: `${OUT}/${name}.png` });
	console.log(`${OUT}/${name}.png`);
}

/** Tobias Rook missed the ferry: he is given a window of his own and sits the paper. */
async function candidateShots(browser: Browser) {
	const { seat, number } = (await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ session_id: chart.id, state: 'expected' })
		.first('sitting.id as seat', 'candidate.number'))!;
	const headers = { origin: url };
	const opens = { date: new Date(clock.at).toISOString().slice(0, 10), opens: '09:40', closes: '11:30' };
	await staff.request.post('/grants/give', {
		headers,
		data: {
			id: 'screenshot-grant',
			sittingIds: [seat],
			what: { kind: 'own_window', ...opens },
			scope: 'session',
			reason: 'Ferry cancelled'
		}
	});
	const page = await (
		await browser.newContext({ baseURL: url, viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
	).newPage();
	await page.goto('/sit');
	await page.getByLabel('Code').fill(showDoorCode(chart.doorCode!));
	await page.getByLabel('Candidate number').fill(number);
	await page.getByLabel('Family name').fill('Rook');
	await page.getByTestId('knock').click();
	await page.getByTestId('yes').click();
	await page.getByText('You are at the door').waitFor();
	await staff.request.post(`/live/${chart.id}/act`, {
		headers,
		data: { commandId: 'screenshot-let-in', kind: 'let_in', sittingIds: [seat] }
	});
	await page.getByTestId('begin').waitFor();
	await keep(page, 'sit-start');
	await page.getByTestId('begin').click();
	await page.locator('[data-question]').waitFor();
	for (let n = 0; n < 9; n++) {
		const radio = page.getByRole('radio').first();
		if (await radio.count()) await radio.check();
		else await page.getByRole('textbox').fill('4.8');
		if (n === 4) await page.getByTestId('mark').click();
		await page.getByTestId('next').click();
	}
	while ((await page.getByRole('radio').count()) < 4) await page.getByTestId('next').click();
	await page.getByRole('radio').nth(1).check();
	await page.getByText('strike out').nth(2).click();
	await page.getByRole('button', { name: 'Calculator' }).click();
	await page.getByLabel('What to work out').fill('6.4 − 1.6');
	await page.keyboard.press('Enter');
	await page.waitForTimeout(800);
	await keep(page, 'sit-paper');
	await page.getByRole('button', { name: 'Close Calculator' }).click();
	await page.getByTestId('hand-in').click();
	await page.waitForTimeout(400);
	await keep(page, 'sit-hand-in');
	await page.getByTestId('confirm-hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await page.getByTestId('receipt').waitFor();
}
