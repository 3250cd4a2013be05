import { expect, test, type Page } from '@playwright/test';
import { serious } from './axe';
import { arrive, go, house } from './house';
import { sitsIn } from './sits';

const home = house();
const WATCH_A = 'Tides and Currents · Watch A';
/** Where the head of a room and its buttons stand. */
const boxes = (page: Page) =>
	page.evaluate(() =>
		[
			...document.querySelectorAll(
				'header, [data-testid="head-acts"] > *, [data-testid="needs"], [data-testid="seats"]'
			)
		]
			.map((element) => element.getBoundingClientRect())
			.map(({ x, y, width }) => [x, y, width].map(Math.round).join(' '))
	);
const seat = (page: Page, name: string) => page.getByTestId('seats').getByRole('button', { name });

test('the room’s head stays where it is while people come, wait, are let in and raise a hand', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore');
	const { id } = await home.session(WATCH_A);
	await go(page, `/live/${id}`);
	await expect(page.getByTestId('let-in-all')).toContainText('Let in');
	const before = await boxes(page);
	expect(before.length).toBeGreaterThan(7);
	const { code } = await home.makeWayFor(WATCH_A, 'DO-1020');
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ rules: db.raw("json_set(rules, '$.admission', 'proctor')") })
	);
	for (const [number, family] of [
		['DO-1020', 'Rook'],
		['DO-1021', '']
	]) {
		const person = await home.read((db) => db('candidate').where({ number }).first('family'));
		await home.makeWayFor(WATCH_A, number);
		await home.read((db) =>
			db('session')
				.where({ id })
				.update({ rules: db.raw("json_set(rules, '$.admission', 'proctor')") })
		);
		await arrive(await home.browser(browser), code, number, family || person.family);
		await expect(page.getByTestId('needs')).toContainText(person.family);
		expect(await boxes(page)).toEqual(before);
	}
	await expect(page.getByTestId('let-in-all')).toContainText(/Let in all \d/);

	// L, then Enter; and one press undoes it.
	await page.keyboard.press('l');
	await expect(page.getByTestId('confirm')).toBeFocused();
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('notices')).toContainText(/Let in: \d candidates/);
	await expect(seat(page, 'Tobias Rook')).toContainText('Let in');
	expect(await boxes(page)).toEqual(before);
	await page.keyboard.press('z');
	await expect(seat(page, 'Tobias Rook')).toContainText('At the door');
	await expect(page.getByTestId('notices')).toContainText('Undone');
});

test('what cannot be undone begins on the safe choice', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, `/live/${(await home.session(WATCH_A)).id}`);
	await page.keyboard.press('e');
	await expect(page.getByTestId('confirm')).toBeEnabled();
	await expect(page.getByTestId('cancel')).toBeFocused();
	await page.keyboard.press('Enter');
	await expect(page.getByTestId('cancel')).toHaveCount(0);
	await expect(page.getByTestId('end')).toBeVisible();
});

test('turning away and carrying over are undone, and the candidate goes on as before', async ({ browser }) => {
	const page = await home.staff(browser);
	const candidate = await home.browser(browser);
	const { id, code, number, family } = await home.makeWayFor(WATCH_A, 'DO-1009');
	await arrive(candidate, code, number, family);
	await candidate.getByTestId('begin').click();
	await expect(candidate.locator('[data-question]')).toBeVisible();
	await go(page, `/live/${id}`);
	const theirs = seat(page, 'Inge Brandt');
	await theirs.click();
	// What is on their screen can be looked at, without what they answered.
	await page.getByTestId('on-question').click();
	const stem = (await candidate.locator('[data-question] legend').innerText()).split('\n').at(-1)!;
	await expect(page.getByTestId('their-question')).toContainText(stem);
	await page.getByRole('button', { name: 'Close' }).click();
	await page.getByRole('button', { name: 'Carry over…' }).click();
	await page.getByRole('button', { name: 'Unwell' }).click();
	await page.getByTestId('confirm').click();
	await expect(candidate.getByRole('heading', { name: 'You will continue another time' })).toBeVisible();
	await page.keyboard.press('z');
	await expect(candidate.locator('[data-question]')).toBeVisible();
	await candidate.getByTestId('mark').click();
	await expect(candidate.getByTestId('saved')).toContainText(/Saved \d/);
	const kept = await home.read((db) =>
		db('answer')
			.join('sitting', 'sitting.id', 'answer.sitting_id')
			.where({ session_id: id })
			.orderBy('received_at', 'desc')
			.first('kept_because')
	);
	expect(kept.kept_because).toBeNull();
});

