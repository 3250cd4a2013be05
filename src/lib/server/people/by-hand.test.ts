import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asItSeems } from '$core/people';
import { DEFAULT_RULES } from '$core/session';
import { drawSitting } from '../live';
import { knock } from '../identity';
import { planMakeUp, arriveAt, buildHouse, COORDINATOR, NINE, openDoor, type House } from '../testing/house';
import { workbook } from '../testing/workbook';
import { addGroup, addPerson, applyImport, checkImport, renameGroup } from '.';

let house: House;
const somebody = (change = {}) => ({
	number: 'DO-2001',
	given: 'Hale',
	family: 'Ito',
	email: null,
	birth: null,
	language: null,
	grade: 'Second Year',
	userName: 'hito',
	elsewhere: false,
	groupIds: ['watch'],
	left: false,
	...change
});

describe('by hand', () => {
	beforeEach(async () => (house = await buildHouse()));
	afterEach(() => house.close());

	it('somebody is added to groups, once, and not with another’s number or a birth still to come', async () => {
		const { otium } = house;
		const added = await addPerson(otium, COORDINATOR, 'quayside', somebody());
		if (!added.ok) throw new Error(added.message);
		expect(await otium.db('candidate').where({ id: added.id }).first()).toMatchObject({
			grade: 'Second Year',
			user_name: 'hito'
		});
		expect(await otium.db('group_member').where({ candidate_id: added.id }).pluck('group_id')).toEqual(['watch']);
		for (const [change, field] of [
			[{}, 'number'],
			[{ number: 'DO-3', birth: '2108-05-31' }, 'birth'],
			[{ number: 'DO-3', groupIds: [] }, 'groupIds'],
			[{ number: '--' }, 'number']
		] as const)
			expect(await addPerson(otium, COORDINATOR, 'quayside', somebody(change))).toMatchObject({ ok: false, field });
		expect(await otium.db('candidate').where({ family: 'Ito' })).toHaveLength(1);
	});

	it('groups are made and renamed, each name once at a site, whatever its capitals', async () => {
		const { otium } = house;
		const id = await addGroup(otium, COORDINATOR, 'quayside', 'Watch C');
		await expect(addGroup(otium, COORDINATOR, 'quayside', ' watch c')).rejects.toMatchObject({ code: 'not_taken' });
		const group = { id, site_id: 'quayside', name: 'Watch C' };
		await renameGroup(otium, COORDINATOR, group, 'Watch D');
		await renameGroup(otium, COORDINATOR, group, 'watch d');
		await expect(renameGroup(otium, COORDINATOR, group, 'Watch A')).rejects.toMatchObject({ code: 'not_taken' });
	});
});

describe('a workbook of people', () => {
	beforeEach(async () => (house = await buildHouse()));
	afterEach(() => house.close());
	it('is read as it is, with whole names split, and imported', async () => {
		const { otium } = house;
		const bytes = workbook([
			['ID', 'Name', 'Class', 'Year'],
			['DO-3001', 'Obi, Adaeze', 'Watch A', 2],
			[null, null, null, null],
			['DO-3002', 'van der Berg, Jan', 'Watch A', 2]
		]);
		const asked = asItSeems('quayside');
		const checked = await checkImport(otium, 'list.csv', bytes, asked);
		if (!checked.ok) throw new Error(checked.refused.message);
		expect(checked.checked.plan.problems).toEqual([]);
		expect(checked.checked.table).toMatchObject({ separator: null, nameOrder: 'comma' });
		expect(checked.checked.table!.split![1]).toEqual({
			whole: 'van der Berg, Jan',
			given: 'Jan',
			family: 'van der Berg'
		});
		const done = await applyImport(otium, COORDINATOR, 'list.csv', bytes, asked, checked.checked.seal);
		expect(done).toMatchObject({ ok: true, applied: { added: 2 } });
		expect(await otium.db('candidate').where({ number: 'DO-3002' }).first('given', 'family', 'grade')).toEqual({
			given: 'Jan',
			family: 'van der Berg',
			grade: '2'
		});
	});

	it('that is damaged is told as what it is', async () => {
		const bytes = workbook([['ID', 'Name']]);
		const broken = await checkImport(
			house.otium,
			'list.xlsx',
			bytes.slice(0, bytes.length - 40),
			asItSeems('quayside')
		);
		expect(broken.ok).toBe(false);
	});
});

describe('who sits elsewhere', () => {
	afterEach(() => house.close());
	const withNetwork = async (rules: object) => {
		house = await buildHouse({
			rules: { door: { ...DEFAULT_RULES.door, networks: ['lab'] }, ...rules } as never
		});
		await house.otium.db('network').insert({ id: 'lab', site_id: 'quayside', name: 'Lab', ranges: '10.0.0.0/8' });
		await house.otium.db('candidate').where({ id: 'can1' }).update({ elsewhere: true });
		return openDoor(house);
	};
	const elsewhere = { admission: 'automatic', anyNetwork: true, snapshotSeconds: 45 };

	it('comes in from anywhere by the rules for elsewhere; whoever is of the room does not', async () => {
		const code = await withNetwork({ elsewhere });
		const met = await arriveAt(house, 1, code);
		expect(met.ok).toBe(true);
		const picture = await drawSitting(house.otium.db, 'sit1', NINE);
		expect(picture).toMatchObject({ state: 'let_in', session: { snapshotSeconds: 45 } });
		expect(picture.told.flatMap(({ lines }) => lines)).toContain('You are let in as soon as you have signed in.');
		await expect(arriveAt(house, 0, code)).rejects.toThrow('off_network');
		// Who is not on the list learns nothing about it from afar.
		const stranger = { code, number: 'DO-9999', family: 'Nobody', address: '127.0.0.1' };
		expect(await knock(house.otium, stranger)).toMatchObject({ ok: false, refusal: { code: 'off_network' } });
	});

	it('is kept to the networks where the rules say so', async () => {
		const code = await withNetwork({ elsewhere: { ...elsewhere, anyNetwork: false } });
		await expect(arriveAt(house, 1, code)).rejects.toThrow('off_network');
	});

	it('is given no seat', async () => {
		house = await buildHouse();
		await house.otium.db('candidate').where({ id: 'can1' }).update({ elsewhere: true });
		await house.otium.db('sitting').update({ state: 'absent' });
		const folds = await house.otium.db('sitting').select('id', 'fold');
		for (const { id, fold } of folds)
			await house.otium
				.db('sitting')
				.where({ id })
				.update({ fold: JSON.stringify({ ...JSON.parse(fold), state: 'absent' }) });
		const next = await planMakeUp(house);
		const seats = await house.otium
			.db('roster')
			.join('sitting', 'sitting.id', 'roster.sitting_id')
			.where('roster.session_id', next)
			.orderBy('candidate_id')
			.select('candidate_id', 'seat');
		expect(seats).toEqual([
			{ candidate_id: 'can0', seat: 'A1' },
			{ candidate_id: 'can1', seat: null },
			{ candidate_id: 'can2', seat: 'A2' }
		]);
	});
});
