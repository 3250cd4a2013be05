import { DateTime } from 'luxon';
import { strToU8, zipSync } from 'fflate';
import { writeCsv } from '$core/formats';
import { writeResult } from '$core/qti';
import { groupBy } from '$core/group-by';
import { oneRosterFiles, writtenPoints } from '$core/results';
import { canonicalJson, type Query } from '../db';
import { mapInParts } from '../event-loop';
import { countingSittings, markedSittings, type Counting } from '../marking';
import { paperVersion } from '../paper';
import { zipStream, type ZipEntry } from '../zip-stream';
import type { Narrow, ResultLine } from './lines';

const isoDate = (at: number) => DateTime.fromMillis(at, { zone: 'utc' }).toISODate()!;
const iso = (at: number) => DateTime.fromMillis(at, { zone: 'utc' }).toISO({ suppressMilliseconds: true })!;

/** Results as a table (RFC 4180). */
export function resultsTable(lines: ResultLine[], papers: Map<string, string>): string {
	const header = [
		'Number',
		'Name',
		'Paper',
		'Session',
		'Site',
		'Attempt',
		'Points',
		'Out of',
		'To mark',
		'Counting points',
		'Passed',
		'Band',
		'Validity',
		'Note',
		'Ended',
		'Receipt'
	];
	const rows = lines.map(({ sitting, name, result, validity, counted }) => [
		sitting.number,
		name,
		papers.get(sitting.paperId) ?? '',
		sitting.session,
		sitting.site,
		sitting.attempt,
		writtenPoints(result.points),
		result.outOf,
		result.toMark,
		counted === null ? '' : writtenPoints(counted.points),
		result.passed === null ? '' : result.passed ? 'yes' : 'no',
		result.band?.name ?? '',
		validity?.verdict ?? 'valid',
		validity?.note ?? '',
		iso(sitting.fold.ended!.at),
		sitting.fold.ended!.receipt
	]);
	return writeCsv([header, ...rows]);
}

/** What every list of ours calls a person: the id of the system that they came from, or else our own. */
const personId = ({ sourceId, candidateId }: Counting): string => sourceId ?? candidateId;

/**
 * Results and line items as a gradebook imports them: OneRoster 1.1, CSV in a ZIP file. Only what counts goes out. A paper
 * is a line item of each class that sat it; people and classes have the ids of the people's export.
 */
export async function oneRosterZip(db: Query, lines: ResultLine[], counts: boolean, now: number): Promise<Uint8Array> {
	const counting = lines.filter(({ counted }) => counted !== null);
	const itemOf = ({ sitting }: ResultLine) => `${sitting.paperId}-${sitting.groupId}`;
	const span = (of: ResultLine[]) => {
		const ends = of.map(({ sitting }) => sitting.fold.ended!.at);
		return { from: isoDate(Math.min(...ends)), to: isoDate(Math.max(...ends)) };
	};
	const items = await Promise.all(
		[...groupBy(counting, itemOf)].map(async ([id, of]) => ({
			id,
			title: (await paperVersion(db, of[0].sitting.paperId)).title,
			classId: of[0].sitting.groupId,
			...span(of),
			most: Math.max(...of.map(({ result }) => result.outOf)),
			counts
		}))
	);
	const administration: { id: string; name: string } | undefined =
		counting.length === 0
			? undefined
			: await db('administration').where({ id: counting[0].sitting.administrationId }).first('id', 'name');
	const period = {
		id: administration?.id ?? 'none',
		title: administration?.name ?? '',
		...(counting.length > 0 ? span(counting) : { from: isoDate(now), to: isoDate(now) })
	};
	const files = oneRosterFiles(
		period,
		items,
		counting.map((line) => {
			const { sitting, counted, validity } = line;
			return {
				sittingId: sitting.sittingId,
				student: personId(sitting),
				itemId: itemOf(line),
				points: writtenPoints(counted!.points),
				isComplete: counted!.toMark === 0,
				date: isoDate(sitting.fold.ended!.at),
				comment: validity && validity.verdict !== 'valid' ? validity.note : '',
				isVoid: validity?.verdict === 'void'
			};
		})
	);
	return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
}

/** QTI results reporting: a document for each sitting, in a ZIP file. */
export function qtiResultsZip(db: Query, narrow: Narrow, isFinal: boolean): ReadableStream<Uint8Array> {
	return zipStream(documents(db, narrow, isFinal));
}

async function* documents(db: Query, narrow: Narrow, isFinal: boolean): AsyncGenerator<ZipEntry> {
	for await (const { sitting, scored } of markedSittings(db, await countingSittings(db, narrow))) {
		const xml = writeResult({
			candidate: personId(sitting),
			sittingId: sitting.sittingId,
			paper: { id: sitting.paperId, title: (await paperVersion(db, sitting.paperId)).title },
			endedAt: iso(sitting.fold.ended!.at),
			form: scored.form,
			answers: scored.values,
			score: scored.score,
			isFinal
		});
		const path = `${sitting.number.replace(/[^\w-]+/g, '_')}-${sitting.sittingId}.xml`;
		yield { path, bytes: strToU8(xml) };
	}
}

/** So many results are written before everything else has its turn. */
const AT_ONCE = 100;

/** A line of JSON for each result, with every mark. */
export async function jsonLines(lines: ResultLine[]): Promise<string> {
	return (await mapInParts(lines, AT_ONCE, (part) => part.map(asJson))).join('\n');
}

function asJson({ sitting, name, result, marks, validity, counted }: ResultLine): string {
	return canonicalJson({
		sitting: sitting.sittingId,
		number: sitting.number,
		name,
		paper: sitting.paperId,
		session: sitting.session,
		site: sitting.site,
		attempt: sitting.attempt,
		...result,
		counted,
		validity: validity?.verdict ?? 'valid',
		marks
	});
}
