import { expect, test, type Page } from '@playwright/test';
import { ownNote, teacherNote } from '../src/lib/server/identity';
import { arrive, go, house } from './house';

const home = house();
const DAY_MS = 86_400_000;
const tomorrow = async () => new Date((await home.now()) + DAY_MS).toISOString().slice(0, 10);

async function openFor(page: Page, text: string, name: RegExp) {
	await page.keyboard.press('g');
	await page.getByLabel('For whom').fill(text);
	await page.locator('aside').getByRole('button', { name }).first().click();
	await expect(page.getByTestId('effect')).toBeVisible();
}
const candidate = (number: string) =>
	home.read((db) => db('candidate').where({ number }).first('id', 'given', 'family', 'number'));

test('a window that fits is pressed and not worked out, told as they will see it, and stands on their own page', async ({
	browser
}) => {
	const page = await home.staff(browser, 'penrose');
	await go(page, `/grants?day=${await tomorrow()}`);
	// What does not fit comes first, with the reason.
	await expect(page.locator('tbody tr').first().locator('.text-brick')).toBeVisible();
	await expect(page.locator('tbody tr', { hasText: 'DO-1066' })).toContainText('40 min short');
	await openFor(page, 'DO-1066', /DO-1066.*Coastal/s);
	await expect(page.getByTestId('misfit').first()).toContainText('40 min too short');
	const proposal = page.getByTestId('proposals').getByRole('button').first();
	await expect(proposal).toContainText('seats taken');
	await proposal.click();
	await expect(page.getByTestId('effect')).toContainText('own window');
	await expect(page.getByTestId('misfit')).toHaveCount(0);
	await page.getByText('As they will see it').click();
	const told = page.getByTestId('told').locator('li');
	await expect(told.first()).toHaveText('You have 160 minutes: 80, and 80 more for you.');
	const sentences = await told.allInnerTexts();
	await page.getByLabel('Why', { exact: true }).fill('The bus');
	await page.getByRole('button', { name: 'Grant it' }).dblclick();
	await expect(page.getByTestId('given')).toBeVisible();
	expect(await home.read((db) => db('grant_given').where({ reason: 'The bus' }))).toHaveLength(1);

	const { id } = await candidate('DO-1066');
	const note = await home.read(async (db) => ownNote(db, id, await home.now()));
	const own = await home.browser(browser);
	await go(own, `/mine/${note}`);
	const sitting = own.getByTestId('own-sitting').filter({ hasText: 'Coastal Navigation I' });
	for (const sentence of sentences) await expect(sitting).toContainText(sentence);
	await expect(own.locator('body')).not.toContainText('The bus');
});

test('everyone of a group is given something in one act, and what differs among them is told', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/grants');
	await page.keyboard.press('g');
	await page.getByLabel('For whom').fill('evening');
	await page
		.locator('aside')
		.getByRole('button', { name: /Everyone of Evening.*Coastal/s })
		.click();
	await page.getByLabel('What is given').selectOption('minutes');
	await page.getByLabel('Extra minutes').fill('10');
	await expect(page.getByText('It comes to different times')).toBeVisible();
	await page.getByLabel('Why').fill('Fog on the river');
	await page.getByRole('button', { name: 'Grant it to 36 people' }).click();
	await expect(page.getByTestId('given')).toHaveText('Given to 36 people.');
	expect(await home.read((db) => db('grant_given').where({ reason: 'Fog on the river' }))).toHaveLength(36);
	await home.read((db) => db('grant_given').where({ reason: 'Fog on the river' }).update({ withdrawn_at: 1 }));
});

test('handed in by mistake, after the session: back at their answers in two acts, and nobody else', async ({
	browser
}) => {
	const page = await home.staff(browser);
	const { id } = await home.session('Radio Procedure · Watch B');
	const [first, second] = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id, state: 'handed_in' })
			.select('sitting.id', 'number', 'family')
	);
	await go(page, '/grants');
	await openFor(page, first.number, new RegExp(`${first.number}.*Radio`, 's'));
	const panel = page.getByTestId('reopen');
	await panel.getByRole('button', { name: 'Open it again' }).click();
	await expect(panel.getByRole('status')).toContainText('Open for them from');
	const code = await panel.locator('strong.font-mono').first().innerText();
	// After the list has refreshed, the sitting has no longer ended; the code must still be there to pass on.
	await page.waitForLoadState('networkidle');
	await expect(panel.locator('strong.font-mono').first()).toHaveText(code);

	const stranger = await home.browser(browser);
	await arrive(stranger, code, second.number, second.family);
	await expect(stranger.getByText('This session has ended.')).toBeVisible();
	const back = await home.browser(browser);
	await arrive(back, code, first.number, first.family);
	const proctor = await home.staff(browser, 'dunmore');
	await go(proctor, `/live/${id}`);
	await proctor.keyboard.press('Enter');
	await back.getByTestId('begin').click();
	await expect(back.locator('[data-question]').first()).toBeVisible();
	await expect(back.getByRole('button', { name: 'Question 12, answered' })).toBeVisible();
});

