import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { seedWithAutumn } from '../src/lib/server/demo';
import { workbook } from '../src/lib/server/testing/workbook';
import { slipsFor } from '../src/lib/server/session';
import { ownNote } from '../src/lib/server/identity';
import { serious } from './axe';
import { arrive, choose, go, house } from './house';
import { sitsIn } from './sits';

const home = house({ furnish: seedWithAutumn, at: '10:22' });
const { begun } = sitsIn(home);
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

test('a session over three days is read back before it is planned; rules are folded, and say what differs', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/new');
	await choose(page, 'paperId', 'Coastal Navigation I');
	await page.getByRole('group', { name: 'Groups' }).getByText('Watch B').click();
	await choose(page, 'roomId', 'Signal Loft');
	await page.locator('#date').fill(inDays(3));
	await page.locator('#date').blur();
	await page.locator('#time').fill('09:00');
	await page.locator('#until').fill('17:00');
	await page.locator('#until').blur();
	await page.getByRole('button', { name: 'on another day' }).click();
	await page.locator('#until-date').fill(inDays(5));
	await page.locator('#until-date').blur();
	const sentence = page.getByTestId('sentence');
	await expect(sentence).toContainText('at any time from');
	await expect(sentence).toContainText('Each day has a door code of its own.');
	const findings = page.getByTestId('findings');
	await expect(findings.locator('[data-code=days_admission]')).toContainText('Open at night.');
	await findings.locator('[data-code=days_admission]').getByRole('button').click();
	await findings.locator('[data-code=days_entry]').getByRole('button').click();
	await expect(page.getByTestId('length')).toContainText(/About \d+ min are usual for its \d+ questions/);
	await expect(page.getByTestId('length')).toContainText('60 + 1 = 61 min');

	const time = page.getByTestId('fold-Time');
	await expect(time.locator('summary').first()).toContainText('safe defaults');
	await time.locator('summary').first().click();
	await expect(time.getByTestId('fold-told')).toContainText('Own time: any start in the window');
	await time.locator('#rule-timing-graceMinutes').fill('2');
	await expect(time.getByTestId('changed')).toContainText('1 changed: grace 2 min');
	await page.getByTestId('told').locator('summary').click();
	await expect(page.getByTestId('told')).toContainText('60 + 2 = 62 min in all');
	await expect(page.getByTestId('told')).toContainText(/It is open until .*, 17:00 GMT\./);
	await expect(page.getByText('Before it can be planned')).toHaveCount(0);
	await page.getByTestId('plan').click();
	await page.waitForURL('**/prepare?planned=1');
	const row = await home.read((db) => db('session').orderBy('rowid', 'desc').first('opens', 'closes'));
	expect(row.closes - row.opens).toBe(56 * 3_600_000);
});

test('a class period gives the start, and groups start one after the other in one room with a seat each', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/new');
	await choose(page, 'paperId', 'Tides and Currents');
	await page.getByRole('group', { name: 'Groups' }).getByText('Second Years').click();
	await choose(page, 'roomId', 'Chart Room');
	await page.locator('#date').fill(inDays(6));
	await page.locator('#date').blur();
	// What the paper takes is told above, and moves what is below it.
	await page.getByTestId('length').waitFor();
	await page.getByText('It begins with a class').click();
	await page.locator('#class-start').fill('13:00');
	await page.locator('#class-start').blur();
	await page.locator('#settle').fill('10');
	await page.getByTestId('take-settled').click();
	await expect(page.getByTestId('sentence')).toContainText('at 13:10');
	await page.getByText('Start in groups').click();
	await page.locator('#stagger-people').fill('4');
	await page.locator('#stagger-every').fill('20');
	await page.getByTestId('stagger').click();
	await expect(page.getByTestId('sentence')).toHaveCount(3);
	await expect(page.getByTestId('sentence').nth(1)).toContainText('13:30');
	await page.getByTestId('plan').click();
	await page.waitForURL('**/prepare?planned=3');
	const seats: string[] = await home.read((db) =>
		db('roster')
			.join('session', 'session.id', 'roster.session_id')
			.where('session.opens', '>', Date.parse(inDays(6)))
			.pluck('seat')
	);
	expect(new Set(seats).size).toBe(seats.length);
	expect(seats).toHaveLength(12);
});

