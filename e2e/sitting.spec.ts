import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { go, house } from './house';
import { takesKeys, sitsIn } from './sits';

const home = house({ at: '10:22' });
const { begun, formOf, valueOf, goTo } = sitsIn(home);

test('every kind of question is answered, by pointer or by keys, and arrives in its own shape', async ({ browser }) => {
	const page = await home.browser(browser);
	const me = await begun(page, 0);
	const form = await formOf(me.id);
	const at = (kind: string, picture?: string) =>
		form.findIndex((question) => question.kind === kind && (picture === undefined || question.picture === picture));
	const stands = (index: number, value: unknown) => expect.poll(() => valueOf(me.id, form[index].id)).toEqual(value);

	const multiple = at('multiple');
	await goTo(page, multiple);
	await expect(page.getByRole('img', { name: /Two red lights/ })).toBeVisible();
	await page.getByRole('checkbox', { name: 'A vessel whose engine has failed' }).check();
	await page.keyboard.press('Tab');
	await page.getByRole('checkbox', { name: 'A vessel whose rudder has jammed' }).check();
	await expect.poll(async () => ((await valueOf(me.id, form[multiple].id)) as string[] | undefined)?.length).toBe(2);
	await page.getByRole('button', { name: 'Strike out: A vessel whose rudder has jammed' }).click();
	await expect.poll(async () => ((await valueOf(me.id, form[multiple].id)) as string[]).length).toBe(1);

	const single = at('single', 'end-on');
	await goTo(page, single);
	await takesKeys(page);
	await page.keyboard.press('2');
	await expect(page.getByRole('radio').nth(1)).toBeChecked();

	const matching = at('matching');
	await goTo(page, matching);
	await page.getByLabel('One short blast').selectOption({ label: 'I am altering my course to starboard' });
	await page.getByLabel('Three short blasts').selectOption({ label: 'I am operating astern propulsion' });
	await expect
		.poll(async () => Object.keys(((await valueOf(me.id, form[matching].id)) as object) ?? {}))
		.toEqual([0, 2].map((i) => form[matching].items![i].id));

	const ordering = at('ordering');
	await goTo(page, ordering);
	const steps = () => page.locator('[data-question] ol li span.min-w-0').allInnerTexts();
	const [first, second] = await steps();
	await page.getByRole('button', { name: `Move down: ${first}` }).press('Enter');
	await expect.poll(steps).toEqual(expect.arrayContaining([second, first]));
	expect((await steps()).slice(0, 2)).toEqual([second, first]);
	await page.getByTestId('step-3').dragTo(page.getByTestId('step-0'));
	await expect.poll(async () => ((await valueOf(me.id, form[ordering].id)) as string[]).length).toBe(4);

	const gaps = at('fill_in');
	await goTo(page, gaps);
	await page.getByLabel('Gap 1 of 2').fill('112.5');
	await page.getByLabel('Gap 2 of 2').fill('red');
	const [course, colour] = form[gaps].gaps!;
	await stands(gaps, { [course]: '112.5', [colour]: 'red' });

	const short = at('short');
	await goTo(page, short);
	await page.locator('[data-question]').getByRole('textbox').fill('trawling');
	await stands(short, 'trawling');

	await page.getByRole('button', { name: 'In Portuguese' }).click();
	await expect(page.locator('[data-question] legend')).toContainText('O que está este navio a fazer?');
	await page.getByRole('button', { name: 'In Portuguese' }).click();
	await expect(page.locator('[data-question] legend')).toContainText('What is this vessel doing?');
});

