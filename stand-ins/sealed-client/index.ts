import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext } from '@playwright/test';
import { cookieName, type ClientDevice } from './device';

export { CLIENT_VERSION, ClientDevice, cookieName } from './device';

/** So often the client proves itself anew at the door: well before a proof runs out. */
const RENEW_MS = 60_000;

export type SealedClient = { context: BrowserContext; close: () => Promise<void> };

/** Has all that a browser sends of a sitting signed by the device as well. */
async function signAll(context: BrowserContext, device: ClientDevice): Promise<void> {
	await context.route('**/sit/api/**', async (route) => {
		const request = route.request();
		const headers = device.sign(request.method(), new URL(request.url()), await request.allHeaders());
		await route.continue({ headers });
	});
}

/**
 * A small stand-in for a sealed client: it proves itself to the server, opens Chromium over the whole screen on the door
 * with nothing else around it, and signs all that is sent from there. What a real one does to the rest of the machine it
 * does not do.
 * @throws Error with the server's words when the server does not take the proof
 */
export async function openSealedClient(
	url: string,
	device: ClientDevice,
	options: { headless?: boolean; args?: string[]; executablePath?: string } = {}
): Promise<SealedClient> {
	const first = await device.prove();
	if (!first.ok) throw new Error(`${first.message} ${first.instead}`);
	// A profile of its own, gone afterwards. Only the window that Chromium opens by itself fills the screen: a context that
	// is made later gets an ordinary window, with tabs and an address.
	const profile = mkdtempSync(join(tmpdir(), 'otium-client-'));
	const context = await chromium.launchPersistentContext(profile, {
		headless: options.headless ?? false,
		executablePath: options.executablePath ?? '/usr/bin/chromium',
		baseURL: url,
		viewport: null,
		ignoreDefaultArgs: ['--enable-automation'],
		args: ['--kiosk', '--no-first-run', '--disable-sync', ...(options.args ?? [])]
	});
	const carry = (cookie: string) =>
		context.addCookies([{ name: cookieName(url), value: cookie, url, httpOnly: true, sameSite: 'Strict' }]);
	await carry(first.cookie);
	await signAll(context, device);
	const [page] = context.pages();
	await page.goto('/sit');
	const timer = setInterval(async () => {
		const next = await device.prove().catch(() => null);
		if (next?.ok) await carry(next.cookie);
	}, RENEW_MS);
	const close = async () => {
		await context.close();
	};
	context.on('close', () => {
		clearInterval(timer);
		rmSync(profile, { recursive: true, force: true });
	});
	return { context, close };
}
