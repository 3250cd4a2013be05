import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { connectDb } from '$lib/server/db';
import { inBrowser } from './bench-browser';
import { makeCrowdSession } from './crowd-session';

/** How a live room scrolls in Chromium. */
export type ScrollFigure = {
	view: string;
	framesASecond: number;
	/** 95 of 100 frames came within so many ms of the one before. */
	gap95Ms: number;
	/** Tasks over 50 ms, and the longest of them. */
	longTasks: number;
	longestMs: number;
};

const NEEDS = 60;
const SCROLLED_MS = 5_000;

/** Opens a room of that many seats, 60 of them at the door, and scrolls its seats and its list. */
export async function measureScroll(seats: number): Promise<ScrollFigure[]> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-scroll-'));
	await makeCrowdSession(dir, seats);
	await waitAtTheDoor(dir);
	return inBrowser(dir, '/live/s', async (page) => {
		const figures: ScrollFigure[] = [];
		for (const [view, key] of [
			['seats', '1'],
			['list', '2']
		]) {
			await page.keyboard.press(key);
			await page.waitForTimeout(2_000);
			figures.push({ view, ...(await scroll(page)) });
		}
		return figures;
	});
}

async function waitAtTheDoor(dir: string) {
	const db = connectDb(join(dir, 'otium.sqlite'));
	await db('session').update({ rules: db.raw("json_set(rules, '$.admission', 'proctor')") });
	const rows: { id: string; fold: string }[] = await db('sitting').limit(NEEDS).select('id', 'fold');
	for (const { id, fold } of rows) {
		const waiting = { ...JSON.parse(fold), state: 'at_door', since: Date.now() };
		await db('sitting')
			.where({ id })
			.update({ state: 'at_door', fold: JSON.stringify(waiting) });
	}
	await db.destroy();
}

/** Scrolls what scrolls innermost, a little with each frame. */
function scroll(page: Page): Promise<Omit<ScrollFigure, 'view'>> {
	return page.evaluate(async (forMs) => {
		const box = [...document.querySelectorAll<HTMLElement>('main, main *')].findLast(
			(element) =>
				element.scrollHeight > element.clientHeight + 200 && /auto|scroll/.test(getComputedStyle(element).overflowY)
		)!;
		const tasks: number[] = [];
		new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
			type: 'longtask'
		});
		const begun = performance.now();
		const gaps: number[] = [];
		for (let last = begun; last - begun < forMs;) {
			await new Promise(requestAnimationFrame);
			const now = performance.now();
			gaps.push(now - last);
			last = now;
			box.scrollTop += 12;
			if (box.scrollTop + box.clientHeight >= box.scrollHeight - 5) box.scrollTop = 0;
		}
		gaps.sort((a, b) => a - b);
		return {
			framesASecond: (gaps.length / (performance.now() - begun)) * 1_000,
			gap95Ms: gaps[Math.floor(gaps.length * 0.95)],
			longTasks: tasks.length,
			longestMs: Math.max(0, ...tasks)
		};
	}, SCROLLED_MS);
}
