import {
	circumstances,
	decide,
	evolve,
	refusal,
	type Actor,
	type Command,
	type CommandBody,
	type Context,
	type Outcome,
	type SittingState
} from '$core/sitting';
import { insertMany, type Query, transact } from '../db';
import { appendToLogbook, type NewEntry } from '../logbook';
import type { Acting } from '../house';
import { derivedColumns } from './derived-columns';
import { loadSitting, loadSittings, questionFor, reckonFor, type Loaded } from './load';
import { workOf } from './work';

/** One command for one sitting. `facts` are what only the caller can know: what was typed, what was proven. */
export type Request = { id: string; sittingId: string; by: Actor; body: CommandBody; facts?: Partial<Context> };

/**
 * The one way in which anything changes a sitting: load, decide, append what happened, update the row that lists read,
 * commit, and only then tell whoever watches. All requests go into one transaction; each is decided by itself, so that
 * one refusal does not undo the others.
 */
export async function act(otium: Acting, requests: Request[]): Promise<Outcome[]> {
	const touched: Touched = new Map();
	const outcomes = await transact(otium.db, (trx) => actIn(trx, otium.now(), requests, touched));
	tell(otium, touched);
	return outcomes;
}

/** What ends the work binds what was handed in, so that a receipt can be held against it. */
const ENDS_WORK = new Set<CommandBody['kind']>(['hand_in', 'run_out', 'take_from_paper']);

/** Sessions and the sittings in them that have changed; told to the hub after the commit. */
export type Touched = Map<string, Set<string>>;

export function tell(otium: Acting, touched: Touched) {
	for (const [sessionId, sittingIds] of touched) otium.hub.changed(sessionId, sittingIds);
}

/** As `act`, within a transaction that does more. Call `tell` with `touched` after the commit. */
export async function actIn(trx: Query, now: number, asked: Request[], touched: Touched): Promise<Outcome[]> {
	const requests = asked.map(inOwnName);
	const ids = [...new Set(requests.map((request) => request.sittingId))];
	const loaded = new Map((await loadSittings(trx, ids, now)).map((one) => [one.sitting.id, one]));
	const answers = await earlierAnswers(trx, requests);
	const works = await workOf(
		trx,
		requests.filter(({ body }) => ENDS_WORK.has(body.kind)).map((one) => one.sittingId)
	);
	const entries: NewEntry[] = [];
	const changed = new Set<string>();
	const departures: Departure[] = [];
	const outcomes: Outcome[] = [];

	for (const request of requests) {
		const known = answers.get(request.id);
		if (known) {
			outcomes.push(known.asked === askedOf(request) ? known.outcome : refused(request, 'gone'));
			continue;
		}
		const one = loaded.get(request.sittingId);
		if (!one) {
			outcomes.push(refused(request, 'gone'));
			continue;
		}
		const work = works.get(request.sittingId);
		const facts = work ? { ...request.facts, work } : request.facts;
		const outcome = actOnOne(one, { ...request, facts }, now, entries, departures);
		if (outcome.ok && outcome.changed) changed.add(request.sittingId);
		outcomes.push(outcome);
		if (one.sitting.sessionId === one.session.id) continue;
		// Put into another session: what comes next is decided, and written, by that one's rules and grants.
		touch(touched, one.session.id, one.sitting.id);
		await trx('sitting').where({ id: one.sitting.id }).update(derivedColumns(one));
		loaded.set(one.sitting.id, (await loadSitting(trx, one.sitting.id, now))!);
	}

	for (const id of changed) {
		const one = loaded.get(id)!;
		await trx('sitting').where({ id }).update(derivedColumns(one));
		touch(touched, one.session.id, id);
	}
	// Where it stood in the session that it leaves is kept there: that session's ledger and room still show it.
	for (const { sessionId, sittingId, outcome } of departures) {
		await trx('roster').where({ session_id: sessionId, sitting_id: sittingId }).update({ outcome });
	}
	await appendToLogbook(trx, entries);
	await rememberAnswers(trx, now, requests, outcomes, answers);
	return outcomes;
}

/** A person's ids are their own: nobody takes one that another, or the server, is going to use. */
function inOwnName(request: Request): Request {
	const { role, id } = request.by;
	return role === 'system' ? request : { ...request, id: `${role} ${id} ${request.id}` };
}

/** A sitting leaves a session for another. */
type Departure = { sessionId: string; sittingId: string; outcome: SittingState };

/** Decides one request and folds its events into `one`, so that the next request on the same sitting sees them. */
function actOnOne(one: Loaded, request: Request, now: number, entries: NewEntry[], departures: Departure[]): Outcome {
	const command: Command = { ...request.body, id: request.id, by: request.by };
	const decision = decide(one.sitting, command, circumstances(one, now, request.facts));
	if (!decision.ok) return { sittingId: request.sittingId, ok: false, refusal: decision.refusal };

	for (const event of decision.events) {
		const { sessionId, id: sittingId, state } = one.sitting;
		if (event.kind === 'assigned') departures.push({ sessionId, sittingId, outcome: state });
		one.sitting = evolve(one.sitting, event);
		const { kind, at, by: _by, commandId: _commandId, ...body } = event;
		entries.push({ at, by: request.by, kind, sessionId: one.sitting.sessionId, sittingId: one.sitting.id, body });
	}
	one.reckoning = reckonFor(one.sitting, one.session, one.merge, now);
	one.question = questionFor(one, now);
	return { sittingId: request.sittingId, ok: true, changed: decision.events.length > 0 };
}

function touch(touched: Touched, sessionId: string, sittingId: string) {
	const set = touched.get(sessionId) ?? new Set();
	touched.set(sessionId, set.add(sittingId));
}

function refused(request: Request, code: 'gone'): Outcome {
	return { sittingId: request.sittingId, ok: false, refusal: refusal(code) };
}

/** Whether a person's command has been carried out before. */
export async function wasDone(db: Query, request: Request): Promise<boolean> {
	const named = inOwnName(request);
	const known = (await earlierAnswers(db, [named])).get(named.id);
	return known !== undefined && known.asked === askedOf(named) && known.outcome.ok;
}

function askedOf(request: Request): string {
	return `${request.sittingId} ${request.body.kind}`;
}

type Remembered = Map<string, { asked: string; outcome: Outcome }>;

async function earlierAnswers(trx: Query, requests: Request[]): Promise<Remembered> {
	const ids = requests.filter((request) => request.by.role !== 'system').map((request) => request.id);
	const rows: { command_id: string; asked: string; answer: string }[] = await trx('command_answer').whereIn(
		'command_id',
		ids
	);
	return new Map(rows.map((row) => [row.command_id, { asked: row.asked, outcome: JSON.parse(row.answer) }]));
}

/**
 * A person's command that comes again (a double click, a retry after a lost answer) gets the answer it got. That is what
 * was decided, and no permission: whoever gives something on the strength of it asks how things are now. A device that was
 * refused at the door is decided about anew, so that strangers leave no rows here.
 */
async function rememberAnswers(trx: Query, now: number, requests: Request[], outcomes: Outcome[], known: Remembered) {
	const rows = requests.flatMap((request, i) => {
		if (request.by.role === 'system' || known.has(request.id)) return [];
		if (request.body.kind === 'arrive' && !outcomes[i].ok) return [];
		return [{ command_id: request.id, asked: askedOf(request), answer: JSON.stringify(outcomes[i]), at: now }];
	});
	await insertMany(trx, 'command_answer', rows, (insert) => insert.onConflict('command_id').ignore());
}
