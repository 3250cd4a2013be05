import { expect, test } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();
const WATCH_A = 'Tides and Currents · Watch A';

test('whoever has handed in sits the paper again on the same device, and the ledger has everyone once', async ({
	browser
}) => {
	const person = await home.makeWayFor(WATCH_A, 'DO-1020');
	await home.read((db) =>
		db('session')
			.where({ id: person.id })
			.update({ rules: db.raw("json_set(rules, '$.attempts.most', 2, '$.attempts.counts', 'highest')") })
	);
	const proctor = await home.staff(browser);
	await go(proctor, `/live/${person.id}`);
	const page = await home.browser(browser);
	await arrive(page, person.code, person.number, person.family);
	const finish = async () => {
		await page.getByTestId('begin').click();
		await expect(page.locator('[data-question]')).toBeVisible();
		await page.getByRole('button', { name: 'Hand in' }).click();
		await page.getByTestId('confirm-hand-in').dblclick();
		await expect(page.getByTestId('receipt')).toBeVisible();
		return page.getByTestId('receipt').innerText();
	};
	const first = await finish();
	await expect(page.getByTestId('again')).toHaveText('Begin attempt 2 of 2');
	await page.getByTestId('again').dblclick();
	const second = await finish();
	expect(second).not.toBe(first);
	await expect(page.getByTestId('again')).toHaveCount(0);
	const attempts = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'candidate_id')
			.where({ number: 'DO-1020', session_id: person.id })
			.orderBy('attempt')
			.select('attempt', 'state')
	);
	expect(attempts).toEqual([
		{ attempt: 1, state: 'handed_in' },
		{ attempt: 2, state: 'handed_in' }
	]);
	await expect(proctor.getByTestId('tally')).toContainText('29 of 29 accounted for');
	await expect(proctor.getByTestId('seats').getByRole('button', { name: 'Tobias Rook' })).toHaveCount(1);
	await go(proctor, `/close-out/${person.id}`);
	await expect(proctor.getByTestId('ledger')).toContainText('it adds up');
	await expect(proctor.getByRole('row', { name: /Tobias Rook/ })).toContainText(/attempt 2; \d+ of \d+ counts/);
});
