import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext } from '@playwright/test';
import { CLIENT_VERSION, cookieName, prove } from './prove';

export { CLIENT_VERSION, cookieName, prove } from './prove';

/** So often the client proves itself anew: well before a proof runs out. */
const RENEW_MS = 60_000;

export type SealedClient = { context: BrowserContext; close: () => Promise<void> };

/**
 * A small stand-in for a sealed client: it proves itself to the server, opens Chromium over the whole screen on the door
 * with nothing else around it, and goes on proving itself while it runs. What a real one does to the rest of the machine
 * it does not do.
 * @throws Error with the server's words when the server does not take the proof
 */
export async function openSealedClient(
	url: string,
	key: string,
	options: { version?: string; headless?: boolean; args?: string[]; executablePath?: string } = {}
): Promise<SealedClient> {
	const version = options.version ?? CLIENT_VERSION;
	const first = await prove(url, key, version);
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
	const [page] = context.pages();
	await page.goto('/sit');
	const timer = setInterval(async () => {
		const next = await prove(url, key, version).catch(() => null);
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