test('the start page tells what binds; coming back after a reload waits for the proctor’s release', async ({
	browser
}) => {
	const page = await home.browser(browser);
	await expect.poll(async () => (await home.session('Lights and Shapes · Watch B')).code).not.toBe('');
	const me = await begun(page, 3, { pauses: { most: 1, minutes: 5, stopsClock: false } }, async () => {
		await home.read(async (db) => {
			const { id } = await db('session').where('name', 'like', 'Lights and Shapes · Watch B%').first('id');
			const { rules } = await db('session').where({ id }).first('rules');
			await db('session')
				.where({ id })
				.update({ rules: JSON.stringify({ ...JSON.parse(rules), comingBack: 'released' }) });
		});
	});
	await page.reload();
	await expect(page.getByRole('heading', { name: 'A pause' })).toBeVisible();
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${me.sessionId}`);
	await expect(proctor.getByTestId('needs')).toContainText(me.family);
	await proctor
		.getByTestId('seats')
		.getByRole('button', { name: `${me.given} ${me.family}` })
		.click();
	await proctor.keyboard.press('r');
	await expect(page.locator('[data-question]').first()).toBeVisible();
});

test('before they begin candidates read every rule that binds them, and staff read the same', async ({ browser }) => {
	const page = await home.browser(browser);
	const { id, code } = await home.session('Lights and Shapes · Watch B');
	const person = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id, state: 'expected' })
			.orderBy('number', 'desc')
			.first('number', 'family')
	);
	await arrive(page, code, person.number, person.family);
	const list = page.getByTestId('told-list');
	await expect(list).toContainText('Your time');
	await expect(list).toContainText('The paper fills the screen.');
	await expect(list).toContainText('If you close or reload the paper, your proctor has to let you go on.');
	await expect(list).toContainText('You may take one pause of 5 minutes; the clock runs on while you pause.');
	expect(await serious(page)).toEqual([]);
	const staff = await home.staff(browser);
	await go(staff, `/prepare/${id}/seen`);
	await expect(staff.getByTestId('told-list')).toContainText('You may take one pause of 5 minutes');
	await staff.getByTestId('begin').click();
	await expect(staff.locator('[data-question]')).toBeVisible();
	await expect(staff.getByTestId('seen')).toContainText('nothing is kept');
	expect(await home.read((db) => db('candidate').where({ number: 'TRIAL' }))).toEqual([]);
	// As one of them will have it.
	const [, somebody] = await staff.getByTestId('seen-as').locator('option').allTextContents();
	await staff.getByTestId('seen-as').selectOption({ label: somebody });
	await expect(staff.getByTestId('told-list')).toBeVisible();
	await expect(staff.locator('body')).toContainText(somebody);
	expect(await serious(staff), 'as one candidate sees it').toEqual([]);
});

test('the proctor ends a paper by hand; whoever has more goes on', async ({ browser }) => {
	const { id, code } = await home.session('Lights and Shapes · Watch B');
	await home.read(async (db) => {
		const { rules: text } = await db('session').where({ id }).first('rules');
		const rules = JSON.parse(text);
		const timing = { ...rules.timing, clockStarts: 'room', endedBy: 'proctor', graceMinutes: 1 };
		await db('session')
			.where({ id })
			.update({
				rules: JSON.stringify({ ...rules, timing, comingBack: 'free', startWord: null, admission: 'automatic' })
			});
	});
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${id}`);
	await proctor.getByTestId('start').click();
	await proctor.getByTestId('confirm').click();
	await expect(proctor.getByTestId('call-time')).toBeVisible();
	const person = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id, state: 'expected' })
			.orderBy('number')
			.first('number', 'family')
	);
	const page = await home.browser(browser);
	await arrive(page, code, person.number, person.family);
	await expect(page.getByText('Your proctor ends the paper.').first()).toBeVisible();
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]').first()).toBeVisible();
	await proctor.getByTestId('call-time').click();
	await expect(proctor.getByRole('dialog')).toContainText('with 1 minute to hand in');
	await expect(proctor.getByTestId('call-list')).toContainText(person.family);
	await proctor.getByTestId('confirm').dblclick();
	await expect(proctor.getByTestId('call-time')).toHaveCount(0);
	await expect(page.getByText('Time is up. Finish your last answer and hand in')).toBeVisible();
	expect(await home.read((db) => db('logbook').where({ session_id: id, kind: 'time_called' }))).toHaveLength(1);
});

