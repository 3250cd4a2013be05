import { z } from 'zod';
import {
	checkSession,
	DEFAULT_RULES,
	sessionSentence,
	type Finding,
	type SentencePart,
	type SessionFacts,
	type SessionRules
} from '$core/session';
import { instantFromLocal, localTime, MINUTE, NO_GRANTS, reckon, type Window } from '$core/time';
import { expectedEnd, mergeGrants } from '$core/grants';
import type { Query } from '../db';
import { findGrants } from '../grants/store';
import { rosterFor, type Roster } from './roster';

const minutes = (what: string, max: number) =>
	z
		.number({ error: `${what}: give whole minutes.` })
		.int(`${what}: whole minutes only.`)
		.min(0, `${what} can’t be negative.`)
		.max(max, `${what}: ${max} minutes at the most.`);
const word = z.string().trim().max(40, 'A word of at most 40 letters.').nullable();

/** What the form sends. Times are local to the room's site. */
export const SessionInput = z.object({
	name: z.string().trim().max(120, 'A name of at most 120 letters.').default(''),
	kind: z.enum(['live', 'rehearsal', 'make_up']),
	paperId: z.string().min(1, 'Choose a paper.'),
	groupIds: z.array(z.string()).min(1, 'Choose at least one group.').max(50),
	roomId: z.string().min(1, 'Choose a room.'),
	date: z.iso.date('Give a date, like 2026-12-08.'),
	time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a start time, like 09:00.'),
	until: z
		.string()
		.regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give an end time, like 10:30.')
		.nullable(),
	limitMinutes: minutes('The limit', 1_440).min(1, 'A limit of at least one minute.').nullable(),
	doorOpensMinutes: minutes('The door', 240),
	lastEntryMinutes: minutes('Last entry', 1_440).nullable(),
	graceMinutes: minutes('Grace', 60),
	clockStarts: z.enum(['room', 'candidate']),
	clockStops: z.enum(['never', 'hold', 'hold_or_lost']),
	atClose: z.enum(['cut', 'finish']),
	atTimeUp: z.enum(['hand_in', 'stop', 'flag', 'zero']),
	admission: z.enum(['proctor', 'automatic']),
	startWord: word,
	finishWord: word,
	shown: z.enum(['one', 'all']),
	questionsInOwnOrder: z.boolean(),
	choicesInOwnOrder: z.boolean(),
	proctorIds: z.array(z.string()).max(20)
});
export type SessionInput = z.infer<typeof SessionInput>;
export type FieldErrors = Partial<Record<keyof SessionInput, string>>;

/** A session as it would be, told before it is saved. */
export type Plan = {
	facts: SessionFacts;
	sentence: SentencePart[];
	findings: Finding[];
	rules: SessionRules;
	window: Window;
	name: string;
	siteId: string;
	roster: Roster;
};

export type Planned = { ok: true; plan: Plan } | { ok: false; errors: FieldErrors };

/** Zod's issues as one sentence a field. */
export function errorsOf(error: z.ZodError): FieldErrors {
	const errors: FieldErrors = {};
	for (const issue of error.issues) errors[issue.path[0] as keyof SessionInput] ??= issue.message;
	return errors;
}

/**
 * Works a form's input out into a session, without writing anything.
 * @param editing the session that is being edited; its own roster is not in its own way
 */
export async function planSession(
	db: Query,
	administrationId: string,
	input: SessionInput,
	now: number,
	editing?: string
): Promise<Planned> {
	const errors: FieldErrors = {};
	const room = await db('room')
		.join('site', 'site.id', 'room.site_id')
		.where('room.id', input.roomId)
		.first('room.*', 'site.zone');
	const paper = await db('paper').where({ id: input.paperId }).first('id', 'title', 'version');
	if (!room) errors.roomId = 'Choose a room from the list.';
	if (!paper) errors.paperId = 'Choose a paper from the list.';
	if (!room || !paper) return { ok: false, errors };

	const opens = readInstant(input.date, input.time, room.zone, (message) => (errors.time = message));
	const closes =
		input.until === null
			? null
			: readInstant(input.date, input.until, room.zone, (message) => (errors.until = message));
	if (opens === null || Object.keys(errors).length > 0) return { ok: false, errors };

	const window: Window = { opens, closes };
	const rules = rulesOf(input);
	const roster = await rosterFor(db, {
		administrationId,
		paperId: paper.id,
		kind: input.kind,
		groupIds: input.groupIds,
		sessionId: editing
	});
	const extraTime = await extraTimeOf(
		db,
		roster,
		{ administrationId, paperId: paper.id, window, rules, zone: room.zone },
		now
	);
	const facts: SessionFacts = {
		kind: input.kind,
		paperTitle: paper.title,
		paperVersion: paper.version,
		groups: roster.groups,
		candidates: roster.people.length,
		room: room.name,
		seats: room.seat_rows * room.seats_per_row,
		zone: room.zone,
		window,
		rules,
		extraTime
	};
	const findings = checkSession(facts, now);
	for (const left of roster.leftOut) findings.push({ level: 'warn', field: 'who', message: left });
	if (input.proctorIds.length === 0)
		findings.push({
			level: 'warn',
			field: 'where',
			message: 'No proctor is named yet. Only coordinators can run this room until one is.'
		});
	const clash = await roomClash(db, room.id, window, rules, editing);
	if (clash)
		findings.push({
			level: 'warn',
			field: 'where',
			message: `The ${room.name} has another session at that time: ${clash}.`
		});

	const name = input.name || proposedName(paper.title, roster.groups, input.kind, opens, room.zone);
	return {
		ok: true,
		plan: { facts, sentence: sessionSentence(facts, now), findings, rules, window, name, siteId: room.site_id, roster }
	};
}

