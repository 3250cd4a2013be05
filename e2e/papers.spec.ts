import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { serious } from './axe';
import { go, house } from './house';

const home = house();
const kept = (page: Page) => expect(page.getByTestId('kept')).toHaveText(/^Saved/);
const questions = (page: Page) => page.getByTestId('questions').locator('> li');

async function open(page: Page, title: string) {
	await go(page, '/papers');
	await page.getByTestId('papers').locator('li', { hasText: title }).getByTestId('open-paper').click();
	await page.waitForURL(/\/papers\/.+/);
	await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

test('an author writes a paper from nothing by keys alone, freezes it, and a coordinator finds it for a session', async ({
	browser
}) => {
	const page = await home.staff(browser, 'brandreth');
	await page.goto('/');
	// An author sees papers and nothing of the day.
	await expect(page.getByRole('link', { name: 'Papers', exact: true }).first()).toBeVisible();
	await expect(page.getByRole('link', { name: 'Live', exact: true })).toHaveCount(0);
	await go(page, '/papers');
	expect(await serious(page), 'papers').toEqual([]);
	await page.keyboard.press('n');
	await page.getByLabel('Title').fill('Anchor Work');
	await page.keyboard.press('Enter');
	await page.waitForURL(/\/papers\/.+/);
	await expect(page.getByTestId('gets')).toContainText('There is no question yet.');
	await go(page, page.url());

	await page.keyboard.press('q');
	await expect(page.getByLabel('Question', { exact: true })).toBeFocused();
	await page.keyboard.type('A vessel at anchor by day shows');
	await page.keyboard.press('Enter');
	await page.keyboard.type('two cones');
	await page.keyboard.press('Enter');
	await page.keyboard.type('one black ball');
	await page.keyboard.press('Alt+Enter');
	await page.keyboard.press('Control+Enter');
	await expect(questions(page)).toHaveCount(2);
	await page.keyboard.type('The scope of the cable is not');
	await page.keyboard.press('Escape');
	await kept(page);
	await expect(questions(page).first()).toContainText('✓ one black ball');
	// What nobody wrote into is not left behind, and what is missing is told.
	await expect(questions(page).first().locator('ul li')).toHaveCount(2);
	await expect(page.getByTestId('gets')).toContainText('No choice is marked as right.');
	await expect(page.getByTestId('freeze')).toBeDisabled();
	expect(await serious(page), 'a paper').toEqual([]);

	// Undone step by step: what was written, then that it was begun.
	// Who pauses in writing has two steps of it.
	await expect(async () => {
		await page.keyboard.press('z');
		await expect(questions(page).nth(1)).toContainText('No question text yet', { timeout: 3_000 });
	}).toPass();
	await page.keyboard.press('z');
	await expect(questions(page)).toHaveCount(1);
	await kept(page);
	await page.getByTestId('freeze').click();
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('frozen')).toContainText('Version 1 is frozen');
	await page.reload();
	await expect(questions(page)).toHaveCount(1);

	const coordinator = await home.staff(browser);
	await go(coordinator, '/prepare/new');
	const offered = () => coordinator.getByLabel('Paper').locator('option', { hasText: 'Anchor Work, version 1' });
	await expect(offered()).toHaveCount(1);

	// A copy is another paper; the version is withdrawn, and chosen no more.
	await go(page, '/papers');
	const line = page.getByTestId('papers').locator('li', { hasText: 'Anchor Work' });
	await line.getByTestId('copy-paper').click();
	await expect(page.getByRole('dialog')).toContainText('Comes along: 1 questions of version 1');
	await page.getByLabel('Title of the copy').fill('Anchor Work, evening course');
	await page.getByTestId('confirm').click();
	await expect(page.getByRole('heading', { level: 1, name: 'Anchor Work, evening course' })).toBeVisible();
	await expect(questions(page)).toHaveCount(1);
	await page.getByRole('button', { name: 'Title, script…' }).click();
	await page.getByLabel('Programme').fill('Evening course');
	await page.getByLabel('Instructions').fill('Bring nothing but a pencil.');
	await page.getByTestId('confirm').click();
	await kept(page);
	await go(page, '/papers');
	await page.getByLabel('Find a paper').fill('evening anchor');
	await expect(page.getByTestId('papers').locator('> li')).toHaveCount(1);
	await page.getByLabel('Find a paper').fill('');
	await line.first().getByTestId('reach').click();
	await expect(page.getByTestId('reach-of')).toContainText('nobody can get at it now');
	await expect(page.getByTestId('confirm')).toBeDisabled();
	await page.getByLabel('Why it is withdrawn').fill('The scope is asked wrongly.');
	expect(await serious(page), 'withdrawing').toEqual([]);
	await page.getByTestId('confirm').click();
	await expect(line.first()).toContainText('Withdrawn');
	await coordinator.reload();
	await expect(coordinator.getByLabel('Paper')).toBeVisible();
	await expect(offered()).toHaveCount(0);
});

