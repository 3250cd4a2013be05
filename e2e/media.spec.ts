import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { serious } from './axe';
import { go, house } from './house';
import { sitsIn } from './sits';

const home = house({ at: '10:22' });
const { begun, formOf, goTo } = sitsIn(home);
const kept = (page: Page) => expect(page.getByTestId('kept')).toHaveText(/^Saved/);
const photo = (colour: string) =>
	sharp({ create: { width: 800, height: 500, channels: 3, background: colour } })
		.jpeg()
		.toBuffer();

async function open(page: Page, title: string) {
	await go(page, '/papers');
	await page.getByTestId('papers').locator('li', { hasText: title }).getByTestId('open-paper').click();
	await page.waitForURL(/\/papers\/.+/);
	await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

/** The session at 10:30 sits this paper's newest version; as it is being written, where none is frozen yet. */
async function sits(title: string) {
	const { id } = await home.session('Lights and Shapes · Watch B');
	await home.read(async (db) => {
		const frozen = await db('paper').where({ title }).orderBy('version', 'desc').first('id');
		if (!frozen) {
			const { content } = await db('paper_draft').where({ title }).first('content');
			await db('paper').insert({ id: 'practical', title, version: 1, content });
		}
		const paper = { paper_id: frozen?.id ?? 'practical' };
		await db('session').where({ id }).update(paper);
		await db('sitting').where({ session_id: id }).whereNull('device_epoch').update(paper);
	});
}

test('an author gives a question a picture, a sound and a text that it shares, and a candidate gets them', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const author = await home.staff(browser, 'brandreth');
	await open(author, 'Watchkeeping, practical');
	await expect(author.getByTestId('shared-text')).toHaveCount(1);
	await author.getByTestId('parts').getByRole('button', { name: 'Sound signals' }).click();
	await author.getByTestId('edit-B2').click();
	await author
		.getByTestId('question-edit')
		.locator('input[type=file]')
		.first()
		.setInputFiles([
			{ name: 'mast.jpg', mimeType: 'image/jpeg', buffer: await photo('#446') },
			{ name: 'page.png', mimeType: 'image/png', buffer: Buffer.from('<html>no picture</html>') }
		]);
	const media = author.getByTestId('media-edit').first();
	await expect(media.getByRole('alert')).toContainText('page.png: This file can’t be shown or played');
	await expect(media.getByRole('img')).toBeVisible();
	await media.getByLabel('What it shows').fill('A mast with a black ball');
	// It joins what stands before it: the text is written there once, and changes for both.
	await author.getByTestId('shared-new').click();
	await author.getByLabel('Shared text, before').fill('You are at anchor in fog.');
	await author.keyboard.press('Escape');
	await kept(author);
	await author.getByTestId('edit-B1').click();
	expect(await serious(author), 'the editor with files').toEqual([]);
	await author.keyboard.press('Escape');
	await author.getByRole('button', { name: 'Title, script…' }).click();
	await author.getByLabel('Instructions').fill('Use **no** calculator for A.');
	// A PDF comes in page by page, as pictures with its words; what is none is told, and nothing is lost by it.
	const pdf = await (await author.request.get(`${author.url()}/print/key?form=1`)).body();
	const material = author.getByTestId('material');
	await material.locator('input[type=file]').setInputFiles([
		{ name: 'Stopping distances.pdf', mimeType: 'application/pdf', buffer: pdf },
		{ name: 'empty.pdf', mimeType: 'application/pdf', buffer: Buffer.from('no PDF at all') }
	]);
	await expect(material.getByRole('alert')).toContainText('empty.pdf was not added.');
	await expect(material.getByLabel('Name of document 1')).toHaveValue('Stopping distances');
	await expect(material).toContainText('1 page');
	await author.getByTestId('confirm').click();
	await kept(author);
	await author.getByTestId('freeze').click();
	await author.getByTestId('confirm').click();
	await expect(author.getByTestId('frozen')).toContainText('Version 1 is frozen');
	await sits('Watchkeeping, practical');

	// What stands there as work begins.
	let instructions: string | null = null;
	await page.route('**/sit/api/begin', async (route) => {
		instructions = await page.getByTestId('instructions').textContent();
		await route.continue();
	});
	await begun(page, 0, { review: { shows: 'nothing' } });
	expect(instructions!.trim()).toBe('Use no calculator for A.');
	const asked = page.locator('[data-question]');
	const next = () => page.getByRole('button', { name: 'Next' }).click();
	await page.getByRole('button', { name: 'Material' }).click();
	const panel = page.getByTestId('panel');
	await expect(panel.getByRole('img')).toHaveJSProperty('complete', true);
	await expect(panel.getByRole('img')).toHaveAttribute('alt', /Watchkeeping, practical/);
	expect(await serious(page), 'material beside the paper').toEqual([]);
	await panel.getByRole('button', { name: 'Close Material' }).click();
	// Questions that share a text follow each other, whatever order this candidate has.
	for (let turned = 0; turned < 4 && !(await asked.textContent())!.includes('collision course'); turned++) await next();
	await expect(page.getByTestId('shared-text')).toContainText(/For questions \d to \d/);
	await expect(page.getByTestId('shared-text').getByRole('img')).toHaveJSProperty('complete', true);
	expect(await serious(page), 'a shared text with a picture').toEqual([]);
	await next();
	await expect(asked).toContainText('B was 4.7 miles away');
	await expect(page.getByTestId('shared-text')).toBeVisible();
	await next();
	await expect(asked).toContainText('Plot the course');
});

