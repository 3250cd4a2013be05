import type { StaffRole } from '$core/access';
import { fail } from '$core/problem';
import { fullName, someNames } from '$core/names';
import { longDate } from '$core/time';
import { transact, type Query } from '../db';
import type { Writing } from '../house';
import { ownNote } from '../identity';
import { appendToLogbook, type NewEntry } from '../logbook';
import { postLetter } from '../mail';
import { countingSittings } from '../marking';
import { paperVersion } from '../paper';

/** How much candidates read: whether they passed and their band, or the points with it, by topic too. */
export const RELEASE_SHOWS = {
	outcome: 'Passed or not, and the band',
	points: 'Points as well',
	topics: 'Points by topic as well'
} as const;
export type ReleaseShows = keyof typeof RELEASE_SHOWS;
/** Roles of the staff that results can be released to; whoever sees the closing has them without. */
export const RELEASE_TO = [
	'proctor',
	'site_proctor',
	'grants_officer',
	'author',
	'marker'
] as const satisfies readonly StaffRole[];
export type ReleaseRole = (typeof RELEASE_TO)[number];
/** `staff`: who of the staff reads them as well; none: candidates alone. */
export type ReleaseRule = { shows: ReleaseShows; staff?: ReleaseRole[] };

export type Release = {
	id: string;
	paperId: string;
	paper: string;
	rule: ReleaseRule;
	fromAt: number;
	by: string;
	at: number;
	calledBackAt: number | null;
	/** How many have read theirs, of how many. */
	read: number;
	of: number;
};

type Row = {
	id: string;
	paper_id: string;
	body: string;
	from_at: number;
	by: string;
	at: number;
	called_back_at: number | null;
	read: number;
};

/** All releases of an administration, latest first; those that were called back are among them. */
export async function releasesOf(db: Query, administrationId: string): Promise<Release[]> {
	const rows: Row[] = await db('release')
		.leftJoin('staff', 'staff.id', 'release.by')
		.leftJoin('release_read', 'release_read.release_id', 'release.id')
		.where({ administration_id: administrationId })
		.groupBy('release.id')
		.orderBy('release.at', 'desc')
		.select('release.*', 'staff.name as by')
		.count('release_read.sitting_id as read');
	const all = await countingSittings(db, (query) => query.where('sitting.administration_id', administrationId));
	return Promise.all(
		rows.map(async (row) => ({
			id: row.id,
			paperId: row.paper_id,
			paper: (await paperVersion(db, row.paper_id)).title,
			rule: JSON.parse(row.body) as ReleaseRule,
			fromAt: row.from_at,
			by: row.by,
			at: row.at,
			calledBackAt: row.called_back_at,
			read: Number(row.read),
			of: all.filter(({ paperId }) => paperId === row.paper_id).length
		}))
	);
}

/**
 * Lets candidates read their results of a paper, from an instant on. Whoever has an address is sent a link to their page
 * when it is time. A release of the same paper that stands is refused.
 */
export async function releaseResults(
	otium: Writing,
	by: NewEntry['by'],
	asked: {
		id: string;
		administrationId: string;
		paperId: string;
		rule: ReleaseRule;
		fromAt: number;
		/** Where candidates’ pages are. */
		origin: string;
	}
): Promise<void> {
	const at = otium.now();
	const counting = await countingSittings(otium.db, (query) =>
		query.where({ 'sitting.administration_id': asked.administrationId, 'sitting.paper_id': asked.paperId })
	);
	if (counting.length === 0) fail('not_taken', { message: 'Nobody has a result of this paper yet.' });
	await transact(otium.db, async (trx) => {
		if (await trx('release').where({ id: asked.id }).first('id')) return;
		const standing = await trx('release')
			.where({ administration_id: asked.administrationId, paper_id: asked.paperId })
			.whereNull('called_back_at')
			.first('id');
		if (standing)
			fail('not_taken', {
				message: 'Results of this paper are released already.',
				instead: 'Call that release back first, if nobody has read it.'
			});
		await trx('release').insert({
			id: asked.id,
			administration_id: asked.administrationId,
			paper_id: asked.paperId,
			body: JSON.stringify({ ...asked.rule, origin: asked.origin }),
			from_at: Math.max(asked.fromAt, at),
			by: by.id,
			at
		});
		const { administrationId, paperId, rule, fromAt } = asked;
		await appendToLogbook(trx, [
			{
				at,
				by,
				kind: 'results_released',
				body: { administrationId, paperId, ...rule, fromAt, results: counting.length }
			}
		]);
	});
}

