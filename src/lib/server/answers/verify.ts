import { groupBy } from '$core/group-by';
import {
	chainByDigest,
	chainGroup,
	emptiedGroup,
	NO_GROUP,
	type AnswerGroup,
	type Query,
	type StoredAnswer
} from '../db';
import { giveWay, inParts } from '../event-loop';
import { unkeyedPart } from '../logbook';

export type AnswersVerified = { answers: number; groups: number; broken: string | null; head: string };
type Standing = { sitting_id: string; question_id: string; epoch: number; seq: number; value: string };

/** So many groups, or sittings, are looked at before everything else has its turn. */
const AT_ONCE = 100;

/**
 * Works out anew how the answers are chained, and whether what stands follows from them, and says where that is not so.
 * Answers from before they were chained are counted and not chained.
 */
export async function verifyAnswers(db: Query): Promise<AnswersVerified> {
	const { answers: unchained } = await unkeyedPart(db);
	const [{ count }] = (await db('answer').whereNull('group_seq').count('* as count')) as { count: number }[];
	const found = { answers: Number(count), groups: 0, head: NO_GROUP };
	const broken = (why: string) => ({ ...found, broken: why });
	if (Number(count) !== unchained)
		return broken(`${count} answers are in no group, and there should be ${unchained} of that age`);
	for (;;) {
		const from = found.groups;
		const groups: AnswerGroup[] = await db('answer_group').where('seq', '>', from).orderBy('seq').limit(AT_ONCE);
		const rows: StoredAnswer[] = await db('answer').whereBetween('group_seq', [from + 1, from + AT_ONCE]);
		const members = groupBy(rows, (row) => String(row.group_seq));
		for (const group of groups) {
			const { seq, at } = group;
			if (seq !== found.groups + 1) return broken(`the group of answers ${found.groups + 1} is missing`);
			const own = members.get(String(seq)) ?? [];
			members.delete(String(seq));
			const isEmptied = group.emptied === emptiedGroup(db, group);
			const right = isEmptied ? chainByDigest(db, group, found.head) : chainGroup(db, seq, at, own, found.head).hash;
			if (group.hash !== right) return broken(`answers of group ${seq} were changed, added or taken away`);
			found.head = group.hash;
			found.groups = seq;
			found.answers += own.length;
		}
		if (members.size > 0) return broken(`answers stand in groups that are missing, from ${found.groups + 1} on`);
		if (groups.length < AT_ONCE) break;
		await giveWay();
	}
	const why = await standingFault(db);
	return { ...found, broken: why };
}

/** What stands and does not follow from the answers that came; null: all does. */
async function standingFault(db: Query): Promise<string | null> {
	const sittings: string[] = await db('form').orderBy('sitting_id').pluck('sitting_id');
	for await (const ids of inParts(sittings, AT_ONCE)) {
		const counted = new Set(
			await db('logbook').where({ kind: 'answers_counted' }).whereIn('sitting_id', ids).pluck('sitting_id')
		);
		const answers = groupBy((await db('answer').whereIn('sitting_id', ids)) as StoredAnswer[], questionOf);
		const standing: Standing[] = await db('answer_standing').whereIn('sitting_id', ids);
		for (const one of standing) {
			const revisions = answers.get(questionOf(one)) ?? [];
			answers.delete(questionOf(one));
			if (!follows(one, revisions, counted.has(one.sitting_id)))
				return `what counts of question ${one.question_id} of sitting ${one.sitting_id} is not what was answered`;
		}
		for (const revisions of answers.values()) {
			const lost = revisions.find((each) => each.kept_because === null);
			if (lost) return `an answer to question ${lost.question_id} of sitting ${lost.sitting_id} no longer counts`;
		}
	}
	return null;
}

const questionOf = (row: { sitting_id: string; question_id: string }) => `${row.sitting_id} ${row.question_id}`;

/** The one that stands came as it is, may stand, and none that may came after it. */
function follows(one: Standing, revisions: StoredAnswer[], someWereCounted: boolean): boolean {
	const came = revisions.some(
		(row) =>
			row.epoch === one.epoch &&
			row.value === one.value &&
			// Below zero is what a device sent under a number that it had used before.
			(row.seq === one.seq || row.seq < 0) &&
			(row.kept_because === null || someWereCounted)
	);
	const isLast = revisions.every(
		(row) => row.kept_because !== null || row.epoch < one.epoch || (row.epoch === one.epoch && row.seq <= one.seq)
	);
	return came && isLast;
}
