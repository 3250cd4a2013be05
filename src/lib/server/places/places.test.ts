import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import { SHIPPED_SHEETS } from '$core/rules';
import { hashToken, knock, listStaff, saveStaff } from '../identity';
import { staffByToken } from '../sign-in';
import { copySheet, findSheet, foreseeApplication, saveSheet, withdrawSheet } from '../rules';
import { administrationOf, blankInput, findDraft, planSession, saveDraft, saveSession } from '../session';
import { readinessOf } from '../readiness';
import { findSession } from '../session';
import { buildHouse, COORDINATOR, NINE, openDoor, type House } from '../testing/house';
import {
	administrationOn,
	makeAdministration,
	findAdministration,
	listNetworks,
	listRooms,
	networksOf,
	removeNetwork,
	saveAdministration,
	saveNetwork,
	saveRoom
} from '.';

let house: House;
beforeEach(async () => (house = await buildHouse()));
afterEach(() => house.close());
const db = () => house.otium.db;

describe('rooms', () => {
	it('count the seats in use, tell who loses theirs, and refuse the second of two editors', async () => {
		const [room] = await listRooms(db(), null);
		expect([room.seats, room.sessions]).toEqual([200, 1]);
		const change = { ...room, plan: { outOfUse: ['A1', 'Z99'], apart: ['B1'] } };
		const saved = await saveRoom(house.otium, COORDINATOR, change);
		expect(saved).toMatchObject({
			ok: true,
			revision: 2,
			notes: [expect.stringMatching(/1 person keeps a seat that is not in use now/)]
		});
		expect((await listRooms(db(), null))[0]).toMatchObject({ seats: 199, plan: { outOfUse: ['A1'], apart: ['B1'] } });
		expect(await saveRoom(house.otium, COORDINATOR, change)).toMatchObject({
			ok: false,
			message: expect.stringMatching(/Somebody else/)
		});
		expect(await saveRoom(house.otium, COORDINATOR, { ...change, id: null })).toMatchObject({
			ok: false,
			message: expect.stringMatching(/already/)
		});
	});

	it('seats by the plan: out of use for nobody, apart for those who are to sit apart', async () => {
		const [room] = await listRooms(db(), null);
		await saveRoom(house.otium, COORDINATOR, {
			...room,
			rows: 1,
			perRow: 5,
			plan: { outOfUse: ['A2'], apart: ['A5'] }
		});
		await db()('grant_given').insert({
			id: 'g',
			candidate_id: 'can2',
			scope_kind: 'standing',
			kind: 'separate_room',
			body: '{"kind":"separate_room"}',
			reason: 'x',
			given_by: 'ode',
			given_at: NINE
		});
		await db()('paper').insert({
			id: 'letters',
			title: 'Letters',
			version: 1,
			content: (await db()('paper').first('content')).content
		});
		await db()('paper_allowed').insert({ administration_id: 'winter', paper_id: 'letters' });
		const input = {
			...blankInput('Europe/London', NINE),
			paperId: 'letters',
			groupIds: ['watch'],
			roomId: 'chart',
			date: '2026-12-08',
			time: '14:00',
			until: '15:15'
		};
		const saved = await saveSession(house.otium, COORDINATOR, 'winter', input);
		if (!saved.ok) throw new Error(saved.message);
		const seats = await db()('roster')
			.join('sitting', 'sitting.id', 'roster.sitting_id')
			.where('roster.session_id', saved.ids[0])
			.orderBy('candidate_id')
			.pluck('seat');
		expect(seats).toEqual(['A1', 'A3', 'A5']);
	});
});