/** Takes a release back as long as nobody has read a result by it. @throws ProblemError with who read it */
export async function callBack(otium: Writing, by: NewEntry['by'], id: string): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		const row: { administration_id: string; paper_id: string; called_back_at: number | null } | undefined = await trx(
			'release'
		)
			.where({ id })
			.first();
		if (!row) fail('not_found');
		if (row.called_back_at !== null) return;
		const readers: { given: string; family: string }[] = await trx('release_read')
			.join('sitting', 'sitting.id', 'release_read.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ release_id: id })
			.orderBy(['family', 'given'])
			.select('given', 'family');
		const staff: string[] = await trx('release_staff_read')
			.join('staff', 'staff.id', 'release_staff_read.staff_id')
			.where({ release_id: id })
			.orderBy('staff.name')
			.pluck('staff.name');
		const all = [...readers.map(fullName), ...staff];
		if (all.length > 0) {
			fail('refused', {
				message: `${someNames(all, 5)} ${all.length === 1 ? 'has' : 'have'} read ${staff.length > 0 ? 'results' : 'their result'}, so it can’t be called back.`,
				instead: 'Correct what is wrong; those whose result changes are told.'
			});
		}
		await trx('release').where({ id }).update({ called_back_at: at, called_back_by: by.id });
		await appendToLogbook(trx, [
			{ at, by, kind: 'release_called_back', body: { administrationId: row.administration_id, paperId: row.paper_id } }
		]);
	});
}

/** Writes to those whose results have come out by now, once each. Returns how many letters went into the post. */
export async function postReleases(otium: Writing): Promise<number> {
	const now = otium.now();
	const due: { id: string; administration_id: string; paper_id: string; body: string }[] = await otium
		.db('release')
		.where('from_at', '<=', now)
		.whereNull('called_back_at')
		.whereNull('mailed_at');
	let posted = 0;
	for (const release of due) {
		const { title } = await paperVersion(otium.db, release.paper_id);
		const { origin } = JSON.parse(release.body) as { origin: string };
		const sittings = await countingSittings(otium.db, (query) =>
			query.where({ 'sitting.administration_id': release.administration_id, 'sitting.paper_id': release.paper_id })
		);
		const ids = [...new Set(sittings.map(({ candidateId }) => candidateId))];
		const people: { id: string; given: string; family: string; email: string | null }[] = await otium
			.db('candidate')
			.whereIn('id', ids)
			.select('id', 'given', 'family', 'email');
		const letters = await Promise.all(
			people
				.filter(({ email }) => email !== null)
				.map(async ({ id, email, ...name }) => ({
					kind: 'results',
					name: fullName(name),
					address: email!,
					subject: `Your result: ${title}`,
					body: `Dear ${fullName(name)},\n\nyour result of ${title} is out. Read it here:\n\n${origin}/mine/${await ownNote(otium.db, id, now)}\n\nThe link is yours alone. It works until ${longDate(now + 60 * 86_400_000, 'UTC', now)}.\n`
				}))
		);
		await transact(otium.db, async (trx) => {
			for (const letter of letters) await postLetter(trx, letter, now);
			await trx('release').where({ id: release.id }).update({ mailed_at: now });
		});
		posted += letters.length;
	}
	return posted;
}
