import { nanoid } from 'nanoid';
import { turnsAt } from '$core/access';
import type { Actor } from '$core/sitting';
import { lastDayEnds, lastEntryOf, localMidnightAfter } from '$core/time';
import { dropLeftovers } from '../archive';
import { deleteOutlived, transact } from '../db';
import { appendToLogbook } from '../logbook';
import { sendWaiting } from '../mail';
import type { House } from '../house';
import { castAnchor } from '../proof';
import { postReleases } from '../results';
import { deleteOldEvidence } from '../grants';
import { deleteOldPhotos, deleteOldSnapshots } from '../pictures';
import { deleteWhatIsDue } from '../retention';
import {
	doorOpensAt,
	endSession,
	findSessions,
	killDoorCode,
	makeDoorCode,
	newReceipt,
	tendOwnWindows,
	type Session
} from '../session';
import { noteWhoIsThere } from '../sign-in';
import { act, endDueBreaks, refreshDerivedColumns } from '../sitting';
import { latest } from '../latest';

const SWEEP_MS = 1_000;
const ALIVE_MS = 5_000;
const TIDY_MS = 10 * 60_000;
const ANCHOR_MS = 60_000;
const SYSTEM: Actor = { role: 'system', id: 'sweep' };

type Step = { name: string; run: (house: House) => Promise<void> };

/**
 * Does what time brings, once a second. Each step stands alone, and within a step each session does: what fails is logged
 * once until it works again, and holds up nothing else.
 */
export class Sweeper {
	/** Which code of a session that turns was last told to those who watch it. */
	#toldPeriods = latest<number>(10_000);
	#failing = new Set<string>();
	#running = false;
	#posting = false;
	#notedAlive = 0;
	#tidied = 0;
	#anchored = 0;
	#anchoring = false;
	#tidying = false;
	#timer: NodeJS.Timeout | null = null;

	constructor(private readonly house: House) {}

	start() {
		this.#timer = setInterval(() => void this.#tick(), SWEEP_MS);
	}

