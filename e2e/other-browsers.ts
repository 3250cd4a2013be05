import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { Builder, By, Key, type WebDriver } from 'selenium-webdriver';
import { freePort } from '../scripts/server-process';

/** What a walk needs of any browser. Elements are named by CSS. Nothing here waits: the test does. */
export type Tab = {
	go(url: string): Promise<void>;
	type(css: string, text: string): Promise<void>;
	press(css: string): Promise<void>;
	/** A key for the whole page: a letter, or Enter. */
	key(key: string): Promise<void>;
	/** What is read there; empty while there is no such element. */
	text(css: string): Promise<string>;
	has(css: string): Promise<boolean>;
	close(): Promise<void>;
};
export type OtherBrowser = { tab(): Promise<Tab>; close(): Promise<void> };

/** What is read there, as a page works it out for itself. */
const READ = `(css) => document.querySelector(css)?.innerText ?? ''`;

/** Debian's Firefox, by WebDriver BiDi. */
export async function firefox(): Promise<OtherBrowser> {
	const browser = await puppeteer.launch({
		browser: 'firefox',
		executablePath: '/usr/bin/firefox-esr',
		headless: true,
		defaultViewport: { width: 1280, height: 800 }
	});
	const tab = async (): Promise<Tab> => {
		const context = await browser.createBrowserContext();
		const page = await context.newPage();
		// Firefox draws what is in front, and presses nothing elsewhere.
		const front = () => page.bringToFront();
		return {
			async go(url) {
				await page.goto(url);
			},
			async type(css, text) {
				await front();
				await page.focus(css);
				await page.keyboard.type(text);
			},
			async press(css) {
				await front();
				await page.click(css);
			},
			async key(key) {
				await front();
				await page.keyboard.press(key as 'Enter');
			},
			text: (css) => page.evaluate(`(${READ})(${JSON.stringify(css)})`) as Promise<string>,
			has: async (css) => (await page.$(css)) !== null,
			close: () => context.close()
		};
	};
	return { tab, close: () => browser.close() };
}

/** Debian's WebKit, the engine of tablets, by plain WebDriver on a screen that nobody sees. Each tab is a browser. */
export async function webkit(): Promise<OtherBrowser> {
	const display = `:${90 + Math.floor(Math.random() * 400)}`;
	const processes: ChildProcess[] = [spawn('Xvfb', [display, '-screen', '0', '1400x1000x24'], { stdio: 'ignore' })];
	const home = mkdtempSync(join(tmpdir(), 'otium-webkit-'));
	const drivers: WebDriver[] = [];
	const tab = async (): Promise<Tab> => {
		const port = await freePort();
		const env = { ...process.env, DISPLAY: display, HOME: home, WEBKIT_DISABLE_COMPOSITING_MODE: '1' };
		processes.push(spawn('WebKitWebDriver', ['-p', String(port)], { stdio: 'ignore', env }));
		const driver = await started(port);
		drivers.push(driver);
		await driver.manage().window().setRect({ width: 1280, height: 900 });
		const find = (css: string) => driver.findElement(By.css(css));
		return {
			async go(url) {
				await driver.get(url);
			},
			async type(css, text) {
				await find(css).sendKeys(text);
			},
			press: (css) => find(css).click(),
			key: (key) =>
				driver
					.actions()
					.sendKeys(key === 'Enter' ? Key.ENTER : key)
					.perform(),
			text: (css) => driver.executeScript<string>(`return (${READ})(arguments[0])`, css),
			has: async (css) => (await driver.findElements(By.css(css))).length > 0,
			close: () => driver.quit()
		};
	};
	const close = async () => {
		await Promise.allSettled(drivers.map((driver) => driver.quit()));
		for (const one of processes) one.kill();
		rmSync(home, { recursive: true, force: true });
	};
	return { tab, close };
}

/** A driver takes a moment until it listens. */
async function started(port: number): Promise<WebDriver> {
	for (let tries = 1; ; tries++) {
		try {
			return await new Builder()
				.usingServer(`http://127.0.0.1:${port}`)
				.withCapabilities({ browserName: 'MiniBrowser' })
				.build();
		} catch (error) {
			if (tries === 40) throw error;
			await new Promise((resolve) => setTimeout(resolve, 250));
		}
	}
}