test('calculator, notes and display serve the candidate; notes count for nothing and come back after a reload', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const me = await begun(page, 1, { lockdown: { level: 'open' } });
	await page.getByRole('button', { name: 'Calculator' }).click();
	await page.getByLabel('What to work out').fill('2 × sin(30)');
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('calculated')).toHaveText('= 1');
	await page.getByRole('button', { name: 'Notes' }).click();
	await page.getByTestId('notes').fill('Check question 4');
	await expect.poll(() => valueOf(me.id, 'notes')).toBe('Check question 4');
	await page.getByRole('button', { name: 'Display' }).click();
	const size = () => page.locator('main').evaluate((element) => parseFloat(getComputedStyle(element).fontSize));
	const before = await size();
	await page.getByRole('button', { name: '200 %' }).click();
	expect(await size()).toBe(before * 2);
	await page.getByRole('button', { name: 'Black on white' }).click();
	await page.reload();
	await expect(page.locator('[data-question]')).toBeVisible();
	expect(await size()).toBe(before * 2);
	await page.getByRole('button', { name: 'Notes' }).click();
	await expect(page.getByTestId('notes')).toHaveValue('Check question 4');
	await page.getByTestId('hand-in').click();
	await expect(page.getByTestId('blanks')).toContainText('24 blank');
});

test('a watched paper prevents copying and the menu, asks back into the full screen, and the proctor sees it at once', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const me = await begun(page, 2, { lockdown: { level: 'watched', leavingsAllowed: 1, onLeaving: 'hold' } });
	expect(await page.evaluate(() => document.fullscreenElement !== null)).toBe(true);
	// What the browser does on its own copy key, which a driven browser does not have.
	const copied = await page.evaluate(() => document.dispatchEvent(new ClipboardEvent('copy', { cancelable: true })));
	expect(copied).toBe(false);
	await expect(page.getByText('Copying is switched off')).toBeVisible();
	await page.locator('[data-question]').click({ button: 'right' });
	await expect(page.getByText('The right-click menu is switched off')).toBeVisible();

	await page.waitForTimeout(1_000);
	await page.evaluate(() => document.exitFullscreen());
	await expect(page.getByTestId('full-screen')).toContainText('This paper fills the screen');
	await page.waitForTimeout(1_000);
	await page.getByTestId('fill').click();
	await expect(page.getByTestId('left')).toContainText('The next time your paper is paused');
	const told = () => home.read((db) => db('lapse').where({ sitting_id: me.id }).orderBy('from_at'));
	// The end of the absence is told with the next message, which may be on its way.
	await expect.poll(async () => (await told()).at(-1)?.to_at ?? null).not.toBe(null);
	const lapses = await told();
	expect(lapses.map((lapse) => lapse.kind)).toEqual(['copy', 'menu', 'left']);
	expect(lapses[2].to_at - lapses[2].from_at).toBeGreaterThan(700);

	await page.getByRole('button', { name: 'I understand' }).click();
	await page.evaluate(() => document.exitFullscreen());
	await expect(page.getByRole('heading', { name: 'A pause' })).toBeVisible();
	await page.bringToFront();
});

test('pasting and printing are prevented, told and kept; a second screen is told as well', async ({ browser }) => {
	const page = await home.browser(browser, { permissions: ['clipboard-read', 'clipboard-write'] });
	await page.addInitScript(() => Object.defineProperty(Screen.prototype, 'isExtended', { get: () => true }));
	const me = await begun(page, 5, {
		lockdown: { level: 'watched', leavingsAllowed: 9, onLeaving: 'warn', printing: false }
	});
	const form = await formOf(me.id);
	await goTo(
		page,
		form.findIndex((question) => question.kind === 'short')
	);
	const field = page.locator('[data-question] input').first();
	await field.fill('written by hand');
	await page.evaluate(() => navigator.clipboard.writeText('brought along'));
	await field.press('End');
	await field.press('Control+v');
	await expect(page.getByText('Pasting is switched off')).toBeVisible();
	await expect(field).toHaveValue('written by hand');
	await page.waitForTimeout(300);
	await field.press('Control+p');
	await expect(page.getByText('Printing is switched off')).toBeVisible();
	// What the browser's own menu prints has nothing of the paper on it.
	await page.emulateMedia({ media: 'print' });
	await expect(page.locator('[data-question]')).toBeHidden();
	await page.emulateMedia({ media: 'screen' });
	await expect(page.locator('[data-question]')).toBeVisible();
	await field.press('Control+a');
	await field.press('Control+c');
	await expect(page.getByText('Copying is switched off')).toBeVisible();
	expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('brought along');
	await page.locator('[data-question] legend').click({ button: 'right' });
	await expect(page.getByText('The right-click menu is switched off')).toBeVisible();
	// Dragged in from another window it would be pasted all the same.
	const isTaken = await field.evaluate((box) => {
		const dataTransfer = new DataTransfer();
		dataTransfer.setData('text/plain', 'brought along');
		return box.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }));
	});
	expect(isTaken).toBe(false);
	const kinds = () => home.read((db) => db('lapse').where({ sitting_id: me.id }).orderBy('from_at').pluck('kind'));
	await expect
		.poll(async () => (await kinds()).slice(0, 5))
		.toEqual(['second_screen', 'paste', 'print', 'copy', 'menu']);
});

