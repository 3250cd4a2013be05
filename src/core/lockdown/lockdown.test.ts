import { describe, expect, it } from 'vitest';
import { leavingInWords, reactionTo, siteAddress } from '.';

const rules = (onLeaving: 'warn' | 'hold' | 'hand_in', leavingsAllowed = 2) => ({ onLeaving, leavingsAllowed });

describe('leaving the screen', () => {
	it('the allowed number is still allowed; one more has the consequence', () => {
		expect([0, 1, 2, 3, 9].map((left) => reactionTo(rules('hold'), left))).toEqual([
			'nothing',
			'nothing',
			'nothing',
			'hold',
			'hold'
		]);
		expect(reactionTo(rules('hand_in', 0), 1)).toBe('hand_in');
		expect(reactionTo(rules('warn', 0), 0)).toBe('nothing');
	});

	it('tells the candidate how long it was, and what comes next, before it comes', () => {
		expect(leavingInWords(rules('warn'), 1, 4_200)).toContain('4 seconds');
		expect(leavingInWords(rules('hold'), 1, 4_200)).toContain('may happen 1 more time; then your paper is paused');
		expect(leavingInWords(rules('hand_in'), 2, 800)).toContain('The next time your paper is handed in');
		expect(leavingInWords(rules('hand_in'), 2, 800)).toContain('a second');
		expect(leavingInWords(rules('hold'), 3, 800)).not.toContain('next time');
	});
});

describe('a site that may be opened', () => {
	it.each([
		['tides.example.org', 'https://tides.example.org/'],
		['https://tides.example.org/tables?port=4', 'https://tides.example.org/tables?port=4'],
		['http://tides.example.org', 'http://tides.example.org/'],
		['tides.example.org:8443/x', 'https://tides.example.org:8443/x']
	])('%s leads where it says', (written, address) => expect(siteAddress(written)).toBe(address));

	it.each([
		'javascript:alert(1)',
		'javascript://tides.example.org/%0aalert(1)',
		'data:text/html,<script>1</script>',
		'file:///etc/passwd',
		'https://tides.example.org@evil.example',
		'blob:https://tides.example.org/1',
		'tides',
		''
	])('%j leads nowhere', (written) => expect(siteAddress(written)).toBeNull());
});
