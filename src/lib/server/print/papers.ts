import { counted } from '$core/names';
import type { Content, TableCell } from 'pdfmake/interfaces';
import { showSlip } from '$core/access';
import { grantInWords } from '$core/grants';
import { seatRows } from '$core/seating';
import { KIND_NAMES, type Script } from '$core/session';
import { clockTime, longDate, zoneName } from '$core/time';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import { anchorOf, headOf, type Anchor } from '../proof';
import type { House } from '../house';
import { helpIn, type HelpContact } from '../contacts';
import { scriptOf, slipsFor, type Session } from '../session';
import { loadSittings, whereOf, type Loaded } from '../sitting';
import { toPdf } from './pdf';

/** What can be printed for a session. */
export const PRINTS = {
	slips: 'Slips',
	seating: 'Seating plan',
	register: 'Attendance register',
	script: 'Instructions and script',
	help: 'Help sheet'
} as const;
export type Print = keyof typeof PRINTS;

type Row = {
	sittingId: string;
	name: string;
	number: string;
	seat: string | null;
	/** They went on in another session. */
	movedOn: boolean;
	/** Another room than the session's. */
	where: string | null;
	minutes: string;
	grants: string[];
};

/** Draws one of the prints of a session. */
export async function printFor(
	otium: Pick<House, 'db' | 'now' | 'threads'>,
	session: Session,
	print: Print,
	origin: string
): Promise<Uint8Array> {
	const everybody = await rosterRows(otium.db, session, otium.now());
	// Whoever went on in another session was expected here, and is expected no more.
	const rows = everybody.filter((row) => !row.movedOn);
	await giveWay();
	const title = `${PRINTS[print]}: ${session.name}`;
	switch (print) {
		case 'slips':
			return toPdf(otium, title, {
				content: slips(
					session,
					rows,
					await slipsFor(
						otium.db,
						rows.map((row) => row.sittingId)
					),
					origin
				)
			});
		case 'seating':
			return toPdf(otium, title, {
				pageOrientation: session.room.seatsPerRow > 6 ? 'landscape' : 'portrait',
				content: seating(session, rows)
			});
		case 'register':
			return toPdf(otium, title, {
				content: [...register(session, everybody), anchorLine(anchorOf(otium.db, await headOf(otium.db, otium.now())))]
			});
		case 'help':
			return toPdf(otium, title, { content: helpSheet(session, await helpIn(otium.db, session.administrationId)) });
		case 'script':
			return toPdf(otium, title, { content: script(session, rows, await scriptOf(otium.db, session)) });
	}
}

async function rosterRows(db: Query, session: Session, now: number): Promise<Row[]> {
	const seats: { sitting_id: string; seat: string | null }[] = await db('roster')
		.where({ session_id: session.id })
		.select('sitting_id', 'seat');
	const sittings = await loadSittings(
		db,
		seats.map((row) => row.sitting_id),
		now
	);
	const seatOf = new Map(seats.map((row) => [row.sitting_id, row.seat]));
	const { compare } = new Intl.Collator();
	sittings.sort(
		(a, b) => compare(a.candidate.family, b.candidate.family) || compare(a.candidate.given, b.candidate.given)
	);
	return sittings.map((one) => ({
		sittingId: one.sitting.id,
		name: [one.candidate.family, one.candidate.given].filter(Boolean).join(', '),
		number: one.candidate.number,
		movedOn: one.sitting.sessionId !== session.id,
		...besideRoom(one, seatOf.get(one.sitting.id) ?? null, session.room.name),
		minutes: one.reckoning.allotted === null ? 'no limit' : `${Math.round(one.reckoning.allotted / 60_000)} min`,
		grants: one.grants
			.filter((grant) => grant.withdrawnAt === null && grant.candidateId !== null)
			.map((grant) => grantInWords(grant, session.site.zone))
	}));
}

/** Where they sit, if not in the session's room, stands in place of the seat. */
function besideRoom(one: Loaded, seatHere: string | null, hereName: string): Pick<Row, 'seat' | 'where'> {
	const { room, seat } = whereOf(one, seatHere);
	return { seat, where: room === hereName ? null : room };
}

function heading(session: Session, what: string): Content {
	const { opens } = session.window;
	const { zone } = session.site;
	const kind = session.kind === 'live' ? '' : `${KIND_NAMES[session.kind].toUpperCase()} · `;
	return [
		{ text: what, style: 'title' },
		{
			text: `${kind}${session.paper.title}, version ${session.paper.version} · ${session.room.name}, ${session.site.name} · ${longDate(opens, zone)} ${new Date(opens).getUTCFullYear()}, ${clockTime(opens, zone)} ${zoneName(opens, zone)}`,
			style: 'quiet',
			margin: [0, 2, 0, 14]
		}
	];
}

