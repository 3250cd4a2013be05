import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type CDPSession, type Page } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import { DEMO_PASSWORD } from '../src/lib/server/demo';
import { CLIENT, startSignInService } from '../stand-ins/sign-in-service';
import { serious } from './axe';
import { go, House, house } from './house';

const home = house();
home.signsInByHand = true;

async function signIn(page: Page, name: string, password = DEMO_PASSWORD) {
	await page.goto('/sign-in');
	await page.getByLabel('Name').fill(name);
	await page.getByLabel('Password').fill(password);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}
async function signOut(page: Page) {
	await page.locator('summary').click();
	await page.getByRole('button', { name: 'Sign out' }).click();
	await page.waitForURL('**/sign-in');
}
/** Chromium's own authenticator in the place of a finger or a stick. */
async function authenticator(page: Page): Promise<CDPSession> {
	const session = await page.context().newCDPSession(page);
	await session.send('WebAuthn.enable');
	await session.send('WebAuthn.addVirtualAuthenticator', {
		options: {
			protocol: 'ctap2',
			transport: 'internal',
			hasResidentKey: true,
			hasUserVerification: true,
			isUserVerified: true,
			automaticPresenceSimulation: true
		}
	});
	return session;
}
const isToday = (page: Page) => page.waitForURL((url) => url.pathname === '/');

test('a passkey is a second step, and enough by itself; recovery codes help once', async ({ browser }) => {
	const page = await home.staff(browser, 'sorrel');
	await authenticator(page);
	await go(page, '/you/sign-in');
	await page.getByTestId('add-passkey').click();
	await expect(page.getByRole('button', { name: 'Remove' })).toBeVisible();
	await page.getByTestId('new-codes').click();
	await page.getByTestId('codes').locator('li').first().waitFor();
	const [code, other] = await page.getByTestId('codes').locator('li').allInnerTexts();
	expect(await serious(page), 'how one signs in').toEqual([]);
	await signOut(page);

	await signIn(page, 'sorrel');
	await page.waitForURL('**/sign-in/second*');
	// Nothing of the house is to be had at this point.
	expect((await page.request.get('/live')).url()).toContain('/sign-in/second');
	expect((await page.request.get('/logbook/verify')).status()).toBe(401);
	expect(await serious(page), 'second step').toEqual([]);
	await page.getByTestId('passkey').click();
	await isToday(page);
	await signOut(page);

	await page.getByTestId('passkey').click();
	await isToday(page);
	await expect(page.locator('summary')).toContainText('Sorrel');
	await signOut(page);

	await signIn(page, 'sorrel');
	await page.getByLabel('Recovery code').fill('AAAA-AAA-AAA');
	await page.getByRole('button', { name: 'Continue' }).click();
	await expect(page.getByRole('alert')).toContainText('not right, or has been used');
	await page.getByLabel('Recovery code').fill(code);
	await page.getByRole('button', { name: 'Continue' }).click();
	await isToday(page);

	// Elsewhere there is no passkey: the other code lets in, and from there the first browser is signed out.
	const elsewhere = await home.browser(browser);
	await signIn(elsewhere, 'sorrel');
	await elsewhere.getByLabel('Recovery code').fill(other);
	await elsewhere.getByRole('button', { name: 'Continue' }).click();
	await isToday(elsewhere);
	await go(elsewhere, '/you/sign-in');
	await expect(elsewhere.getByTestId('sessions').locator('li')).toHaveCount(2);
	await elsewhere.getByTestId('end-others').click();
	await expect(elsewhere.getByTestId('sessions').locator('li')).toHaveCount(1);
	await page.goto('/');
	expect(page.url()).toContain('/sign-in');
});

