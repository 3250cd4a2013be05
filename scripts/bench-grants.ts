import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEFAULT_RULES } from '$core/session';
import { newSitting } from '$core/sitting';
import { instantFromLocal, localDate, MINUTE } from '$core/time';
import { insertMany } from '$lib/server/db';
import { DEMO_PAPERS } from '$lib/server/demo';
import { fitDay, foreseeGrants, grantsOfDay, proposeForAll } from '$lib/server/grants';
import { startOtium, type Otium } from '$lib/server/otium';
import { countOwed } from '$lib/server/owed';

const ODE = { id: 'bench', name: 'Bench', roles: [{ role: 'coordinator' as const, siteId: null }] };
const PEOPLE = 10_000;
const SESSIONS = 200;
const ROOMS = 20;
const DAYS = 7;
const DAY_MS = 24 * 60 * MINUTE;

export type GrantFigures = {
	/** What one grant does to somebody's day, what does not fit and the windows that do; the median of many, ms. */
	foreseeMs: number;
	/** Everyone with a grant on a day of 30 sessions, ms; how many they are. */
	dayMs: number;
	dayPeople: number;
	/** Who is owed a sitting, ms. */
	owedMs: number;
	/** Windows for everyone of that day whose time does not fit, seconds; how many, and for how many one was found. */
	planSeconds: number;
	unfitting: number;
	placed: number;
	/** The longest that another query waited at that time, ms. */
	longestWaitMs: number;
};

/** Measures what grants cost with 10,000 people, 200 sessions over a week, and 20 rooms. */
export async function measureGrants(): Promise<GrantFigures> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-grants-'));
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	try {
		const now = otium.now();
		const day = localDate(now + DAY_MS, 'Europe/London');
		await furnish(otium, day);
		const { db } = otium;
		const some: { id: string; candidate_id: string; session_id: string }[] = await db('sitting')
			.limit(40)
			.orderBy('id');
		const foreseeMs = await median(some, async ({ id, candidate_id, session_id }) => {
			const grant = {
				candidateId: candidate_id,
				scope: { kind: 'session', id: session_id } as const,
				body: { kind: 'extra_time', factor: 2, minutes: 0 } as const,
				reason: '',
				givenBy: 'bench',
				givenAt: now
			};
			const { look } = await foreseeGrants(db, [grant], id, now);
			if (!look) throw new Error('nothing was foreseen');
		});
		const from = performance.now();
		const dayPeople = (await grantsOfDay(db, ODE, { day, now })).length;
		const dayMs = performance.now() - from;
		const owedFrom = performance.now();
		await countOwed(db, ODE, now);
		const owedMs = performance.now() - owedFrom;

		const unfitting = (await fitDay(db, ODE, 'q', day, now)).people.length;
		let longestWaitMs = 0;
		let isPlanning = true;
		const asking = (async () => {
			while (isPlanning) {
				const asked = performance.now();
				await db('site').first('id');
				longestWaitMs = Math.max(longestWaitMs, performance.now() - asked);
				await new Promise((resolve) => setTimeout(resolve, 5));
			}
		})();
		const planFrom = performance.now();
		const plan = await proposeForAll(otium, ODE, 'q', day);
		const planSeconds = (performance.now() - planFrom) / 1_000;
		isPlanning = false;
		await asking;
		return { foreseeMs, dayMs, dayPeople, owedMs, planSeconds, unfitting, placed: plan.places.length, longestWaitMs };
	} finally {
		await otium.stop();
		rmSync(dir, { recursive: true, force: true });
	}
}

