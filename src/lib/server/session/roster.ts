import { minutesInWords } from '$core/time';
import { counted, fullName, someNames } from '$core/names';
import { hasEnded, isUnfinished, type Sitting, type SittingState } from '$core/sitting';
import { nextAttempt, type NextAttempt } from '$core/attempts';
import type { AttemptRules, SessionKind } from '$core/session';
import type { Query } from '../db';
import { extraAttempts } from './extra-attempts';

/** Somebody whom a session would expect. */
export type Expected = {
	candidateId: string;
	/** Their existing sitting, when it goes on here. */
	sittingId: string | null;
	/** Which attempt a new sitting would be, from 1. */
	attempt: number;
	name: string;
	language: string | null;
	birth: string | null;
	email: string | null;
	/** Sits elsewhere, and needs no seat. */
	elsewhere: boolean;
	/** Made up, for staff to try it with. */
	trial: boolean;
};

/** Who a session would expect. */
export type Roster = {
	groups: { name: string; count: number }[];
	/** In the order in which they are seated. */
	people: Expected[];
	/** A sentence for each reason why somebody of these groups is not among them. */
	leftOut: string[];
};

export type RosterQuestion = {
	administrationId: string;
	paperId: string;
	kind: SessionKind;
	groupIds: string[];
	only: string[] | null;
	alsoIds: string[];
	/** Left out by hand. */
	withoutIds?: string[];
	sessionId?: string;
	/** How often the paper may be sat, and when the session would begin. */
	attempts: Pick<AttemptRules, 'most' | 'waitMinutes' | 'laterWaitMinutes'>;
	opens: number;
};

type Row = {
	id: string;
	given: string;
	family: string;
	language: string | null;
	birth: string | null;
	email: string | null;
	elsewhere: number;
	trial: number;
	group_name: string;
	sitting_id: string | null;
	state: SittingState | null;
	session_id: string | null;
	session_name: string | null;
	attempt: number | null;
	fold: string | null;
	/** It stands on the roster of its session. */
	on_roster: string | null;
};

/** Whether a sitting is one of a session's, also when it went on elsewhere since. */
export async function isOnRoster(db: Query, sessionId: string, sittingId: string): Promise<boolean> {
	return Boolean(await db('roster').where({ session_id: sessionId, sitting_id: sittingId }).first('sitting_id'));
}

/**
 * The candidates of these groups who can sit the paper here. Whoever was absent or carried over goes on with the
 * sitting they have; whoever has handed in, or is expected elsewhere, is left out and named.
 */
export async function rosterFor(db: Query, of: RosterQuestion): Promise<Roster> {
	const counts = of.kind !== 'rehearsal';
	const wanted = of.only === null ? null : new Set(of.only);
	const without = new Set(of.withoutIds);
	const rows = (await candidatesOf(db, of)).filter(
		(row) => (wanted === null || wanted.has(row.id)) && !without.has(row.id)
	);

	const here = new Set(rows.filter((row) => row.session_id === of.sessionId && of.sessionId !== undefined));
	const others = rows.filter((row) => !here.has(row));
	const ended = others.filter((row) => row.state !== null && hasEnded(row.state)).map((row) => row.id);
	const { administrationId, paperId, opens } = of;
	const extra = await extraAttempts(db, ended, { administrationId, paperId, opens, sessionId: of.sessionId ?? '' });
	/** What the rules say to somebody who has sat this paper already; null: they have not. */
	const further = (row: Row): NextAttempt | null => {
		if (row.state === null || row.state === 'absent' || isUnfinished(row.state)) return null;
		const sitting: Sitting = JSON.parse(row.fold!);
		if (row.state === 'set_aside') return sitting.allowsFresh ? { ok: true, attempt: row.attempt! + 1 } : null;
		const rules = { ...of.attempts, most: of.attempts.most + (extra.get(row.id) ?? 0) };
		return sitting.ended && nextAttempt(rules, { attempt: row.attempt!, endedAt: sitting.ended.at }, opens);
	};
	const canJoin = (row: Row) =>
		!counts || row.state === null
			? of.kind !== 'make_up' || row.state !== null
			: row.state === 'absent' ||
				row.state === 'carried_over' ||
				(row.state === 'expected' && row.on_roster === null) ||
				further(row)?.ok === true;
	const joining = new Set(others.filter(canJoin));
	const staying = others.filter((row) => !canJoin(row));

	const people = rows.filter((row) => here.has(row) || joining.has(row));
	const groups = [...new Set(people.map((row) => row.group_name))].map((name) => ({
		name,
		count: people.filter((row) => row.group_name === name).length
	}));
	return {
		groups,
		people: people.map((row) => ({
			candidateId: row.id,
			// A further attempt is a sitting of its own.
			sittingId: here.has(row) || (counts && !further(row)?.ok) ? row.sitting_id : null,
			attempt: (row.attempt ?? 0) + 1,
			name: fullName(row),
			language: row.language,
			birth: row.birth,
			email: row.email,
			elsewhere: Boolean(row.elsewhere),
			trial: Boolean(row.trial)
		})),
		leftOut: [
			...leftOut(
				staying.filter((row) => row.state !== null && isUnfinished(row.state)),
				(row) =>
					row.state === 'on_hold'
						? `on hold in ${row.session_name}, to be resumed there first`
						: `already expected in ${row.session_name}`
			),
			...leftOut(
				staying.filter((row) => row.state !== null && !isUnfinished(row.state)),
				(row) => {
					if (row.state === 'set_aside') return 'their work was set aside and nobody has decided that they sit again';
					const next = further(row);
					if (next === null || next.ok || (next.why === 'none_left' && of.attempts.most === 1))
						return 'have sat this paper already';
					if (next.why !== 'wait') return `have used all ${counted(of.attempts.most, 'attempt')}`;
					const wait = next.attempt === 2 ? of.attempts.waitMinutes : of.attempts.laterWaitMinutes;
					return wait > 0
						? `must wait ${minutesInWords(wait)} between attempts`
						: 'were still at their earlier attempt when this one begins';
				}
			)
		]
	};
}

