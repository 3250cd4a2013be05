import { writeCsv } from '$core/formats';
import { bandOf, reachesPercent } from '$core/marking';
import { STATE_NAMES } from '$core/sitting';
import { DateTime } from 'luxon';
import type { Session } from '../session';
import type { Account } from './account';

function passedOf({ rules }: Session, { counted }: Account['lines'][number]): string {
	const pass = rules.result.passPercent;
	if (pass === null || counted === null) return '';
	return reachesPercent(counted, pass) ? 'yes' : 'no';
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
		line.score?.points ?? '',
		line.score?.outOf ?? '',
		line.attempt,
		line.counted === null ? '' : Math.round(line.counted.points * 1e6) / 1e6,
		passedOf(session, line),
		(line.counted && bandOf(session.rules.result.bands, line.counted)?.name) ?? '',
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
