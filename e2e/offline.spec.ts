import { expect, test } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();

test('the server is away for twenty minutes and the page is loaded anew meanwhile: the candidate goes on, and everything arrives once', async ({
	browser
}) => {
	const page = await home.browser(browser, { serviceWorkers: 'allow' });
	const { code, family, id } = await home.makeWayFor('Tides and Currents · Watch A', 'DO-1020');
	await arrive(page, code, 'DO-1020', family);
	await page.getByTestId('begin').click();
	const answer = async (index: number) => {
		await page.getByRole('button', { name: new RegExp(`^Question ${index}, `) }).click();
		await expect(page.getByText(`Question ${index} of`)).toBeVisible();
		const radio = page.getByRole('radio').first();
		if (await radio.count()) await radio.check();
		else await page.locator('[data-question]').getByRole('textbox').fill(String(index));
		await expect(page.getByRole('button', { name: `Question ${index}, answered` })).toBeVisible();
	};
	await answer(1);
	await expect(page.getByTestId('saved')).toContainText(/^Saved \d\d/);
	// The worker has the page with all its parts.
	await expect
		.poll(() => page.evaluate(async () => (await (await caches.open((await caches.keys())[0])).keys()).length))
		.toBeGreaterThan(5);
	await page.evaluate(() => navigator.serviceWorker.ready.then(() => true));

	await home.kill();
	await answer(2);
	await expect(page.getByTestId('saved')).toContainText('1 answer is kept here');
	await page.reload();
	await expect(page.getByRole('button', { name: 'Question 1, answered' })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Question 2, answered' })).toBeVisible();
	await expect(page.getByTestId('time')).toBeVisible();
	await answer(3);
	await page.getByRole('button', { name: 'Notes' }).click();
	await page.getByTestId('notes').fill('The line is gone');

	// What lies on the device is sealed: neither answer nor question can be read there.
	const queued = () =>
		page.evaluate(
			() =>
				new Promise<string>((resolve, reject) => {
					const open = indexedDB.open('otium-player');
					open.onerror = () => reject(open.error);
					open.onsuccess = () => {
						const all = open.result.transaction('queue').objectStore('queue').getAll();
						all.onsuccess = () => resolve(JSON.stringify(all.result));
					};
				})
		);
	await expect.poll(async () => JSON.parse(await queued()).length).toBe(3);
	const kept = await queued();
	expect(kept).not.toContain('questionId');
	expect(kept).not.toContain('The line is gone');

	await home.moveTo('10:03');
	await expect(page.getByTestId('saved')).toContainText(/^Saved \d\d/);
	const rows = await home.read((db) =>
		db('answer')
			.join('sitting', 'sitting.id', 'answer.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ number: 'DO-1020', session_id: id })
			.select('question_id', 'kept_because')
	);
	expect(new Set(rows.map((row) => row.question_id)).size).toBe(rows.length);
	expect(rows.filter((row) => row.question_id !== 'notes')).toHaveLength(3);
	expect(rows.every((row) => row.kept_because === null)).toBe(true);

	await page.getByTestId('hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await expect(page.getByTestId('receipt')).toBeVisible();
	const left = await page.evaluate(
		() =>
			new Promise<number>((resolve) => {
				const open = indexedDB.open('otium-player');
				open.onsuccess = () => {
					const all = open.result.transaction('paper').objectStore('paper').count();
					all.onsuccess = () => resolve(all.result);
				};
			})
	);
	expect(left).toBe(0);
	await page.reload();
	await expect(page.getByTestId('receipt')).toBeVisible();
});

test('a browser that keeps nothing, not even for this tab: the paper is sat to its end, and the room is watched', async ({
	browser
}) => {
	const keepsNothing = () => {
		const refused = () => {
			throw new DOMException('The browser refuses storage', 'SecurityError');
		};
		for (const name of ['localStorage', 'sessionStorage', 'indexedDB'])
			Object.defineProperty(window, name, { get: refused });
	};
	const session = await home.session('Tides and Currents · Watch A');
	const { number } = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: session.id, state: 'working' })
			.first('number')
	);
	const { id, code, family } = await home.makeWayFor('Tides and Currents · Watch A', number);
	const proctor = await home.staff(browser, 'ode');
	await proctor.addInitScript(keepsNothing);
	const faults: string[] = [];
	proctor.on('pageerror', (error) => faults.push(error.message));
	await go(proctor, `/live/${id}`);
	await proctor.keyboard.press('2');
	await expect(proctor.getByRole('columnheader', { name: 'Candidate' })).toBeVisible();

	const page = await home.browser(browser);
	await page.addInitScript(keepsNothing);
	page.on('pageerror', (error) => faults.push(error.message));
	await arrive(page, code, number, family);
	// It can't keep a key to sign with, so that its proctor lets it in.
	await proctor.getByTestId('needs').locator('li', { hasText: family }).getByRole('button', { name: 'Let in' }).click();
	await page.getByTestId('begin').click();
	await page.getByRole('button', { name: 'Notes' }).click();
	await page.getByTestId('notes').fill('Nothing is kept here');
	await expect(page.getByTestId('saved')).toContainText(/^Saved \d\d/);
	await page.getByTestId('hand-in').click();
	// With blanks it is asked twice.
	await page.getByTestId('confirm-hand-in').click();
	await page.getByTestId('confirm-hand-in').click();
	await expect(page.getByTestId('receipt')).toBeVisible();
	expect(faults).toEqual([]);
});