test('where a role needs a second step, it is set up at the next sign-in; a coordinator helps who lost it', async ({
	browser
}) => {
	const ode = await home.staff(browser, 'ode');
	await go(ode, '/prepare/staff');
	const rules = ode.getByTestId('sign-in-rules');
	await rules.getByLabel('Closing officer').check();
	await expect(rules).toContainText('none yet');
	await rules.getByTestId('save-sign-in').click();
	await expect(ode.getByRole('status')).toContainText('saved');
	expect(await serious(ode), 'staff').toEqual([]);

	const page = await home.browser(browser);
	await signIn(page, 'lorne');
	await page.waitForURL('**/sign-in/enrol*');
	expect(await serious(page), 'setting up').toEqual([]);
	await page.getByTestId('offer-app').click();
	const secret = (await page.getByTestId('secret').innerText()).trim();
	const codeAt = (at: number) => new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at });
	await page.getByLabel('The code it shows now').fill(codeAt(await home.now()));
	await page.getByTestId('take-app').click();
	await page.getByTestId('enrolled').click();
	await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
	await signOut(page);

	await signIn(page, 'lorne');
	await page.getByLabel('Code from your app').fill(codeAt((await home.now()) + 30_000));
	await page.getByRole('button', { name: 'Continue' }).click();
	await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
	await signOut(page);

	await go(ode, '/prepare/staff');
	const line = ode.locator('li', { hasText: 'lorne' });
	await expect(line).toContainText('two steps');
	await line.getByRole('button', { name: 'Change' }).click();
	await ode.getByRole('button', { name: 'Remove their second step' }).click();
	await expect(ode.getByRole('status')).toContainText('taken away');
	await signIn(page, 'lorne');
	await page.waitForURL('**/sign-in/enrol*');
	await ode.reload();
	await rules.getByLabel('Closing officer').uncheck();
	await rules.getByTestId('save-sign-in').click();
	await expect(ode.getByRole('status')).toContainText('saved');
});

/** The newest mail in the folder. Its names are drawn at random, so its times tell the order. */
function lastMail(): string {
	const dir = join(home.dir, 'outbox');
	if (!existsSync(dir)) return '';
	const mails = readdirSync(dir).map((name) => join(dir, name));
	const newest = mails.sort((a, b) => statSync(a).mtimeMs - statSync(b).mtimeMs).at(-1);
	if (!newest) return '';
	return readFileSync(newest, 'utf8')
		.replace(/=\r?\n/g, '')
		.replaceAll('=3D', '=');
}

test('somebody new is given a link, as no mail leaves, and whoever forgot their password asks for one', async ({
	browser
}) => {
	const ode = await home.staff(browser, 'ode');
	await go(ode, '/prepare/staff');
	await ode.getByRole('button', { name: 'Add somebody' }).click();
	await ode.getByLabel('Name', { exact: true }).fill('Isla Fenwick');
	await ode.getByLabel('Signs in as').fill('fenwick');
	await ode.getByLabel('E-mail').fill('fenwick@saltmarsh.example');
	await ode.getByLabel('Proctor, Quayside').check();
	await ode.getByTestId('save-staff').click();
	const given = ode.getByTestId('links').locator('code');
	await expect(given).toHaveCount(1);
	await expect(ode.getByRole('status')).not.toContainText('on its way');
	const page = await home.browser(browser);
	await page.goto(await given.innerText());
	const choose = async (password: string) => {
		await page.getByLabel('Password').fill(password);
		await page.getByLabel('Once more').fill(password);
		await page.getByRole('button', { name: 'Save' }).click();
	};
	await choose('fenwick-isla1');
	await expect(page.getByRole('alert')).toContainText('your name');
	await choose('nine buoys in the fog');
	await page.waitForURL('**/sign-in');
	await signIn(page, 'fenwick@saltmarsh.example', 'nine buoys in the fog');
	await isToday(page);
	await signOut(page);

	await page.getByRole('link', { name: 'I don’t know my password' }).click();
	expect(await serious(page), 'forgotten').toEqual([]);
	await page.getByLabel('Name or e-mail').fill('fenwick');
	await page.getByRole('button', { name: 'Ask for a link' }).click();
	await expect(page.getByRole('status')).toContainText('No mail leaves this server');
	await expect.poll(() => lastMail()).toContain('asked for a new password');
	const link = /http\S+link=\S+/.exec(lastMail())![0];
	await page.goto(link);
	expect(await serious(page), 'new password').toEqual([]);
	await choose('ten buoys in the fog');
	await page.waitForURL('**/sign-in');
	await page.goto(link);
	await expect(page.getByRole('heading', { name: 'This link no longer works' })).toBeVisible();
});

