import { strToU8, zipSync } from 'fflate';
import { expect, test, type Page } from '@playwright/test';
import { openSecret } from '../src/lib/server/db';
import { slipsFor } from '../src/lib/server/session';
import { writeOneRoster, type KnownPerson } from '../src/core/people';
import { CLIENT_VERSION, ClientDevice, cookieName } from '../stand-ins/sealed-client';
import { choose, go, house } from './house';

const home = house();
const TOMORROW = new Date(Date.now() + 24 * 3_600_000).toISOString().slice(0, 10);

const finding = (page: Page, code: string) => page.locator(`[data-testid=findings] [data-code="${code}"]`).first();
const file = (name: string, text: string | Uint8Array) => ({
	name,
	mimeType: 'application/octet-stream',
	buffer: Buffer.from(text as string)
});

test('files make people at two sites, and people make sessions that are ready', async ({ browser }) => {
	const page = await home.staff(browser);

	await test.step('a table with a wrong row is refused whole, with the row; corrected, it is imported', async () => {
		await go(page, '/prepare/people/import');
		await page.locator('#site').selectOption({ label: 'Quayside' });
		const rows = Array.from(
			{ length: 14 },
			(_, i) => `TY-${100 + i};Ada${i};Tern${i};Third Years;ty${i}@saltmarsh.example;;`
		);
		const head = 'Student number;First name;Surname;Class;E-mail;Factor;Language';
		rows[3] = 'TY-103;Ada3;Tern3;Third Years;ty3@saltmarsh.example;1,5;pt';
		await page.locator('#file').setInputFiles(file('third.csv', [head, ...rows, '=1+1;X;Y;Third Years;;;'].join('\n')));
		await expect(page.getByTestId('problems')).toContainText('line 2');
		await page.getByLabel('make new groups').check();
		await expect(page.getByTestId('problems')).toContainText('is a formula');
		await expect(page.getByTestId('apply')).toBeDisabled();
		await page.locator('#file').setInputFiles(file('third.csv', [head, ...rows].join('\n')));
		await expect(page.getByTestId('counts')).toContainText('14 added');
		await page.getByTestId('apply').dblclick();
		await expect(page.getByTestId('done')).toContainText('14 added, 0 changed');
		expect(await home.read((db) => db('candidate').where('number', 'like', 'TY-%').count('* as n').first())).toEqual({
			n: 14
		});
	});

	await test.step('a OneRoster folder brings another site’s', async () => {
		const people = Array.from({ length: 6 }, (_, i): KnownPerson => ({
			id: `lp${i}`,
			number: `LP-${i + 1}`,
			given: `Inês${i}`,
			family: `Gull${i}`,
			groups: ['Harbour'],
			email: null,
			birth: null,
			language: null,
			grade: null,
			userName: null,
			elsewhere: false,
			sourceId: null,
			extraTime: { factor: 1, minutes: 0 },
			separateRoom: false,
			unlimited: false,
			display: null,
			left: false
		}));
		const folder = writeOneRoster({ id: 'lp', name: 'Lighthouse Point' }, [{ id: 'harbour', name: 'Harbour' }], people);
		const zip = zipSync(Object.fromEntries([...folder].map(([name, text]) => [`roster/${name}`, strToU8(text)])));
		await go(page, '/prepare/people/import');
		await page.locator('#site').selectOption({ label: 'Lighthouse Point' });
		await page.locator('#file').setInputFiles(file('roster.zip', zip));
		await page.getByLabel('make new groups').check();
		await expect(page.getByTestId('plan')).toContainText('A OneRoster folder');
		await page.getByTestId('apply').click();
		await expect(page.getByTestId('done')).toContainText('6 added');
		await go(page, '/prepare/people');
		await page.getByLabel('Find people').fill('inês gull4');
		await expect(page.getByTestId('count')).toHaveText('1 to 1 of 1');
	});

	await test.step('a session at each, kept as it is entered, findings mended by their buttons', async () => {
		await go(page, '/prepare/new');
		await choose(page, 'paperId', 'Radio Procedure');
		await page.locator('label', { hasText: 'Third Years' }).click();
		await choose(page, 'roomId', 'Quiet Room');
		await page.locator('#date').fill(TOMORROW);
		await page.locator('label', { hasText: 'Alba Finch' }).click();
		await expect(finding(page, 'seats')).toContainText('14 candidates, 6 seats');
		await expect(finding(page, 'K26')).toContainText('1 asks for Portuguese');
		await expect(page.getByTestId('kept')).toContainText('Saved ');
		// A closed tab: what was entered is there again.
		const draft = page.url();
		expect(draft).toContain('draft=');
		await go(page, draft);
		await expect(finding(page, 'seats')).toContainText('14 candidates');
		await finding(page, 'seats')
			.getByRole('button', { name: /^use the/ })
			.click();
		await expect(finding(page, 'seats')).toHaveCount(0);
		await page.getByTestId('plan').dblclick();
		await page.waitForURL('**/prepare?planned=1');
		await expect(page.getByTestId('drafts')).toHaveCount(0);

		await go(page, '/prepare/new');
		await choose(page, 'paperId', 'Radio Procedure');
		await page.locator('label', { hasText: 'Harbour' }).click();
		await choose(page, 'roomId', 'Lamp Room');
		await page.locator('#date').fill(TOMORROW);
		await page.locator('label', { hasText: 'João Sorrel' }).click();
		await expect(page.getByTestId('sentence')).toContainText('6 candidates of Harbour');
		await page.getByTestId('plan').click();
		await page.waitForURL('**/prepare?planned=1');
		await go(page, `/prepare/ready?day=${TOMORROW}`);
		// The third is the demo's own.
		await expect(page.locator('h2')).toHaveCount(3);
		await expect(page.getByRole('img', { name: 'in the way' })).toHaveCount(0);
	});
});

