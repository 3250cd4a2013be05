import { expect, test } from '@playwright/test';
import { serious } from './axe';
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

	await chart.locator('li', { hasText: 'Oona Reyes' }).getByRole('link', { name: 'Open' }).click();
	await page.waitForURL(/\/live\/.*seat=/);
	await expect(page.getByRole('region', { name: 'One candidate' })).toBeVisible();
});

test('when the lines of a room are lost at once it is one need, held and resumed together, and nobody else is hidden', async ({
	browser
}) => {
	const { id } = await home.session('Tides and Currents · Watch A');
	const states = () =>
		home.read(async (db) => {
			const rows: { state: string; n: number }[] = await db('sitting')
				.where({ session_id: id })
				.groupBy('state')
				.select('state')
				.count('* as n');
			return Object.fromEntries(rows.map(({ state, n }) => [state, n]));
		});
	const before = await states();
	const many = before.working;
	expect(many).toBeGreaterThan(20);

	const page = await home.staff(browser, 'dunmore');
	await go(page, `/live/${id}`);
	const needs = page.getByTestId('needs').locator('> li');
	await expect(needs.first()).toContainText(`${many} lines lost`);
	await expect(needs.first()).toContainText('Answers are kept on the devices and arrive by themselves.');
	await expect(needs.filter({ hasText: 'Oona Reyes' })).toBeVisible();
	expect(await serious(page), 'many at once').toEqual([]);

	await page.keyboard.press('h');
	await expect(page.getByRole('dialog')).toContainText(`${many} candidates`);
	await page.getByRole('button', { name: 'No network' }).click();
	await page.getByTestId('confirm').click();
	await expect.poll(states).toMatchObject({ on_hold: many + before.on_hold });
	await home.moveTo('09:50');
	await go(page, `/live/${id}`);
	// A hand that is up has its own entry, and somebody who was held before for another reason stays on hold.
	const held = needs.filter({ hasText: 'No network' });
	await expect(held).toContainText(`${many - 1} on hold`);
	await expect(needs.filter({ hasText: 'Cecily Moor' })).toContainText('out of the room');
	await held.getByRole('button', { name: `Resume all ${many - 1}` }).click();
	await expect.poll(states).toMatchObject({ on_hold: before.on_hold + 1, working: many - 1 });
});
