import { createWriteStream, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { nanoid } from 'nanoid';
import { verifyArchive } from '../src/lib/server/archive';
import { seedWithAutumn } from '../src/lib/server/demo';
import { ownNote } from '../src/lib/server/identity';
import { serious } from './axe';
import { giveMark, workOfMarker } from '../src/lib/server/marking';
import { house } from './house';

/** Most is marked already, as by the evening of a long day. */
async function almostMarked(...asked: Parameters<typeof seedWithAutumn>) {
	await seedWithAutumn(...asked);
	const [otium] = asked;
	const { id: paperId } = await otium.db('paper').where({ title: 'Marks and Signals' }).first('id');
	const of = { administrationId: 'autumn', paperId, questionId: 'MS-15' };
	const criteria = { order: 2, why: 1, words: 1 };
	for (const sign_in of ['holt', 'brandreth', 'holt']) {
		const { id } = await otium.db('staff').where({ sign_in }).first('id');
		const { queue } = await workOfMarker(otium.db, id, of);
		for (const { key } of queue.slice(0, -4))
			await giveMark(otium, { role: 'marker', id }, of, {
				id: nanoid(),
				key,
				points: 4,
				criteria,
				comment: '',
				tookMs: 40_000
			});
	}
}
const home = house({ made: '16:20', furnish: almostMarked });
test.describe.configure({ mode: 'serial' });

async function open(page: Page, path: string) {
	await page.goto(path);
	await page.locator('[data-ready=true]').waitFor();
}
const gate = (page: Page, key: string, site = 0) => page.getByTestId(`gate-${key}`).nth(site);

test('two markers mark without names, by keys; a mark is taken back; what two mark is compared', async ({
	browser
}) => {
	const ode = await home.staff(browser);
	await open(ode, '/close-out/marking?of=autumn');
	await ode.getByTestId('hand-question').getByRole('link').click();
	await ode.getByTestId('plan').click();
	for (const left of [3, 2, 1]) {
		await expect(ode.getByLabel('Criterion')).toHaveCount(left);
		await ode.getByRole('region', { name: 'Who marks' }).getByRole('button', { name: 'Remove' }).last().click();
	}
	await ode.getByTestId('save-plan').click();
	await expect(ode.getByTestId('save-plan')).toHaveCount(0);

	// The first marker comes back for the answers of the other one that are marked twice.
	for (const [turn, name] of ['holt', 'brandreth', 'holt'].entries()) {
		const marker = await home.staff(browser, name);
		await open(marker, '/close-out');
		await expect(marker).toHaveURL(/\/close-out\/marking/);
		await marker.getByTestId('hand-question').getByRole('link').click();
		const answer = marker.getByTestId('answer');
		await expect(answer.or(marker.getByTestId('all-marked'))).toBeVisible();
		// Which answers are marked twice is drawn by lot: of the last few it may be none.
		if (turn === 2 && !(await answer.isVisible())) continue;
		await expect(answer).not.toBeEmpty();
		await expect(marker.locator('main')).not.toContainText(/DO-1\d{3}/);
		expect(await serious(marker), 'marking').toEqual([]);
		if (turn === 0) {
			// Looked at and left for later, and back.
			const label = await marker.getByTestId('label').textContent();
			await marker.keyboard.press('j');
			await expect(marker.getByTestId('label')).not.toHaveText(label!);
			await marker.keyboard.press('k');
			await expect(marker.getByTestId('label')).toHaveText(label!);
			await marker.keyboard.press('5');
			await expect(marker.getByTestId('label')).not.toHaveText(label!);
			const done = marker.locator('details', { hasText: 'What you have marked' });
			await done.locator('summary').click();
			const before = await done.getByRole('listitem').count();
			await done.getByRole('button', { name: 'Take it back' }).first().click();
			await expect(done.getByRole('listitem')).toHaveCount(before - 1);
		}
		// More points than the question is worth are no key.
		await marker.keyboard.press('9');
		while (!(await marker.getByTestId('all-marked').isVisible())) {
			const label = await marker.getByTestId('label').textContent();
			await marker.keyboard.press('4');
			await expect(marker.getByTestId('label').and(marker.getByText(label!, { exact: true }))).toHaveCount(0);
		}
	}
	await ode.reload();
	await expect(ode.getByTestId('agreement')).toContainText('100 % equal');
	await open(ode, '/close-out?of=autumn');
	await expect(gate(ode, 'by_hand')).toContainText('✓ 28 of 28');
	await expect(gate(ode, 'by_hand', 1)).toContainText('✓ 22 of 22');
});

test('a wrong key shows in the figures, is corrected by one and confirmed by another who reads who gains', async ({
	browser
}) => {
	const ode = await home.staff(browser);
	await open(ode, '/close-out/questions?of=autumn');
	const question = ode.getByTestId('question');
	await expect(question).toContainText('best chose “not under command”');
	expect(await serious(ode), 'how questions did').toEqual([]);
	await question.getByRole('link', { name: 'Where it stood' }).click();
	await question
		.getByRole('link', { name: /^question \d+ of .+ paper$/ })
		.first()
		.click();
	await expect(ode.getByRole('heading', { level: 1 })).toContainText('DO-1');
	await ode
		.locator('li', { hasText: 'Two balls in a vertical line' })
		.getByRole('link', { name: 'How it did' })
		.click();
	await question.getByTestId('correct-key').click();
	await question.getByLabel('The right answer').selectOption({ label: 'not under command' });
	const foreseen = question.getByTestId('foreseen');
	await expect(foreseen).toContainText(/\d+ of 50 gain, \d+ lose/);
	await question.getByTestId('see-all').click();
	await expect(question.getByTestId('changes').getByRole('listitem').first()).toContainText('→');
	await question.getByLabel('Why').fill('The key was set to the wrong choice.');
	await question.getByTestId('propose').click();
	await expect(ode.getByTestId('told')).toContainText('counts once');
	await expect(question.getByTestId('waiting')).toContainText('Maren Ode asks for it');
	await expect(question.getByTestId('confirm-correction')).toHaveCount(0);

	const lorne = await home.staff(browser, 'lorne');
	await open(lorne, '/close-out/questions?of=autumn');
	const waiting = lorne.getByTestId('question');
	await waiting.getByTestId('read-correction').click();
	await expect(waiting.getByTestId('foreseen')).toContainText('gain');
	await waiting.getByTestId('confirm-correction').click();
	await expect(lorne.getByTestId('told')).toContainText('Confirmed');
	await expect(lorne.getByTestId('earlier')).toContainText('confirmed by Petra Lorne');
	await open(ode, '/close-out?of=autumn');
	await expect(gate(ode, 'questions')).toContainText('✓ none');
});

test('incidents, similar answers and who is owed are decided; each site is signed; a later change makes the signature fall', async ({
	browser
}) => {
	const ode = await home.staff(browser);
	await open(ode, '/close-out?of=autumn');
	expect(await serious(ode), 'closing').toEqual([]);
	await expect(gate(ode, 'turn')).toContainText('1 is owed a sitting');
	await open(ode, '/close-out/decide?of=autumn');
	expect(await serious(ode), 'decisions').toEqual([]);
	await ode.getByTestId('decide').click();
	await expect(ode.getByTestId('consequence')).toContainText('time that was given');
	await ode.getByTestId('confirm').click();
	await expect(ode.getByTestId('incident')).toContainText('✓ decided');

	await ode
		.getByRole('region', { name: 'Similar answers' })
		.getByRole('link', { name: /Watch A/ })
		.click();
	await expect(ode.getByTestId('pair')).toHaveCount(1);
	await expect(ode.getByTestId('pair')).toContainText('same wrong answer');
	await expect(ode.locator('main')).toContainText('a hint to look closer and nothing more');
	expect(await serious(ode), 'similar answers').toEqual([]);
	await ode
		.getByLabel('What you found, for all pairs of this session')
		.fill('Sat apart that day; both have the same notes.');
	await ode.getByTestId('decide-alike').click();
	await expect(ode.getByTestId('decided')).toContainText('Maren Ode');

	await open(ode, '/grants/owed');
	await ode.getByRole('checkbox', { name: 'Sanna Weir', exact: true }).first().check();
	await ode.getByRole('button', { name: /^Need not sit/ }).click();
	await ode.getByRole('dialog').getByLabel('Why').fill('Left the college');
	await ode.getByTestId('confirm').click();
	await expect(ode.getByTestId('settled')).toBeVisible();

	const sign = async (page: Page, site: string) => {
		await open(page, '/close-out?of=autumn');
		await page.getByRole('button', { name: `Sign for ${site}` }).click();
		await expect(page.getByRole('dialog')).toContainText('Everyone who was expected is accounted for');
		await page.getByTestId('confirm').click();
		await expect(page.getByTestId('told')).toHaveText('Signed.');
	};
	await sign(ode, 'Quayside');
	await expect(gate(ode, 'signed')).toContainText('✓ Maren Ode');
	const furtado = await home.staff(browser, 'furtado');
	await sign(furtado, 'Lighthouse Point');
	await expect(furtado.getByTestId('gates')).not.toContainText('Quayside');

	// A result is judged after the signature: it no longer holds, and says why.
	const sitting = await home.read((db) =>
		db('sitting')
			.where({ administration_id: 'autumn', state: 'handed_in' })
			.whereIn('session_id', db('session').where({ room_id: 'chart' }).select('id'))
			.first('id')
	);
	const judged = await ode.request.post('/close-out/decide', {
		data: { act: 'validity', sittingIds: [sitting.id], verdict: 'doubtful', note: 'Checked with the proctor' },
		headers: { origin: home.url }
	});
	expect(judged.status()).toBe(200);
	await ode.reload();
	await expect(gate(ode, 'signed')).toContainText('no longer holds');
	await expect(gate(ode, 'signed')).toContainText('decisions about results');
	await sign(ode, 'Quayside');
});

test('a closing officer rehearses and closes; results go out and are read; the archive proves itself', async ({
	browser
}) => {
	const lorne = await home.staff(browser, 'lorne');
	await open(lorne, '/close-out?of=autumn');
	await lorne.getByTestId('rehearse').click();
	await expect(lorne.getByTestId('rehearsal')).toHaveText('It could be closed now.');
	await lorne.getByTestId('confirm').click();
	await expect(lorne.getByRole('dialog')).toHaveCount(0);
	await lorne.getByTestId('close').click();
	await expect(lorne.getByTestId('becomes-final')).toContainText('50 results');
	await expect(lorne.getByTestId('confirm')).toBeDisabled();
	await lorne.getByRole('checkbox').check();
	await lorne.getByLabel(/^Type its name/).fill('Autumn Deck Officer Examinations');
	await lorne.getByTestId('confirm').click();
	await expect(lorne.getByTestId('told')).toContainText('Closed.');
	await expect(lorne.getByTestId('closing-sentence')).toContainText('Petra Lorne closed it');

	await open(lorne, '/close-out/archive');
	expect(await serious(lorne), 'archive').toEqual([]);
	const [download] = await Promise.all([lorne.waitForEvent('download'), lorne.getByTestId('download').click()]);
	const file = join(mkdtempSync(join(tmpdir(), 'otium-archive-')), 'autumn.zip');
	await download.saveAs(file);
	expect(await verifyArchive(file)).toMatchObject({ faults: [], remarked: 50, isWithoutNames: false });
	createWriteStream(file, { flags: 'r+', start: 5_000 }).end('x');
	await expect.poll(async () => (await verifyArchive(file)).faults.length).toBeGreaterThan(0);

	const ode = await home.staff(browser);
	await open(ode, '/close-out/results?of=autumn');
	expect(await serious(ode), 'results').toEqual([]);
	await ode.getByTestId('release').click();
	await ode.getByLabel('What candidates read').selectOption('topics');
	await ode.getByRole('checkbox', { name: 'Proctor', exact: true }).check();
	await ode.getByTestId('confirm').click();
	await expect(ode.getByTestId('told')).toContainText('Released.');
	await expect(ode.getByTestId('released')).toContainText('to proctor too');
	for (const as of ['csv', 'oneroster', 'qti', 'jsonl', 'slips']) {
		const sent = await ode.request.get(`/close-out/results/autumn?as=${as}`);
		expect([sent.status(), (await sent.body()).length > 200], as).toEqual([200, true]);
	}
	const candidate = await home.read(async (db) => {
		const { id } = await db('candidate').where({ number: 'DO-1001' }).first('id');
		return ownNote(db, id, await home.now());
	});
	const page = await home.browser(browser, { viewport: { width: 390, height: 844 } });
	await page.goto(`/mine/${candidate}`);
	const result = page.getByTestId('own-result');
	await expect(result).toContainText('Marks and Signals');
	await expect(result).toContainText('final');
	await expect(result).toContainText(/\d+ of 20 points/);
	await expect(result).toContainText(/Signals\s*\d/);
	await expect(result).not.toContainText('not under command');
	expect(await serious(page), 'my results').toEqual([]);

	// A proctor reads those of their own session, and nobody else's.
	const dunmore = await home.staff(browser, 'dunmore');
	await dunmore.goto('/');
	await dunmore.getByRole('link', { name: 'Results' }).click();
	await expect(dunmore.getByTestId('released-to-me')).toContainText('Marks and Signals, Autumn Deck Officer');
	await expect(dunmore.getByRole('row', { name: /Adaeze Obi DO-1001/ })).toBeVisible();
	const ofHis = await home.read((db) =>
		db('sitting')
			.join('session_proctor', 'session_proctor.session_id', 'sitting.session_id')
			.join('staff', 'staff.id', 'session_proctor.staff_id')
			.where({ sign_in: 'dunmore', administration_id: 'autumn' })
			.whereIn('state', ['handed_in', 'time_up'])
			.count({ n: '*' })
			.first()
	);
	await expect(dunmore.getByRole('row')).toHaveCount(Number(ofHis!.n) + 1);
	expect(await serious(dunmore), 'released').toEqual([]);
	await ode.reload();
	await ode.getByTestId('call-back').click();
	await expect(ode.getByRole('alert')).toContainText('Adaeze Obi and Rhys Dunmore have read results');

	// Nothing of it is changed any more.
	const late = await ode.request.post('/close-out/decide', {
		data: { act: 'alike', sessionId: (await home.session('Marks and Signals · Watch A')).id, note: 'x' },
		headers: { origin: home.url }
	});
	expect([late.status(), (await late.json()).code]).toEqual([409, 'administration_closed']);
	await open(ode, '/close-out/archive?of=autumn');
	await ode.getByLabel('What was found').fill('The paper copy of DO-1003 had one answer more.');
	await ode.getByTestId('propose-addendum').click();
	await expect(ode.getByTestId('addendum')).toContainText('waits for a second person');
	// How long things are kept is chosen for all; the log explains the answers.
	await ode.getByLabel('What the log says').selectOption('5 years after the closing');
	await expect(ode.getByTestId('save-kept')).toBeDisabled();
	await ode.getByLabel('Answers, marks and results').selectOption('2 years after the closing');
	await ode.getByTestId('save-kept').click();
	await expect(ode.getByText('Saved.', { exact: true })).toBeVisible();
	await expect(ode.getByTestId('retention')).toContainText('2 years after the closing, with what was handed in');
	await lorne.reload();
	await lorne.getByTestId('confirm-addendum').click();
	await expect(lorne.getByTestId('addendum')).toContainText('stands, Petra Lorne');
});
