import { expect, test, type Browser, type Page } from '@playwright/test';
import { go, house } from './house';
import { takesKeys, sitsIn } from './sits';

const home = house({ at: '10:22' });
const { begun, leave, shorten, formOf, valueOf, questionIdOf, goTo } = sitsIn(home);

type End = 'hand_in' | 'stop' | 'flag' | 'zero';
const notice = (page: Page) => page.getByRole('status').filter({ hasText: 'Time is up' });
const lateOf = (sittingId: string, name: string) =>
	home.read(async (db) => {
		const question_id = await questionIdOf(db, sittingId, name);
		const rows = await db('answer').where({ sitting_id: sittingId, question_id }).orderBy('seq').select('late');
		return rows.map((row) => Boolean(row.late));
	});

/** Somebody at work whose time ends so, with a minute of grace; their short answer is the one that is written. */
async function atWork(browser: Browser, nth: number, atTimeUp: End, more: Record<string, unknown> = {}) {
	const page = await home.browser(browser);
	const lockdown = { level: 'open' };
	const timing = { atTimeUp, graceMinutes: 1, warnAtMinutes: [2, 1], atClose: 'finish', limitMinutes: 60 };
	const me = await begun(page, nth, { timing, lockdown, ...more });
	const short = (await formOf(me.id)).findIndex((question) => question.kind === 'short');
	const question = (await formOf(me.id))[short];
	const box = page.locator('[data-question]').getByRole('textbox');
	const stands = (text: string) => expect.poll(() => valueOf(me.id, question.id)).toBe(text);
	return { page, me, short, question, box, stands };
}

test('warnings come in time, once each also after a reload, and go by themselves; then the work is handed in for them', async ({
	browser
}) => {
	const { page, me, short, question, box, stands } = await atWork(browser, 0, 'hand_in');
	await expect(page.getByTestId('warning')).toHaveCount(0);
	await leave(page, me.id, 122_500);
	await expect(page.getByTestId('time')).toContainText('3 min');
	await expect(page.getByTestId('warning')).toHaveText('2 minutes left.');
	await page.reload();
	await expect(page.getByTestId('time')).toContainText(/1:5\d/);
	await expect(page.getByTestId('warning')).toHaveCount(0);
	await leave(page, me.id, 62_500);
	await expect(page.getByTestId('warning')).toHaveText('One minute left.');
	await expect(page.getByTestId('warning')).toHaveCount(0);

	await leave(page, me.id, 2_000);
	await expect(notice(page)).toContainText('Finish your last answer and hand in: 0:5');
	await goTo(page, short);
	await box.fill('trawl');
	await stands('trawl');
	expect(await lateOf(me.id, question.id)).toEqual([true]);

	// What is being written when grace ends is still taken: nobody has to rest for it.
	await leave(page, me.id, -57_500);
	await goTo(page, short);
	await box.fill('trawling');
	await expect(page.getByRole('heading', { name: 'Time is up' })).toBeVisible();
	await expect(page.getByText('Your work was handed in for you')).toBeVisible();
	await expect(page.getByTestId('receipt')).not.toBeEmpty();
	await stands('trawling');
});

test('no more answers: the paper can be read and no longer changed, and is handed in with its blanks', async ({
	browser
}) => {
	const movement = { answerAll: true, shown: 'one', goingBack: true };
	const { page, me, short, box, stands } = await atWork(browser, 1, 'stop', { movement });
	await goTo(page, short);
	await box.fill('trawling');
	await stands('trawling');
	await page.getByTestId('hand-in').click();
	await expect(page.getByRole('dialog')).toContainText('All must be answered before handing in.');
	await expect(page.getByTestId('confirm-hand-in')).toBeDisabled();

	await leave(page, me.id, -61_000);
	await expect(notice(page)).toContainText('Hand in now; no more answers are accepted.');
	await goTo(page, short);
	await expect(box).toHaveValue('trawling');
	await expect(box).toBeDisabled();
	await takesKeys(page);
	await page.keyboard.press('m');
	await expect(page.getByRole('button', { name: `Question ${short + 1}, answered`, exact: true })).toBeVisible();
	expect(await home.read((db) => db('sitting').where({ id: me.id }).first('state'))).toEqual({ state: 'working' });

	await page.getByTestId('hand-in').click();
	await expect(page.getByRole('dialog')).toContainText('After handing in you cannot go back.');
	await page.getByTestId('confirm-hand-in').dblclick();
	await expect(page.getByText('You handed in at')).toBeVisible();
	await stands('trawling');
});