test('one setup becomes several sessions: for each group, and at several starts', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/new');
	await choose(page, 'paperId', 'Coastal Navigation');
	for (const group of ['Watch B', 'Second Years']) await page.locator('label', { hasText: group }).click();
	await choose(page, 'roomId', 'Signal Loft');
	await page.locator('#date').fill(TOMORROW);
	await expect(finding(page, 'seats')).toContainText('29 candidates, 18 seats');
	await finding(page, 'seats')
		.getByRole('button', { name: /^split at/ })
		.click();
	await expect(page.getByTestId('sentence')).toHaveCount(2);
	await page.getByRole('button', { name: 'One session after all' }).click();
	await page.getByTestId('for-each-group').click();
	await expect(page.getByTestId('findings')).toContainText('would be in the Signal Loft at once');
	await page.getByLabel('Room, Second Years').selectOption({ label: 'Chart Room, 30' });
	await expect(page.getByTestId('plan')).toHaveText('Plan all 2');
	await page.getByTestId('plan').click();
	await page.waitForURL('**/prepare?planned=2');
	const names = await home.read((db) =>
		db('session')
			.where('name', 'like', 'Coastal%')
			.whereNot('opens', '<', Date.parse(`${TOMORROW}T00:00`))
			.whereNot('name', 'like', '%Evening%')
			.pluck('name')
	);
	expect(names).toHaveLength(2);
});

