import { expect, test, type Browser, type Page } from '@playwright/test';
import { choose, go, house } from './house';
import { signedFetch } from './signed-fetch';
import { takesKeys, sitsIn } from './sits';

const home = house();
const { begun, formOf, valueOf, goTo } = sitsIn(home);
test.beforeAll(async () => {
	// The paper with numbers, true or false, formulas and an essay, which is otherwise sat on another day.
	const { id } = await home.session('Lights and Shapes · Watch B');
	await home.read(async (db) => {
		const paper = await db('paper').where('title', 'like', 'Ship Stability%').first('id');
		await db('session').where({ id }).update({ paper_id: paper.id });
		await db('sitting').where({ session_id: id }).update({ paper_id: paper.id });
	});
	await home.moveTo('10:22');
});

/** Somebody at work on the paper under these rules of movement, with every question in the paper's own order. */
async function under(browser: Browser, nth: number, movement: Record<string, unknown>, more = {}) {
	const page = await home.browser(browser);
	const plain = { shown: 'one', perPage: 5, goingBack: true, answerToGoOn: false, answerAll: false };
	const order = { questionsInOwnOrder: false, choicesInOwnOrder: false };
	const me = await begun(page, nth, {
		movement: { ...plain, ...movement },
		order,
		lockdown: { level: 'open' },
		...more
	});
	return { page, me, form: await formOf(me.id) };
}
const shownNumbers = (page: Page) =>
	page
		.locator('[data-question] legend')
		.allInnerTexts()
		.then((texts) => texts.map((text) => Number(/Question (\d+)/.exec(text)![1])));
const back = (page: Page) => page.getByRole('button', { name: '← Back' });

test('one at a time and back again: true or false, a number with its unit, and an essay with its words counted', async ({
	browser
}) => {
	const { page, me, form } = await under(browser, 0, {});
	const nthOf = (kind: string) => form.findIndex((question) => question.kind === kind);
	const stands = (index: number, value: unknown) => expect.poll(() => valueOf(me.id, form[index].id)).toEqual(value);
	expect(await shownNumbers(page)).toEqual([1]);
	await expect(back(page)).toBeDisabled();
	await page.getByTestId('next').click();
	expect(await shownNumbers(page)).toEqual([2]);
	await page.locator('[data-question] legend').click();
	await takesKeys(page);
	await page.keyboard.press('p');
	expect(await shownNumbers(page)).toEqual([1]);

	const truth = nthOf('true_false');
	await goTo(page, truth);
	await page.getByRole('radio', { name: 'False' }).check();
	await stands(truth, false);
	await page.getByRole('button', { name: 'Clear this answer' }).click();
	await stands(truth, null);

	const number = nthOf('numeric');
	await goTo(page, number);
	// A reload comes back to the very place.
	await page.reload();
	await page.getByTestId('time').waitFor();
	await expect.poll(() => shownNumbers(page)).toEqual([number + 1]);
	await page.getByRole('textbox', { name: 'Your answer in m', exact: true }).fill('4/5');
	await stands(number, '4/5');

	const formula = form.length - 2;
	await goTo(page, formula);
	await expect(page.locator('[data-question] .katex').first()).toBeVisible();
	await expect(page.locator('[data-question] math').first()).toBeAttached();

	const essay = nthOf('essay');
	await goTo(page, essay);
	await page.getByLabel('Your text').fill('The water runs to the low side.\n\nFill the tank, or empty it.');
	await expect(page.getByTestId('words')).toHaveText('13 words. 60 to 150 are asked for.');
	await stands(essay, 'The water runs to the low side.\n\nFill the tank, or empty it.');
	await page.getByLabel('Your text').fill('aft '.repeat(151));
	await expect(page.getByTestId('words')).toContainText('somewhat long');
});

test('all on one page, and some on a page: each place is reached, and every answer arrives', async ({ browser }) => {
	const all = await under(browser, 1, { shown: 'all' });
	expect(await shownNumbers(all.page)).toEqual(all.form.map((_, i) => i + 1));
	await expect(all.page.getByTestId('next')).toHaveCount(0);
	await goTo(all.page, 4);
	await all.page.locator(`[data-question="${all.form[4].id}"]`).getByRole('radio', { name: 'True' }).check();
	await expect.poll(() => valueOf(all.me.id, all.form[4].id)).toBe(true);
	await expect(all.page.getByRole('button', { name: 'Question 5, answered' })).toBeVisible();

	const some = await under(browser, 2, { shown: 'pages', perPage: 3 });
	expect(await shownNumbers(some.page)).toEqual([1, 2, 3]);
	await some.page.getByTestId('next').click();
	expect(await shownNumbers(some.page)).toEqual([4, 5, 6]);
	await back(some.page).click();
	expect(await shownNumbers(some.page)).toEqual([1, 2, 3]);
	await goTo(some.page, some.form.length - 1);
	const last = await shownNumbers(some.page);
	expect(last.at(-1)).toBe(some.form.length);
	await expect(some.page.getByTestId('next')).toHaveCount(0);
});

