import { nanoid } from 'nanoid';
import type { Grant, GrantBody, GrantScope, GrantSource } from '$core/grants';
import { insertMany, type Query } from '../db';

type Row = {
	id: string;
	candidate_id: string | null;
	scope_kind: GrantScope['kind'];
	scope_id: string | null;
	kind: GrantBody['kind'];
	body: string;
	reason: string;
	given_by: string;
	given_at: number;
	withdrawn_at: number | null;
	room_id: string | null;
	proctor_id: string | null;
	opens: number | null;
	closes: number | null;
	from_at: number | null;
	until_at: number | null;
	asked_by: string | null;
	source: GrantSource;
	batch: string | null;
	evidence_id: string | null;
};

/** All grants that may reach these candidates or sessions, withdrawn ones included. */
export async function findGrants(db: Query, candidateIds: string[], sessionIds: string[]): Promise<Grant[]> {
	const rows: Row[] = await db('grant_given').where((any) =>
		any
			.whereIn('candidate_id', candidateIds)
			.orWhere((room) => room.whereNull('candidate_id').whereIn('scope_id', sessionIds))
	);
	return rows.map(toGrant);
}

export async function findGrant(db: Query, id: string): Promise<Grant | null> {
	const row: Row | undefined = await db('grant_given').where({ id }).first();
	return row ? toGrant(row) : null;
}

function toGrant(row: Row): Grant {
	return {
		id: row.id,
		candidateId: row.candidate_id,
		scope: (row.scope_id === null
			? { kind: row.scope_kind }
			: { kind: row.scope_kind, id: row.scope_id }) as GrantScope,
		body: JSON.parse(row.body),
		reason: row.reason,
		givenBy: row.given_by,
		givenAt: row.given_at,
		withdrawnAt: row.withdrawn_at,
		from: row.from_at,
		until: row.until_at,
		askedBy: row.asked_by ?? '',
		source: row.source,
		batch: row.batch,
		evidence: row.evidence_id
	};
}

export type NewGrant = Omit<Grant, 'id' | 'withdrawnAt'>;

/** A grant as it would be stored, so that its effect can be told before it is. */
export function draftGrant(grant: NewGrant): Grant {
	return { ...grant, id: nanoid(), withdrawnAt: null };
}

export async function insertGrants(trx: Query, grants: Grant[]): Promise<void> {
	const rows: Row[] = grants.map(({ body, ...grant }) => ({
		id: grant.id,
		candidate_id: grant.candidateId,
		scope_kind: grant.scope.kind,
		scope_id: grant.scope.kind === 'standing' ? null : grant.scope.id,
		kind: body.kind,
		body: JSON.stringify(body),
		reason: grant.reason,
		given_by: grant.givenBy,
		given_at: grant.givenAt,
		withdrawn_at: grant.withdrawnAt,
		room_id: body.kind === 'own_window' ? (body.room?.id ?? null) : null,
		proctor_id: body.kind === 'own_window' ? (body.proctor?.id ?? null) : null,
		opens: body.kind === 'own_window' ? body.opens : null,
		closes: body.kind === 'own_window' ? body.closes : null,
		from_at: grant.from ?? null,
		until_at: grant.until ?? null,
		asked_by: grant.askedBy ?? null,
		source: grant.source ?? 'hand',
		batch: grant.batch ?? null,
		evidence_id: grant.evidence ?? null
	}));
	await insertMany(trx, 'grant_given', rows);
}
