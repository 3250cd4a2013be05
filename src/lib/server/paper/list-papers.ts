import { sitesWith, type StaffMember } from '$core/access';
import type { PaperCard } from '$core/paper';
import { cardIn, type Query, questionsIn } from '../db';

export type PaperLine = {
	title: string;
	/** Newest first. `sessions`: how many sessions use it, past ones included. */
	versions: {
		id: string;
		version: number;
		frozenAt: number | null;
		/** When it was withdrawn; null: it is offered. */
		withdrawnAt: number | null;
		sessions: number;
		questions: number;
	}[];
	/** What tells it from others, of what is being written or else of the latest version. */
	card: PaperCard;
	draft: { id: string; site: string | null; changedAt: number; changedBy: string; questions: number } | null;
};

/** The papers that somebody may write at, each with its versions and what is being written. */
export async function listPapers(db: Query, staff: StaffMember): Promise<PaperLine[]> {
	const sites = sitesWith(staff, 'write_papers');
	const versions: {
		id: string;
		title: string;
		version: number;
		frozen_at: number | null;
		withdrawn_at: number | null;
		card: string | null;
		questions: number;
	}[] = await db('paper')
		.modify((query) => {
			if (sites !== null) query.whereIn('id', ownVersions(db, sites));
		})
		.orderBy('version', 'desc')
		.select('id', 'title', 'version', 'frozen_at', 'withdrawn_at', cardIn(db, 'paper'), questionsIn(db, 'paper'));
	const used: { paper_id: string; n: number }[] = await db('session')
		.groupBy('paper_id')
		.select('paper_id')
		.count('* as n');
	const sessions = new Map(used.map((row) => [row.paper_id, Number(row.n)]));
	const drafts: {
		id: string;
		title: string;
		site: string | null;
		changed_at: number;
		changed_by: string | null;
		card: string | null;
		questions: number;
	}[] = await db('paper_draft')
		.leftJoin('site', 'site.id', 'paper_draft.site_id')
		.leftJoin('staff', 'staff.id', 'paper_draft.changed_by')
		.modify((query) => {
			if (sites !== null) query.whereIn('paper_draft.site_id', sites);
		})
		.select(
			'paper_draft.id',
			'paper_draft.title',
			'site.name as site',
			'changed_at',
			'staff.name as changed_by',
			cardIn(db, 'paper_draft'),
			questionsIn(db, 'paper_draft')
		);
	const titles = [...new Set([...versions, ...drafts].map(({ title }) => title))].sort((a, b) => a.localeCompare(b));
	return titles.map((title) => {
		const draft = drafts.find((one) => one.title === title);
		const card = draft?.card ?? versions.find((one) => one.title === title)?.card;
		return {
			title,
			card: card ? JSON.parse(card) : {},
			versions: versions
				.filter((one) => one.title === title)
				.map(({ id, version, frozen_at, withdrawn_at, questions }) => ({
					id,
					version,
					frozenAt: frozen_at,
					withdrawnAt: withdrawn_at,
					sessions: sessions.get(id) ?? 0,
					questions
				})),
			draft: draft
				? {
						id: draft.id,
						site: draft.site,
						changedAt: draft.changed_at,
						changedBy: draft.changed_by ?? '',
						questions: draft.questions
					}
				: null
		};
	});
}

/** Versions that may be sat at one of these sites or were written there: whoever writes at another sees no key of them. */
export function ownVersions(db: Query, sites: string[]) {
	return db('paper')
		.leftJoin('paper_draft', 'paper_draft.id', 'paper.draft_id')
		.leftJoin('paper_allowed', 'paper_allowed.paper_id', 'paper.id')
		.leftJoin('candidate_group', 'candidate_group.id', 'paper_allowed.group_id')
		.where((either) =>
			either
				.whereIn('paper_draft.site_id', sites)
				.orWhereIn('paper_allowed.site_id', sites)
				.orWhereIn('candidate_group.site_id', sites)
		)
		.select('paper.id');
}
