import type { Knex } from 'knex';
import { groupBy } from '$core/group-by';
import type { Migration } from './migrations';

type Row = { id: string; fold: string; session_id: string };
type Entry = { sitting_id: string; at: number; kind: string; session_id: string };
type Session = { id: string; rules: string; room_started_at: number | null };

/**
 * The sitting owns its clock, where it came from and which sessions it was in. What earlier versions worked out from the
 * present session is written into each fold, from its session's start and from what the logbook says.
 */
export const ownClock: Migration = {
	name: '006-own-clock',
	async up(db: Knex) {
		await db.schema.alterTable('session', (t) => {
			// Work was allowed to begin before the opening.
			t.bigInteger('opened_early_at');
		});
		await db.schema.alterTable('sitting', (t) => {
			// It has begun, and its first question is not on the screen yet.
			t.boolean('clock_waits').notNullable().defaultTo(false);
		});
		await db.schema.alterTable('command_answer', (t) => {
			// Answers to repeated commands are kept for some days.
			t.bigInteger('at').notNullable().defaultTo(0).index();
		});
		await db.schema.alterTable('administration', (t) => {
			// Those without days come in the order in which they were made.
			t.bigInteger('made_at').notNullable().defaultTo(0);
		});
		await db.schema.alterTable('mail', (t) => {
			// What it told of time and place, to compare with how things stand later. null: sent before this was kept.
			t.text('told');
		});
		await db.raw('DROP INDEX answer_held_back');
		await db.raw(
			"CREATE INDEX answer_held_back ON answer (sitting_id) WHERE kept_because IN ('after_end', 'freed_device', 'on_hold')"
		);
		// Few answers come late, and every picture of a room asks for them.
		await db.raw('CREATE INDEX answer_late ON answer_standing (sitting_id) WHERE late = 1');
		// Where a sitting stood when it left: what the session's end wrote for those who are still there is worked out anew.
		await db('roster')
			.whereIn('outcome', ['expected', 'at_door', 'let_in', 'working', 'on_hold'])
			.update({ outcome: 'carried_over' });
		await giveFoldsTheirClock(db);
	}
};

async function giveFoldsTheirClock(db: Knex) {
	const sessions = new Map(
		((await db('session').select('id', 'rules', 'room_started_at')) as Session[]).map((one) => [one.id, one])
	);
	const entries: Entry[] = await db('logbook')
		.whereIn('kind', ['assigned', 'began'])
		.whereNotNull('sitting_id')
		.orderBy('seq')
		.select('sitting_id', 'at', 'kind', 'session_id');
	const bySitting = groupBy(entries, (entry) => entry.sitting_id);
	const rosters = groupBy(
		(await db('roster').select('session_id', 'sitting_id')) as { session_id: string; sitting_id: string }[],
		(row) => row.sitting_id
	);
	const rows: Row[] = await db('sitting').select('id', 'fold', 'session_id');
	for (const row of rows) {
		const fold = JSON.parse(row.fold);
		const log = bySitting.get(row.id) ?? [];
		const visits = visitsOf(
			row,
			log,
			(rosters.get(row.id) ?? []).map((one) => one.session_id)
		);
		const first = sessions.get(visits[0].sessionId);
		const startsWithRoom = first !== undefined && JSON.parse(first.rules).timing?.clockStarts === 'room';
		const isCarried = fold.stops.some(
			(stop: { why: string; to: null }) => stop.why === 'carried_over' && stop.to === null
		);
		const waits = fold.state === 'at_door' || fold.state === 'let_in';
		Object.assign(fold, {
			clockStartedAt: fold.beganAt === null ? null : (startsWithRoom && first.room_started_at) || fold.beganAt,
			cameFrom: !waits ? null : isCarried ? 'carried_over' : fold.beganAt === null ? 'expected' : null,
			heldBy: null,
			holdKnownAt: fold.state === 'on_hold' && fold.line?.up ? fold.since : null,
			allowsFresh: false,
			visits
		});
		await db('sitting')
			.where({ id: row.id })
			.update({ fold: JSON.stringify(fold) });
	}
}

/** The sessions that a sitting was in, as its assignments tell; the first is one that it was never assigned to. */
function visitsOf(row: Row, log: Entry[], roster: string[]) {
	const moves = log.filter((entry) => entry.kind === 'assigned');
	const began = log.find((entry) => entry.kind === 'began')?.at ?? null;
	const begunBy = (at: number) => began !== null && began <= at;
	const moved = new Set(moves.map((move) => move.session_id));
	const first = moves.length === 0 ? row.session_id : (roster.find((id) => !moved.has(id)) ?? row.session_id);
	const stays = [
		{ sessionId: first, from: 0 },
		...moves.map((move) => ({ sessionId: move.session_id, from: move.at }))
	];
	return stays.map((stay, i) => {
		const to = stays[i + 1]?.from ?? null;
		return {
			...stay,
			to,
			begunBefore: i > 0 && begunBy(stay.from),
			begunWhenLeaving: to !== null && begunBy(to)
		};
	});
}
