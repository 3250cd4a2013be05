import { z } from 'zod';
import { readRules } from '$core/rules';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import { day, lastDay, timeOfDay } from '../records';

const ids = (most: number) => z.array(z.string().max(64)).max(most);

/** One of several sessions made from one setup: what is its own; everything else is the setup's. */
const Part = z.object({
	label: z.string().max(80),
	groupIds: ids(50),
	/** Of those groups only these; null: all. */
	only: ids(5_000).nullable(),
	roomId: z.string().max(64),
	time: timeOfDay,
	until: timeOfDay.nullable(),
	proctorIds: ids(20)
});
export type SessionPart = z.infer<typeof Part>;

/** What the form sends. Times are local to the room's site. */
export const SessionInput = z.object({
	name: z.string().trim().max(120, 'A name of at most 120 letters.').default(''),
	kind: z.enum(['live', 'rehearsal', 'make_up']),
	paperId: z.string().min(1, 'Choose a paper.').max(64),
	groupIds: ids(50).min(1, 'Choose at least one group.'),
	/** Of those groups only these; null: all. */
	only: ids(5_000).nullable().default(null),
	/** Left out by hand. */
	withoutIds: ids(500).default([]),
	/** Further people, from no group or another. */
	alsoIds: ids(500).default([]),
	roomId: z.string().min(1, 'Choose a room.').max(64),
	date: day,
	time: timeOfDay,
	until: timeOfDay.nullable(),
	untilDate: lastDay,
	ruleSheetId: z.string().max(64).nullable().default(null),
	rules: z.custom<SessionRules>((given) => typeof given === 'object' && given !== null, 'The rules can’t be read.'),
	proctorIds: ids(20),
	/** null: the one whose days hold the date. */
	administrationId: z.string().max(64).nullable().default(null),
	/** Several sessions from this one setup; null: one. */
	parts: z.array(Part).min(2, 'Choose at least two sessions.').max(40).nullable().default(null)
});
export type SessionInput = z.infer<typeof SessionInput>;
/** By field; a rule's is `rules.timing.limitMinutes`. */
export type FieldErrors = Record<string, string>;

export type ReadInput = { ok: true; input: SessionInput } | { ok: false; errors: FieldErrors };

/** Reads what a form sent: its own fields by their shapes, its rules by the list of settings. */
export function readInput(given: unknown): ReadInput {
	const errors: FieldErrors = {};
	const parsed = SessionInput.safeParse(given);
	if (!parsed.success) for (const issue of parsed.error.issues) errors[issue.path.join('.')] ??= issue.message;
	const rules = readRules((given as { rules?: unknown } | null)?.rules, DEFAULT_RULES);
	if (!rules.ok) for (const [path, fault] of Object.entries(rules.faults)) errors[`rules.${path}`] = fault;
	if (!parsed.success || !rules.ok) return { ok: false, errors };
	return { ok: true, input: { ...parsed.data, rules: rules.rules } };
}

/** The setups of the single sessions that an input stands for. */
export function partsOf(input: SessionInput): SessionInput[] {
	if (input.parts === null) return [input];
	return input.parts.map((part, i) => ({
		...input,
		...part,
		// Those who were added by hand go with the first.
		alsoIds: i === 0 ? input.alsoIds : [],
		name: '',
		parts: null
	}));
}
