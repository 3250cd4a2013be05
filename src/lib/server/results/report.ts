import { counted } from '$core/names';
import type { Content } from 'pdfmake/interfaces';
import { GATES } from '$core/closing';
import { grantInWords } from '$core/grants';
import { groupBy } from '$core/group-by';
import { INCIDENT_DECISIONS, VALIDITY_NAMES } from '$core/validity';
import { byTenths, shownPoints } from '$core/results';
import { STATE_NAMES } from '$core/sitting';
import { entryInWords } from '$core/logbook';
import { clockTime, longDate, MINUTE, timeAndDate } from '$core/time';
import { accountFor, incidentsToDecide, type Standing } from '../closing';
import type { Query } from '../db';
import type { House } from '../house';
import { figures } from '../marking';
import { countOfSession, searchLogbook } from '../logbook';
import { paperVersion } from '../paper';
import { toPdf } from '../print';
import { headOf } from '../proof';
import { findGrants, type Session } from '../records';
import { resultLines, type ResultLine } from './lines';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

const heading = (text: string): Content => ({ text, fontSize: 14, bold: true, margin: [0, 16, 0, 5] });
const table = (rows: (string | number)[][], widths?: (string | number)[]): Content => ({
	table: {
		headerRows: 1,
		// A heading and the head of a table never stand alone at the foot of a page.
		keepWithHeaderRows: 2,
		dontBreakRows: true,
		...(widths ? { widths } : {}),
		body: rows.map((row, i) => row.map((cell) => ({ text: String(cell), bold: i === 0, fontSize: 9.5 })))
	},
	layout: 'lightHorizontalLines'
});

/** The report of an administration, for the board's folder. */
export async function administrationReport(otium: Needs, standing: Standing): Promise<Uint8Array> {
	const { db } = otium;
	const { administration, sites, ledger, gates, closed } = standing;
	const lines = (await resultLines(db, (query) => query.where('sitting.administration_id', administration.id))).filter(
		({ sitting }) => sites.some(({ id }) => id === sitting.siteId)
	);
	const zone = sites[0]?.zone ?? 'UTC';
	const now = otium.now();
	const head = await headOf(db, now);
	const incidents = (await incidentsToDecide(db, administration.id)).filter(({ siteId }) =>
		sites.some(({ id }) => id === siteId)
	);
	const content: Content[] = [
		{ text: administration.name, style: 'title' },
		{
			text: closed
				? `Closed by ${closed.by}${closed.second ? ` and ${closed.second}` : ''}, ${timeAndDate(closed.at, zone, now)}. Final.`
				: `As of ${longDate(now, zone, now)}. Preliminary: not closed.`,
			style: 'quiet'
		},
		heading('Everyone accounted for'),
		table([
			['Expected', ...Object.keys(ledger.columns).map((column) => column.replace('_', ' '))],
			[ledger.expected, ...Object.values(ledger.columns).map((ids) => ids.length)]
		]),
		...(await papersPart(otium, administration.id, lines)),
		heading('Validity'),
		table([
			['Verdict', 'Results'],
			...(['valid', 'doubtful', 'void'] as const).map((verdict) => [
				VALIDITY_NAMES[verdict],
				lines.filter(({ validity }) => (validity?.verdict ?? 'valid') === verdict).length
			])
		]),
		heading(`Incidents (${incidents.length})`),
		...(incidents.length === 0
			? [{ text: 'None.' }]
			: [
					table(
						[
							['What', 'Where and when', 'Decided'],
							...incidents.map((one) => [
								`${one.what}: ${one.note}`,
								`${one.session}, ${timeAndDate(one.happenedAt, one.zone, now)}`,
								decidedInWords(one.people.map(({ decision }) => decision?.decision ?? null))
							])
						],
						['*', 150, 130]
					)
				]),
		...(await grantsPart(db, administration.id, zone)),
		{
			unbreakable: true,
			stack: [
				heading('Gates'),
				table(
					[
						['Gate', ...sites.map(({ name }) => name)],
						...(Object.keys(GATES) as (keyof typeof GATES)[]).map((key) => [
							GATES[key],
							...sites.map(
								({ id }) =>
									gates.find((gate) => gate.key === key && (gate.siteId === id || gate.siteId === null))?.words ?? ''
							)
						])
					],
					[110, ...sites.map(() => '*')]
				)
			]
		},
		{
			text: `Head of the log: entry ${head.entries}, ${head.head}`,
			style: 'quiet',
			fontSize: 8.5,
			margin: [0, 18, 0, 0]
		},
		...(closed ? [{ text: `Archive, SHA-256: ${closed.sha256}`, style: 'quiet', fontSize: 8.5 }] : [])
	];
	return toPdf(otium, `Report: ${administration.name}`, { content });
}

