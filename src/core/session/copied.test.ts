import { describe, expect, it } from 'vitest';
import { whatCameAlong, type CopyFacts } from './copied';

const plain: CopyFacts = {
	paper: 'Tides and Currents',
	groups: ['Watch A'],
	room: 'Chart Room',
	time: '09:00',
	until: '10:15',
	sheet: 'Class test',
	otherRules: 0,
	words: [],
	proctors: ['Rhys Dunmore'],
	added: [],
	leftOut: 0,
	grants: 0
};

describe('what a copied session takes over', () => {
	it('says what came and what never comes', () => {
		expect(whatCameAlong(plain)).toEqual({
			came: [
				'Tides and Currents',
				'Watch A',
				'the Chart Room',
				'09:00 to 10:15',
				'the rules of “Class test”',
				'Rhys Dunmore as proctor'
			],
			stayed: ['its day and its name', 'its door code and slips']
		});
	});

	it('names who was in it by hand, what was given for it alone, rules of its own and words that are known', () => {
		const { came, stayed } = whatCameAlong({
			...plain,
			until: null,
			otherRules: 3,
			words: ['start word'],
			added: ['Ana Lee', 'Bo Moor', 'Cy Ito', 'Di Obi', 'Ed Quay'],
			leftOut: 2,
			grants: 1
		});
		expect(came).toContain('09:00, end open');
		expect(came).toContain('its rules, 3 of them other than “Class test” says');
		expect(came).toContain('the same start word: change it if candidates may know it');
		expect(stayed).toContain('Ana Lee, Bo Moor, Cy Ito and 2 more, who were added by hand');
		expect(stayed).toContain('that 2 people of its groups were left out: all are in again');
		expect(stayed).toContain('one grant for that session alone');
	});
});
