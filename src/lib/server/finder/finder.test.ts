import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { insertMany } from '../db';
import { buildHouse, giveHere, NINE, type House } from '../testing/house';
import { askedDuring, scansDuring } from '../testing/plans';
import { somebody } from '../testing/staff';
import { findAnything } from '.';

let house: House;
beforeEach(async () => (house = await buildHouse()));
afterEach(() => house.close());

const ODE = somebody('ode', 'coordinator', null);
const DUNMORE = somebody('dunmore', 'proctor', 'quayside');
const find = async (text: string, staff: StaffMember = ODE) => {
	const found = await findAnything(house.otium.db, staff, text, NINE);
	return found.map(({ kind, title, href }) => ({ kind, title, href }));
};

describe('anything is found by any words of it', () => {
	it('people in their room and on their own page, by name, number and group', async () => {
		for (const text of ['family1 given1', 'DO-1002', 'given1'])
			expect(await find(text)).toEqual([
				{ kind: 'person', title: 'Given1 Family1, DO-1002', href: '/live/s1?seat=sit1' },
				{ kind: 'person', title: 'Given1 Family1, DO-1002', href: '/prepare/people/can1' }
			]);
		expect((await find('watch family')).filter(({ kind }) => kind === 'person')).toHaveLength(6);
	});

	it('whose name begins so comes before whose name has it somewhere', async () => {
		await house.otium.db('candidate').where({ id: 'can0' }).update({ given: 'Marcel', family: 'Acey' });
		await house.otium.db('candidate').where({ id: 'can2' }).update({ given: 'Cecily', family: 'Moor' });
		const people = (await find('ce')).filter(({ href }) => href.startsWith('/live'));
		expect(people.map(({ title }) => title)).toEqual(['Cecily Moor, DO-1003', 'Marcel Acey, DO-1001']);
	});

	it('whatever their accents and case, typed or not', async () => {
		await house.otium.db('candidate').where({ id: 'can0' }).update({ given: 'Inês', family: 'Łuczak' });
		await house.otium.db('candidate').where({ id: 'can2' }).update({ given: 'Ines', family: 'Weiß-Þórsdóttir' });
		const found = async (text: string) =>
			(await find(text)).filter(({ href }) => href.startsWith('/live')).map(({ href }) => href.slice(-4));
		for (const text of ['ines', 'INES', 'Inês', 'INÊS', 'Ine\u0302s', 'ínès'])
			expect((await found(text)).toSorted(), text).toEqual(['sit0', 'sit2']);
		for (const text of ['luczak', 'ŁUCZAK', 'ines lucz']) expect(await found(text), text).toEqual(['sit0']);
		for (const text of ['weiss', 'thorsdottir', 'Þórs']) expect(await found(text), text).toEqual(['sit2']);
		for (const text of ['inesz', '\u0301', 'ł%']) expect(await found(text), text).toEqual([]);
		// Whose name begins so is first, with its accents.
		await house.otium.db('candidate').where({ id: 'can2' }).update({ given: 'Marines', family: 'Aa' });
		expect(await found('ines')).toEqual(['sit0', 'sit2']);
	});

	it('sessions and papers, and nothing for no words or wild cards', async () => {
		expect(await find('numb')).toEqual([
			{ kind: 'session', title: 'Numbers · Watch A', href: '/live/s1' },
			{ kind: 'paper', title: 'Numbers, version 1', href: '/live/s1' }
		]);
		for (const text of ['', '  ', 'hold', '%', '_', "'; drop table sitting"]) expect(await find(text)).toEqual([]);
	});

	it('acts, for those whom they would touch, and as far as one may', async () => {
		expect(await find('hold given2')).toEqual([
			{ kind: 'act', title: 'Hold Given2 Family2', href: '/live/s1?seat=sit2&ask=hold' }
		]);
		expect(await find('mark absent DO-1001', DUNMORE)).toHaveLength(1);
		// Nobody stands at the door, has begun, or has ended.
		for (const text of ['let in given2', 'hand in given2', 'reopen given2', 'message given2'])
			expect(await find(text)).toEqual([]);
		await house.otium.db('sitting').where({ id: 'sit2' }).update({ state: 'handed_in' });
		expect(await find('reopen given2')).toHaveLength(1);
		expect(await find('reopen given2', DUNMORE)).toEqual([]);
	});
});