function decidedInWords(decisions: (keyof typeof INCIDENT_DECISIONS | null)[]): string {
	const by = groupBy(decisions, (decision) => decision);
	return [...by]
		.map(([decision, all]) => `${decision ? INCIDENT_DECISIONS[decision] : 'undecided'} (${all.length})`)
		.join(', ');
}

/** By paper: numbers by site, the distribution as a drawing, bands and reliability. */
async function papersPart(otium: Needs, administrationId: string, lines: ResultLine[]): Promise<Content[]> {
	const parts: Content[] = [];
	for (const [paperId, own] of groupBy(lines, ({ sitting }) => sitting.paperId)) {
		const { title } = await paperVersion(otium.db, paperId);
		const { alpha, standardError, points } = await figures(otium, administrationId, paperId);
		const bands = groupBy(
			own.filter(({ result }) => result.toMark === 0),
			({ result }) => result.band?.name ?? (result.passed === null ? '' : result.passed ? 'Passed' : 'Not passed')
		);
		parts.push(
			heading(`${title}: ${counted(own.length, 'result')}`),
			table([
				['Site', 'Results', 'Mean', 'Least', 'Most'],
				...[...groupBy(own, ({ sitting }) => sitting.site)].map(([site, rows]) => {
					const all = rows.map(({ result }) => result.points);
					const mean = all.reduce((sum, one) => sum + one, 0) / all.length;
					return [site, rows.length, shownPoints(mean), shownPoints(Math.min(...all)), shownPoints(Math.max(...all))];
				})
			]),
			{ svg: distribution(own), margin: [0, 8, 0, 4] },
			{
				text: [
					`Middle ${shownPoints(points.median ?? 0)} points.`,
					alpha.value === null
						? ' Too little in common for a reliability.'
						: ` Reliability (Cronbach’s alpha over ${alpha.over} questions that everybody had) ${alpha.value.toFixed(2)}; standard error of a score ${shownPoints(standardError ?? 0)} points.`,
					bands.size > 1 || !bands.has('')
						? ` ${[...bands].map(([name, rows]) => `${name || 'no band'}: ${rows.length}`).join(', ')}.`
						: ''
				].join(''),
				fontSize: 9.5
			}
		);
	}
	return parts;
}

/** Results in tenths of what there is to reach, as bars with their numbers. */
export function distribution(lines: Pick<ResultLine, 'result'>[]): string {
	const bins = byTenths(lines.map(({ result: { points, outOf } }) => (outOf === 0 ? 0 : points / outOf)));
	return bars(bins, (i) => `${i * 10}–${i * 10 + 10} %`);
}

/** Ten bars with their numbers. @param labelOf by place, from 0 */
function bars(bins: number[], labelOf: (place: number) => string): string {
	const most = Math.max(1, ...bins);
	const drawn = bins
		.map((n, i) => {
			const height = (n / most) * 70;
			const x = 10 + i * 48;
			const label =
				n > 0 ? `<text x="${x + 20}" y="${80 - height}" font-size="9" text-anchor="middle">${n}</text>` : '';
			return `<rect x="${x}" y="${84 - height}" width="40" height="${height}" fill="#1f5e57"/>${label}<text x="${x + 20}" y="96" font-size="8" text-anchor="middle" fill="#56655f">${labelOf(i)}</text>`;
		})
		.join('');
	return `<svg xmlns="http://www.w3.org/2000/svg" width="500" height="100" viewBox="0 0 500 100">${drawn}</svg>`;
}

async function grantsPart(db: Query, administrationId: string, zone: string): Promise<Content[]> {
	const sessions: string[] = await db('session').where({ administration_id: administrationId }).pluck('id');
	const candidates: string[] = await db('sitting')
		.where({ administration_id: administrationId })
		.distinct('candidate_id')
		.pluck('candidate_id');
	const grants = (await findGrants(db, candidates, sessions)).filter(({ withdrawnAt }) => withdrawnAt === null);
	const kinds = groupBy(grants, ({ body }) => body.kind);
	if (grants.length === 0) return [heading('Grants'), { text: 'None.' }];
	return [
		heading(`Grants (${grants.length})`),
		table(
			[
				['Kind', 'Given', 'For example'],
				...[...kinds].map(([kind, all]) => [
					kind === 'credit' ? 'minutes given back' : kind.replaceAll('_', ' '),
					all.length,
					grantInWords(all[0], zone)
				])
			],
			[110, 50, '*']
		)
	];
}

