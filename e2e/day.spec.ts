import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import { expect, test, type Page } from '@playwright/test';
import { readDoorCode } from '../src/core/access';
import { arrive, go, house } from './house';

const home = house();

/** Fields of the form that say what is sat, by whom and where. */
async function plan(page: Page, choose: { paper: string; group: string; room: string; time: string; until: string }) {
	await go(page, '/prepare/new');
	await page
		.getByLabel('Paper')
		.selectOption({ label: (await page.locator('#paperId option', { hasText: choose.paper }).innerText()).trim() });
	await page.locator('label', { hasText: choose.group }).click();
	await page
		.getByLabel('Room')
		.selectOption({ label: (await page.locator('#roomId option', { hasText: choose.room }).innerText()).trim() });
	await page.getByLabel('Opens', { exact: true }).fill(choose.time);
	await page.getByLabel('Closes').fill(choose.until);
}

test('a grant tells its effect before it is saved, and reaches the room by itself', async ({ browser }) => {
	const coordinator = await home.staff(browser);
	const proctor = await home.staff(browser, 'dunmore');
	const { id } = await home.session('Tides and Currents · Watch A');
	await go(proctor, `/live/${id}`);
	const seat = proctor.getByTestId('seats').getByRole('button', { name: 'Lars Holt' });
	await expect(seat).not.toContainText('×1.25');

	await go(coordinator, '/grants');
	await coordinator.keyboard.press('g');
	await coordinator.getByLabel('For whom').fill('holt watch a');
	await coordinator
		.locator('aside')
		.getByRole('button', { name: /Lars Holt.*Tides/s })
		.click();
	await coordinator.getByLabel('Multiply the time limit by').fill('0,5');
	await expect(coordinator.getByRole('alert')).toContainText('A factor above 1');
	await coordinator.getByLabel('Multiply the time limit by').fill('1,25');
	await expect(coordinator.getByTestId('effect')).toContainText(/^60 \+ 15 = 75 min, ends 10:1\d$/);
	await coordinator.getByLabel('Why', { exact: true }).fill('Access office');
	await coordinator.getByRole('button', { name: 'Grant it' }).dblclick();
	await expect(coordinator.getByTestId('given')).toBeVisible();
	await expect(seat).toContainText('×1.25');
	const given = await home.read((db) => db('grant_given').where('reason', 'Access office'));
	expect(given).toHaveLength(1);
});