test('may continue; answers are marked late: what comes after the end is taken, and marked', async ({ browser }) => {
	const { page, me, short, question, box, stands } = await atWork(browser, 2, 'flag', { movement: {} });
	await goTo(page, short);
	await box.fill('trawl');
	await stands('trawl');
	await leave(page, me.id, -61_000);
	await expect(notice(page)).toContainText('You can continue: answers from now on are marked late.');
	await goTo(page, short);
	await box.fill('trawling');
	await stands('trawling');
	expect(await lateOf(me.id, question.id)).toEqual([false, true]);
	await page.getByTestId('hand-in').click();
	await page.getByTestId('confirm-hand-in').dblclick();
	await expect(page.getByText('You handed in at')).toBeVisible();
});

test('counts nothing when it was not handed in: the candidate is warned of it and told so', async ({ browser }) => {
	const { page, me, short, box, stands } = await atWork(browser, 3, 'zero');
	await goTo(page, short);
	await box.fill('trawling');
	await stands('trawling');
	await leave(page, me.id, -1_000);
	await expect(notice(page)).toContainText('What is not handed in by then is not scored');
	await leave(page, me.id, -58_000);
	await expect(page.getByText('by the rules of this paper it is not scored')).toBeVisible();
	await stands('trawling');
	expect(await home.read((db) => db('sitting').where({ id: me.id }).first('state'))).toEqual({ state: 'time_up' });
});

test('a line that is down beyond the end: what was written without it comes late, is held back, and counts by a coordinator’s word', async ({
	browser
}) => {
	const { page, me, short, question, box, stands } = await atWork(browser, 4, 'hand_in');
	await goTo(page, short);
	await box.fill('trawl');
	await stands('trawl');
	await page.context().setOffline(true);
	await box.fill('trawling');
	await expect(page.getByTestId('saved')).toContainText('kept here');
	await shorten(me.id, -61_000);
	await expect
		.poll(() => home.read((db) => db('sitting').where({ id: me.id }).first('state')))
		.toEqual({ state: 'time_up' });
	await page.context().setOffline(false);
	await expect(page.getByText('Your work was handed in for you')).toBeVisible();
	await expect(page.getByText('Tell your proctor if your connection was lost.')).toBeVisible();
	expect(await valueOf(me.id, question.id)).toBe('trawl');

	const coordinator = await home.staff(browser);
	await go(coordinator, `/close-out/${me.sessionId}`);
	await coordinator.getByRole('link', { name: '1 more came after the end' }).click();
	await coordinator.waitForURL(/live/);
	await expect(coordinator.getByTestId('held-back')).toContainText('kept and do not count');
	const need = coordinator.locator('[data-need]', { hasText: 'Kept, and not counted.' });
	await expect(need).toContainText(`${me.given} ${me.family}`);
	await need.getByRole('button', { name: 'Count them' }).click();
	await expect(coordinator.getByRole('dialog')).toContainText(`Count one answer of ${me.given} ${me.family}?`);
	await expect(coordinator.getByTestId('confirm')).toBeDisabled();
	await coordinator.getByLabel('Why').fill('The switch in the corner was off');
	await coordinator.getByTestId('confirm').dblclick();
	await expect(coordinator.getByTestId('notices')).toContainText(`One answer counts now for ${me.given} ${me.family}.`);
	await expect(need).toHaveCount(0);
	await stands('trawling');
	const entries = await home.read((db) => db('logbook').where({ sitting_id: me.id, kind: 'answers_counted' }));
	expect(entries).toHaveLength(1);
	// Asked once more, there is nothing left to count; a proctor may not.
	const once = (page: Page) =>
		page.request.post(`/live/${me.sessionId}/sitting/${me.id}/count`, {
			data: { reason: 'again' },
			headers: { origin: home.url }
		});
	expect((await once(coordinator)).status()).toBe(409);
	expect((await once(await home.staff(browser, 'dunmore'))).status()).toBe(403);
});