	stop() {
		if (this.#timer) clearInterval(this.#timer);
	}

	/**
	 * Does everything that is due by the clock: it looks at what is, not at what it did last, so that it is right after any
	 * time in which nothing ran.
	 */
	async once(): Promise<void> {
		const steps: Step[] = [
			{ name: 'time up', run: timeUp },
			{ name: 'breaks', run: endDueBreaks },
			{ name: 'pace', run: (house) => house.pace.sweep() },
			{ name: 'doors', run: (house) => this.#each(house, 'doors', sessionsToOpen, openDoor) },
			{ name: 'codes', run: (house) => this.#turnCodes(house) },
			{ name: 'entries', run: (house) => this.#each(house, 'entries', sessionsPastEntry, closeEntry) },
			{ name: 'results', run: async (house) => void (await postReleases(house)) },
			{ name: 'own windows', run: (house) => this.#each(house, 'own windows', sessionsWithWindows, tendWindows) },
			{ name: 'the end of the day', run: (house) => this.#each(house, 'the end of the day', sessionsToEnd, endDay) }
		];
		for (const step of steps) await this.#alone(step.name, () => step.run(this.house));
	}

	async #tick() {
		if (this.#running) return;
		this.#running = true;
		const { presence, now } = this.house;
		await this.#alone('presence', () => presence.sweep());
		await this.once();
		void this.#post();
		if (now() - this.#anchored >= ANCHOR_MS) {
			void this.#anchor();
			await this.#alone('who is there', () => noteWhoIsThere(this.house));
		}
		if (now() - this.#tidied >= TIDY_MS) void this.#tidy();
		if (now() - this.#notedAlive >= ALIVE_MS) {
			this.#notedAlive = now();
			await this.#alone('the sign of life', () => presence.noteAlive());
		}
		this.#running = false;
	}

	/** Mail goes beside the sweep: a mail server that is slow to answer must not hold up time. */
	async #post() {
		if (this.#posting) return;
		this.#posting = true;
		await this.#alone('mail', async () => void (await sendWaiting(this.house)));
		this.#posting = false;
	}

	/** Another machine that is slow to take an anchor must not hold up time either. */
	async #anchor() {
		if (this.#anchoring) return;
		this.#anchoring = true;
		this.#anchored = this.house.now();
		await this.#alone('the anchor of the record', async () => void (await castAnchor(this.house)));
		this.#anchoring = false;
	}

	/** Deleting the answers of a large administration takes many seconds: nobody's time up waits for that. */
	async #tidy() {
		if (this.#tidying) return;
		this.#tidying = true;
		this.#tidied = this.house.now();
		await this.#alone('tidying', () => tidy(this.house));
		this.#tidying = false;
	}

	/** One step, one session: a failure is its own. */
	async #alone(name: string, work: () => Promise<void>): Promise<void> {
		try {
			await work();
			this.#failing.delete(name);
		} catch (error) {
			if (!this.#failing.has(name))
				this.house.log.error({ err: error, step: name }, 'a step of the sweep failed; the next sweep tries again');
			this.#failing.add(name);
		}
	}

	async #each<T extends { id: string }>(
		house: House,
		step: string,
		find: (house: House) => Promise<T[]>,
		work: (house: House, one: T) => Promise<void>
	) {
		for (const one of await find(house)) await this.#alone(`${step} of ${one.id}`, () => work(house, one));
	}

	async #turnCodes({ db, now, hub }: House) {
		const turning = await findSessions(db, (query) => query.whereNotNull('turning_key').whereNotNull('door_code'));
		for (const session of turning) {
			const period = turnsAt(now(), session.rules.door.turnsEveryMinutes);
			if (this.#toldPeriods.get(session.id) === period) continue;
			this.#toldPeriods.set(session.id, period);
			// The new code is the proctor's and the board's news; to candidates it is none.
			hub.changed(session.id);
		}
	}
}

/** One sweep now; tests move time themselves. */
export function sweep(otium: { sweeper: Sweeper }): Promise<void> {
	return otium.sweeper.once();
}

async function timeUp(otium: House) {
	const now = otium.now();
	const due: { id: string }[] = await otium.db('sitting').where('due_at', '<=', now).select('id');
	if (due.length === 0) return;
	const outcomes = await act(
		otium,
		due.map(({ id }) => ({ id: nanoid(), sittingId: id, by: SYSTEM, body: { kind: 'run_out', receipt: newReceipt() } }))
	);
	// Not over after all, as after a grant that came meanwhile: work out anew when it will be.
	const stale = outcomes.filter((outcome) => !outcome.ok).map((outcome) => outcome.sittingId);
	if (stale.length > 0) await transact(otium.db, (trx) => refreshDerivedColumns(trx, stale, now));
}

function sessionsToOpen({ db, now }: House): Promise<Session[]> {
	// No door opens more than a day before its session.
	return findSessions(db, (query) =>
		query
			.whereNull('door_code')
			.whereNull('ended_at')
			.where('opens', '<=', now() + 86_400_000)
	);
}

async function openDoor({ db, now, hub }: House, session: Session) {
	if (now() < doorOpensAt(session) || now() >= lastsUntil(session)) return;
	await transact(db, (trx) => makeDoorCode(trx, session, SYSTEM, now()));
	await hub.sessionChanged(session.id);
}

/** Last entry has passed: whoever has not come is told to the proctor by name, once. */
async function sessionsPastEntry({ db, now }: House): Promise<Session[]> {
	const open = await findSessions(db, (query) =>
		query.whereNull('entry_closed_at').whereNull('ended_at').where('opens', '<=', now())
	);
	return open.filter((session) => {
		const closes = lastEntryOf(session.rules.timing, session.window);
		return closes !== null && now() > closes;
	});
}

async function closeEntry(otium: House, session: Session) {
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		const missing = await trx('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: session.id, state: 'expected' })
			.select('candidate.number');
		await trx('session').where({ id: session.id }).update({ entry_closed_at: now });
		const body = { notArrived: missing.map((row) => row.number) };
		await appendToLogbook(trx, [{ at: now, by: SYSTEM, kind: 'entry_closed', sessionId: session.id, body }]);
	});
	await otium.hub.sessionChanged(session.id);
}

/**
 * Ended sessions in which somebody's own window may want something done: they have not finished, the session still has
 * its code, or the window was given after the end.
 */
async function sessionsWithWindows(otium: House): Promise<{ id: string }[]> {
	return otium
		.db('grant_given')
		.join('session', 'session.id', 'grant_given.scope_id')
		.join('sitting', (join) =>
			join.on('sitting.session_id', 'session.id').andOn('sitting.candidate_id', 'grant_given.candidate_id')
		)
		.where({ 'grant_given.kind': 'own_window', 'grant_given.scope_kind': 'session' })
		.whereNotNull('session.ended_at')
		.where('grant_given.closes', '>', otium.now() - 7 * 86_400_000)
		.where((any) =>
			any
				.whereIn('sitting.state', ['expected', 'at_door', 'let_in', 'working', 'on_hold'])
				.orWhereNotNull('session.door_code')
				.orWhere('grant_given.given_at', '>=', otium.db.ref('session.ended_at'))
		)
		.distinct('session.id');
}

function tendWindows(otium: House, { id }: { id: string }): Promise<void> {
	return tendOwnWindows(otium, id, SYSTEM);
}

/** How long a session that nobody ended waits for those who still work past midnight. */
const AFTER_MIDNIGHT_MS = 3 * 3_600_000;

function dayEndsAt(session: Session): number {
	return session.codeDiesAt ?? localMidnightAfter(session.window.opens, session.site.zone);
}

/** When its last day is over; that of a code which was made later counts too. */
function lastsUntil(session: Session): number {
	return Math.max(dayEndsAt(session), lastDayEnds(session.window, session.site.zone));
}

/**
 * At local midnight the code is dead: on a further day of its window a session has another. One that somebody forgot ends
 * itself after its last day, later if somebody is still at work in it.
 */
async function sessionsToEnd({ db, now }: House): Promise<Session[]> {
	const started = await findSessions(db, (query) => query.whereNull('ended_at').where('opens', '<=', now()));
	return started.filter((session) => now() >= dayEndsAt(session));
}

async function endDay(otium: House, session: Session) {
	const now = otium.now();
	if (now < lastsUntil(session)) {
		await transact(otium.db, (trx) => makeDoorCode(trx, session, SYSTEM, now));
		return otium.hub.sessionChanged(session.id);
	}
	if (session.doorCode !== null) {
		await transact(otium.db, (trx) => killDoorCode(trx, session, SYSTEM, now));
		await otium.hub.sessionChanged(session.id);
	}
	const atWork = await otium.db('sitting').where({ session_id: session.id, state: 'working' }).first('id');
	if (!atWork || now >= lastsUntil(session) + AFTER_MIDNIGHT_MS) await endSession(otium, session.id, SYSTEM);
}

/** What has had its time: pictures, remembered answers to commands, refusals long settled, devices long gone. */
export async function tidy(otium: House): Promise<void> {
	const gone = {
		snapshots: await deleteOldSnapshots(otium),
		evidence: await deleteOldEvidence(otium),
		photos: await deleteOldPhotos(otium),
		...(await deleteWhatIsDue(otium))
	};
	const at = otium.now();
	const entries = Object.entries(gone)
		.filter(([, count]) => count > 0)
		.map(([what, count]) => ({ at, by: SYSTEM, kind: 'deleted_in_time', body: { what, count } }));
	if (entries.length > 0) await transact(otium.db, (trx) => appendToLogbook(trx, entries));
	await deleteOutlived(otium.db, otium.now());
	await dropLeftovers(otium.db, otium.dataDir);
}
