import { createHash } from 'node:crypto';
import type Database from 'better-sqlite3';
import type { Statement } from 'better-sqlite3';
import { macOf } from './house-key';
import type { Query } from './open';

/** A revision as it is stored. SQLite has no booleans: 1 and 0. */
export type AnswerRow = {
	sitting_id: string;
	epoch: number;
	seq: number;
	question_id: string;
	value: string;
	in_view_ms: number;
	received_at: number;
	late: 0 | 1;
	kept_because: 'after_end' | 'freed_device' | 'unproven' | 'on_hold' | 'question_over' | 'gone_past' | null;
};

/** With the group that it was committed with; null: before groups were chained. */
export type StoredAnswer = AnswerRow & { group_seq: number | null };

/** What a revision says of the answer that it makes stand. */
export type StandingRow = Pick<
	AnswerRow,
	'sitting_id' | 'question_id' | 'epoch' | 'seq' | 'value' | 'in_view_ms' | 'late'
> & {
	blank: 0 | 1;
	marked: 0 | 1;
};

type Statements = {
	append: Statement;
	isRepeated: Statement;
	appendAside: Statement;
	lastGroup: Statement;
	appendGroup: Statement;
	stand: Statement;
	standInstead: Statement;
	count: Statement;
};

/** Answers that were committed together, chained to the ones before with a key that is not in the file. */
export type AnswerGroup = {
	seq: number;
	at: number;
	answers: number;
	digest: string;
	before: string;
	hash: string;
	/** By whom its answers were deleted when their time had come, with the house's key; null: they are there. */
	emptied?: string | null;
};

/** What the first group has before it. */
export const NO_GROUP = '';

/** The group of these answers, as it is chained. */
export function chainGroup(db: Query, seq: number, at: number, answers: StoredAnswer[], before: string): AnswerGroup {
	const lines = answers.map((row) =>
		JSON.stringify([
			row.sitting_id,
			row.epoch,
			row.seq,
			row.question_id,
			row.value,
			row.in_view_ms,
			row.received_at,
			row.late,
			row.kept_because
		])
	);
	// In an order of their own, so that it need not be kept in which order they came.
	const digest = createHash('sha256').update(lines.sort().join('\n')).digest('base64url');
	const group = { seq, at, answers: answers.length, digest, before, hash: '' };
	return { ...group, hash: chainByDigest(db, group, before) };
}

/** That a group's answers were deleted by this house, and not by somebody who only has the file. */
export function emptiedGroup(db: Query, { seq, hash }: Pick<AnswerGroup, 'seq' | 'hash'>): string {
	return macOf(db, 'answers', JSON.stringify(['emptied', seq, hash]));
}

/** The group as it is chained by its digest alone, for when its answers are gone. */
export function chainByDigest(db: Query, { seq, at, answers, digest }: AnswerGroup, before: string): string {
	return macOf(db, 'answers', JSON.stringify([seq, at, answers, digest, before]));
}

/**
 * The one place where statements are prepared once and run many times instead of being built by Knex: answers come a
 * thousand times more often than everything else, and building a statement costs several times what running it does.
 */
const prepared = new WeakMap<Database.Database, Statements>();

/** What stands for a question after one more revision, if its number is later (or as late) as the one that stands. */
const standsWhere = (later: '>' | '>=') =>
	`INSERT INTO answer_standing (sitting_id, question_id, epoch, seq, value, blank, marked, in_view_ms, late)
	 VALUES (@sitting_id, @question_id, @epoch, @seq, @value, @blank, @marked, @in_view_ms, @late)
	 ON CONFLICT (sitting_id, question_id) DO UPDATE SET
	   epoch = excluded.epoch, seq = excluded.seq, value = excluded.value, blank = excluded.blank,
	   marked = excluded.marked, in_view_ms = excluded.in_view_ms, late = excluded.late
	 WHERE (excluded.epoch, excluded.seq) ${later} (answer_standing.epoch, answer_standing.seq)`;

