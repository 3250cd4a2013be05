import { createHash } from 'node:crypto';
import { nanoid } from 'nanoid';
import { sitesWith, type StaffMember } from '$core/access';
import { doubtsOfPaper, type Edited, editPaper, type Paper, type PaperEdit, questionsOf } from '$core/paper';
import { writesAt } from '$core/bank';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { keepInBank, type Kept, noteUse, writerOf } from '../bank';
import { type Query, transact } from '../db';
import type { House, Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { MOST_QUESTIONS } from './edit-schema';
import { ownVersions } from './list-papers';

/** A paper that is being written. */
export type PaperDraft = {
	id: string;
	title: string;
	siteId: string | null;
	content: Paper;
	revision: number;
	/** The version it goes on from; null: it is new. */
	basedOn: { id: string; version: number } | null;
	changedAt: number;
	changedBy: string;
};

/** Far more than any paper has; whoever writes one larger has pasted something else. */
const MOST_BYTES = 4 * 1024 * 1024;

/**
 * A paper to write: a new one, or the next version of one that is there. There is one draft to a title.
 * @param asked `from`: the version to go on from, or with `isCopy` to make another paper of; `content`: what a new one has
 * @throws ProblemError not_yours, not_found, in_the_way (the title is taken)
 */
export async function makeDraft(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	asked: { title: string; siteId: string | null; from: string | null; isCopy?: boolean; content?: Paper }
): Promise<string> {
	if (!writesAt(asked.siteId, writerOf(staff))) fail('not_yours');
	return transact(otium.db, async (trx) => {
		let content: Paper = asked.content
			? { ...asked.content, title: asked.title }
			: { title: asked.title, parts: [{ title: '', questions: [], draw: null }] };
		if (asked.from !== null) {
			const sites = sitesWith(staff, 'write_papers');
			const version = await trx('paper')
				.where({ id: asked.from })
				.modify((query) => {
					if (sites !== null) query.whereIn('id', ownVersions(trx, sites));
				})
				.first('content');
			if (!version) fail('not_found');
			content = JSON.parse(version.content);
			if (asked.isCopy) content.title = asked.title;
		}
		const isNext = asked.from !== null && !asked.isCopy;
		const there = await trx('paper_draft').where({ title: content.title }).first('id', 'site_id');
		if (there && isNext && writesAt(there.site_id, writerOf(staff))) return there.id;
		if (there || (!isNext && (await trx('paper').where({ title: content.title }).first('id')))) fail('title_taken');
		const id = nanoid();
		await trx('paper_draft').insert({
			id,
			site_id: asked.siteId,
			title: content.title,
			content: JSON.stringify(content),
			based_on: isNext ? asked.from : null,
			changed_at: otium.now(),
			changed_by: staff.id
		});
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'paper_begun', body: { title: content.title } }]);
		return id;
	});
}

type DraftRow = {
	id: string;
	title: string;
	site_id: string | null;
	content: string;
	revision: number;
	based_on: string | null;
	version: number | null;
	changed_at: number;
	changed_by: string | null;
};

/** The paper that is being written, for whoever may write it. @throws ProblemError not_found, not_yours */
export async function draftFor(db: Query, staff: StaffMember, id: string): Promise<PaperDraft> {
	const row: DraftRow | undefined = await db('paper_draft')
		.leftJoin('paper', 'paper.id', 'paper_draft.based_on')
		.leftJoin('staff', 'staff.id', 'paper_draft.changed_by')
		.where('paper_draft.id', id)
		.first('paper_draft.*', 'paper.version', 'staff.name as changed_by');
	if (!row) fail('not_found');
	if (!writesAt(row.site_id, writerOf(staff))) fail('not_yours');
	return {
		id,
		title: row.title,
		siteId: row.site_id,
		content: JSON.parse(row.content),
		revision: row.revision,
		basedOn: row.based_on === null ? null : { id: row.based_on, version: row.version! },
		changedAt: row.changed_at,
		changedBy: row.changed_by ?? ''
	};
}

