import { writeCsv as table } from '../formats';

/** A result as a gradebook takes it. */
export type GradeRow = {
	sittingId: string;
	/** What all lists call the person: the id of the system that they came from, or else ours. */
	student: string;
	/** The line item that it belongs to. */
	itemId: string;
	points: number;
	isComplete: boolean;
	/** ISO date, `2026-11-26`. */
	date: string;
	comment: string;
	/** A void result goes out without a score. */
	isVoid: boolean;
};
/** A paper as a class sat it. Dates are ISO dates. */
export type LineItem = {
	id: string;
	title: string;
	classId: string;
	from: string;
	to: string;
	most: number;
	counts: boolean;
};
/** The time in which all of it was sat, as a gradebook files it. */
export type GradingPeriod = { id: string; title: string; from: string; to: string };

type Files = Record<string, string>;

/**
 * Results and line items as OneRoster 1.1 has them in CSV (IMS Global 2017, sections on the CSV binding; names of files and
 * columns from memory of it). `counts` false goes out under a category of its own, so that a gradebook leaves it out.
 * All files are whole ones (`bulk`), in which status and date of change stay empty.
 */
export function oneRosterFiles(period: GradingPeriod, items: LineItem[], rows: GradeRow[]): Files {
	const bulk = ['', ''];
	const writeCsv = (rows: (string | number)[][]) => table(rows, { mark: false });
	return {
		'manifest.csv': writeCsv([
			['propertyName', 'value'],
			['manifest.version', '1.0'],
			['oneroster.version', '1.1'],
			...[
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
			...['academicSessions', 'categories', 'lineItems', 'results'].map((name) => [`file.${name}`, 'bulk']),
			['source.systemName', 'Otium']
		]),
		'academicSessions.csv': writeCsv([
			[
				'sourcedId',
				'status',
				'dateLastModified',
				'title',
				'type',
				'startDate',
				'endDate',
				'parentSourcedId',
				'schoolYear'
			],
			[period.id, ...bulk, period.title, 'gradingPeriod', period.from, period.to, '', period.to.slice(0, 4)]
		]),
		'categories.csv': writeCsv([
			['sourcedId', 'status', 'dateLastModified', 'title'],
			['counts', ...bulk, 'Examination'],
			['left-out', ...bulk, 'Not included']
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
				one.id,
				...bulk,
				one.title,
				'',
				one.from,
				one.to,
				one.classId,
				one.counts ? 'counts' : 'left-out',
				period.id,
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
				...bulk,
				row.itemId,
				row.student,
				row.isVoid ? 'exempt' : row.isComplete ? 'fully graded' : 'partially graded',
				row.isVoid ? '' : row.points,
				row.date,
				row.comment
			])
		])
	};
}
