import { writeCsv } from '$core/formats';
import { verdictOf, writtenPoints } from '$core/results';
import { STATE_NAMES } from '$core/sitting';
import { DateTime } from 'luxon';
import type { Session } from '../session';
import type { Account } from './account';

/** The verdict of what counts; empty while some of it is not marked. */
function verdictIn({ rules }: Session, { counted }: Account['lines'][number]): [passed: string, band: string] {
	const { passed, band } = verdictOf(counted, rules.result);
	return [passed === null ? '' : passed ? 'yes' : 'no', band?.name ?? ''];
}

/** The session's results by RFC 4180, with a byte-order mark so that spreadsheets read names right. */
export function resultsCsv(session: Session, { lines }: Account): string {
	const rows = lines.map((line) => [
		line.number,
		line.name,
		line.seat ?? '',
		STATE_NAMES[line.state],
		line.answered,
		line.questions,
		line.late,
		line.heldBack,
		line.score === null ? '' : writtenPoints(line.score.points),
		line.score?.outOf ?? '',
		line.attempt,
		line.counted === null ? '' : writtenPoints(line.counted.points),
		...verdictIn(session, line),
		line.endedAt === null
			? ''
			: DateTime.fromMillis(line.endedAt, { zone: session.site.zone }).toISO({ suppressMilliseconds: true }),
		line.receipt ?? ''
	]);
	const header = [
		'Number',
		'Name',
		'Seat',
		'Status',
		'Answered',
		'Questions',
		'Late answers',
		'Held back',
		'Points',
		'Out of',
		'Attempt',
		'Counting points',
		'Passed',
		'Band',
		'Ended',
		'Receipt'
	];
	return writeCsv([header, ...rows]);
}
