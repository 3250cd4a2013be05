import { EXPECTED_SHARE, isBlank, isMarkedByHand, minutesNeeded, type AnswerValue, type Question } from '../paper';
import { answersTaken, type Taken } from './taken';
import { correlation, cronbachAlpha, mean, median, standardError, variance } from './statistics';

/** A question as one candidate answered it. Points as marked, before it was counted for all or left out. */
export type SatQuestion = {
	questionId: string;
	points: number;
	/** What it is worth. */
	most: number;
	answer: AnswerValue;
	inViewMs: number;
	/** Nobody has marked it yet. */
	toMark: boolean;
	/** It counts the same for everyone, whatever they answered: left out, or counted for all. */
	isOut: boolean;
};
export type SatPaper = { sittingId: string; site: string; language: string | null; questions: SatQuestion[] };

export const FLAGS = {
	best_prefer_wrong: 'the best third prefer a wrong answer',
	against: 'those who did well elsewhere did worse here',
	tells_nothing: 'tells the able from the rest hardly at all',
	too_hard: 'hardly anybody had it right',
	too_easy: 'nearly everybody had it right',
	untaken: 'nobody took one of the choices',
	harder: 'harder than its author expected',
	slower: 'took twice the time that was expected'
} as const;
export type Flag = keyof typeof FLAGS;
/** These say that the key or the question may be wrong: a person decides before the administration is closed. */
export const DOUBTFUL: readonly Flag[] = ['best_prefer_wrong', 'against'];

/** How a question did. Shares from 0 to 1; null: too little to say. */
export type QuestionFigures = {
	questionId: string;
	/** Who had it, and of them who left it blank or waits for a mark. */
	seen: number;
	blanks: number;
	toMark: number;
	/** How many reached all its points. */
	right: number;
	/** Mean share of the points. */
	facility: number | null;
	/** Correlation with the share that was reached of all else. */
	discrimination: number | null;
	/** Facility among the upper and lower 27 % by that share (Kelley 1939). */
	upper: number | null;
	lower: number | null;
	medianMs: number | null;
	taken: Taken[];
	flags: Flag[];
	isOut: boolean;
	/** Facility by site and by language of the sitting, with how many. */
	bySite: { name: string; seen: number; facility: number | null }[];
	byLanguage: { name: string; seen: number; facility: number | null }[];
};

export type PaperFigures = {
	sittings: number;
	questions: QuestionFigures[];
	/** Over the questions that everybody had and that are marked; `over`: how many those are. */
	alpha: { value: number | null; over: number; without: Record<string, number | null> };
	/** Standard error of measurement, in points; null: no alpha. */
	standardError: number | null;
	points: {
		mean: number | null;
		median: number | null;
		least: number | null;
		most: number | null;
		deviation: number | null;
	};
};

/** Fewer answers than this say too little to raise a flag. Common practice. */
const LEAST_FOR_FLAGS = 10;
/** Kelley (1939): the 27 % at each end tell best. */
const EXTREME = 0.27;

/** @param questions the paper’s, in its order */
export function figuresOf(questions: Question[], sat: SatPaper[]): PaperFigures {
	const totals = sat.map(({ questions }) => totalOf(questions));
	const rows = new Map<string, Row[]>();
	// The best first: each question then ranks a list that is nearly in order, which takes a fraction of the time.
	const shares = totals.map(({ points, most }) => (most === 0 ? 0 : points / most));
	const best = sat.map((_, i) => i).sort((a, b) => shares[b] - shares[a]);
	for (const i of best) {
		const paper = sat[i];
		for (const one of paper.questions) {
			const share = one.most === 0 ? 0 : one.points / one.most;
			const row = { sat: paper, place: i, one, share, rest: shareOfRest(totals[i], one) };
			const list = rows.get(one.questionId);
			if (list) list.push(row);
			else rows.set(one.questionId, [row]);
		}
	}
	const figures = questions
		.filter(({ id }) => rows.has(id))
		.map((question) => figuresFor(question, rows.get(question.id)!));
	const points = totals.map(({ points }) => points);
	const alpha = alphaOf(sat);
	const spread = variance(points);
	const deviation = spread === null ? null : Math.sqrt(spread);
	return {
		sittings: sat.length,
		questions: figures,
		alpha,
		standardError: alpha.value === null || deviation === null ? null : standardError(deviation, alpha.value),
		points: {
			mean: mean(points),
			median: median(points),
			least: points.length ? points.reduce((a, b) => Math.min(a, b)) : null,
			most: points.length ? points.reduce((a, b) => Math.max(a, b)) : null,
			deviation
		}
	};
}

type Total = { points: number; most: number };

function totalOf(questions: SatQuestion[]): Total {
	const counted = questions.filter(({ isOut, toMark }) => !isOut && !toMark);
	return {
		points: counted.reduce((sum, { points }) => sum + points, 0),
		most: counted.reduce((sum, { most }) => sum + most, 0)
	};
}

/** Where candidates had different questions, points do not compare; shares of what each could reach do. */
function shareOfRest(total: Total, one: SatQuestion): number | null {
	const isIn = !one.isOut && !one.toMark;
	const most = total.most - (isIn ? one.most : 0);
	return most <= 0 ? null : (total.points - (isIn ? one.points : 0)) / most;
}

