import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StaffMember, StaffRole } from '$core/access';
import type { HandPlan } from '$core/by-hand';
import { MINUTE } from '$core/time';
import { seedWithAutumn } from '../demo';
import { startOtium, type Otium } from '../otium';
import { sweep } from '../sweep';
import { drawToday, waitingFor, type Today } from '.';

const NOW = Date.parse('2026-12-08T09:42:00Z');
const dir = mkdtempSync(join(tmpdir(), 'otium-today-'));
const clock = { at: NOW };
let otium: Otium;
let today: Today;
const ode: StaffMember = { id: 'x', name: 'x', roles: [{ role: 'coordinator', siteId: null }] };

beforeAll(async () => {
	otium = await startOtium({ dataDir: dir, now: () => clock.at, sweep: false, logLevel: 'silent' });
	await seedWithAutumn(otium, clock, NOW);
	today = await drawToday(otium.db, ode, 'Europe/London', NOW);
}, 120_000);
afterAll(async () => {
	await otium.stop();
	rmSync(dir, { recursive: true });
});
const bar = (room: string, title: string) =>
	today.lanes.find((lane) => lane.room === room)!.bars.find((one) => one.title === title)!;

describe('the day as a ribbon', () => {
	it('has a lane for each room in use, and hours that hold every bar', () => {
		expect(today.lanes.map((lane) => lane.room).sort()).toEqual([
			'Boat Shed',
			'Chart Room',
			'Lamp Room',
			'Quiet Room',
			'Signal Loft'
		]);
		const edges = today.lanes.flatMap((lane) => lane.bars.flatMap((one) => [one.door, one.lastEnds]));
		expect(today.from).toBeLessThanOrEqual(Math.min(...edges));
		expect(today.to).toBeGreaterThanOrEqual(Math.max(...edges));
		expect(today.from % (60 * MINUTE)).toBe(0);
	});

	it('draws the door’s lead, the body by the limit, and a tail for those who finish later', () => {
		const running = bar('Chart Room', 'Tides and Currents');
		expect(running).toMatchObject({
			stage: 'running',
			door: NOW - 57 * MINUTE,
			opens: NOW - 42 * MINUTE,
			ends: NOW + 18 * MINUTE
		});
		// Time and a half of an hour, from nine o'clock and a few seconds.
		expect(running.lastEnds).toBeGreaterThan(NOW + 47 * MINUTE);
		expect(bar('Signal Loft', 'Radio Procedure')).toMatchObject({ stage: 'ended', line: '15 done · 2 absent' });
		expect(bar('Boat Shed', 'Ship Stability')).toMatchObject({
			stage: 'planned',
			needsProctor: true,
			line: '37 expected'
		});
		expect(bar('Quiet Room', 'Radio Procedure').kind).toBe('make_up');
	});

	it('counts everyone once', () => {
		expect(Object.values(today.tally).reduce((sum, count) => sum + count, 0)).toBe(today.expected);
	});
});

describe('what waits', () => {
	const somebody = (role: StaffRole, id = role): StaffMember => ({ id, name: id, roles: [{ role, siteId: null }] });
	const keysFor = async (staff: StaffMember, at = NOW) =>
		(await waitingFor(otium.db, staff, at)).map(({ key }) => key.split(' ')[0]);

	it('is named for each role, and for nobody what is not theirs', async () => {
		expect(await keysFor(somebody('grants_officer'))).toEqual(['owed', 'requests']);
		expect(await keysFor(somebody('closing_officer'))).toContain('incidents');
		expect(await keysFor(ode)).toEqual(expect.arrayContaining(['owed', 'requests', 'incidents']));
		for (const role of ['proctor', 'technician', 'author'] as const) expect(await keysFor(somebody(role))).toEqual([]);
	});

	it('counts the answers that a marker is named for, until they are marked', async () => {
		const bodies: string[] = await otium.db('hand_plan').pluck('body');
		const [{ id }] = bodies.flatMap((body) => (JSON.parse(body) as HandPlan).markers);
		expect(await keysFor(somebody('marker', id as StaffRole))).toEqual(['marks']);
		expect(await keysFor(somebody('marker', 'nobody' as StaffRole))).toEqual([]);
	});

	it('an administration whose days are over waits to be closed, and no longer once it is', async () => {
		const afterwards = NOW + 200 * 24 * 60 * MINUTE;
		const officer = somebody('closing_officer');
		const waiting = async () =>
			(await waitingFor(otium.db, officer, afterwards)).map(({ key }) => key).filter((key) => key.startsWith('close '));
		// The day of the demo belongs to the other, which stays open.
		const earlier = (await waiting()).find((key) => key !== 'close winter')!;
		const administration_id = earlier.split(' ')[1];
		await otium
			.db('closing')
			.insert({ administration_id, at: NOW, by: 'x', archive: '', sha256: '', bytes: 0, counts: '{}', head: '' });
		expect(await waiting()).toEqual(['close winter']);
	});
});