/** Each candidate once, under the first of the chosen groups that they belong to, or else their home group. */
async function candidatesOf(db: Query, of: RosterQuestion): Promise<Row[]> {
	const counts = of.kind !== 'rehearsal';
	const rows: Row[] = await db('candidate')
		.join('group_member', 'group_member.candidate_id', 'candidate.id')
		.join('candidate_group', 'candidate_group.id', 'group_member.group_id')
		.leftJoin('sitting', (join) =>
			join
				.on('sitting.candidate_id', 'candidate.id')
				.andOnVal('sitting.paper_id', of.paperId)
				.andOnVal('sitting.administration_id', of.administrationId)
				.andOnVal('sitting.counts', counts ? 1 : 0)
		)
		.leftJoin('session', 'session.id', 'sitting.session_id')
		.leftJoin('roster', (join) =>
			join.on('roster.session_id', 'sitting.session_id').andOn('roster.sitting_id', 'sitting.id')
		)
		.whereNull('candidate.left_at')
		.where((any) =>
			any
				.whereIn('group_member.group_id', of.groupIds)
				.orWhere((added) =>
					added.whereIn('candidate.id', of.alsoIds).andWhere('group_member.group_id', db.ref('candidate.group_id'))
				)
		)
		.orderBy([
			'candidate.family',
			'candidate.given',
			'candidate.number',
			{ column: 'sitting.attempt', order: 'desc' },
			'candidate_group.name'
		])
		.select(
			'candidate.id',
			'candidate.given',
			'candidate.family',
			'candidate.language',
			'candidate.birth',
			'candidate.email',
			'candidate.elsewhere',
			'candidate.trial',
			'candidate_group.name as group_name',
			'sitting.id as sitting_id',
			'sitting.state',
			'sitting.session_id',
			'session.name as session_name',
			'sitting.attempt',
			'sitting.fold',
			'roster.sitting_id as on_roster'
		);
	const once = new Map<string, Row>();
	for (const row of rows) {
		const known = once.get(row.id);
		// A rehearsal may have been sat before, in several sessions: the one being edited is the one that matters.
		if (!known || (of.sessionId !== undefined && row.session_id === of.sessionId))
			once.set(row.id, known ? { ...row, group_name: known.group_name } : row);
	}
	return [...once.values()];
}

function leftOut(rows: Row[], why: (row: Row) => string): string[] {
	const byReason = new Map<string, string[]>();
	for (const row of rows) byReason.set(why(row), [...(byReason.get(why(row)) ?? []), fullName(row)]);
	return [...byReason].map(([reason, names]) => `Left out, ${reason}: ${someNames(names)}.`);
}
