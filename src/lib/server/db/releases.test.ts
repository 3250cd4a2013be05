import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { accountFor } from '../closing';
import { verifyLogbook } from '../logbook';
import { startOtium, type Otium } from '../otium';
import { findSession } from '../session';
import { loadSitting } from '../sitting';

const NINE = Date.parse('2026-12-08T09:00:00Z');
let dir: string;
let otium: Otium;

/** A small data folder as release 0.5.0 left it, opened by this one. */
beforeEach(async () => {
	dir = mkdtempSync(join(tmpdir(), 'otium-release-'));
	const old = new Database(join(dir, 'otium.sqlite'));
	// The dump fills its tables in its own order.
	old.pragma('foreign_keys = OFF');
	old.exec(readFileSync(new URL('./releases/0.5.0.sql', import.meta.url), 'utf8'));
	// As a server leaves it that is killed while it brings its data up to date.
	old.exec('UPDATE knex_migrations_lock SET is_locked = 1');
	old.close();
	otium = await startOtium({ dataDir: dir, now: () => NINE + 40 * MINUTE, sweep: false, logLevel: 'silent' });
});
afterEach(async () => {
	await otium.stop();
	rmSync(dir, { recursive: true });
});

const one = async (id: string) => (await loadSitting(otium.db, id, NINE + 40 * MINUTE))!;

describe('a data folder of 0.5.0', () => {
	it('gives each sitting its own clock: the room’s, where the room was started', async () => {
		expect((await one('sit0')).sitting).toMatchObject({ beganAt: NINE + MINUTE, clockStartedAt: NINE });
		expect((await one('sit3')).sitting).toMatchObject({ beganAt: null, clockStartedAt: null });
	});

	it('knows from the logbook which sessions a sitting was in, so that minutes given back come with it', async () => {
		const moved = await one('sit0');
		expect(moved.sitting.visits).toMatchObject([
			{ sessionId: 's1', begunBefore: false, begunWhenLeaving: true },
			{ sessionId: moved.session.id, to: null, begunBefore: true }
		]);
		// Twenty of sixty minutes were worked, and ten given back before it was carried over.
		expect(moved.reckoning.remaining! / MINUTE).toBe(50);
	});

	it('keeps what a hold gave back', async () => {
		// Started at nine with the room, held from 09:20, carried over from the hold.
		expect((await one('sit2')).reckoning.remaining! / MINUTE).toBe(40);
	});

	it('has ledgers that add up and an unbroken chain', async () => {
		for (const id of await otium.db('session').pluck('id')) {
			const { ledger } = await accountFor(otium.db, (await findSession(otium.db, id))!);
			expect(ledger).toMatchObject({ addsUp: true });
		}
		expect(await verifyLogbook(otium.db)).toMatchObject({ broken: null });
	});

	it('keeps every answer', async () => {
		expect(await otium.db('answer')).toHaveLength(3);
		expect(await otium.db('answer_standing')).toHaveLength(3);
	});
});