function readInstant(date: string, time: string, zone: string, complain: (message: string) => void): number | null {
	const read = instantFromLocal(date, time, zone);
	if (read.ok) return read.at;
	if (read.why === 'does_not_exist') {
		complain(`The clocks jump over ${time} on that day. The next time there is ${localTime(read.instead, zone)}.`);
	} else if (read.why === 'exists_twice') {
		complain(`The clocks go back that night, so ${time} comes twice. Choose a time outside that hour.`);
	} else complain('This date and time can’t be read. Use a date like 2026-12-08 and a time like 09:00.');
	return null;
}

function rulesOf(input: SessionInput): SessionRules {
	return {
		...DEFAULT_RULES,
		timing: {
			...DEFAULT_RULES.timing,
			limitMinutes: input.limitMinutes,
			clockStarts: input.clockStarts,
			clockStops: input.clockStops,
			atClose: input.atClose,
			doorOpensMinutes: input.doorOpensMinutes,
			lastEntryMinutes: input.lastEntryMinutes,
			graceMinutes: input.graceMinutes,
			atTimeUp: input.atTimeUp
		},
		order: { questionsInOwnOrder: input.questionsInOwnOrder, choicesInOwnOrder: input.choicesInOwnOrder },
		admission: input.admission,
		startWord: input.startWord || null,
		finishWord: input.finishWord || null,
		shown: input.shown
	};
}

/** Who has more time than the rule sheet says, and when the last of them would finish. */
async function extraTimeOf(
	db: Query,
	roster: Roster,
	place: { administrationId: string; paperId: string; window: Window; rules: SessionRules; zone: string },
	now: number
) {
	const ids = roster.people.map((person) => person.candidateId);
	const grants = await findGrants(db, ids, []);
	const ends = ids.flatMap((candidateId) => {
		const own = grants.filter((grant) => grant.candidateId === candidateId);
		if (own.length === 0) return [];
		const merged = mergeGrants(
			own,
			{ candidateId, administrationId: place.administrationId, paperId: place.paperId, sessionId: '' },
			place.zone
		);
		const { factor, extraMinutes, unlimited } = merged.grants;
		if (factor === NO_GRANTS.factor && extraMinutes === 0 && !unlimited) return [];
		const track = { roomStartedAt: null, beganAt: null, stops: [] };
		const uncut = { ...place.rules.timing, atClose: 'finish' as const };
		return [expectedEnd(reckon(uncut, place.window, merged.grants, track, now), 'finish', place.window.opens)];
	});
	const known = ends.filter((end) => end !== null);
	return { count: ends.length, lastEnds: known.length > 0 ? Math.max(...known) : null };
}

async function roomClash(
	db: Query,
	roomId: string,
	window: Window,
	rules: SessionRules,
	editing?: string
): Promise<string | null> {
	const ends = window.closes ?? window.opens + (rules.timing.limitMinutes ?? 60) * MINUTE;
	const other = await db('session')
		.where({ room_id: roomId })
		.whereNull('ended_at')
		.whereNot('id', editing ?? '')
		.where('opens', '<', ends)
		.whereRaw('coalesce(closes, opens + 3600000) > ?', [window.opens])
		.first('name');
	return other?.name ?? null;
}

function proposedName(paper: string, groups: { name: string }[], kind: string, opens: number, zone: string): string {
	const what = kind === 'live' ? '' : kind === 'rehearsal' ? ', rehearsal' : ', make-up';
	return `${paper}${what} · ${groups.map((group) => group.name).join(' and ')} · ${localTime(opens, zone)}`;
}
