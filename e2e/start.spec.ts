import { expect, test } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house({ at: '10:22' });

test('one clock for all: the room is started once, whoever waits is let in with it, and words open and close the paper', async ({
	browser
}) => {
	const name = 'Lights and Shapes · Watch B';
	await expect.poll(async () => (await home.session(name)).code).not.toBe('');
	const { id, code } = await home.session(name);
	const people: { number: string; given: string; family: string }[] = await home.read(async (db) => {
		const { rules: text } = await db('session').where({ id }).first('rules');
		const rules = JSON.parse(text);
		const timing = { ...rules.timing, clockStarts: 'room', limitMinutes: 60 };
		const words = { startWord: 'Halyard', finishWord: 'Belay' };
		const lockdown = { ...rules.lockdown, level: 'open' };
		await db('session')
			.where({ id })
			.update({ rules: JSON.stringify({ ...rules, ...words, timing, lockdown, admission: 'proctor' }) });
		return db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id })
			.orderBy('number')
			.limit(3)
			.select('number', 'given', 'family');
	});
	const called = (i: number) => `${people[i].given} ${people[i].family}`;
	const [early, waiting] = await Promise.all([home.browser(browser), home.browser(browser)]);
	const proctor = await home.staff(browser, 'ode');
	await go(proctor, `/live/${id}`);
	await arrive(early, code, people[0].number, people[0].family);
	await expect(early.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
	await proctor
		.getByTestId('seats')
		.getByRole('button', { name: called(0) })
		.click();
	await proctor.keyboard.press('l');
	await expect(early.getByText('Everyone begins together, when your proctor starts the room.')).toBeVisible();
	await expect(proctor.getByTestId('ready')).toContainText('1 of 1 screens ready.');
	await expect(early.getByTestId('begin')).toHaveCount(0);
	await arrive(waiting, code, people[1].number, people[1].family);
	await expect(waiting.getByRole('heading', { name: 'You are at the door' })).toBeVisible();

	await proctor.getByTestId('start').click();
	const dialog = proctor.getByRole('dialog');
	await expect(dialog).toContainText('Start the room for 2 of 17?');
	await expect(dialog).toContainText('before the planned start');
	await expect(dialog.getByTestId('start-list')).toContainText(`Also let in: ${called(1)}`);
	await expect(dialog.getByTestId('start-list')).toContainText('Not here yet, and with less time when they come:');
	await proctor.getByTestId('confirm').dblclick();
	for (const page of [early, waiting]) await expect(page.getByTestId('begin')).toBeVisible();
	await expect(proctor.getByTestId('start')).toHaveCount(0);
	const started = await home.read((db) => db('logbook').where({ session_id: id, kind: 'room_started' }));
	expect(started).toHaveLength(1);

	await early.getByLabel('Start word').fill('mooring');
	await early.getByTestId('begin').click();
	await expect(early.getByRole('alert')).toContainText('That is not the start word.');
	await early.getByLabel('Start word').fill(' HALYARD');
	await early.getByTestId('begin').click();
	await expect(early.locator('[data-question]')).toBeVisible();
	await waiting.getByLabel('Start word').fill('halyard');
	await waiting.getByTestId('begin').click();
	await expect(waiting.locator('[data-question]')).toBeVisible();
	// The same end for both, whenever they pressed.
	const ends = await Promise.all([early, waiting].map((page) => page.getByTestId('time').innerText()));
	expect(ends[0].split('finish by')[1]).toBe(ends[1].split('finish by')[1]);

	// Whoever comes late is told beforehand that they have less: this one of 75 minutes, with time and a quarter.
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ room_started_at: db.raw('room_started_at - 600000') })
	);
	const late = await home.browser(browser);
	await arrive(late, code, people[2].number, people[2].family);
	await proctor
		.getByTestId('seats')
		.getByRole('button', { name: called(2) })
		.click();
	await expect(proctor.getByTestId('let-in-all')).toHaveText(/Let in 1/);
	await proctor.keyboard.press('l');
	await expect(late.getByText(/You have (64|65) minutes, until/)).toBeVisible();

	await early.getByTestId('hand-in').click();
	await early.getByLabel('Finish word, from your proctor').fill('done');
	await early.getByTestId('confirm-hand-in').dblclick();
	await expect(early.getByRole('dialog')).toContainText('That is not the finish word.');
	await early.getByLabel('Finish word, from your proctor').fill('belay');
	await early.getByTestId('confirm-hand-in').click();
	await expect(early.getByText('You handed in at')).toBeVisible();
});
