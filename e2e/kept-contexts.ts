import type { Browser, BrowserContext, Page } from '@playwright/test';

export type ContextOptions = NonNullable<Parameters<Browser['newContext']>[0]>;

/** For a test that changes the browser itself, its clock or its first scripts: a context that nobody gets after it. */
export const NEW: ContextOptions = {};

/** Contexts that are free, by the address whose pages they have read. */
const free = new Map<string, BrowserContext[]>();

/**
 * Contexts that a test gives back are given to the next one. A new one reads and compiles every script of a page anew, which
 * takes three times as long as the page itself. What a person could find of the one before goes: pages, cookies and storage;
 * what stays is the cache of files that never change. Service workers run where a test asks for them.
 */
export class KeptContexts {
	#kept: { context: BrowserContext; url: string }[] = [];
	#once: BrowserContext[] = [];

	/** An empty page in a context of its own. */
	async page(browser: Browser, url: string, options?: ContextOptions): Promise<Page> {
		if (options !== undefined) {
			const context = await browser.newContext({ baseURL: url, ...options });
			this.#once.push(context);
			return context.newPage();
		}
		const used = free.get(url)?.pop();
		const context = used ?? (await browser.newContext({ baseURL: url, serviceWorkers: 'block' }));
		this.#kept.push({ context, url });
		const page = await context.newPage();
		if (used) await forget(page, url);
		return page;
	}

	/** Takes back what was given out. */
	async release() {
		await Promise.all([
			...this.#once.splice(0).map((context) => context.close()),
			...this.#kept.splice(0).map(async ({ context, url }) => {
				await Promise.all(context.pages().map((page) => page.close()));
				await Promise.all([context.setOffline(false), context.clearCookies(), context.clearPermissions()]);
				free.set(url, [...(free.get(url) ?? []), context]);
			})
		]);
	}
}

/** What this address has stored in the page's context is gone. */
async function forget(page: Page, origin: string) {
	const session = await page.context().newCDPSession(page);
	await session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
	await session.detach();
}