test('anything is found by Ctrl+K and done by keys alone', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/');
	const list = page.getByTestId('found-anything');
	const working = await home.read(async (db) => {
		const { id } = await home.session(WATCH_A);
		const { given, family } = await db('sitting')
			.join('candidate', 'candidate.id', 'candidate_id')
			.where({ session_id: id, state: 'working' })
			.first('given', 'family');
		return `${given} ${family}`;
	});
	await page.keyboard.press('Control+k');
	await page.keyboard.type('cecily');
	await expect(list.getByRole('option').first()).toContainText('Cecily Moor');
	expect(await serious(page), 'find anything').toEqual([]);
	await page.keyboard.press('Enter');
	await page.waitForURL('**/live/**');
	await expect(page.getByRole('heading', { name: 'Cecily Moor' })).toBeVisible();

	// A verb first; Enter at once waits for its answer. What it asks, it asks in the room.
	await page.keyboard.press('Control+k');
	await page.keyboard.type(`hold ${working}`);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('dialog')).toContainText(`Hold: ${working}`);
	await page.keyboard.press('Escape');

	await page.keyboard.press('Control+k');
	await page.keyboard.type('networ');
	await expect(list.getByRole('option').first()).toContainText('Networks');
	await page.keyboard.press('Enter');
	await page.waitForURL('**/prepare/networks');
	await page.keyboard.press('Control+k');
	await page.keyboard.type('nobody of that name');
	await expect(list).toContainText('Nothing of that name.');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('combobox', { name: 'What to find' })).toHaveCount(0);

	// A proctor finds their own rooms, and none of the places that are not theirs.
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, '/');
	await proctor.keyboard.press('Control+k');
	await expect(proctor.getByTestId('found-anything')).not.toContainText('Networks');
	await proctor.keyboard.type('cecily');
	await expect(proctor.getByTestId('found-anything').getByRole('option').first()).toContainText('Cecily Moor');
	await expect(proctor.getByTestId('found-anything')).not.toContainText('Their page');
});

test('a page of before an update says so, and loads again with what was entered', async ({ browser }) => {
	const page = await home.staff(browser, 'ode');
	await page.clock.install();
	await page.route('**/_app/version.json', (route) => route.fulfill({ json: { version: 'a later one' } }));
	await go(page, '/logbook');
	await page.getByRole('searchbox').or(page.getByRole('textbox')).first().fill('Cecily');
	await page.clock.runFor(61_000);
	await expect(page.getByText('Otium has been updated.')).toBeVisible();
	await page.getByRole('button', { name: 'Load again' }).click();
	await expect(page.locator('[data-ready=true]').first()).toBeVisible();
	await expect(page.getByRole('searchbox').or(page.getByRole('textbox')).first()).toHaveValue('Cecily');
});

test('the script is read beside the room, an alarm holds all and one press lets all go on', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, `/live/${(await home.session(WATCH_A)).id}`);
	await page.getByText('When something goes wrong').click();
	await expect(page.getByTestId('script')).toContainText('Hold all, leave, and resume all when you are back.');
	await page.getByTestId('hold-all').click();
	await page.getByRole('dialog').getByLabel('Why').fill('Alarm');
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('hold-all')).toHaveText(/Resume all \d\d/);
	await page.getByTestId('hold-all').click();
	await expect(page.getByTestId('hold-all')).toHaveText('Hold all');
});

test('the minutes of a lost connection are told, and one press gives them back', async ({ browser }) => {
	await home.moveTo('09:50');
	const page = await home.staff(browser);
	await go(page, `/live/${(await home.session(WATCH_A)).id}`);
	await seat(page, 'Zeb Thorne').click();
	await expect(page.getByTestId('lost')).toContainText('Connection lost for');
	await page.getByTestId('give-back').click();
	await expect(page.getByTestId('notices')).toContainText('Zeb Thorne');
	await expect(page.getByTestId('give-back')).toHaveCount(0);
});

test('however much speaks against a session, its sentence and the button are seen', async ({ browser }) => {
	const page = await home.staff(browser, 'ode', { viewport: { width: 1280, height: 800 } });
	await go(page, '/prepare/new');
	await page.getByLabel('Paper').selectOption({ index: 4 });
	await page.locator('label', { hasText: 'Second Years' }).click();
	await page.getByLabel('Room').selectOption({ index: 4 });
	await page.locator('#time').fill('06:00');
	await page.locator('#time').blur();
	await expect.poll(() => page.getByTestId('findings').locator('li').count()).toBeGreaterThan(5);
	for (const id of ['sentence', 'plan']) await expect(page.getByTestId(id)).toBeInViewport({ ratio: 1 });
	await page.getByTestId('findings').locator('li').last().scrollIntoViewIfNeeded();
	await expect(page.getByTestId('findings').locator('li').last()).toBeInViewport({ ratio: 0.9 });
	await expect(page.getByTestId('sentence')).toBeInViewport({ ratio: 1 });
});

