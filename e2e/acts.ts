import { expect, type Browser, type Page } from '@playwright/test';
import { go, type House } from './house';

export const WATCH_A = 'Tides and Currents · Watch A';
/** Not open yet: everybody is expected. */
export const WATCH_B = 'Lights and Shapes · Watch B';

type Act = { key?: string; button?: string; from: [string, string]; to: string; asks: boolean; elsewhere?: number };

/** One room of the demo day, and acts in it on one, on a selection and on all of a state. */
export function actsIn(home: House) {
	let session = WATCH_A;
	const room = async (browser: Browser, who = 'ode', name = WATCH_A): Promise<Page> => {
		session = name;
		await home.keepLines(session);
		const page = await home.staff(browser, who);
		await go(page, `/live/${(await home.session(session)).id}`);
		await page.keyboard.press('2');
		await expect(page.getByRole('columnheader', { name: 'Candidate' })).toBeVisible();
		return page;
	};

	/** How many stand in each state, as the disk has it. */
	const standing = () =>
		home.read(async (db) => {
			const { id } = await home.session(session);
			const rows: { state: string; n: number }[] = await db('sitting')
				.where({ session_id: id })
				.groupBy('state')
				.select('state')
				.count('* as n');
			return Object.fromEntries(rows.map((row) => [row.state, row.n]));
		});
	const inState = (state: string) =>
		home.read(async (db) => {
			const { id } = await home.session(session);
			const rows: { name: string; number: string; family: string }[] = await db('sitting')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: id, state })
				.orderBy('number')
				.select('number', 'family', db.raw("given || ' ' || family as name"));
			return rows;
		});
	const list = (page: Page) => page.getByRole('table');
	const select = async (page: Page, names: string[]) => {
		for (const name of names) await list(page).getByLabel(`Select ${name}`).check();
	};
	const chooseState = async (page: Page, state: string) => {
		const filter = page.getByTestId('tally').getByRole('button', { name: new RegExp(state) });
		await filter.click();
		await page.getByRole('button', { name: /^Select these/ }).click();
		await filter.click();
	};
	/** Presses the key or the button; fills in why and confirms where that is asked. */
	const press = async (page: Page, how: { key?: string; button?: string; confirmed: number | 'never' }) => {
		if (how.key) await page.keyboard.press(how.key);
		else await page.locator('aside').last().getByRole('button', { name: how.button }).click();
		if (how.confirmed === 'never') return;
		const dialog = page.getByRole('dialog');
		await expect(dialog).toContainText(how.confirmed === 1 ? / / : `${how.confirmed} candidates`);
		const why = dialog.getByLabel('Why');
		if (await why.count()) await why.fill('Seen by the test');
		await page.getByTestId('confirm').click();
		await expect(dialog).toHaveCount(0);
	};
	const one = async (page: Page, name: string) => {
		// As long as a person takes: the act before has been answered by then.
		await page.waitForTimeout(500);
		await page.keyboard.press('Escape');
		await list(page).getByRole('button', { name }).click();
	};

	/**
	 * An act on one, on a selection of two, and on everybody else in that state: each touches just those.
	 * Whoever is in the state `from` before ends in `to`, but for as many of the last step as end `elsewhere`.
	 */
	async function onOneOnSomeOnAll(page: Page, { key, button, from: [state, shown], to, asks, elsewhere = 0 }: Act) {
		const people = await inState(state);
		const before = (await standing())[to] ?? 0;
		expect(people.length).toBeGreaterThanOrEqual(4);
		const now = async () => (await standing())[to] ?? 0;

		await one(page, people[0].name);
		await press(page, { key, button, confirmed: asks ? 1 : 'never' });
		await expect.poll(now).toBe(before + 1);
		expect((await inState(to)).map((person) => person.name)).toContain(people[0].name);

		await one(page, people[1].name);
		await select(page, [people[1].name, people[2].name]);
		await press(page, { key, button, confirmed: asks ? 2 : 'never' });
		await expect.poll(now).toBe(before + 3);

		await one(page, people[3].name);
		await chooseState(page, shown);
		const rest = people.length - 3;
		await press(page, { key, button, confirmed: asks ? rest : 'never' });
		await expect.poll(now).toBe(before + 3 + rest - elsewhere);
		await page.keyboard.press('Escape');
	}

	return { room, standing, inState, list, select, chooseState, one, onOneOnSomeOnAll };
}