/** `share`: of its points; `rest`: of those of all other questions. */
type Row = { sat: SatPaper; place: number; one: SatQuestion; share: number; rest: number | null };

function figuresFor(question: Question, rows: Row[]): QuestionFigures {
	const marked = rows.filter(({ one }) => !one.toMark);
	// Ties keep the order of the list: otherwise those who had this question right would rank first.
	const ranked = marked.filter(({ rest }) => rest !== null).sort((a, b) => b.rest! - a.rest! || a.place - b.place);
	const shareOf = ({ share }: Row) => share;
	const facility = mean(marked.map(shareOf));
	const end = Math.max(1, Math.round(ranked.length * EXTREME));
	const isSplit = ranked.length >= 4;
	const figures: Omit<QuestionFigures, 'flags'> = {
		questionId: question.id,
		seen: rows.length,
		blanks: rows.filter(({ one }) => isBlank(one.answer)).length,
		toMark: rows.length - marked.length,
		right: marked.filter(({ share }) => share >= 1 - 1e-9).length,
		facility,
		discrimination: correlation(ranked.map(({ share, rest }) => [share, rest!] as const)),
		upper: isSplit ? mean(ranked.slice(0, end).map(shareOf)) : null,
		lower: isSplit ? mean(ranked.slice(-end).map(shareOf)) : null,
		medianMs: median(rows.filter(({ one }) => one.inViewMs > 0).map(({ one }) => one.inViewMs)),
		taken: answersTaken(
			question,
			ranked.map(({ one }) => ({ answer: one.answer, isRight: one.points >= one.most - 1e-9 }))
		),
		isOut: rows.some(({ one }) => one.isOut),
		bySite: groups(marked, ({ sat }) => sat.site),
		byLanguage: groups(marked, ({ sat }) => sat.language ?? '')
	};
	return { ...figures, flags: flagsOf(question, figures, marked.length) };
}

function groups(rows: Row[], nameOf: (row: Row) => string) {
	const by = new Map<string, { seen: number; sum: number }>();
	for (const row of rows) {
		const name = nameOf(row);
		const own = by.get(name) ?? { seen: 0, sum: 0 };
		by.set(name, { seen: own.seen + 1, sum: own.sum + row.share });
	}
	return [...by].map(([name, { seen, sum }]) => ({ name, seen, facility: sum / seen }));
}

/** Limits are common practice in classroom tests; from memory. */
function flagsOf(question: Question, one: Omit<QuestionFigures, 'flags'>, marked: number): Flag[] {
	if (marked < LEAST_FOR_FLAGS || one.facility === null) return [];
	const flags: Flag[] = [];
	const wrong = one.taken.filter(({ isRight }) => !isRight);
	const bestOf = (list: Taken[]) => list.reduce((most, { thirds }) => Math.max(most, thirds[0]), 0);
	const isChosen = ['single', 'true_false'].includes(question.kind);
	if (isChosen && bestOf(wrong) > bestOf(one.taken.filter(({ isRight }) => isRight))) flags.push('best_prefer_wrong');
	// What people mark has no key that could be wrong.
	const hasKey = !isMarkedByHand(question);
	if (hasKey && one.discrimination !== null && one.discrimination < 0) flags.push('against');
	else if (one.discrimination !== null && one.discrimination < 0.1) flags.push('tells_nothing');
	if (one.facility < 0.2) flags.push('too_hard');
	if (one.facility > 0.95) flags.push('too_easy');
	if (question.kind === 'single' && wrong.some(({ taken }) => taken === 0)) flags.push('untaken');
	if (question.difficulty && one.facility < EXPECTED_SHARE[question.difficulty] - 0.25) flags.push('harder');
	if (one.medianMs !== null && one.medianMs > 2 * minutesNeeded(question) * 60_000) flags.push('slower');
	return flags;
}

/** Over the questions that everybody had, and that are marked for everybody. */
function alphaOf(sat: SatPaper[]): PaperFigures['alpha'] {
	const first = sat[0]?.questions ?? [];
	const counts = new Map<string, number>();
	for (const { questions } of sat)
		for (const one of questions)
			if (!one.toMark && !one.isOut) counts.set(one.questionId, (counts.get(one.questionId) ?? 0) + 1);
	const shared = first.map(({ questionId }) => questionId).filter((id) => counts.get(id) === sat.length);
	const rows = sat.map(({ questions }) => {
		const points = new Map(questions.map((one) => [one.questionId, one.points]));
		return shared.map((id) => points.get(id)!);
	});
	return { value: cronbachAlpha(rows), over: shared.length, without: withoutEach(shared, rows) };
}

/** Alpha of the others, for each question; by sums, so that it takes no longer for many questions. */
function withoutEach(shared: string[], rows: number[][]): Record<string, number | null> {
	const totals = rows.map((row) => row.reduce((sum, points) => sum + points, 0));
	const spreads = shared.map((_, item) => variance(rows.map((row) => row[item])) ?? 0);
	const all = spreads.reduce((sum, spread) => sum + spread, 0);
	const k = shared.length - 1;
	return Object.fromEntries(
		shared.map((id, item) => {
			const rest = variance(rows.map((row, i) => totals[i] - row[item])) ?? 0;
			return [id, k < 2 || rest < 1e-12 ? null : (k / (k - 1)) * (1 - (all - spreads[item]) / rest)];
		})
	);
}
