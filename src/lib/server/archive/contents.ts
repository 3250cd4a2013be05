import { writeCsv } from '$core/formats';
import { resultOf, type Result } from '$core/results';
import { questionsOf } from '$core/paper';
import { pagedRows, type Query } from '../db';
import { countingSittings, scoresOf, withForms, type Counting } from '../marking';
import { paperVersion, standingValidity } from '../records';

type Row = Record<string, unknown>;
/** The files of an archive, in their order: each a name and its lines. */
export type Contents = { name: string; lines: () => AsyncIterable<string> }[];

/** Without what only served to open the door. */
const SESSION_COLUMNS = [
	'id',
	'room_id',
	'paper_id',
	'name',
	'kind',
	'opens',
	'closes',
	'rules',
	'ended_at',
	'ended_by'
];

async function* asLines(rows: AsyncIterable<unknown>): AsyncGenerator<string> {
	for await (const row of rows) yield JSON.stringify(row);
}

/** Texts that hold JSON, opened: a reader of the archive should not have to know which. */
function opened(row: Row, ...names: string[]): Row {
	const open = Object.fromEntries(names.map((name) => [name, JSON.parse((row[name] as string | null) ?? 'null')]));
	return { ...row, ...open };
}

/** Everything of an administration, as it is at the instant of the connection. */
export function contentsOf(db: Query, administrationId: string): Contents {
	const sessions = () => db('session').where({ administration_id: administrationId }).select('id');
	const sittings = () => db('sitting').where({ administration_id: administrationId }).select('id');
	const file = (name: string, rows: () => AsyncIterable<unknown>) => ({ name, lines: () => asLines(rows()) });
	const table = (
		name: string,
		narrow: (query: ReturnType<Query['queryBuilder']>) => void,
		json: string[] = [],
		columns?: string[]
	) =>
		file(`${name.replaceAll('_', '-')}.jsonl`, async function* () {
			for await (const row of pagedRows(db, name, narrow, columns)) yield opened(row, ...json);
		});
	const ofSessions = (query: ReturnType<Query['queryBuilder']>) => query.whereIn('session_id', sessions());
	const ofSittings = (query: ReturnType<Query['queryBuilder']>) => query.whereIn('sitting_id', sittings());
	const itself = (query: ReturnType<Query['queryBuilder']>) => query.where({ administration_id: administrationId });
	const counting = () => countingSittings(db, (query) => query.where('sitting.administration_id', administrationId));
	// Marking is what takes long in an archive, so the table is written from what the results before it came to.
	const written: Listed[] = [];
	return [
		file('results.jsonl', () => results(db, counting, written)),
		{ name: 'results.csv', lines: () => resultsCsv(db, written) },
		file('people.jsonl', () => people(db, administrationId)),
		table('session', itself, ['rules'], SESSION_COLUMNS),
		table('sitting', itself, ['fold']),
		table('roster', ofSessions),
		table(
			'paper',
			(query) => query.whereIn('id', db('sitting').where({ administration_id: administrationId }).select('paper_id')),
			['content'],
			['id', 'title', 'version', 'content', 'sha256']
		),
		table('form', ofSittings, ['form']),
		table('question_shown', ofSittings),
		table('answer_standing', ofSittings, ['value']),
		table('answer', ofSittings, ['value']),
		table('sitting_file', ofSittings),
		table('hand_plan', itself, ['body']),
		table('hand_mark', itself, ['criteria']),
		table('correction', itself, ['body']),
		table('marking_run', itself),
		table(
			'run_score',
			(query) => query.whereIn('run_id', db('marking_run').where({ administration_id: administrationId }).select('id')),
			['marks']
		),
		table(
			'grant_given',
			(query) =>
				query.where((any) =>
					any
						.where((of) => of.where({ scope_kind: 'session' }).whereIn('scope_id', sessions()))
						.orWhere({ scope_kind: 'administration', scope_id: administrationId })
						.orWhere((of) =>
							of
								.whereIn('scope_kind', ['standing', 'paper'])
								.whereIn(
									'candidate_id',
									db('sitting').where({ administration_id: administrationId }).select('candidate_id')
								)
						)
				),
			['body']
		),
		table('incident', ofSessions),
		table('incident_person', (query) =>
			query.whereIn('incident_id', db('incident').whereIn('session_id', sessions()).select('id'))
		),
		table('incident_decision', (query) =>
			query.whereIn('incident_id', db('incident').whereIn('session_id', sessions()).select('id'))
		),
		table('lapse', ofSittings),
		table('waiver', ofSittings),
		table('validity', ofSittings, ['proposed']),
		table('alike_decision', ofSessions, ['pairs']),
		table('sign_off', itself, ['beneath']),
		table(
			'logbook',
			(query) =>
				query.where((any) =>
					any
						.whereIn('session_id', sessions())
						.orWhereIn('sitting_id', sittings())
						.orWhere('body', 'like', `%"administrationId":"${administrationId}"%`)
				),
			['body']
		)
	];
}

