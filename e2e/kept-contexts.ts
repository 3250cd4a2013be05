import type { Browser, BrowserContext, Page } from '@playwright/test';

export type ContextOptions = NonNullable<Parameters<Browser['newContext']>[0]>;

/** Pages that are free, each alone in its context, by the address whose scripts they have read. */
const free = new Map<string, Page[]>();

/**
 * Pages that a test gives back are given to the next one, with their contexts. A new one starts a process, reads and compiles
 * every script and makes every font ready: that takes three times as long as the page itself. What a person could find of the
 * one before goes first: cookies, storage, history, other pages; what stays is the cache of files that never change. Service
 * workers run where a test asks for them.
 */
export class KeptContexts {
	#kept: { page: Page; url: string; isChanged: () => boolean }[] = [];
	#once: BrowserContext[] = [];

	/** An empty page in a context of its own. With options it is a new one. */
	async page(browser: Browser, url: string, options?: ContextOptions): Promise<Page> {
		if (options !== undefined) {
			const context = await browser.newContext({ baseURL: url, ...options });
			this.#once.push(context);
			const page = await context.newPage();
			tellErrors(page);
			return page;
		}
		const page =
			free.get(url)?.pop() ?? (await (await browser.newContext({ baseURL: url, serviceWorkers: 'block' })).newPage());
		tellErrors(page);
		this.#kept.push({ page, url, isChanged: watchChanges(page) });
		return page;
	}

	/** Takes back what was given out. */
	async release() {
		await Promise.all([
			...this.#once.splice(0).map((context) => context.close()),
			...this.#kept.splice(0).map(async ({ page, url, isChanged }) => {
				// What a server that is away leaves in a page is not gone into: it is not kept.
				if (isChanged() || page.isClosed() || !(await isEmptied(page, url))) return page.context().close();
				free.set(url, [...(free.get(url) ?? []), page]);
			})
		]);
	}
}

/** Faults of the interface itself that pages threw since somebody asked. */
const faults: string[] = [];

/** What pages threw that no lost line and no server that is away explains; asked once, it is forgotten. */
export function faultsOfPages(): string[] {
	return faults.splice(0);
}

/** What a page threw stands in the output of the run, beside its test. */
function tellErrors(page: Page): void {
	page.on('pageerror', (error) => {
		console.warn(`  a page threw: ${error.message}`);
		if (error.message.includes('svelte.dev/e/')) faults.push(error.message);
	});
}

/** What a test can change of a page that can't be set back: its first scripts, its size, what it is shown on. */
const LASTING = ['addInitScript', 'emulateMedia', 'setViewportSize', 'setExtraHTTPHeaders', 'exposeFunction'] as const;

/** Ends the watch, and says whether the test changed something that lasts. */
function watchChanges(page: Page): () => boolean {
	let changed = false;
	const ends: (() => void)[] = [];
	const watch = <T extends object>(of: T, name: keyof T & string) => {
		const real = of[name] as (...args: unknown[]) => unknown;
		const watched = (...args: unknown[]) => {
			changed = true;
			return real.apply(of, args);
		};
		Object.assign(of, { [name]: watched });
		// The real one is the class's.
		ends.push(() => void delete of[name]);
	};
	for (const name of LASTING) watch(page, name);
	watch(page.clock, 'install');
	watch(page.context(), 'newCDPSession');
	return () => {
		for (const end of ends) end();
		return changed;
	};
}

/** Whether nothing of the one who had it is left. */
async function isEmptied(page: Page, origin: string): Promise<boolean> {
	const context = page.context();
	page.removeAllListeners();
	await Promise.all([
		...context.pages().map((other) => other !== page && other.close()),
		page.unrouteAll({ behavior: 'ignoreErrors' }),
		context.setOffline(false)
	]);
	// What a tab keeps for itself can be reached from a page of that address only.
	await page.evaluate(() => sessionStorage.clear()).catch(() => {});
	// A page that does nothing, of the same address: for another one the browser would take another process.
	const isThere = await page.goto(`${origin}/favicon.svg`).then(
		() => true,
		() => false
	);
	if (!isThere) return false;
	await Promise.all([context.clearCookies(), context.clearPermissions()]);
	const session = await context.newCDPSession(page);
	await session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
	await session.send('Page.resetNavigationHistory');
	await session.detach();
	return true;
}
