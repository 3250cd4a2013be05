import { expect, test } from '@playwright/test';
import { go, house } from './house';
import { signedFetch } from './signed-fetch';
import { sitsIn } from './sits';

const home = house({ at: '10:22' });
const { begun, formOf, valueOf } = sitsIn(home);

test('two who carry cookies, storage and requests from one browser to another get nothing, and the proctor sees it', async ({
	browser
}) => {
	const page = await home.browser(browser);
	const sent: { url: string; headers: Record<string, string>; body: string }[] = [];
	page.on('request', (request) => {
		if (request.method() === 'POST' && request.url().includes('/sit/api/answers'))
			void request
				.allHeaders()
				.then((headers) => sent.push({ url: request.url(), headers, body: request.postData() ?? '' }));
	});
	const order = { questionsInOwnOrder: false };
	const me = await begun(page, 3, { lockdown: { level: 'open' }, order });
	const form = await formOf(me.id);
	await page.getByRole('radio').first().check();
	await expect.poll(() => valueOf(me.id, form[0].id)).toBeTruthy();
	const stood = await valueOf(me.id, form[0].id);

	// All that can be carried out of a browser: its cookies, what it stores as text, and what it has sent.
	const carried = await page
		.context()
		.storageState({ indexedDB: true })
		.catch(() => page.context().storageState());
	const session = await page.evaluate(() => JSON.stringify(sessionStorage));
	const other = await home.browser(browser, { storageState: carried, userAgent: 'Another browser Firefox/150' });
	await other.addInitScript((text) => {
		for (const [name, value] of Object.entries(JSON.parse(text) as Record<string, string>))
			sessionStorage.setItem(name, value);
	}, session);
	await other.goto('/sit');
	await expect(other.getByLabel('Code')).toBeVisible();
	await expect(other.locator('[data-question]')).toHaveCount(0);
	const asked = await other.evaluate(async () => {
		const answers = [];
		for (const path of ['paper', 'picture', 'stream', 'review']) answers.push((await fetch(`/sit/api/${path}`)).status);
		return answers;
	});
	expect(asked).toEqual([401, 401, 401, 401]);
	expect(await other.content()).not.toContain(me.family);

	// The private half can't be taken out, by the page itself neither.
	const taken = await page.evaluate(async () => {
		const db = await new Promise<IDBDatabase>((resolve) => {
			const opening = indexedDB.open('otium-device');
			opening.onsuccess = () => resolve(opening.result);
		});
		const keys = await new Promise<CryptoKeyPair>((resolve) => {
			const getting = db.transaction('key').objectStore('key').getAll();
			getting.onsuccess = () => resolve(getting.result[0]);
		});
		db.close();
		return Promise.allSettled(
			(['pkcs8', 'jwk', 'raw'] as const).map((format) => crypto.subtle.exportKey(format, keys.privateKey))
		);
	});
	expect(taken.map((one) => one.status)).toEqual(['rejected', 'rejected', 'rejected']);

	// What was sent once is taken once.
	const [request] = sent;
	const { url, headers, body } = request;
	for (const change of [{}, { body: body.replace(/"value":"?[^",]*"?/, '"value":null') }]) {
		const replayed = await other.request.post(url, {
			headers: {
				...headers,
				cookie: (await page.context().cookies()).map((one) => `${one.name}=${one.value}`).join('; ')
			},
			data: Buffer.from('body' in change ? (change.body as string) : body)
		});
		expect([replayed.status(), (await replayed.json()).code]).toEqual([401, 'not_signed']);
	}
	expect(await valueOf(me.id, form[0].id)).toEqual(stood);

	// Whoever it belongs to goes on, and the proctor has been told.
	expect((await signedFetch(page, 'GET', '/sit/api/picture')).status).toBe(200);
	const proctor = await home.staff(browser);
	await go(proctor, `/live/${me.sessionId}`);
	const need = proctor.locator('[data-kind=copied], li', { hasText: 'A copy of this device’s sign-in' }).first();
	await expect(need).toContainText(me.family);
	await proctor
		.getByRole('button', { name: `${me.given} ${me.family}` })
		.first()
		.click();
	await expect(proctor.getByTestId('noted')).toContainText('without its signature was refused');
});
