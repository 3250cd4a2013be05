import { rmSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import playwright from '../playwright.config';
import { CROWD_STAFF } from './crowd-session';
import { freePort, startServer } from './server-process';

/** Opens a path of a crowd's house in Chromium, signed in as its staff, and ends browser, server and house after it. */
export async function inBrowser<T>(dir: string, path: string, work: (page: Page) => Promise<T>): Promise<T> {
	const port = await freePort();
	const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
	const browser = await chromium.launch(playwright.use!.launchOptions);
	try {
		const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
		await page.goto(`http://localhost:${port}/sign-in`);
		await page.getByLabel('Name').fill(CROWD_STAFF.signIn);
		await page.getByLabel('Password').fill(CROWD_STAFF.password);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await page.waitForURL((url) => url.pathname !== '/sign-in');
		await page.goto(`http://localhost:${port}${path}`);
		await page.locator('[data-ready=true]').first().waitFor();
		return await work(page);
	} finally {
		await browser.close();
		server.kill('SIGKILL');
		rmSync(dir, { recursive: true, force: true });
	}
}
