import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { arrive, go, house } from './house';

const home = house();
const names = async (page: Page, url: string) => (await page.request.get(url)).status();

test('wrong, old and mistyped codes and names each get one sentence that says what would work', async ({ browser }) => {
	const page = await home.browser(browser);
	const { code } = await home.session('Tides and Currents · Watch A');
	await page.goto('/sit');
	const knock = async (typed: [string, string, string]) => {
		await page.getByLabel('Code').fill(typed[0]);
		await page.getByLabel('Candidate number').fill(typed[1]);
		await page.getByLabel('Family name').fill(typed[2]);
		await page.getByTestId('knock').click();
	};
	await knock(['0000-000', 'DO-1020', 'Rook']);
	await expect(page.getByTestId('problem')).toContainText(
		'We could not find you with these details. Check the code on the board'
	);
	await knock([code, 'DO-1020', 'Rok']);
	await expect(page.getByTestId('problem')).toContainText('the number on your card and your family name as registered');
	const spaced = [...code.toLowerCase()].join(' ').replaceAll('0', 'o').replaceAll('1', 'l').replaceAll('5', 's');
	await knock([spaced, ' do 1020', 'RÖÖK']);
	await expect(page.getByTestId('name')).toHaveText('Tobias Rook');
	await page.getByTestId('yes').click();
	await expect(page.getByTestId('problem')).toContainText('The last entry has passed. Speak to the proctor');
});

test('somebody early waits on a calm page that goes in by itself', async ({ browser }) => {
	const coordinator = await home.staff(browser);
	const { id } = await home.session('Lights and Shapes · Watch B');
	await go(coordinator, `/live/${id}`);
	// Ahead of its time it is asked about: the session can't be changed from then on.
	await coordinator.getByTestId('show-code').click();
	await expect(coordinator.getByRole('dialog')).toContainText('can no longer be changed');
	await coordinator.getByTestId('confirm').click();
	const code = await coordinator.getByTestId('door-code').innerText();
	const page = await home.browser(browser);
	const person = await home.read((db) => db('candidate').where({ number: 'DO-1030' }).first('family'));
	await arrive(page, code, 'DO-1030', person.family);
	await expect(page.getByRole('heading', { name: 'You are early' })).toBeVisible();
	await expect(page.getByRole('alert')).toHaveCount(0);
	await expect(page.locator('main')).not.toContainText(/error|wrong|fail/i);
	await home.read((db) =>
		db('session')
			.where({ id })
			.update({ opens: db.raw('opens - 2400000'), closes: db.raw('closes - 2400000') })
	);
	await expect(page.getByRole('heading', { name: 'You are at the door' })).toBeVisible();
});

test('nobody sees or does what is not theirs', async ({ browser }) => {
	const { id } = await home.session('Tides and Currents · Watch A');
	const stranger = await home.browser(browser);
	expect((await stranger.request.get(`/live/${id}/stream`)).status()).toBe(401);
	expect((await stranger.request.get('/logbook/verify')).status()).toBe(401);
	await stranger.goto(`/live/${id}`);
	await expect(stranger).toHaveURL(/\/sign-in\?to=/);

	const elsewhere = await home.staff(browser, 'sorrel');
	await elsewhere.goto(`/live/${id}`);
	await expect(elsewhere.getByRole('heading')).toHaveText('You are not allowed to see or do this.');
	expect(await names(elsewhere, `/live/${id}/stream`)).toBe(403);
	expect(await names(elsewhere, `/close-out/${id}/results.csv`)).toBe(403);
	const act = await elsewhere.request.post(`/live/${id}/session`, {
		data: { act: 'end' },
		headers: { origin: home.url }
	});
	expect(act.status()).toBe(403);
	for (const path of ['/prepare', '/grants', '/logbook', '/close-out']) expect(await names(elsewhere, path)).toBe(403);

	const officer = await home.staff(browser, 'lorne');
	expect(await names(officer, '/close-out')).toBe(200);
	expect(await names(officer, `/live/${id}`)).toBe(403);
});