/** One each, two in a row, cut along the lines. */
function slips(session: Session, rows: Row[], codes: Map<string, string>, origin: string): Content[] {
	const { opens } = session.window;
	const { zone } = session.site;
	const card = (row: Row): TableCell => {
		const code = codes.get(row.sittingId)!;
		return {
			unbreakable: true,
			columns: [
				{
					width: '*',
					stack: [
						{ text: row.name, bold: true, fontSize: 12 },
						{ text: `${row.number}${row.seat ? ` · seat ${row.seat}` : ''}`, margin: [0, 0, 0, 4] },
						{ text: session.paper.title },
						{ text: `${longDate(opens, zone)}, ${clockTime(opens, zone)} ${zoneName(opens, zone)}` },
						{ text: `${session.room.name}, ${session.site.name}`, margin: [0, 0, 0, 6] },
						{ text: showSlip(code), style: 'code' },
						{ text: `1  Go to ${origin.replace(/^https?:\/\//, '')}/sit`, fontSize: 9, margin: [0, 5, 0, 0] },
						{ text: '2  Enter this code, or scan it', fontSize: 9 },
						{ text: '3  Check your name, and wait to be let in', fontSize: 9 }
					]
				},
				{ width: 76, qr: `${origin}/sit?code=${code}`, fit: 76 }
			],
			columnGap: 6,
			margin: [4, 8, 4, 8]
		};
	};
	const lines: TableCell[][] = [];
	for (let i = 0; i < rows.length; i += 2) lines.push([card(rows[i]), rows[i + 1] ? card(rows[i + 1]) : '']);
	if (lines.length === 0) return [heading(session, 'Slips'), { text: 'Nobody is expected.' }];
	return [
		{
			table: { widths: ['50%', '50%'], body: lines, dontBreakRows: true },
			layout: 'cutLines'
		}
	];
}

function seating(session: Session, rows: Row[]): Content[] {
	const bySeat = new Map(rows.map((row) => [row.seat, row]));
	const { plan } = session.room;
	const body = seatRows(session.room.rows, session.room.seatsPerRow).map((line) =>
		line.map((seat): TableCell => {
			const row = bySeat.get(seat);
			const isOut = plan.outOfUse.includes(seat);
			return {
				stack: [
					{ text: seat, bold: true, fontSize: 9 },
					{ text: row ? row.name : isOut ? 'out of use' : '', fontSize: 8.5 },
					{ text: row?.number ?? '', fontSize: 8, color: '#5a6660' }
				],
				fillColor: isOut ? '#eee9dc' : undefined,
				margin: [1, 2, 1, 2]
			};
		})
	);
	const standing = rows.filter((row) => row.seat === null);
	return [
		heading(session, 'Seating plan'),
		{ text: 'front', alignment: 'center', style: 'quiet', margin: [0, 0, 0, 6] },
		{ table: { widths: Array.from({ length: session.room.seatsPerRow }, () => '*'), body, heights: 40 } },
		...(standing.length > 0
			? [
					{
						text: `Without a seat: ${standing.map((row) => `${row.name} (${row.number})`).join('; ')}`,
						margin: [0, 10, 0, 0] as [number, number, number, number]
					}
				]
			: [])
	];
}

/** Whoever keeps the paper can show later whether the record was cut off or made anew. */
function anchorLine({ at, entries, head, groups, groupHead, mac }: Anchor): Content {
	return {
		text: `Record of this house at ${at}: ${counted(entries, 'entry', 'entries')}, ${head}; ${groups} groups of answers, ${groupHead}; sealed ${mac}`,
		style: 'quiet',
		fontSize: 7,
		margin: [0, 14, 0, 0]
	};
}

function register(session: Session, rows: Row[]): Content[] {
	const head = ['', 'Name', 'Number', 'Seat', 'Time', 'Present', 'Signature'].map((text) => ({ text, bold: true }));
	return [
		heading(session, 'Attendance register'),
		{
			table: {
				headerRows: 1,
				widths: [18, '*', 60, 48, 48, 42, 102],
				dontBreakRows: true,
				body: [
					head,
					...rows.map((row, i) => [
						String(i + 1),
						row.name,
						row.number,
						row.movedOn ? 'went on elsewhere' : (row.seat ?? row.where ?? ''),
						row.minutes,
						'',
						''
					])
				]
			},
			layout: 'lightHorizontalLines'
		},
		{
			text: `${rows.length} expected.   Present: ______   Absent: ______   Proctor: ______________________________`,
			margin: [0, 16, 0, 0]
		}
	];
}

function script(session: Session, rows: Row[], { steps, aloud, trouble }: Script): Content[] {
	const more = rows.filter((row) => row.grants.length > 0);
	const part = (text: string): Content => ({ text, bold: true, fontSize: 13, margin: [0, 14, 0, 4] });
	return [
		heading(session, 'Instructions and script'),
		{ ...(part('For the proctor') as object), margin: [0, 0, 0, 4] } as Content,
		{ ol: steps },
		...(more.length > 0
			? [
					part('Extra time and other grants'),
					{ ul: more.map((row) => `${row.name}, ${row.number}: ${row.grants.join(', ')} (${row.minutes})`) }
				]
			: []),
		part('To read aloud'),
		{ text: aloud, fontSize: 13, lineHeight: 1.4, margin: [12, 0, 12, 0] },
		part('When something goes wrong'),
		...trouble.map(({ title, lines }): Content => ({
			stack: [{ text: title, bold: true }, ...lines],
			margin: [0, 0, 0, 6],
			unbreakable: true
		}))
	];
}

/** For the door, behind the board: whom to call, by what has gone wrong. */
function helpSheet(session: Session, contacts: HelpContact[]): Content[] {
	const rows = contacts.map((one): TableCell[] => [
		{ text: one.problem, bold: true },
		[one.hours ? `${one.name}, ${one.hours}` : one.name, one.email].filter(Boolean).join('\n'),
		{ text: one.telephone, fontSize: 15, bold: true }
	]);
	return [
		heading(session, 'Who can help'),
		rows.length === 0
			? 'Nobody is named: enter contacts under Prepare, Administration.'
			: { table: { widths: ['auto', '*', 'auto'], body: rows }, layout: 'lightHorizontalLines', fontSize: 13 }
	];
}