describe('each is shown what they may see', () => {
	it.each([
		['a proctor whom the session names', DUNMORE, ['/live/s1?seat=sit1']],
		['a proctor whom it does not', somebody('x', 'proctor', 'quayside'), []],
		['a coordinator elsewhere', somebody('x', 'coordinator', 'lighthouse'), []],
		['a grants officer', somebody('x', 'grants_officer', 'quayside'), []],
		['a coordinator here', somebody('x', 'coordinator', 'quayside'), ['/live/s1?seat=sit1', '/prepare/people/can1']],
		['nobody in particular', { id: 'x', name: 'x', roles: [] }, []]
	])('%s', async (_, staff, hrefs) => {
		expect((await find('given1', staff)).map(({ href }) => href)).toEqual(hrefs);
		const session = await find('numbers', staff);
		expect(session.length > 0).toBe(hrefs.length > 0);
		expect((await find('hold given1', staff)).length > 0).toBe(hrefs.length > 0);
	});
});

it('finds their session for whoever supervises somebody in a window of their own, and who sits in it', async () => {
	const beside = somebody('brandreth', 'proctor', 'quayside');
	await house.otium
		.db('staff')
		.insert({ id: 'brandreth', name: 'Edda Brandreth', sign_in: 'edda', password_hash: '-' });
	expect(await find('given1', beside)).toEqual([]);
	await giveHere(house, {
		kind: 'own_window',
		opens: NINE,
		closes: NINE + 3_600_000,
		proctor: { id: 'brandreth', name: 'Edda Brandreth' }
	});
	expect((await find('given1', beside)).map(({ href }) => href)).toEqual(['/live/s1?seat=sit1']);
	expect((await find('numbers', beside)).map(({ kind }) => kind)).toEqual(['session', 'paper']);
});

it('reads no sitting and no session of years that are over', async () => {
	const { db } = house.otium;
	for (const text of ['given1', 'hold given1', 'numbers'])
		expect(await scansDuring(db, ['sitting'], () => findAnything(db, ODE, text, NINE))).toEqual([]);
});

it('among ten thousand people it asks no more than among few', async () => {
	const { db } = house.otium;
	const asked = async (text: string) => {
		const statements = await askedDuring(db, () => find(text));
		const values = statements.map(({ bindings }) => bindings.length);
		return { statements: statements.length, values: Math.max(...values) };
	};
	const few = await asked('family given');
	const people = Array.from({ length: 10_000 }, (_, i) => ({
		id: `p${i}`,
		number: `LG-${i}`,
		number_folded: `lg${i}`,
		given: `Given${i % 97}`,
		family: `Rower${i % 1013}`,
		group_id: 'watch'
	}));
	await insertMany(db, 'candidate', people);
	const fold = (await db('sitting').where({ id: 'sit0' }).first('fold')).fold;
	await insertMany(
		db,
		'sitting',
		people.map(({ id }) => ({
			id: `sit ${id}`,
			candidate_id: id,
			administration_id: 'winter',
			paper_id: 'numbers',
			session_id: 's1',
			state: 'working',
			fold
		}))
	);
	for (const text of ['given rower', 'g r', 'given9 rower1', 'lg-77', 'hold rower5', 'nobody of this name']) {
		const many = await asked(text);
		expect(many.statements, text).toBeLessThanOrEqual(few.statements);
		// No list of all who were found goes into the next statement either.
		expect(many.values, text).toBeLessThan(100);
		expect((await find(text)).length, text).toBeLessThan(25);
	}
});