/** Who is behind the numbers. */
async function* people(db: Query, administrationId: string): AsyncGenerator<Row> {
	const ids = db('sitting').where({ administration_id: administrationId }).select('candidate_id');
	yield* pagedRows(db, 'candidate', (query) => query.whereIn('id', ids), [
		'id',
		'number',
		'given',
		'family',
		'email',
		'birth'
	]);
}

/** What the table tells of a result. */
type Listed = Pick<Counting, 'number' | 'paperId' | 'session' | 'site' | 'attempt'> &
	Pick<Result, 'points' | 'outOf' | 'passed' | 'band'> & { validity: string; receipt: string };

/** Every result, without a name; `written` gets what the table tells of them. */
async function* results(db: Query, counting: () => Promise<Counting[]>, written: Listed[]): AsyncGenerator<Row> {
	for await (const part of withForms(db, await counting())) {
		const scores = await scoresOf(
			db,
			part.map((one) => ({ ...one, marking: one.rules.marking }))
		);
		const validity = await standingValidity(
			db,
			part.map(({ sittingId }) => sittingId)
		);
		for (const one of part) {
			const { score } = scores.get(one.sittingId)!;
			const { content } = await paperVersion(db, one.paperId);
			const byId = new Map(questionsOf(content).map((question) => [question.id, question]));
			const result = resultOf(score, one.rules.result, byId);
			const { number, paperId, session, site, attempt } = one;
			const { points, outOf, passed, band } = result;
			const verdict = validity.get(one.sittingId)?.verdict ?? 'valid';
			const receipt = one.fold.ended?.receipt ?? '';
			written.push({
				number,
				paperId,
				session,
				site,
				attempt,
				points,
				outOf,
				passed,
				band,
				validity: verdict,
				receipt
			});
			yield {
				sitting: one.sittingId,
				number,
				paper: paperId,
				session: one.sessionId,
				attempt,
				validity: verdict,
				...result,
				marks: score.marks
			};
		}
	}
}

const COLUMNS = [
	'Number',
	'Paper',
	'Version',
	'Session',
	'Site',
	'Attempt',
	'Points',
	'Out of',
	'Passed',
	'Band',
	'Validity',
	'Receipt'
];

async function* resultsCsv(db: Query, written: Listed[]): AsyncGenerator<string> {
	const papers = new Map<string, { title: string; version: number }>();
	for (const row of await db('paper')
		.whereIn('id', [...new Set(written.map(({ paperId }) => paperId))])
		.select('id', 'title', 'version'))
		papers.set(row.id, row);
	const line = (cells: (string | number)[]) =>
		writeCsv([cells])
			.replace(/^\uFEFF/, '')
			.trimEnd();
	yield `\uFEFF${line(COLUMNS)}`;
	for (const one of written) {
		const paper = papers.get(one.paperId)!;
		yield line([
			one.number,
			paper.title,
			paper.version,
			one.session,
			one.site,
			one.attempt,
			one.points,
			one.outOf,
			one.passed === null ? '' : one.passed ? 'yes' : 'no',
			one.band?.name ?? '',
			one.validity,
			one.receipt
		]);
	}
}