describe('networks', () => {
	it('are read, cleared of host bits, and tell where one is', async () => {
		expect(
			await saveNetwork(house.otium, COORDINATOR, {
				id: null,
				siteId: 'quayside',
				name: 'Labs',
				ranges: '10.20.3.4/16, nonsense'
			})
		).toMatchObject({ ok: false, message: expect.stringMatching(/nonsense/) });
		await saveNetwork(house.otium, COORDINATOR, { id: null, siteId: 'quayside', name: 'Labs', ranges: '10.20.3.4/16' });
		const networks = await listNetworks(db(), ['quayside']);
		expect(networks).toMatchObject([{ name: 'Labs', ranges: ['10.20.0.0/16'] }]);
		expect(networksOf(networks, '10.20.9.9').map((one) => one.name)).toEqual(['Labs']);
		expect(networksOf(networks, '10.21.0.1')).toEqual([]);
	});

	it('hold at the door: from elsewhere nobody enters, and a network that is gone lets nobody in', async () => {
		const made = await saveNetwork(house.otium, COORDINATOR, {
			id: null,
			siteId: 'quayside',
			name: 'Labs',
			ranges: '10.20.0.0/16'
		});
		const id = made.ok ? made.id : '';
		const code = await openDoor(house);
		await db()('session')
			.where({ id: 's1' })
			.update({ rules: JSON.stringify({ ...DEFAULT_RULES, door: { ...DEFAULT_RULES.door, networks: [id] } }) });
		const typed = { code, number: 'DO-1001', family: 'Family0' };
		expect(await knock(house.otium, { ...typed, address: '10.21.0.1' })).toMatchObject({
			ok: false,
			refusal: { code: 'off_network' }
		});
		expect(await knock(house.otium, { ...typed, address: '10.20.0.1' })).toMatchObject({ ok: true });
		await removeNetwork(house.otium, COORDINATOR, id);
		expect(await knock(house.otium, { ...typed, address: '10.20.0.1' })).toMatchObject({
			ok: false,
			refusal: { code: 'off_network' }
		});
	});
});

describe('the door’s other ways', () => {
	const withDoor = (door: object) =>
		db()('session')
			.where({ id: 's1' })
			.update({ rules: JSON.stringify({ ...DEFAULT_RULES, door: { ...DEFAULT_RULES.door, ...door } }) });

	it('names and birthday, in either order of names; two who fit are nobody', async () => {
		const code = await openDoor(house);
		await withDoor({ identity: 'names_and_birthday' });
		await db()('candidate').where({ id: 'can0' }).update({ birth: '2007-05-31' });
		const typed = { code, number: '', family: 'Family0', address: '127.0.0.1' };
		expect(await knock(house.otium, typed)).toMatchObject({ refusal: { code: 'names_needed' } });
		expect(await knock(house.otium, { ...typed, given: 'given0', birthday: '31-05' })).toMatchObject({ ok: true });
		expect(await knock(house.otium, { ...typed, given: 'FAMILY0', family: 'Gíven0', birthday: '31-05' })).toMatchObject(
			{ ok: true }
		);
		expect(await knock(house.otium, { ...typed, given: 'Given0', birthday: '30-05' })).toMatchObject({
			refusal: { code: 'identity_unknown' }
		});
	});

	it('a code that turns: the one of now opens, an old one does not', async () => {
		const { turningCode } = await import('$core/access');
		await openDoor(house);
		await withDoor({ code: 'turning', turnsEveryMinutes: 5 });
		const key = 'JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP';
		await db()('session').where({ id: 's1' }).update({ turning_key: key });
		const typed = (minutes: number) => ({
			code: turningCode(key, house.clock.at + minutes * 60_000, 5),
			number: 'DO-1001',
			family: 'Family0',
			address: '127.0.0.1'
		});
		expect(await knock(house.otium, typed(0))).toMatchObject({ ok: true });
		expect(await knock(house.otium, typed(-12))).toMatchObject({ refusal: { code: 'code_unknown' } });
	});
});

