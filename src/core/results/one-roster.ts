import { writeCsv } from '../formats';

/** A result as a gradebook takes it. */
export type GradeRow = {
	sittingId: string;
	/** What the gradebook knows the person by: their number in the lists that came from there. */
	student: string;
	paperId: string;
	points: number;
	isComplete: boolean;
	/** ISO date, `2026-11-26`. */
	date: string;
	comment: string;
	/** A void result goes out without a score. */
	isVoid: boolean;
};
export type LineItem = { paperId: string; title: string; from: string; to: string; most: number; counts: boolean };

type Files = Record<string, string>;

/**
 * Results and line items as OneRoster 1.1 has them in CSV (IMS Global 2017, sections on the CSV binding; names of files and
 * columns from memory of it). `counts` false goes out under a category of its own, so that a gradebook leaves it out.
 * @param modified ISO 8601, UTC
 */
export function oneRosterFiles(items: LineItem[], rows: GradeRow[], modified: string): Files {
	const active = ['active', modified];
	return {
		'manifest.csv': writeCsv([
			['propertyName', 'value'],
			['manifest.version', '1.0'],
			['oneroster.version', '1.1'],
			...[
				'academicSessions',
				'classes',
				'classResources',
				'courses',
				'courseResources',
				'demographics',
				'enrollments',
				'orgs',
				'resources',
				'users'
			].map((name) => [`file.${name}`, 'absent']),
			...['categories', 'lineItems', 'results'].map((name) => [`file.${name}`, 'bulk']),
			['source.systemName', 'Otium']
		]),
		'categories.csv': writeCsv([
			['sourcedId', 'status', 'dateLastModified', 'title'],
			['counts', ...active, 'Examination'],
			['left-out', ...active, 'Not included']
		]),
		'lineItems.csv': writeCsv([
			[
				'sourcedId',
				'status',
				'dateLastModified',
				'title',
				'description',
				'assignDate',
				'dueDate',
				'classSourcedId',
				'categorySourcedId',
				'gradingPeriodSourcedId',
				'resultValueMin',
				'resultValueMax'
			],
			...items.map((one) => [
				one.paperId,
				...active,
				one.title,
				'',
				one.from,
				one.to,
				'',
				one.counts ? 'counts' : 'left-out',
				'',
				'0.0',
				one.most.toFixed(1)
			])
		]),
		'results.csv': writeCsv([
			[
				'sourcedId',
				'status',
				'dateLastModified',
				'lineItemSourcedId',
				'studentSourcedId',
				'scoreStatus',
				'score',
				'scoreDate',
				'comment'
			],
			...rows.map((row) => [
				row.sittingId,
				...active,
				row.paperId,
				row.student,
				row.isVoid ? 'exempt' : row.isComplete ? 'fully graded' : 'partially graded',
				row.isVoid ? '' : row.points,
				row.date,
				row.comment
			])
		])
	};
}