test('a proctor walks about with a phone: today, the room, who needs them and one candidate', async ({ browser }) => {
	const page = await home.staff(browser, 'dunmore', { viewport: { width: 390, height: 844 }, hasTouch: true });
	const fits = async (what: string) => {
		expect(await page.evaluate(() => document.documentElement.scrollWidth), what).toBeLessThanOrEqual(390);
		// As WCAG 2.2, 2.5.8 (AA) asks: at least 24 px each way for whatever is pressed, but links inside a sentence.
		const small = await page.evaluate(() =>
			[...document.querySelectorAll<HTMLElement>('button, [role=button], select, summary')]
				.filter((element) => element.checkVisibility())
				.map((element) => ({ name: element.innerText || element.ariaLabel, box: element.getBoundingClientRect() }))
				.filter(({ box }) => box.width > 0 && (box.width < 24 || box.height < 24))
				.map(({ name }) => name)
		);
		expect(small, what).toEqual([]);
	};
	await go(page, '/');
	await fits('today');
	await go(page, `/live/${(await home.session(WATCH_A)).id}`);
	await expect(page.getByTestId('needs')).toBeVisible();
	await fits('needs you');
	await page.getByRole('button', { name: /^Room/ }).tap();
	await page.locator('main').getByText('Zeb Thorne').tap();
	await expect(page.getByRole('heading', { name: 'Zeb Thorne' })).toBeVisible();
	await fits('one candidate');
	await page.getByRole('button', { name: 'Free device' }).tap();
	await expect(page.getByRole('dialog')).toBeVisible();
	await fits('a dialog');
});

test('a candidate’s question has the room on a phone, and a long paper keeps its foot to one line', async ({
	browser
}) => {
	const { begun } = sitsIn(home);
	await home.moveTo('10:22');
	const page = await home.browser(browser, { viewport: { width: 390, height: 844 }, hasTouch: true });
	await begun(page, 2, { lockdown: { level: 'open' }, movement: { shown: 'one', goingBack: true } });
	const share = await page.evaluate(() => {
		const [head, foot] = ['header', 'footer'].map((name) => document.querySelector(name)!.getBoundingClientRect());
		const tools = document.querySelector('[role=toolbar]')!.getBoundingClientRect();
		return (innerHeight - head.height - foot.height - tools.height) / innerHeight;
	});
	expect(share).toBeGreaterThan(0.7);
	await expect(page.getByTestId('next')).toBeInViewport({ ratio: 1 });
	await page.getByTestId('open-map').click();
	await page.getByTestId('map').getByRole('button', { name: 'Question 5, blank' }).click();
	await expect(page.locator('[data-question] legend')).toContainText('Question 5');
	await page.getByTestId('open-map').click();
	await page.getByTestId('map').getByRole('button', { name: 'Hand in' }).click();
	// With blanks and time left going on is the first choice.
	await expect(page.getByRole('button', { name: 'Keep working' })).toBeFocused();
	expect(await serious(page), 'handing in on a phone').toEqual([]);
	await page.keyboard.press('Enter');
	await expect(page.locator('[data-question] legend')).toContainText('Question 5');
});

test('answers faster than reading takes: at 30 % of the paper the panel offers what may follow', async ({
	browser
}) => {
	const { begun } = sitsIn(home);
	await home.moveTo('10:23');
	const candidate = await home.browser(browser);
	const { sessionId, given, family } = await begun(candidate, 4, {
		lockdown: { level: 'open' },
		pace: { watched: true, holds: false }
	});
	const next = candidate.getByTestId('next');
	for (let answered = 0; answered < 12; answered++) {
		const choice = candidate.getByRole('radio').or(candidate.getByRole('checkbox')).first();
		if (await choice.isVisible()) await choice.check();
		else if (await candidate.getByRole('textbox').first().isVisible())
			await candidate.getByRole('textbox').first().fill('6');
		await next.click();
	}

	const name = `${given} ${family}`;
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${sessionId}`);
	await seat(proctor, name).click();
	const spoiled = proctor.getByTestId('spoiled');
	await expect(spoiled).toContainText('faster than reading takes. The score no longer shows what they can do.');
	// A proctor cannot set work aside and reads who can.
	await expect(spoiled).toContainText('A coordinator can set the work aside');
	await spoiled.getByRole('button', { name: 'Let them continue, with a note…' }).click();
	await expect(proctor.getByRole('dialog')).toContainText('Report an incident');
	await proctor.keyboard.press('Escape');
	await expect(proctor.getByRole('dialog')).toBeHidden();

	const coordinator = await home.staff(browser);
	await go(coordinator, `/live/${sessionId}`);
	await seat(coordinator, name).click();
	await coordinator.getByTestId('spoiled').getByRole('button', { name: 'Set aside, to sit again…' }).click();
	await coordinator.getByRole('button', { name: 'Does not show what they can do' }).click();
	await coordinator.getByTestId('confirm').click();
	await expect(seat(coordinator, name)).toContainText('Set aside');
});