test('a hand goes up and the proctor’s words come back by themselves, and are seen to be read', async ({ browser }) => {
	const page = await home.browser(browser);
	const me = await begun(page, 3, { lockdown: { level: 'open' } });
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${me.sessionId}`);
	await page.getByTestId('hand').click();
	await page.getByLabel('What is it about').fill('My pen is empty');
	await page.getByTestId('raise').click();
	const need = proctor.getByTestId('needs').locator('li', { hasText: 'My pen is empty' });
	await expect(need).toContainText(`${me.given} ${me.family}`);
	await expect(page.getByTestId('hand')).toContainText('Your hand is up');
	await need.getByRole('button', { name: 'Message' }).click();
	await proctor.getByRole('button', { name: 'I am coming to you.' }).click();
	await proctor.getByTestId('confirm').click();
	await expect(page.getByTestId('message')).toContainText('I am coming to you.');
	await expect(page.getByTestId('hand')).toHaveText('Raise a hand');
	await expect(need).toHaveCount(0);
	await page.getByRole('button', { name: 'I have read it' }).click();
	await expect(page.getByTestId('message')).toHaveCount(0);
	await proctor.locator(`[data-seat="${me.id}"]`).first().click();
	await expect(proctor.getByText(/read \d\d:\d\d/)).toBeVisible();
});

test('snapshots come from the stand-in where there is no camera, and lie outside the database', async ({ browser }) => {
	const page = await home.browser(browser);
	const me = await begun(page, 4, { lockdown: { level: 'open', snapshotSeconds: 5 } });
	const taken = () => home.read((db) => db('snapshot').where({ sitting_id: me.id }));
	await expect.poll(async () => (await taken()).length).toBeGreaterThan(0);
	const [one] = await taken();
	const file = readFileSync(`${home.dir}/snapshots/${one.id}.jpg`);
	expect([...file.subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
	expect(file.length).toBeLessThan(20_000);
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${me.sessionId}`);
	await proctor.locator(`[data-seat="${me.id}"]`).first().click();
	const picture = proctor.getByTestId('snapshots').getByRole('img').first();
	await expect(picture).toBeVisible();
	await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(160);
});

test('who sits in another zone reads on their own clock when they finish', async ({ browser }) => {
	const page = await home.browser(browser, { timezoneId: 'Asia/Tokyo', viewport: { width: 390, height: 844 } });
	await begun(page, 9);
	await expect(page.getByTestId('own-time')).toHaveText(/^ ?\(\d\d:\d\d on your own clock\)$/);
	const [finish, own] = (await page.getByTestId('time').innerText())
		.match(/\d\d:\d\d/g)!
		.map((time) => Number(time.slice(0, 2)));
	// Tokyo is nine hours ahead of the college in November, without a change of clocks (IANA).
	expect(own).toBe((finish + 9) % 24);
	expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
