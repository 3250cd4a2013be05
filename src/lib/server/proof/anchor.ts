import { appendFile, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { macOf, NO_GROUP, perHouse, sealSecret, type Query } from '../db';
import type { House } from '../house';

/** How far the record reached at an instant: whoever has this knows later whether its end was cut off or made anew. */
export type Head = {
	/** ISO 8601. */
	at: string;
	/** Entries of the logbook, and the hash of the last. */
	entries: number;
	head: string;
	/** Groups of answers, and the hash of the last. */
	groups: number;
	groupHead: string;
};
export type Anchor = Head & { mac: string };

const FILE = 'anchors.log';
const POST_MS = 5_000;

export async function headOf(db: Query, now: number): Promise<Head> {
	const entry = await db('logbook').orderBy('seq', 'desc').first('seq', 'hash');
	const group = await db('answer_group').orderBy('seq', 'desc').first('seq', 'hash');
	return {
		at: new Date(now).toISOString(),
		entries: entry?.seq ?? 0,
		head: entry?.hash ?? '',
		groups: group?.seq ?? 0,
		groupHead: group?.hash ?? NO_GROUP
	};
}

/** With the house's seal, so that nobody else writes one. */
export function anchorOf(db: Query, head: Head): Anchor {
	return { ...head, mac: macOf(db, 'anchor', JSON.stringify(orderOf(head))) };
}

const orderOf = ({ at, entries, head, groups, groupHead }: Head) => [at, entries, head, groups, groupHead];

/** An anchor as a line; null: it is none of this house's. */
export function readAnchor(db: Query, line: string): Anchor | null {
	try {
		const said = JSON.parse(line) as Anchor;
		return anchorOf(db, said).mac === said.mac ? said : null;
	} catch {
		return null;
	}
}

/** Where anchors go: `file` in the data folder always; and where `OTIUM_ANCHOR` says, by commas. */
export function anchorPlaces(dataDir: string, named = process.env.OTIUM_ANCHOR ?? '') {
	const places = named
		.split(',')
		.map((place) => place.trim())
		.filter(Boolean);
	const urls = places.filter((place) => /^https?:\/\//.test(place));
	const mails = places.filter((place) => place.startsWith('mailto:')).map((place) => place.slice('mailto:'.length));
	const files = places.filter((place) => !urls.includes(place) && !place.startsWith('mailto:'));
	return { files: [join(dataDir, FILE), ...files], urls, mails };
}

/** What was written down last, and where; by night nothing happens, and nothing is written. */
const last = perHouse((): { anchor: Anchor | null; places: Set<string> } => ({ anchor: null, places: new Set() }));

/**
 * Writes down elsewhere how far the record has come, if it has come further. Each place is tried, also when another fails.
 * @throws AggregateError with what failed
 */
export async function castAnchor(otium: Pick<House, 'db' | 'now' | 'dataDir'>): Promise<Anchor> {
	const head = await headOf(otium.db, otium.now());
	const known = last(otium.db);
	const isSame = known.anchor !== null && known.anchor.head === head.head && known.anchor.groupHead === head.groupHead;
	const anchor = isSame ? known.anchor! : anchorOf(otium.db, head);
	if (!isSame) Object.assign(known, { anchor, places: new Set() });
	const line = `${JSON.stringify(anchor)}\n`;
	const { files, urls } = anchorPlaces(otium.dataDir);
	// While one place fails, the others have it once.
	const places = [...files, ...urls].filter((place) => !known.places.has(place));
	const done = await Promise.allSettled(
		places.map(async (place) => {
			await (urls.includes(place) ? post(place, line) : appendFile(place, line, { mode: 0o600 }));
			known.places.add(place);
		})
	);
	const failed = done.flatMap((one) => (one.status === 'rejected' ? [one.reason as Error] : []));
	if (failed.length > 0) throw new AggregateError(failed, failed.map((one) => one.message).join('; '));
	return anchor;
}

async function post(url: string, body: string): Promise<void> {
	const signal = AbortSignal.timeout(POST_MS);
	const answer = await fetch(url, { method: 'POST', body, headers: { 'content-type': 'application/json' }, signal });
	if (!answer.ok) throw new Error(`${new URL(url).host} answered ${answer.status}`);
}

/** Puts it into the post, within the transaction that ends a session, where the house names somebody to keep it. */
export async function mailAnchor(trx: Query, session: { id: string; name: string }, now: number): Promise<void> {
	const { mails } = anchorPlaces('');
	if (mails.length === 0) return;
	const anchor = anchorOf(trx, await headOf(trx, now));
	const rows = mails.map((address) => ({
		id: nanoid(),
		made_at: now,
		session_id: session.id,
		kind: 'record',
		to_name: address,
		to_address: address,
		subject: `The record at the end of ${session.name}`,
		body: sealSecret(
			trx,
			`Keep this mail. It shows later whether the record of this house was cut off or changed.\n\n${JSON.stringify(anchor)}\n`
		),
		state: 'waiting'
	}));
	await trx('mail').insert(rows);
}

/** The anchor of these lines that reaches furthest; null: none is this house's. */
export async function furthestAnchor(db: Query, files: string[]): Promise<Anchor | null> {
	let furthest: Anchor | null = null;
	for (const file of files) {
		const text = await readFile(file, 'utf8').catch(() => '');
		for (const line of text.split('\n').filter(Boolean)) {
			const anchor = readAnchor(db, line);
			if (anchor && (furthest === null || anchor.entries + anchor.groups > furthest.entries + furthest.groups))
				furthest = anchor;
		}
	}
	return furthest;
}

/** What of the record is not as it was when it was anchored; null: it all is. */
export async function anchorFault(db: Query, anchor: Anchor): Promise<string | null> {
	const when = `at ${anchor.at}`;
	const entry = anchor.entries > 0 ? await db('logbook').where({ seq: anchor.entries }).first('hash') : null;
	if (anchor.entries > 0 && !entry)
		return `the logbook had ${anchor.entries} entries ${when}; what came last is missing`;
	if (entry && entry.hash !== anchor.head) return `the logbook is not what it was ${when}`;
	const group = anchor.groups > 0 ? await db('answer_group').where({ seq: anchor.groups }).first('hash') : null;
	if (anchor.groups > 0 && !group)
		return `answers had come in ${anchor.groups} groups ${when}; what came last is missing`;
	return group && group.hash !== anchor.groupHead ? `the answers are not what they were ${when}` : null;
}