test('a proctor and three candidates through the whole day', async ({ browser }) => {
	test.setTimeout(300_000);
	const coordinator = await home.staff(browser);

	await test.step('the coordinator reads one sentence, is refused what would go wrong, and plans', async () => {
		await plan(coordinator, {
			paper: 'Radio Procedure',
			group: 'Second Years',
			room: 'Quiet Room',
			time: '09:50',
			until: '10:50'
		});
		await expect(coordinator.getByTestId('sentence')).toContainText(
			'12 candidates of Second Years sit Radio Procedure (version 1) in the Quiet Room'
		);
		await expect(coordinator.getByTestId('sentence')).toContainText('at 09:50 GMT');
		await expect(coordinator.getByTestId('findings').getByText('12 candidates, 6 seats')).toBeVisible();
		await expect(coordinator.getByTestId('plan')).toBeDisabled();
		await coordinator.getByLabel('Room').selectOption({ label: 'Boat Shed, 40 seats · Quayside' });
		await coordinator.getByLabel('Limit, min', { exact: true }).fill('thirty');
		await expect(coordinator.getByText('Limit: a whole number, or empty for no limit.')).toBeVisible();
		await coordinator.getByLabel('Limit, min', { exact: true }).fill('30');
		await expect(coordinator.getByTestId('sentence')).toContainText('for 30 minutes');
		await coordinator.locator('label', { hasText: 'Rhys Dunmore' }).click();
		await coordinator.getByTestId('plan').dblclick();
		await coordinator.waitForURL('**/prepare?planned=1');
		await expect(
			coordinator.getByRole('row', { name: /Radio Procedure · Second Years/ }).filter({ hasText: '09:50' })
		).toHaveCount(1);
	});

	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, '/live?all');
	await proctor.getByText('Radio Procedure · Second Years').click();
	await proctor.waitForURL(/live\/[^?]+$/);
	await proctor.locator('[data-ready=true]').waitFor();
	await proctor.getByTestId('show-code').click();
	const shown = await proctor.getByTestId('door-code').innerText();
	expect(readDoorCode(shown)).toHaveLength(7);

	const people = await home.read((db) =>
		db('candidate').where('group_id', 'second').orderBy('family').limit(3).select('number', 'given', 'family')
	);
	const candidates = await Promise.all(people.map(() => home.browser(browser)));

	await test.step('three arrive; all at the door are let in, and nobody else', async () => {
		for (const [i, page] of candidates.entries()) {
			await arrive(page, shown, people[i].number, people[i].family);
			await expect(page.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
		}
		await expect(proctor.getByTestId('tally')).toContainText('At the door 3');
		await expect(proctor.getByTestId('tally')).toContainText('12 of 12 accounted for');
		await proctor.keyboard.press('l');
		await expect(proctor.getByRole('dialog')).toContainText(`${people[0].given} ${people[0].family}`);
		await proctor.getByTestId('confirm').dblclick();
		await expect(proctor.getByTestId('tally')).toContainText('Let in 3');
		await expect(proctor.getByTestId('tally')).toContainText('Expected 9');
		// Work begins at 09:50; until then they see a countdown, unless the proctor lets it begin.
		for (const page of candidates) await expect(page.getByTestId('countdown')).toBeVisible();
		await proctor.getByTestId('open-early').click();
		for (const page of candidates) await page.getByTestId('begin').dblclick();
		await expect(proctor.getByTestId('tally')).toContainText('Working 3');
	});

	const [first, second, third] = candidates;
	const seatOf = (i: number) =>
		proctor.getByTestId('seats').getByRole('button', { name: `${people[i].given} ${people[i].family}` });

	await test.step('they answer by keyboard and mouse, mark, strike out; the proctor sees it', async () => {
		for (let n = 0; n < 12; n++) {
			await expect(first.getByText(`Question ${n + 1} of 12`)).toBeVisible();
			const choice = first.getByRole('radio').first();
			if (await choice.count()) await choice.check();
			else await first.getByRole('textbox').fill('16');
			if (n < 11) await first.getByTestId('next').click();
		}
		await expect(first.getByTestId('saved')).toContainText(/Saved \d\d:\d\d:\d\d/);
		await expect(seatOf(0)).toContainText('12/12');
		await second.getByTestId('mark').click();
		// A button that was pressed has its keys for itself.
		await second.keyboard.press('n');
		await expect(second.getByText('Question 1 of 12')).toBeVisible();
		await second.locator('[data-question] legend').click();
		await second.keyboard.press('n');
		await expect(second.getByText('Question 2 of 12')).toBeVisible();
		await expect(second.getByRole('button', { name: 'Question 1, blank, marked' })).toBeVisible();
	});

	await test.step('a hold blanks the screen and stops the clock; resuming brings everything back', async () => {
		await seatOf(1).click();
		await proctor.keyboard.press('h');
		await proctor.getByRole('button', { name: 'Out of the room' }).click();
		await proctor.getByTestId('confirm').click();
		await expect(second.getByRole('heading', { name: 'A pause' })).toBeVisible();
		await expect(second.getByText('The clock has stopped.')).toBeVisible();
		await expect(second.getByText('Question 2 of 12')).toBeHidden();
		await expect(proctor.getByRole('dialog')).toBeHidden();
		await expect(seatOf(1)).toContainText(/hold/i);
		await proctor.keyboard.press('r');
		await expect(second.getByText('Question 2 of 12')).toBeVisible();
	});

	await test.step('ten more minutes reach the candidate at once, are told beforehand, and can be undone', async () => {
		const before = (await third.getByTestId('time').innerText()).match(/finish by (\d\d):(\d\d)/)!;
		const minute = (h: string, m: string) => Number(h) * 60 + Number(m);
		await seatOf(2).click();
		await proctor.keyboard.press('m');
		await proctor.getByLabel('Why').fill('Late line');
		await expect(proctor.getByTestId('effect')).toContainText('+ 10 =');
		await proctor.getByTestId('confirm').dblclick();
		const finish = async () => {
			const [, h, m] = (await third.getByTestId('time').innerText()).match(/finish by (\d\d):(\d\d)/)!;
			return minute(h, m) - minute(before[1], before[2]);
		};
		await expect.poll(finish).toBe(10);
		await expect(seatOf(2)).toContainText('+10');
		await proctor.keyboard.press('z');
		await expect.poll(finish).toBe(0);
	});

	await test.step('two proctors see each other’s acts, and the slower one is told', async () => {
		await go(coordinator, proctor.url());
		await coordinator.getByTestId('seats').getByRole('button', { name: people[2].family }).click();
		await seatOf(2).click();
		await proctor.keyboard.press('h');
		await proctor.getByRole('button', { name: 'To be spoken to' }).click();
		await proctor.getByTestId('confirm').click();
		await expect(coordinator.getByTestId('tally')).toContainText('On hold 1');
		await coordinator.keyboard.press('r');
		await expect(proctor.getByTestId('tally')).not.toContainText('On hold');
	});

	await test.step('one hands in, after being asked twice about what is blank', async () => {
		await first.getByTestId('hand-in').click();
		await expect(first.getByRole('dialog')).toContainText('All 12 questions are answered.');
		await first.getByTestId('confirm-hand-in').dblclick();
		await expect(first.getByTestId('receipt')).toHaveText(/^[0-9A-Z]{5}-[0-9A-Z]{5}$/);
		await second.getByTestId('hand-in').click();
		await expect(second.getByTestId('blanks')).toContainText('12 blank');
		await expect(second.getByTestId('blanks')).toContainText('1 marked for later');
		await second.getByTestId('confirm-hand-in').click();
		await expect(second.getByTestId('confirm-hand-in')).toHaveText('Yes, hand in with 12 blank');
		await second.getByRole('button', { name: 'Keep working' }).click();
		await expect(second.getByText('Question 2 of 12')).toBeVisible();
	});

	await test.step('the session ends after showing exactly who is touched, and its ledger adds up', async () => {
		await proctor.keyboard.press('Escape');
		await proctor.getByTestId('end').click();
		const dialog = proctor.getByRole('dialog');
		await dialog.getByText('collect what they have').click();
		await expect(dialog).toContainText('2 collected');
		await dialog.getByText('carry over', { exact: true }).click();
		await expect(dialog).toContainText('2 carried over');
		await expect(dialog).toContainText('9 marked absent');
		await expect(dialog).toContainText('1 finished already');
		await expect(dialog).toContainText(`${people[1].given} ${people[1].family}`);
		await proctor.getByTestId('confirm').dblclick();
		await expect(second.getByRole('heading', { name: 'You will continue another time' })).toBeVisible();
		await expect(proctor.getByTestId('tally')).toContainText('Carried over 2');

		await go(coordinator, `/close-out/${(await home.session('Radio Procedure · Second Years')).id}`);
		await expect(coordinator.getByTestId('ledger')).toContainText(
			'1 + 0 + 2 + 9 + 0 + 0 = 12, 12 expected: it adds up.'
		);
		const [download] = await Promise.all([
			coordinator.waitForEvent('download'),
			coordinator.getByText('Results as CSV').click()
		]);
		// Read back by another implementation of RFC 4180 than the one that wrote it.
		const rows: Record<string, string>[] = parse(readFileSync(await download.path()), { bom: true, columns: true });
		expect(rows).toHaveLength(12);
		const receipt = await first.getByTestId('receipt').innerText();
		expect(rows.find((row) => row.Number === people[0].number)).toMatchObject({
			Status: 'Handed in',
			Answered: '12',
			Receipt: receipt
		});

		await go(coordinator, `/logbook?text=${receipt}`);
		await expect(coordinator.getByText(`Handed in by ${people[0].given} ${people[0].family}`)).toBeVisible();
		await coordinator.getByTestId('verify').click();
		await expect(coordinator.getByTestId('verdict')).toContainText('are as they were written');

		// What they keep is signed, and anybody can hold it against what is kept here.
		const [kept] = await Promise.all([first.waitForEvent('download'), first.getByTestId('keep-receipt').click()]);
		const stranger = await home.browser(browser);
		await stranger.goto('/verify');
		await stranger.getByLabel('The receipt').fill(readFileSync(await kept.path(), 'utf8'));
		await stranger.getByRole('button', { name: 'Verify' }).click();
		await expect(stranger.getByTestId('compared')).toContainText('is, to the letter, what was handed in');
		await expect(stranger.getByText(receipt)).toBeVisible();
	});

	await test.step('the next session of the paper takes the unfinished, who go on at their question with their time', async () => {
		const kept = Number(/you keep your (\d+) minutes/.exec(await second.getByText('you keep your').innerText())![1]);
		await second.getByRole('button', { name: 'Clear this device for the next person' }).click();
		await plan(coordinator, {
			paper: 'Radio Procedure',
			group: 'Second Years',
			room: 'Boat Shed',
			time: '11:20',
			until: '12:10'
		});
		await coordinator.locator('label', { hasText: 'Make-up' }).click();
		await expect(coordinator.getByTestId('sentence')).toContainText('11 candidates of Second Years');
		// They were told that they keep their time: under another limit it would be another.
		const limit = coordinator.locator('[data-testid=findings] [data-code=other_limit]');
		await expect(limit).toContainText('began with 30 minutes and would go on with 60 minutes');
		await limit.getByRole('button', { name: '30 minutes, as before' }).click();
		await expect(limit).toHaveCount(0);
		await expect(coordinator.getByTestId('sentence')).toContainText('for 30 minutes');
		await coordinator.locator('label', { hasText: 'Rhys Dunmore' }).click();
		await coordinator.getByTestId('plan').click();
		await coordinator.waitForURL('**/prepare?planned=1');
		await home.moveTo('11:21');
		const session = () => home.session('Radio Procedure, make-up · Second Years');
		await expect.poll(async () => (await session()).code).not.toBe('');
		const { id, code } = await session();
		await arrive(second, code, people[1].number, people[1].family);
		await go(proctor, `/live/${id}`);
		await proctor
			.getByRole('button', { name: `${people[1].given} ${people[1].family}` })
			.first()
			.click();
		await proctor.keyboard.press('l');
		await second.getByTestId('begin').click();
		await expect(second.getByText('Question 2 of 12')).toBeVisible();
		await expect(second.getByRole('button', { name: 'Question 1, blank, marked' })).toBeVisible();
		const left = Number(/^(\d+) min/.exec(await second.getByTestId('time').innerText())![1]);
		expect(kept - left).toBeLessThanOrEqual(1);
		expect(left).toBeLessThanOrEqual(kept);
	});
});