test('somebody is added by hand to a group that is made for them; a workbook of whole names is split and imported', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/people');
	await page.getByTestId('add').click();
	await page.locator('#site').selectOption({ label: 'Quayside' });
	await page.locator('#group-name').fill('Late Joiners');
	await page.getByTestId('make-group').click();
	await expect(page.getByLabel('Late Joiners')).toBeChecked();
	await page.getByLabel('Given name').fill('Hale');
	await page.getByLabel('Family name').fill('Ito');
	await page.getByLabel('Candidate number').fill('DO-7001');
	await page.locator('#birth').fill('31/05/2108');
	await page.locator('#birth').blur();
	await page.getByTestId('add-person').click();
	await expect(page.getByRole('alert')).toContainText('still to come');
	await page.locator('#birth').fill('31/05/2008');
	await page.locator('#birth').blur();
	await page.getByLabel('Grade or year').fill('Second Year');
	await page.getByTestId('add-person').click();
	await expect(page.getByTestId('added')).toContainText('Hale Ito');
	await expect(page.getByLabel('Family name')).toHaveValue('');
	expect(await serious(page)).toEqual([]);

	await go(page, '/prepare/people/import');
	await page.locator('#site').selectOption({ label: 'Quayside' });
	const buffer = Buffer.from(
		workbook([
			['ID', 'Name', 'Class'],
			['DO-7002', 'van der Berg, Jan', 'Late Joiners'],
			['DO-7003', 'Obi, Ada', 'Late Joiners']
		])
	);
	await page.locator('#file').setInputFiles({ name: 'list.xlsx', mimeType: 'application/octet-stream', buffer });
	await expect(page.getByTestId('split')).toContainText('Jan van der Berg');
	await expect(page.getByTestId('counts')).toContainText('2 added');
	await page.getByTestId('apply').click();
	await expect(page.getByTestId('done')).toContainText('2 added');
});

test('contacts stand in the room, and before a candidate who is refused', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/contacts');
	await page.getByTestId('add-contact').click();
	const last = page.getByTestId('contact').last();
	await last.getByPlaceholder('Problem').fill('Lost property');
	await last.getByPlaceholder('Name').fill('Harbour office');
	await last.getByPlaceholder('Telephone').fill('none');
	await page.getByTestId('save-contacts').click();
	await expect(page.getByRole('alert')).toContainText('telephone number');
	await last.getByPlaceholder('Telephone').fill('+44 1632 960 199');
	await page.getByTestId('save-contacts').click();
	await expect(page.getByRole('status')).toContainText('Saved.');
	const { id } = await home.session('Lights and Shapes · Watch B');
	await go(page, `/live/${id}`);
	await expect(page.getByTestId('help')).toContainText('Lost property');
	const candidate = await home.browser(browser);
	await candidate.goto('/sit');
	await candidate.getByLabel('Code').fill('AAAAAAA');
	await candidate.getByLabel('Candidate number').fill('DO-1');
	await candidate.getByLabel('Family name').fill('Nobody');
	await candidate.getByTestId('knock').click();
	await expect(candidate.getByTestId('help')).toContainText('Exams desk, Quayside');
	await expect(candidate.getByTestId('help')).not.toContainText('Lost property');
});