test('a request from another site, malformed, oversized, replayed or invented is refused in words, and never a 500', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const { id, code } = await home.session('Tides and Currents · Watch A');
	const coordinator = await home.staff(browser);
	const origin = { origin: home.url };
	const post = (request: APIRequestContext, path: string, data: unknown, headers: Record<string, string> = origin) =>
		request.post(path, { data, headers });

	const foreign = await post(
		coordinator.request,
		`/live/${id}/session`,
		{ act: 'end' },
		{ origin: 'https://elsewhere.example' }
	);
	expect([foreign.status(), (await foreign.json()).code]).toEqual([403, 'other_origin']);

	const routes: [APIRequestContext, string][] = [
		[page.request, '/sit/api/knock'],
		[page.request, '/sit/api/arrive'],
		[page.request, '/sit/api/answers'],
		[page.request, '/sit/api/begin'],
		[page.request, '/sit/api/hand-in'],
		[coordinator.request, `/live/${id}/act`],
		[coordinator.request, `/live/${id}/minutes`],
		[coordinator.request, `/live/${id}/session`],
		[coordinator.request, '/prepare/plan'],
		[coordinator.request, '/prepare/save'],
		[coordinator.request, '/prepare/draft'],
		[coordinator.request, '/prepare/people/import'],
		[coordinator.request, '/prepare/rooms'],
		[coordinator.request, '/prepare/networks'],
		[coordinator.request, '/prepare/administration'],
		[coordinator.request, '/prepare/staff'],
		[coordinator.request, '/prepare/clients'],
		[coordinator.request, '/prepare/mail'],
		[coordinator.request, '/prepare/rules/copy'],
		[coordinator.request, '/prepare/rules/apply'],
		[coordinator.request, '/prepare/rules/remote'],
		[page.request, '/sit/api/prove'],
		[page.request, '/sit/api/rehearse'],
		[coordinator.request, '/grants/give'],
		[coordinator.request, '/grants/foresee'],
		[coordinator.request, '/grants/withdraw'],
		[coordinator.request, '/grants/reopen'],
		[coordinator.request, '/grants/owed'],
		[coordinator.request, '/grants/fit'],
		[coordinator.request, '/grants/requests'],
		[page.request, '/mine/x.y'],
		[page.request, '/ask/x.y']
	];
	const bodies: unknown[] = [
		null,
		7,
		'x',
		[],
		{},
		{ kind: 'let_in' },
		{ commandId: 'x'.repeat(5_000), kind: 'let_in', sittingIds: [id] },
		{ revisions: 'all' },
		{ input: { paperId: ['x'] } }
	];
	for (const [request, path] of routes) {
		for (const body of bodies) {
			const response = await post(request, path, body);
			expect(response.status(), `${path} ${JSON.stringify(body)?.slice(0, 60)}`).toBeLessThan(500);
		}
		const text = await request.post(path, {
			data: '{"half":',
			headers: { ...origin, 'content-type': 'application/json' }
		});
		expect(text.status()).toBeGreaterThanOrEqual(400);
		expect(text.status()).toBeLessThan(500);
		const large = await post(request, path, { code: 'x'.repeat(2_000_000) });
		// A file of people may be that large, and so may what is shown for a grant; this is neither. A link is looked at
		// before what came with it.
		const refused = /\/(import|give)$/.test(path) ? [400] : /^\/(mine|ask)\//.test(path) ? [404] : [401, 413];
		expect(refused).toContain(large.status());
	}

	const note = `${Buffer.from(JSON.stringify({ sittingId: 'x', expires: 9e15 })).toString('base64url')}.forged`;
	const forged = await post(page.request, '/sit/api/arrive', { note, commandId: 'forged-one', deviceName: 'x' });
	expect([forged.status(), (await forged.json()).instead]).toEqual([409, 'Enter the code and your number once more.']);
	expect(code).toHaveLength(7);
});

test('a locked database: the candidate reads "not saved yet", keeps the answer, and it arrives', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const { code, number, family } = await home.makeWayFor('Tides and Currents · Access group', 'DO-1047');
	await arrive(page, code, number, family);
	await page.getByTestId('begin').click();
	await expect(page.locator('[data-question]')).toBeVisible();
	await home.read(async (db) => {
		await db.raw('BEGIN EXCLUSIVE');
		await page.getByRole('button', { name: /^Question 24, / }).click();
		const radio = page.getByRole('radio').first();
		if (await radio.count()) await radio.check();
		else await page.getByRole('textbox').fill('5');
		await expect(page.getByTestId('saved')).toContainText('Not saved yet');
		await db.raw('ROLLBACK');
	});
	await expect(page.getByTestId('saved')).toContainText(/^Saved/);
	await expect(page.getByRole('button', { name: /^Question 24, answered/ })).toBeVisible();
});

test('pages carry a strict content policy and the usual headers; no key reaches a candidate', async ({ browser }) => {
	const page = await home.browser(browser);
	const response = (await page.goto('/sit'))!;
	const headers = response.headers();
	expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-/);
	expect(headers['content-security-policy']).not.toContain("script-src 'self' 'unsafe-inline'");
	expect(headers).toMatchObject({
		'x-content-type-options': 'nosniff',
		'x-frame-options': 'DENY',
		'referrer-policy': 'same-origin'
	});
	const forms = await home.read((db) => db('form').select('form'));
	expect(forms.length).toBeGreaterThan(20);
	for (const { form } of forms) expect(form).not.toMatch(/"answer"|"tolerance"/);
});
