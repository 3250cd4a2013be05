import { counted } from '../names';
import { INCIDENT_KINDS, type IncidentKind } from '../incident';
import type { DeviceNote } from '../sitting';
import type { PaceLevel } from '../pace';

export const VALIDITIES = ['valid', 'doubtful', 'void'] as const;
export type Validity = (typeof VALIDITIES)[number];
export const VALIDITY_NAMES: Record<Validity, string> = { valid: 'Valid', doubtful: 'Doubtful', void: 'Void' };

/** What was decided about somebody whom an incident names. */
export const INCIDENT_DECISIONS = {
	nothing: 'Nothing follows',
	time_given: 'Time was given',
	sit_again: 'Sit again',
	set_aside: 'Set aside',
	mark_result: 'Mark on the result'
} as const;
export type IncidentDecision = keyof typeof INCIDENT_DECISIONS;

/** What happened to one sitting, as far as it bears on what its score is worth. */
export type SittingFacts = {
	pace: PaceLevel;
	rapid: number;
	questions: number;
	/** How often the screen was left, and how often the rules allow; null: nobody watched. */
	leavings: number;
	leavingsAllowed: number | null;
	lateAnswers: number;
	/** The line was down while it worked, ms, and how much working time was given for what happened, ms. */
	lostMs: number;
	givenBackMs: number;
	/** Its working time as allotted, ms; null: no limit. */
	allottedMs: number | null;
	reopened: number;
	devices: number;
	notes: DeviceNote[];
	incidents: { kind: IncidentKind; decision: IncidentDecision | null }[];
};

export type Reason = { words: string; weighs: Validity };
export type ProposedValidity = { verdict: Validity; reasons: Reason[] };

/** A tenth of the working time lost and not given back is more than anybody makes up. Common practice. */
const LOST_SHARE = 0.1;
/** These are about what somebody did, or who they are. */
const PERSONAL: readonly IncidentKind[] = ['conduct', 'material', 'identity'];

/** What is proposed, and why: the heaviest of the reasons. A person decides. */
export function proposeValidity(facts: SittingFacts): ProposedValidity {
	const reasons = [...ofWork(facts), ...ofTime(facts), ...ofDevices(facts), ...ofIncidents(facts)];
	const weights = reasons.map(({ weighs }) => VALIDITIES.indexOf(weighs));
	return { verdict: VALIDITIES[Math.max(0, ...weights)], reasons };
}

const doubt = (words: string): Reason => ({ words, weighs: 'doubtful' });
const note = (words: string): Reason => ({ words, weighs: 'valid' });
const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

function ofWork({ pace, rapid, questions, lateAnswers, reopened }: SittingFacts): Reason[] {
	const reasons: Reason[] = [];
	if (pace === 'spoiled')
		reasons.push(doubt(`${rapid} of ${counted(questions, 'answer')} came faster than the question can be read.`));
	else if (rapid > 0)
		reasons.push(note(`${count(rapid, 'answer', 'answers')} came faster than the question can be read.`));
	if (lateAnswers > 0) reasons.push(doubt(`${count(lateAnswers, 'answer', 'answers')} came after the time and count.`));
	if (reopened > 0) reasons.push(note(`It was reopened ${reopened === 1 ? 'once' : `${reopened} times`}.`));
	return reasons;
}

function ofTime({ lostMs, givenBackMs, allottedMs }: SittingFacts): Reason[] {
	const lost = Math.max(0, lostMs - givenBackMs);
	const minutes = Math.round(lost / 60_000);
	if (minutes < 1) return [];
	const words = `The connection was lost for ${count(minutes, 'minute', 'minutes')} that were not given back.`;
	return [allottedMs !== null && lost > allottedMs * LOST_SHARE ? doubt(words) : note(words)];
}

function ofDevices({ leavings, leavingsAllowed, devices, notes }: SittingFacts): Reason[] {
	const reasons: Reason[] = [];
	if (notes.includes('second_line')) reasons.push(doubt('Its sign-in was used on two devices at the same time.'));
	if (notes.includes('forged'))
		reasons.push(doubt('Something was sent with its sign-in that did not come from its device.'));
	if (leavings > 0) {
		const words = `The screen was left ${leavings === 1 ? 'once' : `${leavings} times`}.`;
		reasons.push(leavingsAllowed !== null && leavings > leavingsAllowed ? doubt(words) : note(words));
	}
	if (devices > 1) reasons.push(note(`It was sat on ${counted(devices, 'device')}.`));
	return reasons;
}

function ofIncidents({ incidents }: SittingFacts): Reason[] {
	return incidents.flatMap(({ kind, decision }) => {
		const name = INCIDENT_KINDS[kind];
		if (decision === 'mark_result') return doubt(`${name}: to be marked on the result.`);
		if (decision === 'set_aside') return { words: `${name}: decided to set it aside.`, weighs: 'void' as const };
		if (decision === null && PERSONAL.includes(kind)) return doubt(`${name}, not decided yet.`);
		return note(`${name}.`);
	});
}