test('parts in order close a paper until the one before is ticked, on their own page and at the door', async ({
	browser
}) => {
	const staff = await home.staff(browser);
	await go(staff, '/prepare/parts');
	const one = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.join('paper', 'paper.id', 'sitting.paper_id')
			.leftJoin('step_done', 'step_done.candidate_id', 'candidate.id')
			.where({ title: 'Ship Stability', 'sitting.state': 'expected' })
			.whereNull('step_done.step_id')
			.first('candidate.id', 'given', 'family', 'number', 'candidate.group_id')
	);
	const note = await home.read((db) => ownNote(db, one.id, Date.now() + 9 * 86_400_000));
	const own = await home.browser(browser);
	await go(own, `/mine/${note}`);
	await expect(own.getByTestId('closed')).toContainText('First comes Boat handling, afloat.');
	await expect(own.getByRole('link', { name: 'practice papers' })).toBeVisible();

	const { administration_id: administration } = await home.read((db) => db('step').first('administration_id'));
	await go(staff, `/prepare/parts?id=${administration}&group=${one.group_id}`);
	const row = staff.getByTestId('who').getByRole('row', { name: `${one.given} ${one.family}` });
	await expect(row).toContainText('First comes Boat handling, afloat.');
	await row.getByRole('checkbox').check();
	// "open it" stands there before it is saved.
	await expect(row).not.toContainText('First comes');
	await expect(row).toContainText('open');
	expect(await serious(staff)).toEqual([]);
	await go(own, `/mine/${note}`);
	await expect(own.getByTestId('closed')).toHaveCount(0);
	await own.getByText('Everything that applies').first().click();
	await expect(own.getByTestId('told-list').first()).toContainText('Your time');
});

test('technical staff have a list of their own, and nothing else', async ({ browser }) => {
	const page = await home.staff(browser, 'quill');
	await page.goto('/');
	await page.waitForURL('**/technical');
	const session = page.getByTestId('technical').filter({ hasText: 'Lights and Shapes · Watch B' });
	await session.getByLabel(/This server can be reached/).check();
	await expect(session).toContainText('Imre Quill');
	expect(await serious(page)).toEqual([]);
	expect((await page.request.get('/prepare')).status()).toBe(403);
	expect((await page.request.get('/live')).status()).toBe(403);
});

test('a guest practises at any time: a wrong answer can be tried again at its cost, and nothing is kept', async ({
	browser
}) => {
	const before = await home.read((db) => db('answer').count('* as n').first());
	const page = await home.browser(browser);
	await page.goto('/sit');
	await page.getByRole('link', { name: 'Practise' }).click();
	await page.getByRole('link', { name: 'First Steps' }).click();
	await page.waitForURL('**/sit/practice/*');
	for (let i = 0; i < 4; i++) {
		if (await page.getByText('Which side of a vessel is port').isVisible()) break;
		await page.getByTestId('next').click();
	}
	await page.getByText('right', { exact: true }).click();
	await page.getByTestId('check').click();
	await expect(page.getByTestId('tried')).toContainText('Not right.');
	await expect(page.getByTestId('tried')).toContainText('1 try left');
	await page.getByText('left', { exact: true }).click();
	await page.getByTestId('check').click();
	await expect(page.getByTestId('tried')).toContainText('Right. 0.5 of 1 points.');
	await expect(page.getByTestId('check')).toBeDisabled();
	expect(await serious(page)).toEqual([]);
	expect(await home.read((db) => db('answer').count('* as n').first())).toEqual(before);
});

test('staff sit a rehearsal themselves as a made-up person, whom no session that counts takes', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/new');
	await choose(page, 'paperId', 'Coastal Navigation I');
	await page.getByRole('group', { name: 'Groups' }).getByText('Watch B').click();
	await choose(page, 'roomId', 'Signal Loft');
	await page.getByRole('radiogroup', { name: 'What the session is for' }).getByText('Rehearsal').click();
	await page.getByTestId('add-trial').click();
	await expect(page.getByRole('button', { name: /Trial Person TRIAL-1/ })).toBeVisible();
	await page.getByRole('radiogroup', { name: 'What the session is for' }).getByText('Live').click();
	await expect(page.getByTestId('findings').locator('[data-code=trial]')).toContainText('A made-up person.');
	await expect(page.getByTestId('plan')).toBeDisabled();
	expect(await home.read((db) => slipsFor(db, []))).toEqual(new Map());
});

