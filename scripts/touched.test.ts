import { describe, expect, it } from 'vitest';
import { addressesIn, addressOf, importers, reaching, touchedSpecs } from './touched';

describe('what a change reaches', () => {
	it('is found by what imports what, in so many steps', () => {
		const by = importers(['src/core/time/zone.ts', 'src/core/time/index.ts', 'src/core/time/zone.test.ts']);
		const steps = reaching(['src/core/time/zone.ts'], by);
		expect(steps.get('src/core/time/zone.ts')).toBe(0);
		expect(steps.get('src/core/time/index.ts')).toBe(1);
	});

	it('is an address by its folder; what is around pages reaches those below', () => {
		expect(addressOf('src/routes/(staff)/live/[id]/+page.svelte')).toEqual({ address: '/live/x', andBelow: false });
		expect(addressOf('src/routes/(staff)/+layout.svelte')).toEqual({ address: '/', andBelow: true });
		expect(addressOf('src/core/time/zone.ts')).toBeNull();
	});

	it('is what a browser test goes to, by itself or by a helper', () => {
		const text = "await go(page, `/live/${id}?tab=list`); await page.goto('/prepare/new'); await begun(page, 2);";
		expect([...addressesIn(text)].sort()).toEqual(['/live/x', '/prepare/new', '/sit']);
	});

	it('is the browser tests of that screen before those farther away', () => {
		const specs = touchedSpecs(['src/routes/sit/+page.svelte']).map(({ spec }) => spec);
		expect(specs).toContain('e2e/door.spec.ts');
		expect(specs).not.toContain('e2e/bank.spec.ts');
		expect(touchedSpecs(['e2e/bank.spec.ts'])[0]).toEqual({ spec: 'e2e/bank.spec.ts', steps: 0 });
	});
});