test('a rule sheet is copied, changed, compared and applied; what is sealed is sealed', async ({ browser }) => {
	const page = await home.staff(browser);
	await test.step('the copy is saved as it is changed', async () => {
		await go(page, '/prepare/rules/certification');
		await page.getByRole('button', { name: 'Copy, and change the copy' }).click();
		await expect(page.getByRole('heading', { name: 'Certification, sealed, our own' })).toBeVisible();
		await page.locator('#rule-timing-limitMinutes').fill('x');
		await expect(page.locator('[data-rule="timing.limitMinutes"]')).toContainText('a whole number');
		await page.locator('#rule-timing-limitMinutes').fill('75');
		const bands = page.locator('[data-rule="result.bands"]');
		const lines = bands.getByRole('textbox');
		await lines.fill('eighty: Merit');
		await lines.blur();
		await expect(bands).toContainText('80 Merit');
		await expect(bands.getByRole('alert')).toBeVisible();
		// What was mistyped is still there to be mended.
		await expect(lines).toHaveValue('eighty: Merit');
		await lines.fill('50 Pass\n80 Merit: Well done.');
		await lines.blur();
		await expect(bands.getByRole('alert')).toHaveCount(0);
		await page.locator('[data-rule="door.code"]').locator('label', { hasText: 'same all day' }).click();
		await page.locator('[data-rule="door.slips"]').getByRole('checkbox').check();
		await expect(page.getByRole('status')).toContainText('saved ·');
		const kept = await home.read((db) => db('rule_sheet').orderBy('rowid', 'desc').first('rules'));
		expect(JSON.parse(kept.rules).result.bands).toEqual([
			{ fromPercent: 50, name: 'Pass', message: '' },
			{ fromPercent: 80, name: 'Merit', message: 'Well done.' }
		]);
		await go(page, '/prepare/rules/compare?sheet=certification&sheet=open-book');
		await expect(page.getByRole('row', { name: /Lockdown sealed open/ })).toBeVisible();
	});

	let device: ClientDevice;
	await test.step('without a key it can’t be planned; a key is shown once', async () => {
		const { id } = await home.session('Lights and Shapes · Watch B');
		await go(page, '/prepare/rules');
		await page
			.locator('li', { hasText: 'Certification, sealed, our own' })
			.getByRole('link', { name: 'Apply…' })
			.click();
		await page.waitForURL(/apply/);
		await page.getByRole('checkbox', { name: /^Lights and Shapes · Watch B/ }).check();
		await page.getByTestId('apply').click();
		await expect(page.getByTestId('applied')).toContainText('No device of the site has enrolled');
		await go(page, '/prepare/clients');
		await page.locator('section', { hasText: 'Quayside' }).getByTestId('enrol').click();
		const code = (await page.getByTestId('enrolment').innerText()).trim();
		device = await ClientDevice.enrol(home.url, code, 'Loft 12');
		await expect(page.getByText('1 has come in.')).toBeVisible();
		await page.reload();
		await expect(page.getByText(code)).toHaveCount(0);
		await expect(page.getByText('Loft 12')).toBeVisible();
		await go(page, '/prepare/rules/apply?sheet=' + (await home.read((db) => db('rule_sheet').first('id'))).id);
		await page.getByRole('checkbox', { name: /^Lights and Shapes · Watch B/ }).check();
		await page.getByTestId('apply').click();
		await expect(page.getByTestId('applied')).toContainText('Applied to 1 session.');
		await go(page, `/prepare/${id}/ready`);
		await expect(page.getByTestId('protection')).toContainText('sealed, client 1.0 or newer');
	});

	await test.step('a plain browser is told what is needed; the sealed client comes in, by slip, to the waiting page', async () => {
		const { id } = await home.session('Lights and Shapes · Watch B');
		expect((await page.request.get(`/prepare/${id}/print/slips`)).headers()['content-type']).toBe('application/pdf');
		const slip = await home.read(async (db) => {
			const { code, family } = await db('slip')
				.join('sitting', 'sitting.id', 'slip.sitting_id')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: id })
				.first('code', 'family');
			return { code: openSecret(db, code)!, family };
		});
		await go(page, `/prepare/${id}/ready`);
		await page.getByRole('button', { name: 'Release it now…' }).click();
		await page.getByTestId('confirm').click();
		await expect(page.getByText('Renew it…')).toBeVisible();

		const plain = await home.browser(browser);
		await plain.goto(`/sit?code=${slip.code}`);
		await plain.getByTestId('knock').click();
		await expect(plain.getByTestId('problem')).toContainText('only be sat in the sealed client');
		await plain.getByRole('link', { name: 'How to get the sealed client' }).click();
		await expect(plain.getByRole('heading', { name: 'The sealed client' })).toBeVisible();

		for (const [version, seen] of [
			['0.9', 'too old'],
			[CLIENT_VERSION, 'Is this you?']
		]) {
			const proof = await ClientDevice.of(home.url, device.kept, version).prove();
			if (!proof.ok) throw new Error(proof.message);
			const client = await home.browser(browser);
			await client.context().addCookies([{ name: cookieName(home.url), value: proof.cookie, url: home.url }]);
			await client.goto(`/sit?code=${slip.code}`);
			await client.getByTestId('knock').click();
			await expect(client.locator('main')).toContainText(seen);
			if (version === CLIENT_VERSION) await expect(client.getByTestId('name')).toContainText(slip.family);
		}
	});
});

