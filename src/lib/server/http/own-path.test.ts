import { expect, it } from 'vitest';
import { ownPath } from './own-path';

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
	'/%09//evil.example/..//'
])('%j leads nowhere else', (to) => expect(new URL(ownPath(to, HERE), HERE).origin).toBe(HERE.origin));
it.each([
	['/live/x?seat=A1#top', '/live/x?seat=A1#top'],
	[null, '/'],
	['', '/']
])('%j is kept', (to, path) => expect(ownPath(to, HERE)).toBe(path));