describe('the administration', () => {
	it('allots no more than was bought and no less than is used', async () => {
		const now = (await findAdministration(db(), 'winter'))!;
		const sites = (allotted: number) => [{ id: 'quayside', opens: null, closes: null, allotted }];
		const save = (bought: number, allotted: number) =>
			saveAdministration(house.otium, COORDINATOR, 'winter', { ...now, bought, sites: sites(allotted) });
		expect(await save(10, 11)).toMatchObject({ ok: false, message: expect.stringMatching(/1 too many/) });
		expect(await save(10, 2)).toMatchObject({ ok: false, message: expect.stringMatching(/uses 3 sittings already/) });
		expect(await save(10, 5)).toEqual({ ok: true });
		expect((await findAdministration(db(), 'winter'))!.sites[0]).toMatchObject({ allotted: 5, used: 3 });
	});

	it('a second one starts with what the first allows, has its own days and stock, and a day finds its own', async () => {
		const made = await makeAdministration(house.otium, COORDINATOR, 'Spring');
		if (!made.ok) throw new Error(made.message);
		const spring = (await findAdministration(db(), made.id))!;
		expect(spring.papers.find((paper) => paper.id === 'numbers')!.everywhere).toBe(true);
		expect([spring.bought, spring.sites.map((site) => site.used)]).toEqual([null, [0]]);
		const winter = (await findAdministration(db(), 'winter'))!;
		const dated = (id: string, opensOn: string | null, closesOn: string | null) =>
			saveAdministration(house.otium, COORDINATOR, id, {
				...(id === 'winter' ? winter : spring),
				opensOn,
				closesOn,
				bought: id === 'winter' ? 3 : 100
			});
		// Without days the first that was made takes every day, as in a house with one.
		expect((await administrationOn(db(), '2027-04-20'))!.id).toBe('winter');
		expect(await dated('winter', '2026-11-01', '2026-12-20')).toEqual({ ok: true });
		expect(await dated(made.id, '2027-04-01', '2027-05-31')).toEqual({ ok: true });
		expect((await administrationOn(db(), '2026-12-20'))!.id).toBe('winter');
		expect((await administrationOn(db(), '2027-04-01'))!.id).toBe(made.id);
		// A day between belongs to neither; the latest is offered, and its dates then say that it does not fit.
		expect((await administrationOn(db(), '2027-02-01'))!.id).toBe(made.id);

		const input = {
			...blankInput('Europe/London', NINE),
			paperId: 'numbers',
			groupIds: ['watch'],
			roomId: 'chart',
			date: '2027-04-20',
			time: '09:00',
			until: '10:15'
		};
		const belongs = await administrationOf(db(), input, null);
		expect(belongs!.id).toBe(made.id);
		// They sit it in Winter; in Spring they are expected anew, and nothing of Winter's stock is used.
		const planned = await planSession(db(), made.id, input, NINE);
		expect(planned.ok && planned.plan.facts.candidates).toBe(3);
		expect(planned.ok && planned.plan.findings.map((finding) => finding.code)).not.toContain('days');
		expect((await administrationOf(db(), { ...input, administrationId: 'winter' }, null))!.id).toBe('winter');
		// A planned session stays where it is, whatever its form says.
		expect((await administrationOf(db(), { ...input, administrationId: made.id }, 's1'))!.id).toBe('winter');
	});

	it('a paper that is allowed nowhere can’t be planned', async () => {
		const now = (await findAdministration(db(), 'winter'))!;
		await saveAdministration(house.otium, COORDINATOR, 'winter', {
			...now,
			papers: [{ id: 'numbers', everywhere: false, siteIds: [], groupIds: [] }]
		});
		const input = {
			...blankInput('Europe/London', NINE),
			paperId: 'numbers',
			groupIds: ['watch'],
			roomId: 'chart',
			date: '2026-12-08',
			time: '14:00'
		};
		const planned = await planSession(db(), 'winter', input, NINE);
		expect(planned.ok && planned.plan.findings.map((finding) => finding.code)).toContain('not_allowed');
	});
});

describe('rule sheets', () => {
	it('those that ship stay as they are; a copy is changed, by one editor at a time', async () => {
		const copied = await copySheet(house.otium, COORDINATOR, 'remote', null);
		const id = copied.ok ? copied.id : '';
		expect((await findSheet(db(), id))!.rules).toEqual(SHIPPED_SHEETS.find((sheet) => sheet.id === 'remote')!.rules);
		const change = { id, revision: 1, name: 'Remote, ours', note: '', rules: DEFAULT_RULES };
		expect(await saveSheet(house.otium, COORDINATOR, change)).toMatchObject({ ok: true, revision: 2 });
		expect(await saveSheet(house.otium, COORDINATOR, change)).toMatchObject({
			ok: false,
			message: expect.stringMatching(/Somebody else/)
		});
		expect(await saveSheet(house.otium, COORDINATOR, { ...change, id: 'remote' })).toMatchObject({
			ok: false,
			message: expect.stringMatching(/shipped/)
		});
		expect(await withdrawSheet(house.otium, COORDINATOR, id)).toMatchObject({ ok: true });
		expect(await findSheet(db(), id)).toBeNull();
	});

	it('tell what they would change in a session, and leave an open door alone', async () => {
		const sheet = (await findSheet(db(), 'open-book'))!;
		const [before] = await foreseeApplication(db(), sheet, ['s1'], NINE - 60 * 60_000);
		expect(before.refused).toBeNull();
		expect(before.changes.map((change) => change.setting.path)).toContain('timing.limitMinutes');
		const [open] = await foreseeApplication(db(), sheet, ['s1'], NINE);
		expect(open.refused).toBe('its door is open');
	});
});