/** When people ended, as bars over the time of the session; nothing where nobody has. */
function endings(lines: { endedAt: number | null }[], { window, endedAt, site }: Session): Content[] {
	const ended = lines.flatMap((line) => line.endedAt ?? []);
	const last = Math.max(endedAt ?? 0, ...ended);
	if (ended.length === 0 || last <= window.opens) return [];
	const bins = byTenths(ended.map((at) => Math.max(0, at - window.opens) / (last - window.opens)));
	const labelOf = (place: number) =>
		`to ${clockTime(window.opens + ((place + 1) * (last - window.opens)) / 10, site.zone)}`;
	return [
		{ unbreakable: true, stack: [heading('When they ended'), { svg: bars(bins, labelOf), margin: [0, 4, 0, 0] }] }
	];
}

const MOST_ACTS = 1_000;

/** What the staff did, in its order; the same done to several within a minute stands once. */
async function actsPart(db: Query, session: Session, now: number): Promise<Content[]> {
	const acts = (await searchLogbook(db, { sessionId: session.id, byStaff: true, limit: MOST_ACTS })).reverse();
	const together = groupBy(acts, (act) => `${Math.floor(act.at / MINUTE)} ${entryInWords(act)}`);
	const rows = [...together.values()].map((same) => {
		const names = same.flatMap(({ candidate }) => candidate ?? []);
		const whom = names.length > 6 ? counted(names.length, 'candidate') : names.join(', ');
		return [timeAndDate(same[0].at, session.site.zone, now), entryInWords(same[0]), whom];
	});
	return [
		heading(`What was done (${acts.length === MOST_ACTS ? `the last ${MOST_ACTS}` : acts.length})`),
		rows.length === 0
			? { text: 'Nothing by the staff.' }
			: table([['When', 'What', 'To whom'], ...rows], [75, '*', 130])
	];
}

/** The report of one session: who, when, incidents, what the staff did, and the log's head. */
export async function sessionReport(otium: Needs, session: Session): Promise<Uint8Array> {
	const { db } = otium;
	const now = otium.now();
	const { zone } = session.site;
	const { ledger, lines } = await accountFor(db, session);
	const incidents = (await incidentsToDecide(db, session.administrationId)).filter(
		({ sessionId }) => sessionId === session.id
	);
	const head = await headOf(db, now);
	const entries = await countOfSession(db, session.id);
	return toPdf(otium, `Report: ${session.name}`, {
		content: [
			{ text: session.name, style: 'title' },
			{
				text: `${session.room.name}, ${session.site.name} · ${timeAndDate(session.window.opens, zone, now)}${session.endedAt ? `, ended ${timeAndDate(session.endedAt, zone, now)}` : ', still running'} · ${entries} log entries`,
				style: 'quiet'
			},
			{
				text: `${ledger.expected} expected: ${Object.entries(ledger.columns)
					.map(([column, ids]) => `${ids.length} ${column.replace('_', ' ')}`)
					.join(', ')}. ${ledger.addsUp ? 'It adds up.' : 'It does not add up.'}`,
				margin: [0, 12, 0, 8]
			},
			table(
				[
					['Number', 'Name', 'Seat', 'Status', 'Answered', 'Ended', 'Receipt'],
					...lines.map((line) => [
						line.number,
						line.name,
						line.seat ?? '',
						STATE_NAMES[line.state],
						line.questions > 0 ? `${line.answered} of ${line.questions}` : '',
						line.endedAt ? timeAndDate(line.endedAt, zone, now) : '',
						line.receipt ?? ''
					])
				],
				['auto', '*', 'auto', 'auto', 'auto', 'auto', 'auto']
			),
			...endings(lines, session),
			heading(`Incidents (${incidents.length})`),
			...(incidents.length === 0
				? [{ text: 'None.' }]
				: incidents.map((one) => ({
						text: `${one.what}, ${timeAndDate(one.happenedAt, zone, now)}: ${one.note} ${one.done} ${one.people.map(({ name }) => name).join(', ')}. ${decidedInWords(one.people.map(({ decision }) => decision?.decision ?? null))}.`,
						fontSize: 9.5,
						margin: [0, 2, 0, 2] as [number, number, number, number]
					}))),
			...(await actsPart(db, session, now)),
			{
				text: `Head of the log: entry ${head.entries}, ${head.head}`,
				style: 'quiet',
				fontSize: 8.5,
				margin: [0, 18, 0, 0]
			}
		]
	});
}