test('no going back: what lies behind is closed on the page, and with the server too', async ({ browser }) => {
	const { page, me, form } = await under(browser, 3, { goingBack: false });
	await page.getByRole('radio').first().check();
	const first = await page.getByRole('radio').first().isChecked();
	expect(first).toBe(true);
	await expect.poll(() => valueOf(me.id, form[0].id)).toBeTruthy();
	const stood = await valueOf(me.id, form[0].id);
	await page.getByTestId('next').click();
	await expect.poll(() => shownNumbers(page)).toEqual([2]);
	await expect(back(page)).toHaveCount(0);
	await page.locator('[data-question] legend').click();
	await takesKeys(page);
	await page.keyboard.press('p');
	expect(await shownNumbers(page)).toEqual([2]);
	for (const index of [1, 3])
		await expect(page.getByRole('button', { name: new RegExp(`^Question ${index},`) })).toBeDisabled();
	await page.locator('[data-question]').getByRole('textbox').fill('0.8');
	await expect.poll(() => valueOf(me.id, form[1].id)).toBe('0.8');

	// A request made by hand changes nothing either: it is kept, and does not count.
	const other = form[0].choices!.find(({ id }) => id !== stood)!.id;
	const revision = { seq: 900, questionId: form[0].id, value: other, marked: false, struck: [], inViewMs: 10 };
	const told = await signedFetch(page, 'POST', '/sit/api/answers', { revisions: [revision] });
	expect(told).toMatchObject({ status: 409 });
	expect(await valueOf(me.id, form[0].id)).toEqual(stood);
	// What was passed unanswered stays passed, also for a page that is loaded anew, in this tab or in another browser.
	await page.getByTestId('next').click();
	await page.getByTestId('next').click();
	await expect.poll(() => shownNumbers(page)).toEqual([4]);
	await expect.poll(() => valueOf(me.id, form[3].id)).toBe(null);
	await page.evaluate(() => sessionStorage.removeItem('otium seen'));
	await page.reload();
	await page.getByTestId('time').waitFor();
	await expect.poll(() => shownNumbers(page)).toEqual([4]);
});