/** Fifty to a session, 30 sessions a day in turns; every seventh has double time, for which no window is long enough. */
export async function furnish({ db, now }: Otium, day: string) {
	await db('administration').insert({ id: 'a', name: 'Bench' });
	await db('site').insert({
		id: 'q',
		name: 'Quayside',
		zone: 'Europe/London',
		opens_daily: '08:00',
		closes_daily: '19:00'
	});
	await db('candidate_group').insert({ id: 'g', site_id: 'q', name: 'All' });
	const { paper } = DEMO_PAPERS[0];
	await db('paper').insert({ id: 'p', title: paper.title, version: 1, content: JSON.stringify(paper) });
	await db('paper_allowed').insert({ administration_id: 'a', paper_id: 'p' });
	for (let i = 0; i < ROOMS + 5; i++) {
		if (i < ROOMS)
			await db('room').insert({ id: `r${i}`, site_id: 'q', name: `Room ${i}`, seat_rows: 6, seats_per_row: 10 });
		await db('staff').insert({ id: `k${i}`, sign_in: `k${i}`, name: `Proctor ${i}`, password_hash: '-' });
		await db('staff_role').insert({ staff_id: `k${i}`, role: 'proctor', site_id: 'q' });
	}
	const first = instantFromLocal(day, '09:00', 'Europe/London');
	if (!first.ok) throw new Error('this day has no nine o’clock');
	const rules = JSON.stringify({ ...DEFAULT_RULES, timing: { ...DEFAULT_RULES.timing, atClose: 'cut' } });
	const perDay = Math.ceil(SESSIONS / DAYS);
	const sessions = Array.from({ length: SESSIONS }, (_, i) => {
		const turn = i % perDay;
		const opens = first.at + Math.floor(i / perDay) * DAY_MS + Math.floor(turn / 15) * 150 * MINUTE;
		return { id: `s${i}`, room: `r${turn % 15}`, proctor: `k${turn % 15}`, opens };
	});
	await insertMany(
		db,
		'session',
		sessions.map(({ id, room, opens }) => ({
			id,
			administration_id: 'a',
			room_id: room,
			paper_id: 'p',
			name: `Session ${id}`,
			kind: 'live',
			opens,
			closes: opens + 90 * MINUTE,
			rules
		}))
	);
	await insertMany(
		db,
		'session_proctor',
		sessions.map(({ id, proctor }) => ({ session_id: id, staff_id: proctor }))
	);
	const people = Array.from({ length: PEOPLE }, (_, i) => ({ i, session: sessions[i % SESSIONS] }));
	await insertMany(
		db,
		'candidate',
		people.map(({ i }) => ({
			id: `c${i}`,
			number: `BN-${i}`,
			number_folded: `bn${i}`,
			given: `Ada${i % 97}`,
			family: `Tern${i % 89}`,
			group_id: 'g'
		}))
	);
	await insertMany(
		db,
		'sitting',
		people.map(({ i, session }) => ({
			id: `t${i}`,
			candidate_id: `c${i}`,
			administration_id: 'a',
			paper_id: 'p',
			session_id: session.id,
			state: 'expected',
			fold: JSON.stringify(newSitting(`t${i}`, session.id, now()))
		}))
	);
	await insertMany(
		db,
		'commitment',
		people.map(({ i, session }) => ({
			id: `b${i}`,
			candidate_id: `c${i}`,
			from_at: session.opens + 120 * MINUTE,
			to_at: session.opens + 180 * MINUTE,
			title: 'Class'
		}))
	);
	await insertMany(
		db,
		'grant_given',
		people
			.filter(({ i }) => Math.floor(i / SESSIONS) % 7 === 0)
			.map(({ i }) => ({
				id: `x${i}`,
				candidate_id: `c${i}`,
				scope_kind: 'standing',
				kind: 'extra_time',
				body: JSON.stringify({ kind: 'extra_time', factor: 2, minutes: 0 }),
				reason: 'bench',
				given_by: 'bench',
				given_at: now()
			}))
	);
}

async function median<T>(all: T[], work: (one: T) => Promise<void>): Promise<number> {
	const times: number[] = [];
	for (const one of all) {
		const from = performance.now();
		await work(one);
		times.push(performance.now() - from);
	}
	return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
}
