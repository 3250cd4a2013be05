import { expect, test, type Page } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();

/** Brings a candidate of the Chart Room to work in this browser; returns the door code. */
async function atWork(page: Page, number: string): Promise<string> {
	const { code, family } = await home.makeWayFor('Tides and Currents · Watch A', number);
	await arrive(page, code, number, family);
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]')).toBeVisible();
	return code;
}
const choose = async (page: Page, index: number) => {
	await page.getByRole('button', { name: new RegExp(`^Question ${index}, `) }).click();
	// One that is not chosen yet: the demo's people have answered some of their questions already.
	const radio = page.getByRole('radio', { checked: false }).first();
	if (await radio.count()) await radio.check();
	else await page.getByRole('textbox').fill(String(index));
};
const saved = (page: Page) => expect(page.getByTestId('saved')).toContainText(/^Saved \d\d/);
const answersOf = (number: string) =>
	home.read((db) =>
		db('answer_standing')
			.join('sitting', 'sitting.id', 'answer_standing.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ number, blank: false })
	);

test('a reload and a closed tab in mid-sitting lose nothing', async ({ browser }) => {
	const page = await home.browser(browser);
	await atWork(page, 'DO-1020');
	await choose(page, 1);
	await choose(page, 2);
	await page.getByTestId('mark').click();
	await saved(page);
	await page.reload();
	await expect(page.getByRole('button', { name: 'Question 1, answered' })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Question 2, answered, marked' })).toBeVisible();
	await page.close();
	const again = await page.context().newPage();
	await again.goto('/sit');
	await expect(again.getByRole('button', { name: 'Question 2, answered, marked' })).toBeVisible();
	await choose(again, 3);
	await saved(again);
	expect(await answersOf('DO-1020')).toHaveLength(3);
});

test('of two tabs one works, and the other says so and can take over', async ({ browser }) => {
	const page = await home.browser(browser);
	await atWork(page, 'DO-1013');
	await expect(page.locator('[data-question]')).toBeVisible();
	const other = await page.context().newPage();
	await other.goto('/sit');
	await expect(other.getByRole('heading', { name: 'This paper is open in another tab' })).toBeVisible();
	await other.getByRole('button', { name: 'Work here instead' }).click();
	await expect(other.locator('[data-question]')).toBeVisible();
	await expect(page.getByRole('heading', { name: 'This paper is open in another tab' })).toBeVisible();
	await choose(other, 5);
	await saved(other);
});

test('a second device is refused, told to the proctor, and goes on once the first is freed', async ({ browser }) => {
	const first = await home.browser(browser);
	const code = await atWork(first, 'DO-1009');
	await choose(first, 20);
	await saved(first);
	const second = await home.browser(browser);
	await arrive(second, code, 'DO-1009', 'Brandt');
	await expect(second.getByTestId('problem')).toContainText('already signed in on another device');

	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${(await home.session('Tides and Currents · Watch A')).id}`);
	const need = proctor.getByTestId('needs').locator('li', { hasText: 'Inge Brandt' });
	await expect(need).toContainText('Tried to sign in on another device');
	await need.getByRole('button', { name: /Free device/ }).click();
	await proctor.getByTestId('confirm').click();
	await expect(first.getByRole('heading', { name: 'This exam has moved to another device' })).toBeVisible();

	await arrive(second, code, 'DO-1009', 'Brandt');
	await second.getByTestId('begin').click();
	await expect(second.getByRole('button', { name: /^Question 20, answered/ })).toBeVisible();
});

test('the line is cut until it is told as lost: answering goes on, and everything arrives once, in order, by itself', async ({
	browser
}) => {
	const page = await home.browser(browser);
	await atWork(page, 'DO-1010');
	// Everybody else has theirs: the one that is lost is a need of its own.
	await home.regainLines();
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${(await home.session('Tides and Currents · Watch A')).id}`);
	const seat = proctor.getByTestId('seats').getByRole('button', { name: 'Jory Penn' });
	const before = await home.read((db) => db('answer').count('* as n').first());

	await page.context().setOffline(true);
	for (const index of [22, 23, 24]) await choose(page, index);
	await page.getByRole('button', { name: /^Question 22, / }).click();
	await page.getByTestId('mark').click();
	await expect(page.getByTestId('saved')).toContainText('kept here. Just keep working.');
	await expect(seat).toContainText('Line lost');
	await expect(proctor.getByTestId('needs')).toContainText('Jory Penn');
	expect((await home.read((db) => db('answer').count('* as n').first()))!.n).toBeGreaterThanOrEqual(
		before!.n as number
	);

	await page.context().setOffline(false);
	await saved(page);
	await expect(seat).not.toContainText('Line lost');
	const revisions = await home.read((db) =>
		db('answer')
			.join('sitting', 'sitting.id', 'answer.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ number: 'DO-1010' })
			.where('answer.epoch', '>', 1)
			.orderBy('answer.seq')
			.select('answer.seq', 'answer.value', 'answer.kept_because')
	);
	// Of each question that was answered without a line the last revision, in order; the mark came after the choice.
	const seqs = revisions.map((row) => row.seq);
	expect(seqs).toEqual([...seqs].sort((a, b) => a - b));
	expect(new Set(seqs).size).toBe(seqs.length);
	expect(revisions.length).toBeGreaterThanOrEqual(3);
	expect(revisions.every((row) => row.kept_because === null)).toBe(true);
	expect(JSON.parse(revisions.at(-1)!.value).marked).toBe(true);
});

test('a proctor whose line is down sees that, and since when, and catches up by itself', async ({ browser }) => {
	const proctor = await home.staff(browser, 'dunmore');
	const { id } = await home.session('Tides and Currents · Watch A');
	await go(proctor, `/live/${id}`);
	await expect(proctor.getByTestId('tally')).toContainText('live');
	await home.kill();
	await expect(proctor.getByTestId('stale')).toContainText(/This is how the room was at \d\d:\d\d:\d\d/);
	await home.start();
	await expect(proctor.getByTestId('stale')).toBeHidden();
	await expect(proctor.getByTestId('tally')).toContainText('29 of 29 accounted for');
});
