import { groupBy } from '$core/group-by';
import { shownPercent, shownPoints } from '$core/results';
import { writeIfPossible, type Query } from '../db';
import type { Writing } from '../house';
import { lateAnswers } from '../db';
import { paperVersion } from '../paper';
import { resultLines, type ResultLine } from './lines';
import type { ReleaseRule } from './release';

/** A result as its candidate reads it: no key, and no more than was released. */
export type OwnResult = {
	paper: string;
	endedAt: number;
	isFinal: boolean;
	attempt: number;
	/** null: not released, or not marked to the end. */
	passed: boolean | null;
	band: { name: string; message: string } | null;
	points: { points: string; outOf: string; percent: string } | null;
	topics: { topic: string; points: string; outOf: string; isCredited: boolean }[] | null;
	/** What counts of several attempts, where that is something else. */
	counted: string | null;
	/** Sentences that explain it: what was late, left out or counted for all, and what it is worth. */
	notes: string[];
};

type Row = { id: string; administration_id: string; paper_id: string; body: string };

/** The results that this candidate may read by now; that they have read them is kept. */
export async function ownResults(otium: Writing, candidateId: string): Promise<OwnResult[]> {
	const { db } = otium;
	const now = otium.now();
	const releases: Row[] = await db('release').where('from_at', '<=', now).whereNull('called_back_at');
	if (releases.length === 0) return [];
	const lines = await resultLines(db, (query) => query.where('sitting.candidate_id', candidateId));
	const late = await lateAnswers(
		db,
		lines.map(({ sitting }) => sitting.sittingId)
	);
	const closed = new Set(await db('closing').pluck('administration_id'));
	const byPaper = groupBy(releases, (row) => `${row.administration_id} ${row.paper_id}`);
	const read: { release_id: string; sitting_id: string; at: number }[] = [];
	const own: OwnResult[] = [];
	for (const line of lines) {
		const { sitting } = line;
		const release = byPaper.get(`${sitting.administrationId} ${sitting.paperId}`)?.[0];
		if (!release) continue;
		read.push({ release_id: release.id, sitting_id: sitting.sittingId, at: now });
		own.push(
			await toOwn(
				db,
				line,
				JSON.parse(release.body),
				closed.has(sitting.administrationId),
				late.get(sitting.sittingId) ?? 0
			)
		);
	}
	if (read.length > 0)
		await writeIfPossible(db('release_read').insert(read).onConflict(['release_id', 'sitting_id']).ignore());
	return own.sort((a, b) => b.endedAt - a.endedAt);
}

async function toOwn(
	db: Query,
	line: ResultLine,
	rule: ReleaseRule,
	isFinal: boolean,
	late: number
): Promise<OwnResult> {
	const { result, sitting, validity, counted } = line;
	const isVoid = validity?.verdict === 'void';
	const showsPoints = rule.shows !== 'outcome' && !isVoid && result.toMark === 0;
	const differs = counted !== null && counted.points !== result.points;
	return {
		paper: (await paperVersion(db, sitting.paperId)).title,
		endedAt: sitting.fold.ended!.at,
		isFinal,
		attempt: sitting.attempt,
		passed: isVoid ? null : result.passed,
		band: isVoid ? null : result.band,
		points: showsPoints
			? { points: shownPoints(result.points), outOf: shownPoints(result.outOf), percent: shownPercent(result) }
			: null,
		topics:
			rule.shows === 'topics' && showsPoints
				? result.topics.map(({ points, outOf, ...topic }) => ({
						...topic,
						points: shownPoints(points),
						outOf: shownPoints(outOf)
					}))
				: null,
		counted:
			differs && showsPoints
				? `${shownPoints(counted.points)} of ${shownPoints(counted.outOf)} count, of all your attempts.`
				: null,
		notes: notesOn(line, late)
	};
}

function notesOn({ result, validity }: ResultLine, late: number): string[] {
	const places = (how: 'for_all' | 'left_out') =>
		result.treated.filter((one) => one.how === how).map(({ place }) => place);
	const [forAll, leftOut] = [places('for_all'), places('left_out')];
	const questions = (list: number[]) => `${list.length === 1 ? 'Question' : 'Questions'} ${list.join(', ')}`;
	const notes: (string | false)[] = [
		result.toMark > 0 && 'Some of your answers have not been marked yet.',
		result.early > 0 &&
			`${shownPoints(result.early)} of the points ${result.early === 1 ? 'is' : 'are'} for handing in early.`,
		late > 0 && `${late} of your answers came after the time and ${late === 1 ? 'counts' : 'count'}.`,
		forAll.length > 0 &&
			`${questions(forAll)} ${forAll.length === 1 ? 'counts' : 'count'} for everyone who had ${forAll.length === 1 ? 'it' : 'them'}.`,
		leftOut.length > 0 &&
			`${questions(leftOut)} ${leftOut.length === 1 ? 'was' : 'were'} left out: no points, and none to reach.`,
		validity?.verdict === 'void' && `This result is void. ${validity.note}`.trim(),
		validity?.verdict === 'doubtful' && `This result carries a note: ${validity.note}`.trim()
	];
	return notes.filter((note) => note !== false);
}
