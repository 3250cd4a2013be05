import { findAlike, type AlikePair, type Answered } from '$core/alike';
import { figuresOf, type PaperFigures, type SatPaper } from '$core/figures';
import { asTreated, treat, UNTREATED, type Correction, type Mark, type Score, type Treatment } from '$core/marking';
import { isBlank, isMarkedByHand, questionsOf, type AnswerValue, type QuestionKind } from '$core/paper';
import { canonicalJson, connectDb, type Db } from '../db';
import { paperVersion } from '../records';
import { offer } from '../thread';
import { countingSittings, withForms, type Counting } from './results-of';
import { markWork, readWork, type Work } from './scores';
import { treatmentsFor } from './treatments';

/** Whose work, and where it lies. */
export type Whose = { file: string; administrationId: string; paperId: string };
/** What somebody’s work comes to, with every mark as text. */
export type RunScore = { sittingId: string; points: number; outOf: number; toMark: number; marks: string };

async function withDb<T>(file: string, work: (db: Db) => Promise<T>): Promise<T> {
	const db = connectDb(file);
	try {
		return await work(db);
	} finally {
		await db.destroy();
	}
}

/** Work as it lies there, part by part. */
async function* works(db: Db, sittings: Counting[]): AsyncGenerator<{ sitting: Counting; work: Work }> {
	for await (const part of withForms(db, sittings)) {
		const read = await readWork(
			db,
			part.map((one) => ({ ...one, marking: one.rules.marking }))
		);
		yield* read.map((work, i) => ({ sitting: part[i], work }));
	}
}

const ofPaper = (db: Db, { administrationId, paperId }: Whose) =>
	countingSittings(db, (query) =>
		query.where({ 'sitting.administration_id': administrationId, 'sitting.paper_id': paperId })
	);

function toRunScore(sittingId: string, { points, outOf, toMark, marks }: Score): RunScore {
	return { sittingId, points, outOf, toMark, marks: marksAsText(marks) };
}

/** `[question, verdict, points, out of, treated]` for each question of the form. */
function marksAsText(marks: Mark[]): string {
	return JSON.stringify(
		marks.map(({ questionId, verdict, points, outOf, treated }) => [
			questionId,
			verdict,
			points,
			outOf,
			...(treated ? [treated] : [])
		])
	);
}

const tasks = {
	/** Marks all work on a paper, as it is and as it would be after one more correction. */
	async remark({
		correction,
		...whose
	}: Whose & { correction: { questionId: string; correction: Correction } | null }): Promise<{
		before: RunScore[];
		after: RunScore[];
	}> {
		return withDb(whose.file, async (db) => {
			const treatments = await treatmentsFor(db, whose.administrationId, whose.paperId);
			const { content } = await paperVersion(db, whose.paperId);
			const then =
				correction &&
				new Map(treatments).set(
					correction.questionId,
					treat(treatments.get(correction.questionId) ?? UNTREATED, correction.correction)
				);
			const [before, after]: RunScore[][] = [[], []];
			for await (const { sitting, work } of works(db, await ofPaper(db, whose))) {
				before.push(toRunScore(sitting.sittingId, markWork(content, work, treatments)));
				if (then) after.push(toRunScore(sitting.sittingId, markWork(content, work, then)));
			}
			return { before, after: then ? after : before };
		});
	},

	async figures(whose: Whose): Promise<PaperFigures> {
		return withDb(whose.file, async (db) => {
			const treatments = await treatmentsFor(db, whose.administrationId, whose.paperId);
			// A question that counts for all or for nobody still has figures of how it was answered.
			const asMarked = new Map(
				[...treatments].map(([id, treatment]) => [id, { ...treatment, counts: 'as_marked' as const }])
			);
			const { content } = await paperVersion(db, whose.paperId);
			const sat: SatPaper[] = [];
			for await (const { sitting, work } of works(db, await ofPaper(db, whose)))
				sat.push(satBy(sitting, work, markWork(content, work, asMarked), treatments));
			return figuresOf(
				questionsOf(content).map((question) => asTreated(question, treatments.get(question.id))),
				sat
			);
		});
	},

	/** Pairs of one session whose answers agree too much. */
	async alike({ file, sessionId }: { file: string; sessionId: string }): Promise<{
		pairs: AlikePair[];
		compared: number;
	}> {
		return withDb(file, async (db) => {
			const sittings = await countingSittings(db, (query) => query.where('sitting.session_id', sessionId));
			const answered: Answered[] = [];
			const paperId = sittings[0]?.paperId;
			if (!paperId) return { pairs: [], compared: 0 };
			const { content } = await paperVersion(db, paperId);
			const treatments = await treatmentsFor(db, sittings[0].administrationId, paperId);
			for await (const { sitting, work } of works(db, sittings)) {
				const { dealt: form, values } = work;
				const score = markWork(content, work, treatments);
				const own: Answered['answers'] = new Map();
				form.questions.forEach((question, i) => {
					const value = values.get(question.id) ?? null;
					// Texts and numbers of one’s own say nothing; a blank is no answer that two could share.
					if (isBlank(value) || isMarkedByHand(question) || question.drawn) return;
					own.set(question.id, {
						value: asCompared(question.kind, value),
						isRight: score.marks[i].verdict === 'right'
					});
				});
				answered.push({ sittingId: sitting.sittingId, answers: own });
			}
			return findAlike(answered);
		});
	}
};
export type MarkingTasks = typeof tasks;

/** Several choices in whichever order they were taken, texts without case and spaces at the ends. */
function asCompared(kind: QuestionKind, value: AnswerValue): string {
	if (typeof value === 'string') return value.trim().toLowerCase();
	return kind === 'multiple' && Array.isArray(value) ? JSON.stringify([...value].sort()) : canonicalJson(value);
}

function satBy(
	sitting: Counting,
	{ dealt: form, values, inViewMs }: Work,
	score: Score,
	treatments: Map<string, Treatment>
): SatPaper {
	return {
		sittingId: sitting.sittingId,
		site: sitting.site,
		language: sitting.language,
		questions: form.questions.map(({ id, points }, i) => ({
			questionId: id,
			points: score.marks[i].points,
			most: treatments.get(id)?.points ?? points,
			answer: values.get(id) ?? null,
			inViewMs: inViewMs.get(id) ?? 0,
			toMark: score.marks[i].verdict === 'to_mark',
			isOut: (treatments.get(id)?.counts ?? 'as_marked') !== 'as_marked'
		}))
	};
}

offer(tasks);