test('owed since three days: a make-up for exactly those, in one act, with its mails', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, '/');
	await page.getByTestId('waiting').getByRole('link', { name: /owed/ }).click();
	const row = page.locator('tr', { hasText: 'for 3 days' });
	await expect(row).toHaveCount(2);
	await page.getByLabel('All who are owed Lights and Shapes').check();
	await page.getByRole('button', { name: 'Make-up session…' }).click();
	const dialog = page.getByRole('dialog');
	await expect(dialog.getByTestId('make-up-times').getByRole('button').first()).toHaveAttribute('aria-pressed', 'true');
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('settled')).toContainText(
		/Planned: Lights and Shapes, make-up .* 3 mails are written/s
	);
	await expect(row).toHaveCount(0);
	await expect(page.getByRole('heading', { name: 'Arranged, 5' })).toBeVisible();
	const roster = await home.read((db) =>
		db('roster')
			.join('session', 'session.id', 'roster.session_id')
			.where('session.name', 'like', 'Lights and Shapes, make-up%')
	);
	expect(roster).toHaveLength(2);
});

test('what does not fit tomorrow is planned for all, moved by key, given at once and taken back at once', async ({
	browser
}) => {
	const page = await home.staff(browser);
	await go(page, `/grants/fit?site=quayside&day=${await tomorrow()}`);
	const people = await page.locator('tbody tr').count();
	expect(people).toBeGreaterThanOrEqual(3);
	await page.getByRole('button', { name: `Find windows for all ${people}` }).click();
	await expect(page.getByTestId('quality')).toContainText(`${people} of ${people} fit`);
	const first = page.getByRole('slider').first();
	const before = await first.getAttribute('aria-valuetext');
	await first.focus();
	await page.keyboard.press('ArrowLeft');
	await expect(first).not.toHaveAttribute('aria-valuetext', before!);
	// Into the night: told, and not given.
	for (let i = 0; i < 12; i++) await page.keyboard.press('Shift+ArrowLeft');
	await expect(page.getByText(/The rooms open at 07:30/).first()).toBeVisible();
	await expect(page.getByRole('button', { name: /Give th/ })).toBeDisabled();
	for (let i = 0; i < 12; i++) await page.keyboard.press('Shift+ArrowRight');
	await page.keyboard.press('ArrowRight');
	await expect(first).toHaveAttribute('aria-valuetext', before!);
	await page.getByRole('button', { name: /Give th/ }).click();
	await page.getByLabel('Why').fill('Time granted does not fit');
	await page.getByTestId('confirm').click();
	await expect(page.getByTestId('applied')).toContainText(`${people} people have a window of their own now`);
	await expect(page.getByText('Everybody’s time fits on this day.')).toBeVisible();
	await page.getByRole('button', { name: 'Take the whole plan back' }).click();
	await expect(page.locator('tbody tr')).toHaveCount(people);
});