test('a photo stays on the paper where the rules say so, and is sent to nobody else', async ({ browser }) => {
	const page = await home.browser(browser);
	const { id } = await home.session('Lights and Shapes · Watch B');
	const sixth = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id })
			.orderBy('number')
			.offset(6)
			.first('candidate.id')
	);
	const staff = await home.staff(browser);
	await go(staff, `/prepare/people/${sixth.id}`);
	const buffer = await sharp({ create: { width: 60, height: 80, channels: 3, background: '#206050' } })
		.png()
		.toBuffer();
	await staff.locator('#photo').setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer });
	await expect(staff.getByText('The photo is kept.')).toBeVisible();
	const calm = { timing: { endedBy: 'clock', limitMinutes: 60 }, pauses: { most: 0 } };
	await begun(page, 6, { ...calm, door: { photoOnPaper: true }, tools: { striking: false, readAloud: false } });
	const photo = page.getByRole('img', { name: /^The photo of/ });
	await expect(photo).toBeVisible();
	await expect.poll(() => photo.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(60);
	await expect(page.getByRole('button', { name: /^Strike out/ })).toHaveCount(0);
	await expect(page.getByRole('button', { name: 'Read aloud' })).toHaveCount(0);
	const stranger = await home.browser(browser);
	expect((await stranger.request.get('/sit/api/own-photo')).ok()).toBe(false);
});

test('a copied session tells what came along, a group gets another name, the board has whom to turn to', async ({
	browser
}) => {
	const page = await home.staff(browser);
	const { id } = await home.session('Lights and Shapes · Watch B');
	await go(page, `/prepare/new?from=${id}`);
	const copied = page.getByTestId('copied');
	await expect(copied).toContainText('Lights and Shapes (version');
	await expect(copied).toContainText('Watch B');
	await expect(copied).toContainText('Not taken: its day and its name; its door code and slips');
	await expect(page.getByTestId('rules-in-short')).toContainText('When time is up');
	expect(await serious(page)).toEqual([]);

	await go(page, '/prepare/people');
	await page.getByLabel('Group', { exact: true }).selectOption({ label: 'Second Years, 12 · Quayside' });
	await page.getByTestId('rename-group').click();
	await page.getByLabel('The group’s new name').fill('Watch B');
	await page.getByTestId('rename').click();
	await expect(page.getByRole('alert')).toContainText('There is a group “Watch B” at this site already.');
	await page.getByLabel('The group’s new name').fill('Second Year');
	await page.getByTestId('rename').click();
	await expect(page.getByTestId('rename-group')).toHaveText('Rename Second Year');

	await go(page, `/live/${id}/board`);
	await page.keyboard.press('h');
	await expect(page.getByTestId('board-help')).toContainText('+44');
	await page.keyboard.press('h');
	await expect(page.getByTestId('board-help')).toHaveCount(0);
});

test('the room shows who sits elsewhere beside its plan', async ({ browser }) => {
	const { id } = await home.session('Tides and Currents · Watch A');
	const one = await home.read((db) => db('sitting').where({ session_id: id }).first('candidate_id', 'id'));
	await home.read(async (db) => {
		await db('candidate').where({ id: one.candidate_id }).update({ elsewhere: true });
		await db('roster').where({ session_id: id, sitting_id: one.id }).update({ seat: null });
	});
	await home.moveTo('10:23');
	const page = await home.staff(browser, 'dunmore');
	await go(page, `/live/${id}`);
	await expect(page.getByRole('heading', { name: 'Elsewhere · 1' })).toBeVisible();
	await expect(page.getByRole('group', { name: 'Seat A2' })).toBeVisible();
	await expect(page.getByText(/\d+ \+ \d+ = \d+ min/)).toBeVisible();
});

test('who reads their page in another zone finds the time of their own clock beside it', async ({ browser }) => {
	const note = await home.read(async (db) => {
		const next = await db('sitting')
			.join('session', 'session.id', 'sitting.session_id')
			.where('session.opens', '>', await home.now())
			.where({ state: 'expected' })
			.first('candidate_id');
		return ownNote(db, next.candidate_id, Date.now() + 9 * 86_400_000);
	});
	const away = await home.browser(browser, { timezoneId: 'Asia/Tokyo' });
	await go(away, `/mine/${note}`);
	await expect(away.getByTestId('own-time').first()).toContainText('on your own clock');
	const here = await home.browser(browser, { timezoneId: 'Europe/London' });
	await go(here, `/mine/${note}`);
	await expect(here.getByTestId('own-sitting').first()).toContainText('GMT');
	await expect(here.getByTestId('own-time')).toHaveCount(0);
});