test('text that was written elsewhere becomes questions, with what is doubtful told before', async ({ browser }) => {
	const page = await home.staff(browser, 'brandreth');
	await open(page, 'Radio Procedure');
	const before = await questions(page).count();
	await page.keyboard.press('t');
	// A document first, and one that is none.
	const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
	const words = ['1. Which channel is for distress?', 'a) 16', 'b) 72', 'Answer: A'];
	const body = words.map((text) => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`).join('');
	const files = {
		'_rels/.rels':
			'<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
		'word/document.xml': `<w:document ${W}><w:body>${body}</w:body></w:document>`
	};
	const zip = zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
	const mimeType = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
	const file = page.getByTestId('document');
	await file.setInputFiles({ name: 'radio.docx', mimeType, buffer: Buffer.from('no document') });
	await expect(page.getByTestId('paste').getByRole('alert')).toContainText('not a .docx document');
	await file.setInputFiles({ name: 'radio.docx', mimeType, buffer: Buffer.from(zip) });
	await expect(page.getByTestId('paste')).toContainText('Which channel is for distress?');
	// A table, whose columns can be named otherwise.
	const table = 'Item,Options,Key\nDSC is on channel,16 | 70 | 13,70\n';
	await file.setInputFiles({ name: 'radio.csv', mimeType: 'text/csv', buffer: Buffer.from(table) });
	const sheet = page.getByTestId('paste');
	await expect(sheet).toContainText('No row has a question. Choose the column that holds them.');
	await sheet.getByLabel('Item').selectOption('text');
	await expect(page.getByTestId('take-over')).toHaveText(/Add 1\s+question/);
	await expect(sheet).toContainText('70 · right');
	expect(await serious(page), 'from a table').toEqual([]);
	await sheet.getByRole('button', { name: 'Back to text' }).click();
	await page
		.locator('#paste-text')
		.fill('Radio, part two\n1. Mayday is said (2 points)\na) once\n*b) three times\n2. What?');
	await expect(page.getByTestId('paste')).toContainText('Line 1: Radio, part two');
	await expect(page.getByTestId('paste')).toContainText('read as an essay');
	expect(await serious(page), 'from text').toEqual([]);
	await page.getByTestId('take-over').click();
	await expect(questions(page)).toHaveCount(before + 2);
	await kept(page);
	await page.reload();
	await expect(questions(page)).toHaveCount(before + 2);
	await expect(questions(page).nth(before)).toContainText('✓ three times');
});

test('a question of the bank is found by its words and added', async ({ browser }) => {
	const page = await home.staff(browser, 'brandreth');
	await open(page, 'Ship Stability');
	const before = await questions(page).count();
	await page.keyboard.press('o');
	await page.locator('#others-text').fill('neap tides range low water smaller');
	const found = page.getByTestId('others').locator('ol > li');
	await expect(found).toHaveText([/in 1 version/]);
	expect(await serious(page), 'from the bank').toEqual([]);
	await found.getByRole('button', { name: 'Add' }).click();
	await page.keyboard.press('Escape');
	await expect(questions(page)).toHaveCount(before + 1);
	await kept(page);
	await page.getByTestId('undo').click();
	await expect(questions(page)).toHaveCount(before);
	await kept(page);
});

test('a pool tells how alike two candidates’ questions are, and the preview deals it', async ({ browser }) => {
	const page = await home.staff(browser);
	await open(page, 'Tides and Currents');
	const of = await questions(page).count();
	await page.getByTestId('make-pool').click();
	await page.getByTestId('pool').getByRole('textbox').fill('5');
	await page.getByTestId('pool').getByRole('textbox').press('Enter');
	// take² / of, the mean of the hypergeometric distribution.
	const mean = (25 / of).toFixed(2).replace(/\.?0+$/, '');
	await expect(page.getByTestId('pool')).toContainText(`Two neighbours share ${mean} on average`);
	await page.getByTestId('preview-pair').click();
	await expect(page.getByTestId('preview')).toContainText(/They share \d+ of \d+ questions/);
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('preview')).toHaveCount(0);
	await page.keyboard.press('v');
	await expect(page.getByTestId('preview').locator('[data-question]')).toBeVisible();
	await page.getByTestId('preview-mark').click();
	await expect(page.getByTestId('preview-score')).toContainText(/^0 of \d+ points/);
	expect(await serious(page), 'preview').toEqual([]);
	// With larger text and strong colours, as a grant would give them.
	const shown = page.getByTestId('preview-page');
	const before = await shown.locator('[data-question]').evaluate((one) => one.getBoundingClientRect().height);
	await page.getByLabel('Size').selectOption('200');
	await page.getByTestId('preview-look').selectOption('strong');
	await expect(shown).toHaveClass(/look-strong/);
	expect(await shown.locator('[data-question]').evaluate((one) => one.getBoundingClientRect().height)).toBeGreaterThan(
		before * 1.3
	);
	expect(await serious(page), 'preview, strong').toEqual([]);
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('preview')).toHaveCount(0);
	await page.getByTestId('compare').click();
	await expect(page.getByTestId('changes')).toContainText('deals 5 instead of all');
	await page.keyboard.press('Escape');
	await expect(page.getByTestId('changes')).toHaveCount(0);
	await page.getByTestId('undo').click();
	await page.getByTestId('undo').click();
	await expect(page.getByTestId('pool')).toHaveCount(0);
});

test('a question is written in two languages side by side, dragged to its place, and weighed against the others', async ({
	browser
}) => {
	const page = await home.staff(browser, 'brandreth');
	await open(page, 'Watchkeeping, practical');
	const parts = page.getByTestId('parts');
	await parts.getByRole('button', { name: 'Sound signals' }).click();
	await page.getByTestId('edit-B1').click();
	await page.getByTestId('languages').click();
	await page.getByLabel('Another language').fill('p');
	await expect(page.getByTestId('add-language')).toBeDisabled();
	await page.getByLabel('Another language').fill('pt');
	await page.getByTestId('add-language').click();
	await expect(page.getByTestId('languages')).toContainText('Portuguese, 5 missing');
	await page.getByLabel('Question in Portuguese').fill('Que navio dá este sinal?');
	await page.getByLabel('a pilot vessel on duty in Portuguese').fill('um navio piloto');
	await expect(page.getByTestId('languages')).toContainText('Portuguese, 3 missing');
	expect(await serious(page), 'two languages').toEqual([]);
	await page.keyboard.press('Escape');
	await kept(page);
	await expect(page.getByTestId('gets')).toContainText('not complete in pt');

	// B2 before B1, then to the end of the first part.
	const first = await questions(page).first().getAttribute('data-question-row');
	await page.getByText('B2', { exact: true }).dragTo(questions(page).first());
	await expect(questions(page).nth(1)).toHaveAttribute('data-question-row', first!);
	await page.getByText('B2', { exact: true }).dragTo(parts.getByRole('button', { name: 'Radar' }));
	await expect(questions(page)).toHaveCount(1);
	await parts.getByRole('button', { name: 'Radar' }).click();
	await expect(questions(page)).toHaveCount(4);
	await kept(page);
	await page.keyboard.press('z');
	await expect(questions(page)).toHaveCount(3);

	// A pool by difficulty.
	await page.getByTestId('make-pool').click();
	await page.getByTestId('by-difficulty').click();
	await expect(page.getByTestId('strata')).toContainText('of 2 medium');
	await page.getByTestId('strata').getByRole('textbox').nth(2).fill('1');
	await page.keyboard.press('Tab');
	await expect(page.getByTestId('pool')).toContainText('all difficulties together');
	await expect(page.getByTestId('gets')).toContainText('4 of 5 questions');
	for (let back = 0; back < 3; back++) await page.getByTestId('undo').click();
	await expect(page.getByTestId('pool')).toHaveCount(0);

	await page.getByTestId('balance-open').click();
	await expect(page.getByTestId('balance').getByRole('row', { name: 'Radar' })).toContainText(/4\s*6/);
	expect(await serious(page), 'balance').toEqual([]);
});

test('two write at once: each sees the other’s, and a question that both change is told with both', async ({
	browser
}) => {
	const mine = await home.staff(browser);
	const theirs = await home.staff(browser, 'brandreth');
	await open(mine, 'Ship Stability');
	await open(theirs, 'Ship Stability');
	await mine.getByTestId('edit-A1').click();
	await theirs.getByTestId('edit-A2').click();
	await theirs.getByLabel('Question', { exact: true }).fill('Written by the other, second');
	await theirs.keyboard.press('Escape');
	await expect(questions(mine).nth(1)).toContainText('Written by the other, second');

	await theirs.getByTestId('edit-A1').click();
	await theirs.getByLabel('Question', { exact: true }).fill('Written by the other, first');
	await mine.getByLabel('Question', { exact: true }).fill('Written by me');
	await theirs.keyboard.press('Escape');
	await kept(theirs);
	await mine.keyboard.press('Escape');
	const isAsked = (of: Page) => of.getByTestId('conflict').count();
	await expect.poll(async () => (await isAsked(mine)) + (await isAsked(theirs))).toBe(1);
	// The second to save is asked, and neither version is lost.
	const asked = (await isAsked(theirs)) > 0 ? theirs : mine;
	await expect(asked.getByTestId('conflict')).toContainText('Written by the other, first');
	await expect(asked.getByTestId('conflict')).toContainText('Written by me');
	expect(await serious(asked), 'two at once').toEqual([]);
	await asked.getByTestId('confirm').click();
	await kept(asked);
	const last = asked === mine ? 'Written by me' : 'Written by the other, first';
	await expect(questions(mine).first()).toContainText(last);
	await expect(questions(theirs).first()).toContainText(last);
});

test('the server is away while somebody writes: it is kept on the page and sent when it is back', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await open(page, 'Coastal Navigation I');
	const before = await questions(page).count();
	await home.kill();
	await page.keyboard.press('q');
	await page.keyboard.type('Written without a line');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('alert')).toContainText('kept on this page');
	await home.start();
	await expect(page.getByTestId('kept')).toHaveText(/^Saved/);
	await page.reload();
	await expect(questions(page)).toHaveCount(before + 1);
	await expect(questions(page).last()).toContainText('Written without a line');
});

test('a paper goes out as a QTI package and comes in as another; a package with faults says what they are', async ({
	browser
}) => {
	const page = await home.staff(browser, 'brandreth');
	await open(page, 'Ship Stability');
	await page.getByText('Export', { exact: true }).click();
	const coming = page.waitForEvent('download');
	await page.getByRole('link', { name: 'QTI 3.0' }).click();
	const file = await coming;
	expect(file.suggestedFilename()).toBe('Ship-Stability-QTI-3.0.zip');
	const packed = new Uint8Array(readFileSync(await file.path()));

	await go(page, '/papers');
	await page.getByTestId('from-package').click();
	const dialog = page.getByTestId('package');
	await dialog.getByLabel('QTI package').setInputFiles({
		name: 'words.zip',
		mimeType: 'application/zip',
		buffer: Buffer.from('no zip')
	});
	await expect(dialog.getByRole('alert')).toContainText('not a zip');

	const files = unzipSync(packed);
	const [first] = Object.keys(files).filter((name) => name.startsWith('items/'));
	const broken = zipSync({ ...files, [first]: strToU8('<assessmentItem>') });
	await dialog
		.getByLabel('QTI package')
		.setInputFiles({ name: 'stability.zip', mimeType: 'application/zip', buffer: Buffer.from(broken) });
	await expect(dialog.getByTestId('told')).toContainText(`${first}: It was left out`);
	expect(await serious(page), 'a package').toEqual([]);
	// Its title is that of the paper that it came from.
	await dialog.getByTestId('make-from-package').click();
	await expect(dialog.getByRole('alert')).toContainText('another paper with this title');

	await dialog
		.getByLabel('QTI package')
		.setInputFiles({ name: 'stability.zip', mimeType: 'application/zip', buffer: Buffer.from(packed) });
	await expect(dialog.getByTestId('incoming')).toContainText('questions');
	await expect(dialog.getByTestId('told')).toHaveCount(0);
	await dialog.getByLabel('Title').fill('Ship Stability, from elsewhere');
	await dialog.getByTestId('make-from-package').click();
	await page.waitForURL(/\/papers\/[^/]+$/);
	await expect(page.getByRole('heading', { level: 1, name: 'Ship Stability, from elsewhere' })).toBeVisible();
	await expect(page.getByTestId('gets')).toContainText('16 questions');
});

test('a calculated question draws its numbers for each candidate, and is marked by them', async ({ browser }) => {
	const page = await home.staff(browser, 'brandreth');
	await go(page, '/papers');
	await page.keyboard.press('n');
	await page.getByLabel('Title').fill('Ranges');
	await page.keyboard.press('Enter');
	await page.waitForURL(/\/papers\/[^/]+$/);
	await go(page, page.url());
	await page.getByTestId('kind').selectOption('calculated');
	await page.getByTestId('add-question').click();
	await page
		.getByLabel('Question', { exact: true })
		.fill('High water is {high} m, low water {low} m. What is the range?');
	await page.getByLabel('Formula', { exact: true }).fill('high - tide');
	await expect(page.getByTestId('question-edit')).toContainText('“tide” is neither a parameter nor a function.');
	await expect(page.getByTestId('freeze')).toBeDisabled();
	await page.getByLabel('Formula', { exact: true }).fill('high - low');
	await page.getByLabel('Conditions').fill('high > low + 1');
	await expect(page.getByTestId('examples')).toContainText('Twenty examples');
	await page.getByLabel('Unit').fill('m');
	await page.getByTestId('done').click();
	await kept(page);
	await expect(page.getByTestId('questions')).toContainText('✓ high - low m ± 1 %');
	expect(await serious(page), 'calculated').toEqual([]);

	await page.getByTestId('preview-one').click();
	const asked = page.getByRole('dialog').locator('[data-question]').first();
	await expect(asked).toContainText(/High water is \d+ m, low water \d+ m\./);
	const [high, low] = (await asked.innerText())
		.match(/High water is (\d+) m, low water (\d+) m/)!
		.slice(1)
		.map(Number);
	expect(high).toBeGreaterThan(low + 1);
	await asked.getByRole('textbox').fill(String(high - low));
	await page.getByRole('button', { name: 'Mark it as if handed in' }).click();
	await expect(page.getByRole('dialog')).toContainText('1 of 1 points');
	await page.keyboard.press('Escape');
	await expect(page.getByRole('dialog')).toHaveCount(0);

	// Its working is asked for: a question that goes with it, and stays behind it.
	await page.getByTestId('edit-A1').click();
	await page.getByTestId('working').click();
	await expect(page.getByTestId('question-edit')).toContainText('Show how you came to your answer.');
	await expect(page.getByLabel('goes with A1')).toBeChecked();
	await page.getByTestId('done').click();
	await kept(page);
	await expect(page.getByTestId('questions').locator('> li').nth(1)).toContainText('goes with A1');
	await expect(page.getByTestId('gets')).toContainText('One is marked by hand.');
	await page.getByTestId('preview-one').click();
	await page.getByRole('dialog').getByRole('button', { name: 'Next' }).click();
	await expect(page.getByRole('dialog').locator('[data-question]').first()).toContainText(
		'belongs to the question before'
	);
});
