import { chromium } from '@playwright/test';
import playwright from '../playwright.config';
import { DEMO_PASSWORD } from '$lib/server/demo';
import { freePort, startServer } from './server-process';
const port = await freePort();
const url = `http://localhost:${port}`;
const server = await startServer({ port, host: '127.0.0.1', dataDir: '/tmp/ad', log: 'warn' });
const browser = await chromium.launch(playwright.use!.launchOptions);
const shots = process.argv.slice(2);
for (const shot of shots) {
	const [who, path, name, ...acts] = shot.split('|');
	const context = await browser.newContext({ baseURL: url, viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
	const page = await context.newPage();
	page.on('pageerror', (e) => console.log('PAGE ERROR', path, e.message));
	page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', path, m.text()));
	await page.goto('/sign-in');
	await page.getByLabel('Name').fill(who);
	await page.getByLabel('Password').fill(DEMO_PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL((u) => u.pathname !== '/sign-in');
	const t = Date.now();
	await page.goto(path);
	await page.locator('[data-ready=true]').first().waitFor();
	console.log(path, Date.now() - t, 'ms');
	await page.waitForTimeout(900);
	for (const act of acts) {
		if (act.startsWith('text=')) await page.getByText(act.slice(5)).first().click();
		else await page.getByTestId(act).first().click();
		await page.waitForTimeout(900);
	}
	await page.screenshot({ path: `/tmp/look-${name}.png` });
	await context.close();
}
await browser.close();
server.kill('SIGTERM');
setTimeout(() => process.exit(0), 500);
