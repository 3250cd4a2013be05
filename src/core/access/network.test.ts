import fc from 'fast-check';
import { Secret, TOTP } from 'otpauth';
import { describe, expect, it } from 'vitest';
import { clientAddress, isInside, isTurningCode, readRanges, turningCode, turningKeyFrom, turnsAt } from '.';

describe('ranges', () => {
	// RFC 4632, section 3.1, and RFC 4291, section 2.3.
	it.each([
		['192.168.99.0/24', ['192.168.99.0/24']],
		['10.5.0.0/16 172.16.123.0/24', ['10.5.0.0/16', '172.16.123.0/24']],
		['2001:0DB8:0000:CD30:0000:0000:0000:0000/60', ['2001:db8:0:cd30::/60']],
		['2001:0DB8::CD30:0:0:0:0/60, 2001:0DB8:0:CD30::/60', ['2001:db8:0:cd30::/60']],
		['2001:0DB8:0:CD30:123:4567:89AB:CDEF/60', ['2001:db8:0:cd30::/60']],
		['10.1.2.3', ['10.1.2.3/32']],
		['::1', ['::1/128']]
	])('%s', (text, ranges) => expect(readRanges(text)).toEqual({ ranges, problems: [] }));

	// RFC 4291 calls these two "not legal" or readings of something else; the rest is what people mistype.
	it.each([
		'2001:0DB8:0:CD3/60',
		'10.0.0.0/33',
		'10.0.0/8',
		'300.1.1.1',
		'10.0.0.0/8/8',
		'10.0.0.0/',
		'quayside',
		'0x0a000001'
	])('%s is refused with an example', (text) =>
		expect(readRanges(text)).toEqual({ ranges: [], problems: [expect.stringMatching(/Write 10\.20\.0\.0\/16/)] })
	);

	it.each([
		['10.5.255.1', '10.5.0.0/16', true],
		['10.6.0.0', '10.5.0.0/16', false],
		['::ffff:10.5.1.1', '10.5.0.0/16', true],
		['2001:db8:0:cd3f::1', '2001:db8:0:cd30::/60', true],
		['2001:db8:0:cd40::1', '2001:db8:0:cd30::/60', false],
		['nobody', '0.0.0.0/0', false],
		['10.0.0.1', '::/0', false]
	])('%s in %s: %s', (address, range, inside) => expect(isInside(address, [range])).toBe(inside));

	it('membership is what comparing the leading bits says', () => {
		const octets = fc.array(fc.nat(255), { minLength: 4, maxLength: 4 });
		const bits = (parts: number[]) => parts.map((part) => part.toString(2).padStart(8, '0')).join('');
		fc.assert(
			fc.property(octets, octets, fc.integer({ min: 0, max: 32 }), (a, b, length) => {
				const { ranges } = readRanges(`${b.join('.')}/${length}`);
				return isInside(a.join('.'), ranges) === (bits(a).slice(0, length) === bits(b).slice(0, length));
			})
		);
	});
});

describe('whose address it is', () => {
	it.each([
		['nobody is believed without a named proxy', '10.0.0.9', '1.2.3.4', [], '10.0.0.9'],
		['the proxy tells whom it speaks for', '10.0.0.9', '1.2.3.4', ['10.0.0.9/32'], '1.2.3.4'],
		[
			'what a client wrote in front of it counts for nothing',
			'10.0.0.9',
			'192.168.1.1, 1.2.3.4',
			['10.0.0.9/32'],
			'1.2.3.4'
		],
		['through two proxies', '10.0.0.9', '1.2.3.4, 10.0.0.8', ['10.0.0.0/24'], '1.2.3.4'],
		['a stranger with the header', '8.8.8.8', '10.5.1.1', ['10.0.0.9/32'], '8.8.8.8']
	])('%s', (_, connection, header, proxies, address) =>
		expect(clientAddress(connection, header, proxies)).toBe(address)
	);
});

describe('the code that turns', () => {
	const key = new Secret({ buffer: new TextEncoder().encode('12345678901234567890').buffer }).base32;

	// RFC 6238, appendix B, SHA-1: eight digits, thirty seconds.
	it.each([
		[59, '94287082'],
		[1111111109, '07081804'],
		[1111111111, '14050471'],
		[1234567890, '89005924'],
		[2000000000, '69279037'],
		[20000000000, '65353130']
	])('at %i s it is %s', (seconds, code) => expect(turningCode(key, seconds * 1_000, 0.5)).toBe(code));

	it('the code of now and of the period before are taken, none other', () => {
		const now = Date.parse('2026-12-08T09:03:20Z');
		const at = (minutes: number) => turningCode(key, now + minutes * 60_000, 5);
		expect([0, -5, 5, -10].map((minutes) => isTurningCode(key, at(minutes), now, 5))).toEqual([
			true,
			true,
			false,
			false
		]);
		expect(isTurningCode(key, ` ${at(0).slice(0, 4)}-${at(0).slice(4)} `, now, 5)).toBe(true);
		expect(isTurningCode(key, '123', now, 5)).toBe(false);
		expect(turnsAt(now, 5)).toBe(Date.parse('2026-12-08T09:05:00Z'));
	});

	it('a key has its twenty bytes', () => {
		const made = turningKeyFrom(new Uint8Array(20).fill(7));
		expect(new TOTP({ secret: made }).secret.bytes).toEqual(new Uint8Array(20).fill(7));
	});
});
