import { expect, test } from '@playwright/test';
import { arrive, go, house, PROCTOR } from './house';

const home = house();

test('a wall shows every open room with only what needs somebody, and one press settles it', async ({ browser }) => {
	const { id, code } = await home.session('Tides and Currents · Ac');
	const door = await home.read(async (db) => {
		const person = await db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id })
			.first('sitting.id', 'number', 'given', 'family');
		return person as { id: string; number: string; given: string; family: string };
	});
	// Everybody else there has their line: the one whose device was freed is the one who will need somebody.
	await home.regainLines(id);
	await home.act([door.id], PROCTOR, { kind: 'move_device' });
	const page = await home.staff(browser, 'ode');
	await go(page, '/live?all');
	const wall = page.getByTestId('wall');
	await expect(page.getByTestId('wall-sum')).toContainText(/2\s+rooms, \d+ candidates\.\s+\d+ need you\./);
	const chart = wall.locator('> li', { hasText: 'Chart Room' });
	await expect(chart).toContainText(/line lost/);

	// Somebody comes to the door of the other room: it is told here without anything being loaded anew.
	const candidate = await home.browser(browser);
	await arrive(candidate, code, door.number, door.family);
	const quiet = wall.locator('> li', { hasText: 'Quiet Room' });
	const need = quiet.locator('li', { hasText: `${door.given} ${door.family}` });
	await expect(need).toContainText('At the door');
	await need.getByRole('button', { name: 'Let in' }).click();
	await expect(page.getByTestId('notices')).toContainText(`Let in: ${door.given} ${door.family}`);
	await expect(candidate.getByTestId('begin')).toBeVisible();
	await expect(need).toHaveCount(0);

	await chart.getByRole('link', { name: 'Open' }).first().click();
	await page.waitForURL(/\/live\/.*seat=/);
	await expect(page.getByRole('region', { name: 'One candidate' })).toBeVisible();
});