describe('staff', () => {
	it('whoever loses a role is signed out; nobody shuts themselves out; a sign-in is one person’s', async () => {
		await db()('staff_session').insert({
			token_hash: hashToken('t'),
			staff_id: 'dunmore',
			expires_at: NINE + 1e9,
			seen_at: NINE
		});
		const roles = [{ role: 'proctor' as const, siteId: 'quayside' }];
		const change = { id: 'dunmore', name: 'Rhys Dunmore', signIn: 'dunmore', email: null, password: null, roles };
		expect(await saveStaff(house.otium, COORDINATOR, change)).toMatchObject({ ok: true });
		expect(await staffByToken(house.otium, 't')).toBeNull();
		expect(await saveStaff(house.otium, COORDINATOR, { ...change, signIn: 'ODE' })).toMatchObject({
			ok: false,
			message: expect.stringMatching(/signs in as/)
		});
		expect(await saveStaff(house.otium, COORDINATOR, { ...change, id: 'ode', signIn: 'ode' })).toMatchObject({
			ok: false,
			message: expect.stringMatching(/shut yourself out/)
		});
		expect((await listStaff(db())).find((one) => one.id === 'dunmore')!.roles).toEqual(roles);
	});
});

describe('drafts', () => {
	const ODE = { id: 'ode', name: 'x', roles: [] };
	it('are kept however unfinished, are one’s own, and two tabs do not overwrite each other', async () => {
		const first = await saveDraft(db(), ODE, { id: null, revision: 0, title: 'A', input: { half: true } }, NINE);
		const id = first.ok ? first.id : '';
		expect(await findDraft(db(), ODE, id)).toMatchObject({ input: { half: true } });
		expect(await findDraft(db(), { ...ODE, id: 'dunmore' }, id)).toBeNull();
		expect(await saveDraft(db(), ODE, { id, revision: 1, title: 'B', input: {} }, NINE)).toMatchObject({
			ok: true,
			revision: 2
		});
		expect(await saveDraft(db(), ODE, { id, revision: 1, title: 'C', input: {} }, NINE)).toMatchObject({
			ok: false,
			draft: { title: 'B' }
		});
	});
});

describe('readiness', () => {
	it('is worked out from how things stand, with who can settle what', async () => {
		const session = (await findSession(db(), 's1'))!;
		const lines = (await readinessOf(db(), session, NINE - 60 * 60_000))!.lines;
		const line = (key: string) => lines.find((one) => one.key === key);
		expect(line('proctor')).toMatchObject({ state: 'done', text: 'Proctor Rhys Dunmore' });
		expect(line('mail')).toMatchObject({ state: 'open', who: 'a coordinator' });
		await db()('session_proctor').delete();
		await db()('commitment').insert({
			id: 'c',
			candidate_id: 'can1',
			from_at: NINE + 30 * 60_000,
			to_at: NINE + 60 * 60_000,
			title: 'Chartwork'
		});
		const again = (await readinessOf(db(), (await findSession(db(), 's1'))!, NINE - 60 * 60_000))!.lines;
		expect(again.filter((one) => one.state !== 'done').map((one) => one.key)).toEqual(['proctor', 'K5 0', 'mail']);
	});

	it('asks for no mail and no rehearsal of a session that has begun, but of one over days', async () => {
		const keys = async (at: number) => {
			const { lines } = (await readinessOf(db(), (await findSession(db(), 's1'))!, at))!;
			return lines.map(({ key }) => key).filter((key) => ['devices', 'mail'].includes(key));
		};
		expect(await keys(NINE - 1)).toEqual(['devices', 'mail']);
		expect(await keys(NINE)).toEqual([]);
		await db()('session')
			.where({ id: 's1' })
			.update({ closes: NINE + 3 * 86_400_000 });
		expect(await keys(NINE)).toEqual(['devices', 'mail']);
	});

	it('says when a door code comes, and that an old one is over', async () => {
		const code = async (at: number) => {
			const { lines } = (await readinessOf(db(), (await findSession(db(), 's1'))!, at))!;
			const { text, detail } = lines.find(({ key }) => key === 'code')!;
			return [text, detail];
		};
		expect(await code(NINE - 60 * 60_000)).toEqual(['No door code yet', 'is created at 08:45']);
		expect(await code(NINE)).toEqual(['Door code expired', undefined]);
	});
});