test('what matters most asks who is there once an hour, and goes on as it was', async ({ browser }) => {
	const page = await home.staff(browser, 'ode');
	await go(page, '/prepare/staff');
	await home.read((db) => db('staff_session').update({ confirmed_at: 0 }));
	await page.locator('li', { hasText: 'dunmore' }).getByRole('button', { name: 'Change' }).click();
	await page.getByLabel('E-mail').fill('rhys@saltmarsh.example');
	await page.getByTestId('save-staff').click();
	await expect(page.getByText('Is it still you?')).toBeVisible();
	expect(await serious(page), 'is it still you').toEqual([]);
	await page.getByLabel('Your password').fill('not it');
	await page.getByTestId('confirm-identity').click();
	await expect(page.getByRole('alert')).toContainText('not your password');
	await page.getByLabel('Your password').fill(DEMO_PASSWORD);
	await page.getByTestId('confirm-identity').click();
	await expect(page.getByRole('status').filter({ hasText: 'saved' })).toBeVisible();
	await expect(page.locator('li', { hasText: 'rhys@saltmarsh.example' })).toBeVisible();
});

test('whoever does nothing is asked whether they are there, and told when they are signed out', async ({ browser }) => {
	const page = await home.staff(browser, 'ode');
	await page.clock.install();
	await go(page, '/prepare');
	await page.clock.fastForward('54:00');
	await expect(page.getByTestId('still-here')).toBeHidden();
	await page.clock.fastForward('02:00');
	await expect(page.getByTestId('still-here')).toContainText('Still here?');
	await page.getByRole('button', { name: 'I am here' }).click();
	await expect(page.getByTestId('still-here')).toBeHidden();
	await page.clock.fastForward('01:01:00');
	await expect(page.getByTestId('still-here')).toContainText('You were signed out');
	// Beside a live room nothing stands in the way.
	const { id } = await home.session('Tides and Currents · Watch A');
	const live = await home.staff(browser, 'ode');
	await live.clock.install();
	await go(live, `/live/${id}`);
	await live.clock.fastForward('58:00');
	await expect(live.getByTestId('still-here')).toBeHidden();
});

test('the house’s own sign-in service lets in whom it knows, with the roles that its groups give', async ({
	browser
}) => {
	const other = new House();
	const port = 20_000 + Math.floor(Math.random() * 20_000);
	process.env.OTIUM_OIDC_ISSUER = `http://localhost:${port}`;
	process.env.OTIUM_OIDC_CLIENT = CLIENT.id;
	process.env.OTIUM_OIDC_SECRET = CLIENT.secret;
	process.env.OTIUM_OIDC_NAME = 'Saltmarsh';
	process.env.OTIUM_OIDC_ROLES = JSON.stringify({
		claim: 'groups',
		give: { exams: [{ role: 'coordinator', site: '*' }], rooms: [{ role: 'proctor', site: 'Quayside' }] }
	});
	await other.open();
	for (const name of ['ISSUER', 'CLIENT', 'SECRET', 'NAME', 'ROLES']) delete process.env[`OTIUM_OIDC_${name}`];
	const accounts = {
		wren: { name: 'Ada Wren', email: 'wren@saltmarsh.example', groups: ['exams'] },
		visitor: { name: 'Vic Itor', email: 'visitor@saltmarsh.example', groups: [] as string[] }
	};
	const service = await startSignInService(port, accounts, `${other.url}/sign-in/oidc/back`);
	try {
		const enter = async (who: string, to = '/') => {
			const page = await other.browser(browser);
			await page.goto(`/sign-in?to=${to}`);
			await page.getByTestId('service').click();
			await page.getByLabel('Who are you?').fill(who);
			await page.getByRole('button', { name: 'Sign in' }).click();
			return page;
		};
		const wren = await enter('wren', '/logbook');
		await wren.waitForURL('**/logbook');
		await expect(wren.locator('summary')).toContainText('Ada Wren');
		await wren.getByRole('link', { name: 'Prepare' }).waitFor();
		const visitor = await enter('visitor');
		await expect(visitor.getByRole('alert')).toContainText('nobody here has that e-mail address');
		// A group that is lost takes its roles with it.
		accounts.wren.groups = ['rooms'];
		const again = await enter('wren');
		await expect(again.locator('summary')).toContainText('Ada Wren');
		await expect(again.getByRole('link', { name: 'Prepare' })).toBeHidden();
		await wren.goto('/');
		expect(wren.url()).toContain('/sign-in');
		// What was not asked for here is not taken.
		await visitor.goto('/sign-in/oidc/back?code=guessed&state=guessed');
		await expect(visitor.getByRole('alert')).toContainText('was not completed');
	} finally {
		await service.close();
		await other.close();
	}
});
