import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ownPath } from './own-path';
import { runs } from '$core/testing/runs';

const HERE = new URL('https://otium.example/sign-in');

it.each([
	'/\t/evil.example',
	'//evil.example',
	'/\\evil.example',
	'\\/evil.example',
	'https://evil.example/a',
	'/\n/evil.example',
	'javascript:alert(1)',
	' //evil.example',
	'https:evil.example',
	'/%09//evil.example/..//',
	'/.//evil.example',
	'/./\\evil.example',
	'/a/..//evil.example',
	'/.//otium.example//evil.example/phish',
	'https://otium.example//evil.example',
	'/%2e//evil.example'
])('%j leads nowhere else, however often it is handed on', (to) => {
	let path = to;
	for (let i = 0; i < 4; i++) {
		path = ownPath(path, HERE);
		expect(new URL(path, HERE).origin).toBe(HERE.origin);
		// As a header has it, and as a link in a page has it.
		expect(path).toMatch(/^\/(?![/\\])/);
	}
});
it('no path leads elsewhere, whatever it is made of', () => {
	const part = fc.constantFrom(
		'/',
		'.',
		'..',
		'\\',
		'//',
		'evil.example',
		'%2e',
		'%2f',
		':',
		'@',
		'\t',
		'?',
		'#',
		'https',
		'a'
	);
	fc.assert(
		fc.property(fc.array(part, { maxLength: 12 }), (parts) => {
			const path = ownPath(parts.join(''), HERE);
			expect(new URL(path, HERE).origin).toBe(HERE.origin);
			expect(ownPath(path, HERE)).toBe(path);
			expect(path.startsWith('//')).toBe(false);
		}),
		{ numRuns: runs(2_000) }
	);
});
it.each([
	['/live/x?seat=A1#top', '/live/x?seat=A1#top'],
	[null, '/'],
	['', '/']
])('%j is kept', (to, path) => expect(ownPath(to, HERE)).toBe(path));