test('a device is rehearsed, and the coordinator sees what it could do', async ({ browser }) => {
	const candidate = await home.browser(browser);
	await candidate.goto('/sit/rehearse');
	await expect(candidate.locator('[data-check=clock]')).toContainText('right');
	await candidate.getByTestId('tone').click();
	await candidate.getByTestId('heard').click();
	await candidate.getByTestId('camera').click();
	await expect(candidate.locator('[data-check=camera]')).toContainText('stand-in');
	await candidate.getByTestId('finish-rehearsal').click();
	await expect(candidate.getByTestId('outcome')).toContainText('has not been sent to anyone');
	await candidate.getByLabel('Code on your slip').fill('AAAA-AAA-AAA');
	await candidate.getByTestId('finish-rehearsal').click();
	await expect(candidate.getByRole('alert')).toContainText('on no slip');
	const slip = await home.read(async (db) => {
		const one = await db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ number: 'DO-1011' })
			.first('sitting.id');
		return (await slipsFor(db, [one.id])).get(one.id)!;
	});
	await candidate.getByLabel('Code on your slip').fill(slip);
	await candidate.getByTestId('finish-rehearsal').click();
	await expect(candidate.getByTestId('outcome')).toContainText('DO-1011, this device is ready.');
	const page = await home.staff(browser);
	const { id } = await home.session('Coastal Navigation I · Watch A');
	await go(page, `/prepare/devices?session=${id}`);
	await expect(page.locator('li', { hasText: 'Kemi Adler' })).toContainText('✓ ready');
	await expect(page.getByText('1 of 29 have shown a device')).toBeVisible();
});

test('mail goes once to those who have an address, and its words can be changed', async ({ browser }) => {
	const page = await home.staff(browser);
	const { id } = await home.session('Ship Stability · Evening');
	await go(page, `/prepare/mail?session=${id}`);
	await page.locator('#body').fill('Dear {nmae}');
	await page.getByRole('button', { name: 'Save the text' }).click();
	await expect(page.getByRole('alert')).toContainText('Nothing is known by the name {nmae}');
	await page.locator('#body').fill('Dear {name}, come to the {room}.');
	await page.getByRole('button', { name: 'Save the text' }).click();
	await expect(page.locator('section', { hasText: 'Preview' })).toContainText('come to the Boat Shed, Quayside.');
	await page.getByTestId('send-mail').click();
	await page.getByTestId('confirm').dblclick();
	await expect(page.getByTestId('outbox').locator('li').first()).toContainText('sent');
	await expect
		.poll(() =>
			home.read(async (db) => (await db('mail').where({ session_id: id, state: 'sent' }).count('* as n').first())?.n)
		)
		.toBe(37);
	await go(page, `/prepare/mail?session=${id}`);
	await expect(page.getByTestId('send-mail')).toHaveText('All sent');
});

