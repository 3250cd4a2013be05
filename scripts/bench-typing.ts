import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import type { Paper } from '$core/paper';
import { connectDb } from '$lib/server/db';
import { inBrowser } from './bench-browser';
import { makeCrowdSession } from './crowd-session';

/** How the editor answers keys in Chromium: the page's work for each, without the wait for the next frame. */
export type TypingFigure = { medianMs: number; most95Ms: number; mostMs: number; keys: number };

/** Longer than a change rests before it is kept, so that some of it falls between the keys. */
const PAUSE_EVERY = 20;
const PAUSE_MS = 900;
const KEY_MS = 70;
const SENTENCE =
	'A vessel constrained by her draught shows a cylinder, or three red lights, where they are seen best. ';

/** Opens a paper and types into the question in its middle. */
export async function measureTyping(paper: Paper): Promise<TypingFigure> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-typing-'));
	await makeCrowdSession(dir, 1);
	const db = connectDb(join(dir, 'otium.sqlite'));
	await db('paper_draft').insert({
		id: 'long',
		title: paper.title,
		content: JSON.stringify(paper),
		changed_at: Date.now(),
		changed_by: 'bench'
	});
	await db.destroy();
	return inBrowser(dir, '/papers/long', async (page) => {
		const rows = page.locator('[data-question-row]');
		await rows
			.nth(Math.floor((await rows.count()) / 2))
			.getByTestId(/^edit-/)
			.click();
		await page.getByLabel('Question', { exact: true }).waitFor();
		await page.waitForTimeout(2_000);
		await watch(page);
		for (const [i, letter] of [...SENTENCE.repeat(2)].entries()) {
			await page.keyboard.type(letter);
			await page.waitForTimeout(i % PAUSE_EVERY === PAUSE_EVERY - 1 ? PAUSE_MS : KEY_MS);
		}
		const work = (await page.evaluate('window.keyWork')) as number[];
		if (work.length < SENTENCE.length) throw new Error(`only ${work.length} keys were seen`);
		work.sort((a, b) => a - b);
		const at = (share: number) => work[Math.min(work.length - 1, Math.floor(work.length * share))];
		return { medianMs: at(0.5), most95Ms: at(0.95), mostMs: at(1), keys: work.length };
	});
}

/** Notes for each key how long its handlers took, and the frame that shows what they did. */
function watch(page: Page): Promise<void> {
	return page.evaluate(() => {
		const work: number[] = [];
		Object.assign(window, { keyWork: work });
		addEventListener(
			'keydown',
			() => {
				const begun = performance.now();
				let handled = begun;
				// After every handler of this key, and what they left to do at once.
				setTimeout(() => (handled = performance.now()));
				requestAnimationFrame(() => {
					const frame = performance.now();
					const { port1, port2 } = new MessageChannel();
					port1.onmessage = () => work.push(Math.min(handled, frame) - begun + (performance.now() - frame));
					port2.postMessage(null);
				});
			},
			true
		);
	});
}
