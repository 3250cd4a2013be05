import { expect, test } from '@playwright/test';
import { Browser as Device } from '../stand-ins/crowd';
import { actsIn, WATCH_A, WATCH_B } from './acts';
import { house } from './house';

const home = house();
const { room, standing, inState, select, chooseState, one, onOneOnSomeOnAll } = actsIn(home);

test('hold and resume, on one, on a selection, on all of a state', async ({ browser }) => {
	const page = await room(browser);
	await onOneOnSomeOnAll(page, { key: 'h', from: ['working', 'Working'], to: 'on_hold', asks: true });
	expect((await standing()).working ?? 0).toBe(0);
	await onOneOnSomeOnAll(page, { key: 'r', from: ['on_hold', 'On hold'], to: 'working', asks: false });
	expect((await standing()).on_hold ?? 0).toBe(0);
});

test('messages and minutes, on one, on a selection, on all of a state', async ({ browser }) => {
	const page = await room(browser);
	const working = await inState('working');
	const messages = () =>
		home.read(async (db) => Number((await db('message').where({ text: 'Look up, please.' }).count('* as n'))[0].n));
	const minutes = () =>
		home.read(async (db) =>
			Number((await db('grant_given').where({ reason: 'Seen by the test' }).count('* as n'))[0].n)
		);
	const say = async () => {
		await page.keyboard.press('w');
		await page.getByRole('dialog').getByRole('textbox').first().fill('Look up, please.');
		await page.getByTestId('confirm').click();
		await expect(page.getByRole('dialog')).toHaveCount(0);
	};
	const give = async () => {
		await page.keyboard.press('m');
		const dialog = page.getByRole('dialog');
		await dialog.getByLabel('Why').fill('Seen by the test');
		await page.getByTestId('confirm').click();
		await expect(dialog).toHaveCount(0);
	};
	for (const [act, count] of [
		[say, messages],
		[give, minutes]
	] as const) {
		await one(page, working[0].name);
		await act();
		await expect.poll(count).toBe(1);
		await select(page, [working[1].name, working[2].name]);
		await act();
		await expect.poll(count).toBe(3);
		await chooseState(page, 'Working');
		await act();
		await expect.poll(count).toBe(3 + working.length);
	}
});

test('free the device, let in, turn away, absent and expected again, on one, on a selection, on all of a state', async ({
	browser
}) => {
	const page = await room(browser);
	const { code, id } = await home.session(WATCH_A);
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ rules: db.raw("json_set(rules, '$.timing.lastEntryMinutes', 600, '$.lockdown.level', 'open')") })
	);
	await onOneOnSomeOnAll(page, { key: 'd', from: ['working', 'Working'], to: 'at_door', asks: true });

	// Twelve of them sign in anew; the others have no device at the door and can't be let in.
	const back = (await inState('at_door')).filter((person) => person.name !== 'Oona Reyes').slice(0, 12);
	for (const { number, family } of back) {
		const device = new Device(home.url, `next-${number}`);
		const met = await device.post('/sit/api/knock', { code, number, family });
		const asked = { note: met.body.note, commandId: `again-${number}`, deviceName: 'Other laptop' };
		expect((await device.post('/sit/api/arrive', asked)).status).toBe(200);
	}
	const before = (await standing()).let_in ?? 0;
	const letIn = async () => ((await standing()).let_in ?? 0) - before;
	await one(page, back[0].name);
	await page.keyboard.press('Enter');
	await expect.poll(letIn).toBe(1);
	await select(page, [back[1].name, back[2].name]);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('dialog')).toContainText('2 candidates');
	await page.getByTestId('confirm').click();
	await expect.poll(letIn).toBe(3);
	// All of a state: only those whose device stands at the door are named and let in.
	const waiting = (await inState('at_door')).length;
	await one(page, back[3].name);
	await chooseState(page, 'At the door');
	await page.locator('aside').last().getByRole('button', { name: 'Let in' }).click();
	const left = back.length - 3 + (await inState('at_door')).filter((person) => person.name === 'Oona Reyes').length;
	await expect(page.getByRole('dialog')).toContainText(`${left} candidates`);
	await page.getByTestId('confirm').click();
	await expect.poll(letIn).toBe(3 + left);
	expect((await standing()).at_door).toBe(waiting - left);

	// Who had worked before goes back to the door, where the place is kept; who had not begun is expected again.
	const fresh = (await inState('let_in')).filter(({ number }) => !back.some((person) => person.number === number));
	await onOneOnSomeOnAll(page, {
		key: 'u',
		from: ['let_in', 'Let in'],
		to: 'at_door',
		asks: true,
		elsewhere: fresh.length
	});
	expect((await inState('expected')).map(({ number }) => number)).toEqual(
		expect.arrayContaining(fresh.map(({ number }) => number))
	);
});

test('absent, expected again and held before they come, on one, on a selection, on all of a state', async ({
	browser
}) => {
	const page = await room(browser, 'ode', WATCH_B);
	await onOneOnSomeOnAll(page, { key: 'a', from: ['expected', 'Expected'], to: 'absent', asks: true });
	await onOneOnSomeOnAll(page, { button: 'Expect again', from: ['absent', 'Absent'], to: 'expected', asks: false });
	// Held before they arrive: a leaked code then opens nothing for them.
	await onOneOnSomeOnAll(page, { key: 'h', from: ['expected', 'Expected'], to: 'on_hold', asks: true });
	await onOneOnSomeOnAll(page, { key: 'r', from: ['on_hold', 'On hold'], to: 'expected', asks: false });
});