test('a second administration has its own days, and a session belongs to the one of its day', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/administration');
	await page.getByLabel('New administration').fill('Spring examinations');
	await page.getByTestId('make-administration').click();
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Spring examinations');
	await page.getByLabel('First day').fill('2099-04-01');
	await page.getByLabel('Last day').fill('2099-05-31');
	await page.getByTestId('save-administration').click();
	await expect(page.getByRole('status').filter({ hasText: 'saved' })).toBeVisible();
	const names = page.getByRole('navigation', { name: 'Administrations' }).getByRole('link');
	await expect(names).toHaveCount(2);

	await go(page, '/prepare/new');
	await choose(page, 'paperId', 'Tides and Currents');
	await page.locator('label', { hasText: 'Watch A' }).click();
	await choose(page, 'roomId', 'Chart Room');
	await page.locator('#date').fill('2099-04-20');
	const belongs = page.locator('#administrationId option:checked');
	await expect(belongs).toHaveText('by its day: Spring examinations');
	// Whoever has sat the paper in another administration is expected in this one.
	await expect(page.getByTestId('sentence')).toContainText('29 candidates of Watch A');
	await page.locator('#administrationId').selectOption({ index: 2 });
	await expect(finding(page, 'days')).toBeVisible();
	await page.locator('#administrationId').selectOption({ index: 0 });
	await expect(finding(page, 'days')).toHaveCount(0);
	await page.getByTestId('plan').click();
	await page.waitForURL('**/prepare?planned=1');
	const planned = await home.read((db) =>
		db('session')
			.join('administration', 'administration.id', 'administration_id')
			.where('opens', '>', Date.UTC(2099, 0, 1))
			.pluck('administration.name')
	);
	expect(planned).toEqual(['Spring examinations']);
});

test('a room is drawn, seats taken out of use by pointer and by keys, and kept when one goes on at once', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, '/prepare/rooms');
	const rooms = page.getByRole('navigation', { name: 'Rooms' });
	await rooms.getByRole('button', { name: /Boat Shed/ }).click();
	const seat = (name: string) => page.locator(`[data-seat="${name}"]`);
	await seat('A1').click();
	await seat('A1').press('ArrowRight');
	await page.keyboard.press('Enter');
	// On to the next room, and away, before anything rests.
	await rooms.getByRole('button', { name: /Signal Loft/ }).click();
	await seat('B1').click();
	await page.goto('/prepare');
	const plans = () =>
		home.read(async (db) => {
			const rows: { name: string; plan: string }[] = await db('room').select('name', 'plan');
			return Object.fromEntries(rows.map((row) => [row.name, JSON.parse(row.plan).outOfUse]));
		});
	await expect.poll(plans).toMatchObject({ 'Boat Shed': ['A1', 'A2'], 'Signal Loft': ['B1'] });
});

test('the list of sessions stands in its address: a part of it, words and kind, kept over a reload and on the way back', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, '/prepare');
	const part = (name: string) => page.locator('label').filter({ hasText: name });
	const count = async (name: string) => Number((await part(name).textContent())!.trim().split(' ')[1]);
	const rows = page.getByRole('row').filter({ has: page.getByRole('link', { name: 'Duplicate' }) });
	await expect(rows).toHaveCount(await count('Today'));
	await part('Past').click();
	await expect(page).toHaveURL(/part=past/);
	await expect(rows).toHaveCount(await count('Past'));

	await part('Today').click();
	const find = page.getByLabel('Find a session');
	await find.pressSequentially('no such watch');
	await expect(page.getByText('No session here matches “no such watch”.')).toBeVisible();
	await expect(find).toBeFocused();
	await find.fill('chart room');
	await expect(rows.first()).toContainText('Chart Room');
	await page.reload();
	await expect(find).toHaveValue('chart room');
	await expect(rows.first()).toContainText('Chart Room');
	await rows.first().getByRole('link').first().click();
	await page.waitForURL(/ready/);
	await page.goBack();
	await expect(find).toHaveValue('chart room');
	// The tab leads to all of them again.
	await page.getByRole('link', { name: 'Sessions', exact: true }).click();
	await expect(find).toHaveValue('');
	await expect(rows).toHaveCount(await count('Today'));
});
