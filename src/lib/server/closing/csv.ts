import { stringify } from 'csv-stringify/sync';
import { STATE_NAMES } from '$core/sitting';
import { DateTime } from 'luxon';
import type { Session } from '../session';
import type { Account } from './account';

/** A cell that a spreadsheet would take for a formula is told to be text (OWASP, CSV injection). */
function harmless(cell: string): string {
	return /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
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
		line.score?.points ?? '',
		line.score?.outOf ?? '',
		line.endedAt === null
			? ''
			: DateTime.fromMillis(line.endedAt, { zone: session.site.zone }).toISO({ suppressMilliseconds: true }),
		line.receipt ?? ''
	]);
	const header = ['Number', 'Name', 'Seat', 'State', 'Answered', 'Questions', 'Points', 'Out of', 'Ended', 'Receipt'];
	return stringify(
		[header, ...rows.map((row) => row.map((cell) => (typeof cell === 'string' ? harmless(cell) : cell)))],
		{
			bom: true,
			record_delimiter: 'windows'
		}
	);
}
