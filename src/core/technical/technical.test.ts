import { describe, expect, it } from 'vitest';
import { DEFAULT_RULES, type SessionRules } from '../session';
import { technicalTasks } from '.';

const keys = (rules: Partial<SessionRules>, more = {}) =>
	technicalTasks({
		rules: { ...DEFAULT_RULES, ...rules },
		networks: [],
		clients: 4,
		candidates: 29,
		hasSound: false,
		...more
	}).map(({ key }) => key);

describe('what technical staff see to', () => {
	it('is what the rules ask for, and nothing else', () => {
		expect(keys({})).toEqual(['browser', 'reach', 'rehearsed']);
		const lockdown = {
			...DEFAULT_RULES.lockdown,
			level: 'sealed' as const,
			tablets: false,
			sites: ['tides.example.org']
		};
		expect(keys({ lockdown }, { networks: ['Lab'], hasSound: true })).toEqual([
			'client',
			'sound',
			'reach',
			'networks',
			'sites',
			'tablets',
			'rehearsed'
		]);
		expect(keys({ elsewhere: { ...DEFAULT_RULES.elsewhere, snapshotSeconds: 60 } })).toContain('camera');
	});

	it('names numbers and versions', () => {
		const lockdown = { ...DEFAULT_RULES.lockdown, level: 'sealed' as const, clientVersion: '2.4' };
		const [client] = technicalTasks({
			rules: { ...DEFAULT_RULES, lockdown },
			networks: [],
			clients: 4,
			candidates: 29,
			hasSound: false
		});
		expect(client.text).toBe('The sealed client, version 2.4 or newer, on 29 devices (4 have enrolled at this site).');
	});
});
