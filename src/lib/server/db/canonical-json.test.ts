import fc from 'fast-check';
import { expect, it } from 'vitest';
import { canonicalJson } from '.';

it('writes the example of RFC 8785, 3.2.3, as it is printed there', () => {
	// From memory: the members sorted by UTF-16 units.
	const value = { '€': 'Euro Sign', '\r': 'Carriage Return', '1': 'One', ö: 'Latin Small Letter O With Diaeresis' };
	expect(canonicalJson(value)).toBe(
		'{"1":"One","\\r":"Carriage Return","ö":"Latin Small Letter O With Diaeresis","€":"Euro Sign"}'
	);
});

it('is the same whatever order names were written in, and reads back as it was', () => {
	fc.assert(
		fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (value) => {
			const turned = Object.fromEntries(Object.entries(value).reverse());
			expect(canonicalJson(turned)).toBe(canonicalJson(value));
			expect(JSON.parse(canonicalJson(value))).toEqual(JSON.parse(JSON.stringify(value)));
		})
	);
});