async function statementsOf(trx: Query): Promise<Statements> {
	const connection: Database.Database = await trx.client.acquireConnection();
	const known = prepared.get(connection);
	if (known) return known;
	const fresh: Statements = {
		append: connection.prepare(
			`INSERT INTO answer (sitting_id, epoch, seq, question_id, value, in_view_ms, received_at, late, kept_because, group_seq)
			 VALUES (@sitting_id, @epoch, @seq, @question_id, @value, @in_view_ms, @received_at, @late, @kept_because, @group_seq)
			 ON CONFLICT DO NOTHING`
		),
		isRepeated: connection.prepare(
			`SELECT seq FROM answer
			 WHERE sitting_id = @sitting_id AND epoch = @epoch AND (seq = @seq OR seq < 0)
			   AND question_id = @question_id AND value = @value`
		),
		appendAside: connection.prepare(
			`INSERT INTO answer (sitting_id, epoch, seq, question_id, value, in_view_ms, received_at, late, kept_because, group_seq)
			 SELECT @sitting_id, @epoch, min(min(seq), 0) - 1, @question_id, @value, @in_view_ms, @received_at, @late, @kept_because, @group_seq
			 FROM answer WHERE sitting_id = @sitting_id AND epoch = @epoch RETURNING seq`
		),
		lastGroup: connection.prepare('SELECT seq, hash FROM answer_group ORDER BY seq DESC LIMIT 1'),
		appendGroup: connection.prepare(
			`INSERT INTO answer_group (seq, at, answers, digest, before, hash)
			 VALUES (@seq, @at, @answers, @digest, @before, @hash)`
		),
		stand: connection.prepare(standsWhere('>')),
		standInstead: connection.prepare(standsWhere('>=')),
		count: connection.prepare(
			`INSERT INTO progress (sitting_id, answered, marked, last_answer_at)
			 SELECT sitting_id, sum(1 - blank), sum(marked), @now FROM answer_standing WHERE sitting_id = @id
			 ON CONFLICT (sitting_id) DO UPDATE SET
			   answered = excluded.answered, marked = excluded.marked, last_answer_at = excluded.last_answer_at`
		)
	};
	prepared.set(connection, fresh);
	return fresh;
}

/**
 * Appends revisions within a transaction; what is there already is passed over. A device that keeps nothing and is loaded
 * anew may use a number twice, while what it had sent under it is still on its way: then both are kept, the second under
 * a number below zero, which no device has, and whatever was acknowledged is there. `standing` says what a new one makes stand, by the number that
 * the device gave it; null when it only is to be kept. What lists count is brought up to date. Returns for each row whether
 * it is new.
 */
export async function appendAnswers(
	trx: Query,
	rows: AnswerRow[],
	standing: (row: AnswerRow) => StandingRow | null,
	now: number
): Promise<boolean[]> {
	const { append, isRepeated, appendAside, stand, standInstead, count, lastGroup, appendGroup } =
		await statementsOf(trx);
	const changed = new Set<string>();
	const last = lastGroup.get() as { seq: number; hash: string } | undefined;
	const group_seq = (last?.seq ?? 0) + 1;
	const added: StoredAnswer[] = [];
	const isNew = rows.map((row) => {
		const stored = { ...row, group_seq };
		let isAside = false;
		if (append.run(stored).changes === 0) {
			const there = isRepeated.all(row) as { seq: number }[];
			if (there.some(({ seq }) => seq === row.seq)) return false;
			if (there.length === 0) added.push({ ...stored, ...(appendAside.get(stored) as { seq: number }) });
			// Acknowledged last, and under no later number: it takes the place of what has that number.
			isAside = true;
		} else added.push(stored);
		const answer = standing(row);
		if (answer) {
			(isAside ? standInstead : stand).run(answer);
			changed.add(row.sitting_id);
		}
		return true;
	});
	if (added.length > 0) appendGroup.run(chainGroup(trx, group_seq, now, added, last?.hash ?? NO_GROUP));
	for (const id of changed) count.run({ id, now });
	return isNew;
}

/** Makes these stand within a transaction where they are newer than what does, and counts anew. */
export async function standAnswers(trx: Query, rows: StandingRow[], now: number): Promise<void> {
	const { stand, count } = await statementsOf(trx);
	for (const row of rows) stand.run(row);
	for (const id of new Set(rows.map((row) => row.sitting_id))) count.run({ id, now });
}