describe('what comes next', () => {
	it('is told in a sentence, with what is ready', () => {
		expect(today.next).toMatchObject({ title: 'Lights and Shapes', room: 'Signal Loft', opens: NOW + 48 * MINUTE });
		expect(today.next!.sentence.map((part) => part.text).join('')).toContain(
			'17 candidates of Watch B sit Lights and Shapes (version 3) in the Signal Loft'
		);
		expect(today.next!.ready.map((line) => [line.state, line.text])).toEqual([
			['done', 'Lights and Shapes, version 3'],
			['done', 'Proctor Rhys Dunmore'],
			['done', '17 candidates, 18 seats'],
			['done', '2 with extra time may finish, the last by 12:00'],
			['done', '17 sittings allotted, 70 left after'],
			// Rhys Dunmore is still with those of Watch A who came late or have more time.
			['open', 'Two rooms at once'],
			// Two of them are expected in the make-up of Radio Procedure at the same time.
			['open', 'Clashes with another commitment'],
			// It is watched, so devices should have been tried.
			['open', '0 of 17 devices checked'],
			['open', 'No mail sent'],
			['done', 'No door code yet'],
			['open', 'Late arrivals have less time']
		]);
	});

	it('names who was carried over, with the time they have left and where they go on', () => {
		expect(today.carried).toMatchObject([
			{
				name: 'Nessa Ferro',
				paper: 'Ship Stability',
				minutesLeft: 26,
				joins: { room: 'Boat Shed', opens: Date.parse('2026-12-08T14:00:00Z'), zone: 'Europe/London' }
			}
		]);
		// Of the seven that she came to; a question may have been left blank.
		expect([4, 5, 6, 7]).toContain(today.carried[0].answered);
	});

	it('is nothing for a proctor whom no session names', async () => {
		const nobody: StaffMember = { id: 'nobody', name: 'x', roles: [{ role: 'proctor', siteId: 'quayside' }] };
		expect(await drawToday(otium.db, nobody, 'Europe/London', NOW)).toMatchObject({
			lanes: [],
			next: null,
			carried: [],
			expected: 0
		});
	});
});

describe('sessions that nobody ended', () => {
	it('are told for two days after they ended by themselves, to those who may see them', async () => {
		expect(today.endedByItself).toEqual([]);
		clock.at = NOW + 20 * 60 * MINUTE;
		await sweep(otium);
		const told = async (staff = ode) => (await drawToday(otium.db, staff, 'Europe/London', clock.at)).endedByItself;
		const [first] = (await told()).filter(({ room }) => room === 'Chart Room');
		expect(first).toMatchObject({ title: 'Tides and Currents', at: clock.at });
		expect(await told({ id: 'nobody', name: 'x', roles: [{ role: 'proctor', siteId: null }] })).toEqual([]);
		clock.at += 49 * 60 * MINUTE;
		expect((await told()).filter(({ room }) => room === 'Chart Room')).toEqual([]);
	});
});
