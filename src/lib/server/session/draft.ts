import { nanoid } from 'nanoid';
import type { StaffMember } from '$core/access';
import type { Query } from '../db';

/** What somebody is still entering. Kept as it is, however unfinished; nobody else sees it. */
export type Draft = { id: string; title: string; savedAt: number; revision: number; input: unknown };

export type DraftSaved =
	| { ok: true; id: string; savedAt: number; revision: number }
	| { ok: false; draft: Draft | null };

/**
 * Keeps an unfinished form. Two tabs with one draft do not overwrite each other: the one that is behind gets what the
 * other has saved.
 */
export async function saveDraft(
	db: Query,
	staff: StaffMember,
	draft: { id: string | null; revision: number; title: string; input: unknown },
	now: number
): Promise<DraftSaved> {
	const row = { title: draft.title, input: JSON.stringify(draft.input), saved_at: now };
	if (draft.id === null) {
		const id = nanoid();
		await db('session_draft').insert({ id, staff_id: staff.id, ...row });
		return { ok: true, id, savedAt: now, revision: 1 };
	}
	const changed = await db('session_draft')
		.where({ id: draft.id, staff_id: staff.id, revision: draft.revision })
		.update({ ...row, revision: draft.revision + 1 });
	if (changed === 1) return { ok: true, id: draft.id, savedAt: now, revision: draft.revision + 1 };
	return { ok: false, draft: await findDraft(db, staff, draft.id) };
}

export async function findDraft(db: Query, staff: StaffMember, id: string): Promise<Draft | null> {
	const row = await db('session_draft').where({ id, staff_id: staff.id }).first();
	return row
		? { id: row.id, title: row.title, savedAt: row.saved_at, revision: row.revision, input: JSON.parse(row.input) }
		: null;
}

/** Somebody's own drafts, the last touched first. */
export async function listDrafts(db: Query, staff: StaffMember): Promise<Omit<Draft, 'input' | 'revision'>[]> {
	const rows: { id: string; title: string; saved_at: number }[] = await db('session_draft')
		.where({ staff_id: staff.id })
		.orderBy('saved_at', 'desc')
		.select('id', 'title', 'saved_at');
	return rows.map((row) => ({ id: row.id, title: row.title, savedAt: row.saved_at }));
}

/** Throws one's own draft away; another's stays. */
export async function dropDraft(db: Query, staff: StaffMember, id: string): Promise<void> {
	await db('session_draft').where({ id, staff_id: staff.id }).delete();
}