/** Keeps one change. What two have changed at once is told by `changed_since`, and neither is lost. */
export async function editDraft(
	otium: Pick<House, 'db' | 'now'>,
	staff: StaffMember,
	id: string,
	edit: PaperEdit
): Promise<{ edited: Edited; draft: PaperDraft }> {
	return transact(otium.db, async (trx) => {
		const draft = await draftFor(trx, staff, id);
		const edited = editPaper(draft.content, edit);
		if (edited.outcome !== 'done') return { edited, draft };
		const { paper } = edited;
		const questions = paper.parts.reduce((sum, part) => sum + part.questions.length, 0);
		if (questions > MOST_QUESTIONS) fail('paper_full');
		if (paper.title !== draft.title && (await isTaken(trx, paper.title, draft))) fail('title_taken');
		const content = JSON.stringify(paper);
		if (content.length > MOST_BYTES) fail('paper_full');
		await trx('paper_draft')
			.where({ id })
			.update({
				title: paper.title,
				content,
				revision: draft.revision + 1,
				changed_at: otium.now(),
				changed_by: staff.id
			});
		return {
			edited,
			draft: {
				...draft,
				title: paper.title,
				content: paper,
				revision: draft.revision + 1,
				changedAt: otium.now(),
				changedBy: staff.name
			}
		};
	});
}

/** A title that another draft has, or a paper that this is no version of. */
async function isTaken(db: Query, title: string, { id, basedOn }: PaperDraft): Promise<boolean> {
	if (await db('paper_draft').where({ title }).whereNot({ id }).first('id')) return true;
	const versions: { id: string; draft_id: string | null }[] = await db('paper')
		.where({ title })
		.select('id', 'draft_id');
	const isOwn = versions.some((version) => version.draft_id === id || version.id === basedOn?.id);
	return versions.length > 0 && !isOwn;
}

/**
 * Freezes what is written as the next version, to be sat from now on; writing goes on from it. It may be sat where the
 * version before may be, or else at its site.
 * @param revision what whoever freezes it has read
 * @throws ProblemError paper_changed, paper_not_ready
 */
export async function freezeDraft(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	id: string,
	revision: number
): Promise<{ id: string; version: number }> {
	return transact(otium.db, async (trx) => {
		const draft = await draftFor(trx, staff, id);
		if (draft.revision !== revision) fail('paper_changed');
		const grave = doubtsOfPaper(draft.content).filter(({ isGrave }) => isGrave);
		const isEmpty = draft.content.parts.every(({ questions }) => questions.length === 0);
		if (isEmpty || grave.length > 0)
			fail('paper_not_ready', grave.length > 0 ? { message: grave[0].text } : { message: 'There is no question yet.' });
		const latest = await trx('paper').where({ title: draft.title }).max('version as version').first();
		const version = Number(latest?.version ?? 0) + 1;
		const paperId = nanoid();
		const content = JSON.stringify(draft.content);
		await trx('paper').insert({
			id: paperId,
			title: draft.title,
			version,
			content,
			draft_id: id,
			frozen_at: otium.now(),
			frozen_by: staff.id,
			sha256: createHash('sha256').update(content).digest('hex')
		});
		await allowLikeBefore(trx, draft, paperId);
		const kept = await keepInBank(trx, questionsOf(draft.content), keptBy(draft, staff, otium.now()));
		await noteUse(trx, kept.ids, paperId);
		await trx('paper_draft').where({ id }).update({ based_on: paperId });
		await appendToLogbook(trx, [
			{ at: otium.now(), by, kind: 'paper_frozen', body: { title: draft.title, version, paper: paperId } }
		]);
		return { id: paperId, version };
	});
}

/**
 * Keeps questions of a paper that is being written in the bank, where other papers find them.
 * @param ids which; those that the paper does not have are passed over
 */
export async function keepOfDraft(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	id: string,
	ids: string[]
): Promise<Kept> {
	return transact(otium.db, async (trx) => {
		const draft = await draftFor(trx, staff, id);
		const chosen = questionsOf(draft.content).filter((question) => ids.includes(question.id));
		const kept = await keepInBank(trx, chosen, keptBy(draft, staff, otium.now()));
		const body = { title: draft.title, added: kept.added, changed: kept.changed };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'paper_questions_kept', body }]);
		return kept;
	});
}

function keptBy({ siteId }: PaperDraft, staff: StaffMember, at: number) {
	return { at, writer: writerOf(staff), siteId, audience: 'site' as const };
}

async function allowLikeBefore(db: Query, draft: PaperDraft, paperId: string): Promise<void> {
	const before: { administration_id: string; site_id: string | null; group_id: string | null }[] = draft.basedOn
		? await db('paper_allowed').where({ paper_id: draft.basedOn.id }).select('administration_id', 'site_id', 'group_id')
		: [];
	const latest = await db('administration').orderBy('made_at', 'desc').first('id');
	const rows =
		before.length > 0
			? before
			: latest
				? [{ administration_id: latest.id, site_id: draft.siteId, group_id: null }]
				: [];
	for (const row of rows) await db('paper_allowed').insert({ ...row, paper_id: paperId });
}
