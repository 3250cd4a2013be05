import { describe, expect, it } from 'vitest';
import { isHereAlone, isSetUp, missingForSession, readAddress, readStaffLines, setUpSteps, type HouseFacts } from '.';

const EMPTY: HouseFacts = {
	name: null,
	sites: 0,
	rooms: 0,
	people: 0,
	papers: 0,
	drafts: 0,
	staff: 1,
	planned: 0,
	held: 0,
	mailLeaves: false,
	address: 'http://localhost:3000',
	isNamed: false,
	isHereAlone: true,
	isSecure: false
};
const states = (facts: Partial<HouseFacts>) =>
	Object.fromEntries(setUpSteps({ ...EMPTY, ...facts }).map(({ key, state }) => [key, state]));

describe('what is left to set up', () => {
	it('there is one next step at a time, each after what it needs', () => {
		const order = [
			['place', { sites: 1 }],
			['rooms', { rooms: 1 }],
			['people', { people: 1 }],
			['paper', { papers: 1 }],
			['session', { planned: 1 }]
		] as const;
		let facts: Partial<HouseFacts> = {};
		for (const [key, done] of order) {
			expect(Object.entries(states(facts)).filter(([, state]) => state === 'next')).toEqual([[key, 'next']]);
			facts = { ...facts, ...done };
		}
		expect(Object.values(states(facts))).not.toContain('next');
	});

	it('what the first session can do without is never in its way', () => {
		expect(states({})).toMatchObject({ staff: 'later', address: 'later', mail: 'later' });
		expect(missingForSession(EMPTY).map(({ key }) => key)).toEqual(['place', 'rooms', 'people', 'paper']);
		expect(missingForSession({ ...EMPTY, sites: 1, rooms: 1, people: 3, papers: 1 })).toEqual([]);
	});

	it('goes away by itself once somebody has sat', () =>
		expect([isSetUp(EMPTY), isSetUp({ ...EMPTY, held: 1 })]).toEqual([false, true]));
});

describe('the address of a house', () => {
	it.each([
		['192.168.1.20:4600', 'http://192.168.1.20:4600'],
		['http://school.example/sit', 'http://school.example'],
		[' https://tests.school.example/ ', 'https://tests.school.example'],
		['http://school.example/other', null],
		['ftp://school.example', null],
		['two words', null],
		['https://who@school.example', null]
	])('“%s” is %s', (text, address) => expect(readAddress(text)).toBe(address));

	it.each([
		['http://localhost:3000', true],
		['http://127.0.0.1', true],
		['http://[::1]:3000', true],
		['http://192.168.1.20', false],
		['https://school.example', false]
	])('%s is reached from here alone: %s', (address, alone) => expect(isHereAlone(address)).toBe(alone));
});

describe('a pasted list of colleagues', () => {
	it('is read as address books and spreadsheets write it, with a sign-in for each', () => {
		const lines = readStaffLines(
			'Rhys Dunmore <rhys@saltmarsh.example>\nHolt, Ines; ines.holt@saltmarsh.example\n\nanna.reed@saltmarsh.example\nZoë Ó Briain',
			{ signIns: ['rhys'], emails: [] }
		);
		expect(lines).toEqual([
			{ line: 1, name: 'Rhys Dunmore', email: 'rhys@saltmarsh.example', signIn: 'rhys2', fault: null },
			{ line: 2, name: 'Ines Holt', email: 'ines.holt@saltmarsh.example', signIn: 'ines.holt', fault: null },
			{ line: 4, name: 'Anna Reed', email: 'anna.reed@saltmarsh.example', signIn: 'anna.reed', fault: null },
			{ line: 5, name: 'Zoë Ó Briain', email: null, signIn: 'briain', fault: null }
		]);
	});

	it('tells each fault at its line', () => {
		const faults = readStaffLines('a@b\nA <ode@saltmarsh.example>\nB <b@saltmarsh.example>\nC <B@saltmarsh.example>', {
			signIns: [],
			emails: ['ode@saltmarsh.example']
		}).map(({ fault }) => fault);
		expect(faults).toEqual([
			'“a@b” is not an e-mail address.',
			'ode@saltmarsh.example has an account already.',
			null,
			'B@saltmarsh.example is on line 3 as well.'
		]);
	});
});