test('no going back: the questions ahead are not on the device, and the next page waits for the connection', async ({
	browser
}) => {
	const { page, me, form } = await under(browser, 7, { shown: 'pages', perPage: 2, goingBack: false });
	const sent = await signedFetch(page, 'GET', '/sit/api/paper');
	expect((sent.body.questions as { id: string }[]).map(({ id }) => id)).toEqual([form[0].id, form[1].id]);
	const cut = () => page.route('**/sit/api/**', (route) => route.abort());
	const mend = () => page.unroute('**/sit/api/**');

	await cut();
	await page.getByTestId('next').click();
	await expect(page.getByText('Questions 3 to 4 will appear here')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Waiting for the connection' })).toBeDisabled();
	await mend();
	await expect.poll(() => shownNumbers(page)).toEqual([3, 4]);
	await expect(page.getByTestId('next')).toHaveText('Next →');

	// With the line known to be down one stays where one can go on working, and nothing that is written is lost.
	await cut();
	await page.getByRole('radio').first().check();
	await expect(page.getByRole('button', { name: 'Waiting for the connection' })).toBeDisabled();
	await page.locator('[data-question] legend').first().click();
	await page.keyboard.press('n');
	expect(await shownNumbers(page)).toEqual([3, 4]);
	await mend();
	await expect.poll(() => valueOf(me.id, form[2].id)).toBeTruthy();
	await page.getByTestId('next').click();
	await expect.poll(() => shownNumbers(page)).toEqual([5, 6]);
});

test('answer to go on, and answer all before handing in', async ({ browser }) => {
	const { page, form } = await under(browser, 4, { answerToGoOn: true, answerAll: true });
	await expect(page.getByRole('button', { name: 'Answer to continue' })).toBeDisabled();
	await expect(page.getByRole('button', { name: /^Question 2,/ })).toBeDisabled();
	await takesKeys(page);
	await page.keyboard.press('n');
	expect(await shownNumbers(page)).toEqual([1]);
	await page.getByRole('radio').first().check();
	await page.getByTestId('next').click();
	expect(await shownNumbers(page)).toEqual([2]);
	await page.getByTestId('hand-in').click();
	const dialog = page.getByRole('dialog');
	await expect(dialog).toContainText(`1 of ${form.length} are answered. All must be answered before handing in.`);
	await expect(page.getByTestId('confirm-hand-in')).toBeDisabled();
	await dialog.getByRole('button', { name: 'Keep working' }).click();
	const refused = await signedFetch(page, 'POST', '/sit/api/hand-in', { commandId: 'by-hand-0001', finishWord: '' });
	expect(refused.body.code).toBe('blanks_left');
});

test('own order of questions and of choices: two neighbours see different ones, each the same after a reload', async ({
	browser
}) => {
	const order = { questionsInOwnOrder: true, choicesInOwnOrder: true };
	const one = await under(browser, 5, { shown: 'all' }, { order });
	const two = await under(browser, 6, { shown: 'all' }, { order });
	const stems = async (page: Page) => {
		// Formulas come after the words.
		await expect(page.locator('[data-question] legend code')).toHaveCount(0);
		return page.locator('[data-question] legend > span:nth-child(2)').allTextContents();
	};
	const [mine, theirs] = [await stems(one.page), await stems(two.page)];
	expect(mine).not.toEqual(theirs);
	expect([...mine].sort()).toEqual([...theirs].sort());
	await one.page.reload();
	await one.page.getByTestId('time').waitFor();
	await expect.poll(() => stems(one.page)).toEqual(mine);
});

test('a time for each question: it runs out, the next one comes by itself, and waits for the line', async ({
	browser
}) => {
	const timing = { limitMinutes: 30, questionSeconds: 6, clockStops: 'hold_or_lost', graceMinutes: 0 };
	const { page, me, form } = await under(browser, 8, { goingBack: false }, { timing });
	const head = page.getByTestId('question-time');
	await expect(head).toContainText('this question');
	await expect(page.getByTestId('next')).toHaveText('Next →');
	const first = page.locator('[data-question]').first();
	const input = first.locator('input').first();
	if ((await input.getAttribute('type')) === 'radio') await input.check();
	else await input.fill('7');
	await expect.poll(() => valueOf(me.id, form[0].id)).not.toBeNull();
	await expect.poll(() => shownNumbers(page)).toEqual([2]);
	await expect(head).toContainText('this question');

	await page.context().setOffline(true);
	// Its time ends without a line; what comes next waits for it, and its clock has not begun.
	await expect(page.getByText('Question 3 will appear here')).toBeVisible();
	await expect(head).toHaveCount(0);
	await page.context().setOffline(false);
	await expect.poll(() => shownNumbers(page)).toEqual([3]);
	await expect(head).toContainText('this question');
	const shown = await home.read((db) =>
		db('question_shown').where({ sitting_id: me.id }).orderBy('place').pluck('place')
	);
	expect(shown.slice(0, 3)).toEqual([0, 1, 2]);
});

test('a time for each question is entered instead of a limit, not beside it', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/new');
	await choose(page, 'paperId', 'Tides and Currents');
	await page.getByRole('group', { name: 'Groups' }).getByText('Second Years').click();
	await choose(page, 'roomId', 'Chart Room');
	await page.locator('#date').fill(new Date(Date.now() + 6 * 86_400_000).toISOString().slice(0, 10));
	await page.locator('#date').blur();
	await page.locator('#time').fill('13:00');
	await page.locator('#time').blur();
	await page.getByTestId('fold-Time').locator('summary').first().click();
	await page.locator('#rule-timing-questionSeconds').fill('90');
	const findings = page.getByTestId('findings');
	const fix = (code: string) => findings.locator(`[data-code=${code}]`).getByRole('button').first().click();
	await expect(findings.locator('[data-code=K12]')).toContainText('60 minutes for the whole and 90 seconds');
	await fix('K12');
	await fix('question_time_movement');
	await fix('question_time_lost');
	await expect(page.getByTestId('sentence')).toContainText('with 90 seconds for each question (about');
	await expect(page.getByTestId('length')).toContainText('90 s for each');
	await page.getByTestId('told').locator('summary').click();
	await expect(page.getByTestId('told')).toContainText('You have 90 seconds for each question.');
	await expect(findings.locator('[data-code^=question_time]')).toHaveCount(0);
});