test('requests: a candidate by their own page, a teacher by a link, a proctor from the room; decided once, told to both', async ({
	browser
}) => {
	const { id, number, family, given } = await candidate('DO-1060');
	const notes = await home.read(async (db) => ({
		own: await ownNote(db, id, await home.now()),
		teacher: await teacherNote(
			db,
			{ name: 'Noor Hallam', email: 'hallam@saltmarsh.example', siteId: 'quayside' },
			await home.now()
		)
	}));
	const own = await home.browser(browser);
	await go(own, `/mine/${notes.own}`);
	await own
		.getByLabel('For which sitting')
		.selectOption({ label: (await own.locator('#for-session option', { hasText: 'Coastal' }).innerText()).trim() });
	await own.getByLabel('Why, and what would help').fill('I read slowly.');
	await own.getByRole('button', { name: 'Ask', exact: true }).click();
	await expect(own.getByTestId('own-request')).toContainText('Open');

	const teacher = await home.browser(browser);
	await go(teacher, `/ask/${notes.teacher}`);
	await teacher.getByLabel('Candidate number').fill(number);
	await teacher.getByLabel('Family name').fill('Nobody');
	await teacher.getByLabel('Why, and what would help').fill('Needs a quiet place.');
	await teacher.getByRole('button', { name: 'Ask', exact: true }).click();
	await expect(teacher.getByRole('alert')).toContainText('Nobody at this site has that number and family name.');
	await teacher.getByLabel('Family name').fill(family.toLowerCase());
	await teacher.getByRole('button', { name: 'Ask', exact: true }).click();
	await expect(teacher.getByTestId('asked')).toBeVisible();

	const proctor = await home.staff(browser, 'dunmore');
	const { id: roomId } = await home.session('Tides and Currents · Watch A');
	await go(proctor, `/live/${roomId}`);
	await proctor.getByTestId('seats').getByRole('button', { name: 'Lars Holt' }).click();
	await proctor.getByRole('button', { name: 'Ask for a grant…' }).click();
	await proctor.getByLabel('Why, and what would help').fill('Cannot hold the pen.');
	await proctor.getByTestId('confirm').click();
	await expect(proctor.getByRole('dialog')).toHaveCount(0);

	const officer = await home.staff(browser, 'penrose');
	await go(officer, '/grants/requests');
	await expect(officer.getByRole('button', { name: /Lars Holt.*Cannot hold the pen/s })).toBeVisible();
	await officer.getByRole('button', { name: /I read slowly/ }).click();
	await expect(officer.getByTestId('effect')).toBeVisible();
	await officer.getByLabel('Multiply the time limit by').fill('1.25');
	await expect(officer.getByTestId('effect')).toContainText('80 + 20 = 100 min');
	await officer.getByLabel('Why', { exact: true }).fill('Seen the letter');
	await officer.getByRole('button', { name: 'Grant it' }).click();
	await expect(officer.getByTestId('decided')).toContainText('1 mail is written.');
	await officer.getByRole('button', { name: /Needs a quiet place/ }).click();
	await officer.getByLabel('What they are told').fill('All rooms are quiet tomorrow.');
	await officer.getByRole('button', { name: 'Not given' }).click();
	await expect(officer.getByTestId('decided')).toContainText('2 mails are written.');

	await go(own, `/mine/${notes.own}`);
	await expect(own.getByTestId('own-request')).toContainText('Given');
	await expect(own.getByTestId('own-sitting').filter({ hasText: 'Coastal' })).toContainText('You have 100 minutes');
	await expect(own.locator('body')).not.toContainText('Needs a quiet place.');
	expect(given).toBeTruthy();
});

test('everyone’s window is moved: who gains, who works on, who stays finished is told first, and nobody begins again', async ({
	browser
}) => {
	const page = await home.staff(browser);
	const { id } = await home.session('Tides and Currents · Watch A');
	await go(page, `/live/${id}`);
	await page.getByRole('button', { name: 'Give time to all' }).click();
	await expect(page.getByTestId('whom')).toContainText('have finished or are not here');
	await page.getByRole('button', { name: 'Move the window instead…' }).click();
	const dialog = page.getByRole('dialog');
	await expect(dialog.getByRole('alert')).toContainText('These are the times that it has.');
	await dialog.getByLabel('Closes').fill('11:30');
	await dialog.getByLabel('Why').fill('Fire drill');
	await expect(page.getByTestId('moved')).toContainText('finished, absent or elsewhere: stays so');
	const ended = () => home.read((db) => db('sitting').where({ session_id: id, state: 'handed_in' }).pluck('id'));
	const before = await ended();
	await page.getByTestId('confirm').click();
	await expect(dialog).toHaveCount(0);
	const { closes } = await home.read((db) => db('session').where({ id }).first('closes'));
	expect(new Date(closes).toLocaleTimeString('en-GB', { timeZone: 'Europe/London' })).toBe('11:30:00');
	expect(await ended()).toEqual(before);
});

