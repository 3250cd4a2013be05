import { expect, test } from '@playwright/test';
import { WATCH_A } from './acts';
import { arrive, go, house } from './house';
import { takesKeys, sitsIn } from './sits';

// WCAG 2.2, 2.1.4 (character key shortcuts) and 3.2 (predictable): a key does what has the focus, and nothing else.
const home = house({ at: '10:22' });
const { begun, formOf, valueOf, goTo } = sitsIn(home);

test('digits for the calculator, and keys behind a dialog or on a button, answer nothing and turn nothing', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const me = await begun(page, 0, { lockdown: { level: 'open' }, tools: { calculator: 'scientific' } });
	const answers = page.locator('[data-question]').getByRole('radio');
	const form = await formOf(me.id);
	const single = form.findIndex(({ kind }) => kind === 'single');
	await goTo(page, single);
	await expect(page.locator('[data-question] h2')).toBeFocused();
	await takesKeys(page);
	await page.keyboard.press('1');
	await expect(answers.first()).toBeChecked();
	await expect.poll(() => valueOf(me.id, form[single].id)).toBeTruthy();
	const first = await valueOf(me.id, form[single].id);
	const nothing = async (what: string) => {
		await expect(answers.first(), what).toBeChecked();
		await expect(page.locator('[data-question] h2'), what).toContainText(`Question ${single + 1} of`);
		expect(await valueOf(me.id, form[single].id), what).toEqual(first);
	};

	// The panel takes the focus as it opens; also after what is pressed in it digits are its own.
	await page.getByRole('button', { name: 'Calculator' }).click();
	await expect(page.getByLabel('What to work out')).toBeFocused();
	await page.keyboard.type('4+2');
	await page.getByTestId('panel').getByRole('button', { name: '=' }).click();
	await expect(page.getByTestId('calculated')).toHaveText('= 6');
	await page.keyboard.type('53');
	await page.getByLabel('radians').check();
	await page.keyboard.type('2n');
	await nothing('calculator');
	await page.getByRole('button', { name: 'Close Calculator' }).click();

	await page.getByTestId('open-map').click();
	await page.keyboard.type('3nm');
	await nothing('every question');
	await page.keyboard.press('Escape');

	// On a button a key is that button's.
	await page.getByTestId('mark').focus();
	await page.keyboard.type('2n');
	await nothing('mark');
	// A key that is held down turns one page, not ten.
	await page.locator('[data-question] h2').focus();
	await page.keyboard.down('n');
	for (let i = 0; i < 5; i++) await page.keyboard.down('n');
	await page.keyboard.up('n');
	await expect(page.locator('[data-question] h2')).toContainText(`Question ${single + 2} of`);
	// Switched off, they do nothing at all, and stay off.
	await page.getByRole('button', { name: 'Display' }).click();
	await page.getByTestId('single-keys').click();
	await page.reload();
	await expect(page.locator('[data-question] h2')).toBeVisible();
	await takesKeys(page);
	await page.locator('[data-question] h2').focus();
	await page.keyboard.type('np');
	await expect(page.locator('[data-question] h2')).toContainText(`Question ${single + 2} of`);
});

test('a hold in the middle of a sentence leaves it as it is: nothing of what is typed on is taken for keys', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const troubles: string[] = [];
	page.on('pageerror', (error) => troubles.push(error.message));
	const me = await begun(page, 1, { lockdown: { level: 'open' } });
	const form = await formOf(me.id);
	const essay = form.findIndex(({ kind }) => kind === 'essay' || kind === 'short');
	await goTo(page, essay);
	const box = page.getByRole('textbox').first();
	await box.click();
	await page.keyboard.type('The tide runs north ');
	const proctor = await home.staff(browser);
	const hold = (kind: string) =>
		proctor.request.post(`/live/${me.sessionId}/act`, {
			data: { commandId: `${kind}-${me.id}`, sittingIds: [me.id], kind, reason: 'alarm' },
			headers: { origin: home.url }
		});
	expect((await hold('hold')).ok()).toBe(true);
	await expect(page.getByRole('heading', { name: 'A pause' })).toBeFocused();
	await expect(box).toBeHidden();
	await page.keyboard.type('npm123');
	expect((await hold('resume')).ok()).toBe(true);
	await expect(box).toBeVisible();
	await expect(box).toBeFocused();
	await page.keyboard.type('until noon.');
	await expect(box).toHaveValue('The tide runs north until noon.');
	await expect(page.locator('[data-question] h2')).toContainText(`Question ${essay + 1} of`);
	await expect.poll(() => valueOf(me.id, form[essay].id)).toBe('The tide runs north until noon.');
	const answered = await home.read((db) =>
		db('answer').where({ sitting_id: me.id }).distinct('question_id').pluck('question_id')
	);
	expect(answered).toHaveLength(1);
	expect(troubles).toEqual([]);
});

test('in the room Enter and Space are for whom and what they are on', async ({ browser }) => {
	const candidate = await home.browser(browser);
	const { id, code, number, family } = await home.makeWayFor(WATCH_A, 'DO-1009');
	await home.read(async (db) => {
		const { rules } = await db('session').where({ id }).first('rules');
		await db('session')
			.where({ id })
			.update({ rules: JSON.stringify({ ...JSON.parse(rules), admission: 'by_proctor' }) });
	});
	await arrive(candidate, code, number, family);
	await expect(candidate.getByRole('heading', { name: 'You are at the door' })).toBeFocused();
	const page = await home.staff(browser);
	await go(page, `/live/${id}`);
	const state = () =>
		home.read((db) => db('sitting').where({ session_id: id, state: 'let_in' }).count('* as n').first());
	const before = await state();
	await page.keyboard.press('2');
	// Somebody else's name in the list: Enter looks at them, and lets nobody in.
	const other = page.getByRole('table').getByRole('button', { name: 'Tobias Rook' });
	await other.focus();
	await page.keyboard.press('Enter');
	await expect(page.locator('aside').last().getByRole('heading', { level: 2 }).first()).toContainText('Tobias Rook');
	expect(await state()).toEqual(before);
	// Space presses the button that it is on, and selects nobody.
	await page.getByTestId('find').focus();
	await page.keyboard.press(' ');
	await expect(page.getByRole('dialog', { name: /^Find/ })).toBeVisible();
	await page.keyboard.press('Escape');
	await expect(page.getByRole('dialog')).toHaveCount(0);
	await expect(page.getByText(/\d selected/)).toHaveCount(0);
	// On the one who waits it lets them in.
	await page.getByRole('table').getByRole('button', { name: 'Inge Brandt' }).focus();
	await page.keyboard.press('Enter');
	await expect(candidate.getByTestId('begin')).toBeVisible();
	await expect(candidate.getByRole('heading', { name: /You can (start|continue)/ })).toBeFocused();
});
