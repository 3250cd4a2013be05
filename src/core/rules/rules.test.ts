import { describe, expect, it } from 'vitest';
import { DEFAULT_RULES, type SessionRules } from '../session';
import {
	differingRules,
	protectionInWords,
	protectionOf,
	readRules,
	SETTINGS,
	SHIPPED_SHEETS,
	valueAt,
	valueInWords,
	withValue
} from '.';

/** All leaves of an object as paths; lists are leaves. */
function leaves(part: unknown, path = ''): string[] {
	if (typeof part !== 'object' || part === null || Array.isArray(part)) return [path];
	return Object.entries(part).flatMap(([key, value]) => leaves(value, path ? `${path}.${key}` : key));
}

describe('the list of settings', () => {
	it('has every rule once, and no rule that does not exist', () => {
		const paths = SETTINGS.map((setting) => setting.path);
		expect(new Set(paths).size).toBe(paths.length);
		expect(leaves(DEFAULT_RULES).sort()).toEqual([...paths].sort());
	});

	it('finds every default and every shipped value in order, and can tell it', () => {
		for (const rules of [DEFAULT_RULES, ...SHIPPED_SHEETS.map((sheet) => sheet.rules)]) {
			expect(readRules(rules, DEFAULT_RULES)).toEqual({ ok: true, rules });
			for (const setting of SETTINGS)
				expect(valueInWords(setting, valueAt(rules, setting.path))).not.toMatch(/undefined|null|object/);
		}
	});
});

describe('rules from outside', () => {
	it.each<[string, unknown]>([
		['timing.limitMinutes', 0],
		['timing.limitMinutes', '60'],
		['timing.graceMinutes', null],
		['timing.warnAtMinutes', [10, 0]],
		['marking.wrong', 'all'],
		['marking.points', 0],
		['marking.points', 0.333],
		['marking.points', '0.25'],
		['lockdown.level', 'very'],
		['lockdown.clientVersion', '2.x'],
		['order.questionsInOwnOrder', 'yes'],
		['startWord', ''],
		['door.networks', 'labs']
	])('%s = %j is refused at its field', (path, value) => {
		const read = readRules(withValue(DEFAULT_RULES, path, value), DEFAULT_RULES);
		expect(read).toEqual({ ok: false, faults: { [path]: expect.stringMatching(/\.$/) } });
	});

	it('what is no setting does not get in', () => {
		const read = readRules({ timing: { limitMinutes: 30, root: true }, nothing: { wrong: 'all' } }, DEFAULT_RULES);
		expect(read.ok && read.rules).toEqual(withValue(DEFAULT_RULES, 'timing.limitMinutes', 30));
	});
});

describe('comparing', () => {
	it('names what differs, before and after', () => {
		const open = SHIPPED_SHEETS.find((sheet) => sheet.id === 'open-book')!;
		const told = differingRules(DEFAULT_RULES, open.rules).map(
			({ setting, before, after }) =>
				`${setting.name}: ${valueInWords(setting, before)} → ${valueInWords(setting, after)}`
		);
		expect(told).toEqual([
			'Limit: 60 min → 90 min',
			'Grace: 1 min → 5 min',
			'Questions: one at a time → all on one page',
			'Calculator: none → scientific'
		]);
	});
});

describe('the protection in force', () => {
	const told = (rules: SessionRules, change: Partial<Parameters<typeof protectionOf>[0]> = {}) =>
		protectionInWords(
			protectionOf({
				rules,
				networks: [],
				lostNetworks: 0,
				ownQuestions: false,
				elsewhere: 0,
				siteHasClients: true,
				...change
			})
		);
	const sealed = SHIPPED_SHEETS[0].rules;

	it('tells what is less for those who sit elsewhere, and nothing of them where nobody does', () => {
		const here: SessionRules = {
			...sealed,
			door: { ...sealed.door, networks: ['labs'] },
			elsewhere: { ...sealed.elsewhere, anyNetwork: true, admission: 'automatic' }
		};
		const at = { ownQuestions: true, networks: ['Quayside labs'] };
		expect(told(here, at)).not.toContain('elsewhere');
		expect(told(here, { ...at, elsewhere: 1 })).toContain(
			'one sits elsewhere, from any network, with nobody checking who comes in'
		);
	});

	it('is read off the settings', () => {
		expect(told(sealed, { ownQuestions: true, networks: ['Quayside labs'] })).toBe(
			'Own questions, own order, sealed, client 1.0 or newer, one network, a code that changes every 5 min, pace watched.'
		);
		expect(
			told(withValue(sealed, 'lockdown.printing', true), { ownQuestions: true, networks: ['Quayside labs'] })
		).toMatch(/Open: printing is allowed\.$/);
	});

	it('does not count on what is not there', () => {
		expect(told(sealed, { siteHasClients: false })).toMatch(/Open: .*sealed, but no device of the site has enrolled/);
		expect(told(withValue(sealed, 'door.networks', ['gone']), { lostNetworks: 1 })).toMatch(
			/its networks no longer exist/
		);
		expect(told(withValue(DEFAULT_RULES, 'order.questionsInOwnOrder', false))).toMatch(
			/choices are mixed, questions are not/
		);
	});
});
