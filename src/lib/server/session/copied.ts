import { differingRules } from '$core/rules';
import { fullName } from '$core/names';
import { asEntered, shownTime } from '$core/time';
import { DEFAULT_RULES, whatCameAlong, type SessionRules } from '$core/session';
import type { Query } from '../db';
import type { Session } from '../records';
import { inputOf } from './choices';

/** The session that a new one is made from, and what comes along from it. */
export type Copied = { name: string } & ReturnType<typeof whatCameAlong>;

type Sheet = { id: string; name: string; rules: SessionRules };

/** @param sheets the rule sheets that are in use */
export async function copiedFrom(db: Query, session: Session, sheets: Sheet[]): Promise<Copied> {
	const input = await inputOf(db, session);
	const sheet = sheets.find(({ id }) => id === session.ruleSheetId);
	const rules = asEntered(session.rules);
	const groups: string[] = await db('candidate_group').whereIn('id', input.groupIds).orderBy('name').pluck('name');
	const members: { candidate_id: string }[] = await db('group_member')
		.whereIn('group_id', input.groupIds)
		.distinct('candidate_id');
	const added: { given: string; family: string }[] = await db('candidate')
		.whereIn('id', input.alsoIds)
		.orderBy('family')
		.select('given', 'family');
	const grants = await db('grant_given')
		.where({ scope_kind: 'session', scope_id: session.id, withdrawn_at: null })
		.count('* as n')
		.first();
	return {
		name: session.name,
		...whatCameAlong({
			paper: `${session.paper.title} (version ${session.paper.version})`,
			groups,
			room: session.room.name,
			time: shownTime(input.time),
			until: input.until && shownTime(input.until),
			sheet: sheet?.name ?? null,
			otherRules: differingRules(sheet?.rules ?? DEFAULT_RULES, rules).length,
			words: [
				...(rules.startWord ? ['start word' as const] : []),
				...(rules.finishWord ? ['finish word' as const] : [])
			],
			proctors: await db('staff').whereIn('id', input.proctorIds).orderBy('name').pluck('name'),
			added: added.map(fullName),
			leftOut: input.only === null ? 0 : members.length - input.only.length,
			grants: Number(grants?.n ?? 0)
		})
	};
}