test('each kind is given before a sitting, told in words, and read by its candidate', async ({ browser }) => {
	const page = await home.staff(browser);
	await go(page, `/grants?day=${await tomorrow()}`);
	await openFor(page, 'DO-1056', /DO-1056.*Coastal/s);
	const KINDS: [string, [string, string][], string | null][] = [
		['factor', [['Multiply the time limit by', '1,25']], 'You have 110 minutes: 80, and 30 more for you.'],
		['minutes', [['Extra minutes', '10']], null],
		['own_window', [], 'It opens for you on'],
		['breaks', [['Minutes each', '7']], 'You may take 2 breaks of 7 minutes'],
		['separate_room', [], 'You sit apart from the others.'],
		['beside', [['Who, if it is known', 'Alba Finch']], 'Somebody reads to you: Alba Finch.'],
		['tools', [], 'You have a basic calculator.'],
		['display', [], 'The paper is enlarged 1.5 times at first.'],
		['read_aloud', [], 'Your device can read the questions aloud to you.'],
		['aid', [['Which aid', 'a bilingual dictionary']], 'You have this aid: a bilingual dictionary.'],
		['language', [['Language tag', 'pt']], 'The paper is in Portuguese at first'],
		['paper_copy', [], 'You get a copy of the paper on paper.'],
		['other_form', [], null],
		['extra_attempt', [], 'You may sit it once more.'],
		['continue_later', [], 'You may go on another day'],
		['reopen', [], null]
	];
	for (const [kind, fields] of KINDS) {
		await page.getByLabel('What is given').selectOption(kind);
		for (const [label, value] of fields) await page.getByLabel(label).fill(value);
		if (kind === 'own_window') await expect(page.getByTestId('proposals').locator('[aria-pressed=true]')).toBeVisible();
		await page.getByLabel('Why', { exact: true }).fill(`The kind ${kind}`);
		const given = () =>
			home.read((db) =>
				db('grant_given')
					.where({ reason: `The kind ${kind}` })
					.pluck('id')
			);
		await page.getByRole('button', { name: 'Grant it' }).click();
		await expect.poll(async () => (await given()).length, kind).toBe(1);
		await expect(page.getByLabel('Why', { exact: true })).toHaveValue('');
	}
	const { id } = await candidate('DO-1056');
	const note = await home.read(async (db) => ownNote(db, id, await home.now()));
	const own = await home.browser(browser);
	await go(own, `/mine/${note}`);
	const sitting = own.getByTestId('own-sitting').filter({ hasText: 'Coastal Navigation I' });
	for (const [, , told] of KINDS) if (told) await expect(sitting).toContainText(told);
	// No limit comes last: it takes the place of all that was said of time.
	await page.getByLabel('What is given').selectOption('unlimited_time');
	await page.getByLabel('Why', { exact: true }).fill('The last kind');
	await page.getByRole('button', { name: 'Grant it' }).click();
	await expect(page.getByTestId('given')).toContainText('no time limit');
	await go(own, `/mine/${note}`);
	await expect(sitting).toContainText('You have no time limit.');
});

test('what is given and withdrawn during a sitting comes to the candidate’s screen by itself', async ({ browser }) => {
	const session = 'Tides and Currents · Watch A';
	const { id, code, number, family } = await home.makeWayFor(session, 'DO-1013');
	const rules = await home.read((db) => db('session').where({ id }).first('rules'));
	const merged = JSON.parse(rules.rules);
	const bare = { ...merged, admission: 'automatic', tools: { ...merged.tools, calculator: 'none' } };
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ rules: JSON.stringify(bare) })
	);
	const sits = await home.browser(browser);
	await arrive(sits, code, number, family);
	await sits.getByTestId('begin').click();
	await expect(sits.locator('[data-question]').first()).toBeVisible();
	const calculator = sits.getByRole('button', { name: 'Calculator' });
	await expect(calculator).toHaveCount(0);
	const minutesLeft = async () => Number(/(\d+)( min|:)/.exec(await sits.getByTestId('time').innerText())![1]);
	const before = await minutesLeft();

	const page = await home.staff(browser);
	await go(page, '/grants');
	await openFor(page, number, new RegExp(`${number}.*Tides`, 's'));
	const give = async (kind: string, seen: () => Promise<void>) => {
		await page.getByLabel('What is given').selectOption(kind);
		await page.getByLabel('Why', { exact: true }).fill(`During: ${kind}`);
		await page.getByRole('button', { name: 'Grant it' }).click();
		await expect(page.getByLabel('Why', { exact: true })).toHaveValue('');
		await seen();
	};
	await give('minutes', () => expect.poll(minutesLeft).toBeGreaterThanOrEqual(before + 9));
	await give('tools', () => expect(calculator).toBeVisible());
	await give('breaks', () => expect(sits.getByTestId('break')).toBeVisible());
	const has = page.locator('li', { hasText: 'During: tools' });
	await has.getByRole('button', { name: 'Withdraw…' }).click();
	await page.getByTestId('confirm').click();
	await expect(calculator).toHaveCount(0);
});
