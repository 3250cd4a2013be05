import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dealtCount } from '$core/paper';
import { tallyOf } from '$core/room';
import { accountFor } from '../closing';
import { drawRoom } from '../live';
import { verifyLogbook } from '../logbook';
import { startOtium, type Otium } from '../otium';
import { findSessions } from '../session';
import { DEMO_PAPERS } from './papers';
import { seedDemo } from './seed';

const NOW = Date.parse('2026-12-08T09:42:00Z');
const DAY = '8 Dec';
const dir = mkdtempSync(join(tmpdir(), 'otium-demo-'));
const clock = { at: NOW };
let otium: Otium;

beforeAll(async () => {
	otium = await startOtium({ dataDir: dir, now: () => clock.at, sweep: false, logLevel: 'silent' });
	await seedDemo(otium, clock, NOW);
}, 120_000);
afterAll(async () => {
	await otium.stop();
	rmSync(dir, { recursive: true });
});

describe('the demo day', () => {
	it('has its rooms in every stage: finished, running, about to open, carried over, make-up', async () => {
		const sessions = await findSessions(otium.db, () => {});
		const stage = Object.fromEntries(sessions.map((session) => [session.name, session.endedAt !== null]));
		expect(stage).toEqual({
			'Lights and Shapes · Second Years · 5 Dec': true,
			'Ship Stability · Second Years · 7 Dec': true,
			[`Radio Procedure · Watch B · ${DAY}`]: true,
			[`Tides and Currents · Access group · ${DAY}`]: false,
			[`Tides and Currents · Watch A · ${DAY}`]: false,
			[`Lights and Shapes · Watch B · ${DAY}`]: false,
			[`Radio Procedure, make-up · Watch B · ${DAY}`]: false,
			[`Lights and Shapes · Lighthouse Watch · ${DAY}`]: false,
			[`Coastal Navigation I · Watch A · ${DAY}`]: false,
			[`Ship Stability · Evening and Second Years · ${DAY}`]: false,
			'Coastal Navigation I · Evening · 9 Dec': false
		});
	});

	it('is in the middle of the morning in the Chart Room', async () => {
		const sessions = await findSessions(otium.db, (query) => query.where('room_id', 'chart').where('opens', '<', NOW));
		const room = await drawRoom(otium.db, sessions[0].id, NOW);
		expect(room!.seats).toHaveLength(29);
		const tally = tallyOf(room!.seats);
		expect(tally).toMatchObject({ working: 24, on_hold: 1, handed_in: 2, at_door: 1, expected: 1 });
	});

	it('adds up in every session, with a chain that verifies', async () => {
		for (const session of await findSessions(otium.db, () => {})) {
			const { ledger } = await accountFor(otium.db, session);
			expect({ name: session.name, addsUp: ledger.addsUp, expected: ledger.expected > 0 }).toEqual({
				name: session.name,
				addsUp: true,
				expected: true
			});
		}
		expect((await verifyLogbook(otium.db)).broken).toBeNull();
	});

	it('has at least sixty questions, none of which gives its key away by the place or the name of a choice', () => {
		expect(DEMO_PAPERS.reduce((sum, { paper }) => sum + dealtCount(paper), 0)).toBeGreaterThanOrEqual(60);
		const places = DEMO_PAPERS.flatMap(({ paper }) => paper.parts)
			.flatMap((part) => part.questions)
			.flatMap((question) => (question.kind === 'single' ? [question.answer] : []));
		for (const letter of ['a', 'b', 'c', 'd'])
			expect(places.filter((place) => place === letter).length).toBeGreaterThan(places.length / 10);
	});
});