test('a sound that may be played twice plays no third time, not even after a reload', async ({ browser }) => {
	const page = await home.browser(browser);
	await sits('Watchkeeping, practical');
	await begun(page, 1, { lockdown: { level: 'open' } });
	const played = page.getByTestId('played');
	const find = async () => {
		for (let turned = 0; turned < 5 && (await played.count()) === 0; turned++) {
			await page.getByRole('button', { name: 'Next' }).click();
			await page.waitForTimeout(50);
		}
		await expect(played).toBeVisible();
	};
	await find();
	await expect(played).toContainText('Twice, from beginning to end without a pause.');
	await page.getByTestId('play').click();
	await expect(page.getByTestId('play')).toHaveText('Playing');
	await expect(page.getByTestId('play')).toBeDisabled();
	await expect(played).toContainText('Once more');
	// A reload in the middle does not give the play back.
	await page.reload();
	await expect(played).toContainText('Once more');
	await home.kill();
	await page.getByTestId('play').click();
	await expect(played).toContainText('Played as often as allowed.');
	await home.start();
	await expect.poll(() => home.read((db) => db('sitting_play').pluck('times'))).toEqual([2]);
	await page.reload();
	await expect(played).toContainText('Played as often as allowed.');
	await expect(page.getByTestId('play')).toBeDisabled();
});

test('working on paper is handed over from the device and from a phone, and survives a line that is down', async ({
	browser
}) => {
	const page = await home.browser(browser);
	await sits('Watchkeeping, practical');
	const me = await begun(page, 2, { lockdown: { level: 'open' } });
	const upload = page.getByTestId('upload');
	const form = await formOf(me.id);
	await goTo(
		page,
		form.findIndex(({ kind }) => kind === 'upload')
	);
	await expect(upload).toBeVisible();
	await home.kill();
	await upload
		.locator('input[type=file]')
		.setInputFiles({ name: 'plot 1.jpg', mimeType: 'image/jpeg', buffer: await photo('#ddd') });
	await expect(upload).toContainText('plot 1.jpg is on its way.');
	await home.start();
	await expect(upload.getByRole('listitem')).toContainText('plot 1.jpg, ');

	await page.getByTestId('by-phone').click();
	const address = await page.getByTestId('hand-code').locator('p.font-mono').textContent();
	expect(await serious(page), 'a code for a phone').toEqual([]);
	const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
	await phone.goto(address!.trim());
	await phone
		.locator('input[type=file]')
		.setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: await photo('#bbb') });
	await expect(phone.getByTestId('handed')).toContainText('One file has arrived.');
	expect(await serious(phone), 'the phone').toEqual([]);
	await expect(upload.getByRole('listitem')).toHaveCount(2);
	await expect(upload).toContainText('2 files are as many as this question takes.');
	await page.reload();
	await expect(upload.getByRole('listitem')).toHaveCount(2);
	await expect(upload.getByRole('listitem').first().getByRole('img')).toHaveCount(0);
	await upload.getByRole('button', { name: 'Remove Photo' }).click();
	await expect(upload).toContainText('is not in your answer');
	await phone.goto(`${home.url}/sit/hand/forged.code`);
	await expect(phone.getByTestId('hand-code-over')).toBeVisible();
	await expect
		.poll(() =>
			home.read(async (db) => {
				const rows: string[] = await db('answer_standing').where({ sitting_id: me.id }).pluck('value');
				return rows.map((row) => JSON.parse(row).value).filter(Array.isArray);
			})
		)
		.toEqual([[expect.stringMatching(/^[\w-]{21}$/)]]);
	await phone.context().close();
});
