import { groupBy } from '$core/group-by';
import { markForm, type MarkingRules, type Score, type Treatment } from '$core/marking';
import type { AnswerValue, Form, Paper } from '$core/paper';
import type { Query } from '../db';
import { paperVersion } from '../records';
import { wasClosedBefore } from './exact-since';
import { handPoints } from './hand-points';
import { readOnce } from './read-once';
import { treatmentsFor } from './treatments';

/** A sitting that is to be marked. */
export type ToScore = {
	sittingId: string;
	administrationId: string;
	paperId: string;
	/** As stored. */
	form: string;
	marking: MarkingRules;
	/** Working time that the candidate had left when they handed in, ms; null: none, or another handed in for them. */
	leftMs: number | null;
};
/** The answers that count, by question. */
type Values = Map<string, AnswerValue>;
export type Scored = { score: Score; form: Form; values: Values };

/** Somebody's work, read and not yet marked. */
export type Work = ToScore & {
	dealt: Form;
	values: Values;
	/** How long each question was in view, by question. */
	inViewMs: Map<string, number>;
	byHand: Map<string, number> | undefined;
	/** See `MarkingSoFar`. */
	asBefore: boolean;
};

/**
 * Scores of sittings as they are now: by the paper, what was corrected of it and what people marked. This is the one place
 * where answers become points.
 */
export async function scoresOf(db: Query, list: ToScore[]): Promise<Map<string, Scored>> {
	const scores = new Map<string, Scored>();
	for (const group of groupBy(list, (one) => `${one.administrationId} ${one.paperId}`).values()) {
		const [{ administrationId, paperId }] = group;
		const { content } = await paperVersion(db, paperId);
		const treatments = await treatmentsFor(db, administrationId, paperId);
		for (const work of await readWork(db, group))
			scores.set(work.sittingId, {
				score: markWork(content, work, treatments),
				form: work.dealt,
				values: work.values
			});
	}
	return scores;
}

/** Reads work on one paper in one administration. */
export async function readWork(db: Query, group: ToScore[]): Promise<Work[]> {
	if (group.length === 0) return [];
	const [{ administrationId, paperId }] = group;
	const ids = group.map(({ sittingId }) => sittingId);
	const byHand = await handPoints(db, administrationId, paperId, ids);
	const answers = await answersOf(db, ids);
	const asBefore = await wasClosedBefore(db, administrationId);
	return group.map((one) => ({
		...one,
		asBefore,
		dealt: JSON.parse(one.form) as Form,
		...answers.get(one.sittingId)!,
		byHand: byHand.get(one.sittingId)
	}));
}

type Row = { sitting_id: string; question_id: string; value: string; in_view_ms: number };

async function answersOf(db: Query, sittingIds: string[]): Promise<Map<string, Pick<Work, 'values' | 'inViewMs'>>> {
	const rows: Row[] = await db('answer_standing')
		.whereIn('sitting_id', sittingIds)
		.select('sitting_id', 'question_id', 'value', 'in_view_ms');
	// Of choices there are few, however many people took them.
	const valueOf = readOnce((text) => (JSON.parse(text) as { value: AnswerValue }).value);
	const bySitting = new Map(
		sittingIds.map((id) => [id, { values: new Map() as Values, inViewMs: new Map<string, number>() }])
	);
	for (const { sitting_id, question_id, value, in_view_ms } of rows) {
		const own = bySitting.get(sitting_id)!;
		own.values.set(question_id, valueOf(value));
		own.inViewMs.set(question_id, in_view_ms);
	}
	return bySitting;
}

/** Marks work by these treatments. */
export function markWork(paper: Paper, work: Work, treatments: Map<string, Treatment>): Score {
	return markForm(paper, work.dealt, work.values, work.marking, {
		treatments,
		byHand: work.byHand,
		leftMs: work.leftMs,
		asBefore: work.asBefore
	});
}
