import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

type Violation = { id: string; impact: string; nodes: { html: string; failureSummary: string }[] };

/** WCAG 2.2 A and AA. */
export const WCAG = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] };
/** All that another theme changes. */
export const CONTRAST = { type: 'rule', values: ['color-contrast'] };

/** What axe-core finds by these rules that is serious or worse. */
export async function serious(page: Page, runOnly = WCAG): Promise<string[]> {
	// Evaluated, not added as a script: the page's own content policy stays in force.
	if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
	const violations = await page.evaluate(async (runOnly) => {
		const { axe } = window as unknown as {
			axe: { run: (root: Document, options: object) => Promise<{ violations: Violation[] }> };
		};
		// To say of everything that is right where it is takes most of the time.
		return (await axe.run(document, { runOnly, resultTypes: ['violations'], preload: false })).violations;
	}, runOnly);
	return violations
		.filter((one) => ['serious', 'critical'].includes(one.impact))
		.map((one) => `${one.id}: ${one.nodes[0].html.slice(0, 160)} ${one.nodes[0].failureSummary.slice(0, 200)}`);
}
