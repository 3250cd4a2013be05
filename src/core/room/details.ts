import type { FormLetter } from '../paper';
import type { Incident } from '../incident';
import type { LogLine } from '../logbook';

/** One candidate beside the room: time and all that made it, what happened so far, how long each question took. */
export type CandidateDetails = {
	time: {
		words: string;
		reasons: string[];
		stoppedMs: number;
		cutMs: number;
		allotted: number | null;
		credits: number;
		origin: number | null;
	};
	/** Which of the paper's forms they have; null: it has none, or they have not begun. */
	form: FormLetter | null;
	history: LogLine[];
	messages: { id: string; fromCandidate: boolean; text: string; at: number; seenAt: number | null }[];
	incidents: Pick<Incident, 'id' | 'kind' | 'happenedAt' | 'note' | 'done' | 'minutes'>[];
	snapshots: { id: string; at: number }[];
	photo: boolean;
	questions: { number: number; answered: boolean; marked: boolean; inViewMs: number; thresholdMs: number }[];
};
