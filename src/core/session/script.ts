import { counted } from '../names';
import { minutesInWords, clockTime, MINUTE } from '../time';
import type { SessionRules } from './rules';

/** What of a session its script tells. Times are Unix milliseconds. */
export type ScriptFacts = { rules: SessionRules; doorOpens: number; opens: number; zone: string };
export type ScriptPart = { title: string; lines: string[] };
export type Script = {
	/** For the proctor, in the order of the day. */
	steps: string[];
	/** To read aloud. */
	aloud: string;
	/** What to do when something goes wrong: what is seen, and what helps. */
	trouble: ScriptPart[];
};

/** How a room is run from the first to the last, by the session's own rules. @param own what the paper's author wants read aloud */
export function scriptFor(facts: ScriptFacts, own: string | null): Script {
	return { steps: stepsFor(facts), aloud: own ?? aloudFor(facts), trouble: troubleFor(facts) };
}

function stepsFor({ rules, doorOpens, opens, zone }: ScriptFacts): string[] {
	const { timing, door } = rules;
	const at = (instant: number) => clockTime(instant, zone);
	return [
		`Open this room under Live before ${at(doorOpens)}. The door opens automatically then.`,
		`Show the board (B) when candidates are seated. ${door.code === 'turning' ? `The code changes every ${minutesInWords(door.turnsEveryMinutes)}.` : 'The code stays the same all day.'}`,
		rules.admission === 'proctor'
			? 'Compare each candidate at the door with the list and let them in: Enter for one, L for all at the door.'
			: 'Candidates come in without you. Compare them with the list.',
		...(rules.startWord ? [`Say the start word when all are ready: ${rules.startWord}.`] : []),
		...(timing.clockStarts === 'room' ? ['Start the room: every clock runs from then.'] : []),
		timing.lastEntryMinutes === null
			? 'Candidates may enter until the session closes.'
			: `Nobody enters after ${at(opens + timing.lastEntryMinutes * MINUTE)}, unless they are given a window of their own.`,
		...(rules.finishWord ? [`Give the finish word to those who may hand in: ${rules.finishWord}.`] : []),
		'Work through Needs you from the top. Each line names the key that settles it.',
		'End the session (E) when all have finished. It first shows what becomes of each candidate.'
	];
}

function aloudFor({ rules: { timing, admission } }: ScriptFacts): string {
	const wait = admission === 'proctor' ? ' Wait until I let you in.' : '';
	return `Please sit at your seat and go to the page on the board. Enter the code and your details, and check that the name on the screen is yours.${wait} ${lengthAloud(timing)} Your answers are saved as you go; if the connection drops, just keep working. Raise your hand if you need anything. You can start.`;
}

function lengthAloud({ limitMinutes, questionSeconds, clockStarts }: SessionRules['timing']): string {
	if (limitMinutes === null) return 'There is no time limit.';
	const from = clockStarts === 'room' ? 'from when I start the room' : 'from when you begin';
	if (questionSeconds === null) return `You have ${minutesInWords(limitMinutes)}, ${from}.`;
	return `You have ${counted(questionSeconds, 'second')} for each question; when they are up the next one comes. That is about ${minutesInWords(limitMinutes)}, ${from}.`;
}

function troubleFor({ rules }: ScriptFacts): ScriptPart[] {
	const clock =
		rules.timing.clockStops === 'never'
			? 'The clock runs on during a hold. Give the lost minutes back afterwards (M).'
			: 'The clock stops during a hold.';
	const line =
		rules.timing.clockStops === 'hold_or_lost'
			? 'The clock stops until the connection is back.'
			: rules.timing.questionSeconds === null
				? 'Lost minutes are shown beside the name; one press gives them back.'
				: 'Lost minutes are shown beside the name. A question whose time ran out does not come back.';
	return [
		{
			title: 'A code is refused',
			lines: [
				'Read the code aloud from the board, letter by letter. One of another session opens nothing here.',
				'After several wrong tries a device has to wait. It is then listed under Needs you, where one press ends the wait.'
			]
		},
		{
			title: 'Somebody is not on the list',
			lines: [
				'Their number comes up under Needs you. Press / to see whether they are expected elsewhere today.',
				'A coordinator adds them to this session with one press.'
			]
		},
		{
			title: 'The connection is lost',
			lines: [
				'Candidates keep working: their answers are kept on the device and sent when the connection is back.',
				line,
				'If the foot of this page says “not live”, the room itself has no connection. Nothing is lost; it comes back automatically.'
			]
		},
		{
			title: 'A device fails',
			lines: [
				'Choose the candidate and free the device (D). They sign in at another one with the same code.',
				rules.admission === 'proctor'
					? 'Let them in again. They continue where they were.'
					: 'They continue where they were.'
			]
		},
		{
			title: 'An alarm, or the room must be left',
			lines: [
				`Hold all, leave, and resume all when you are back. ${clock}`,
				'Report an incident (I): it goes into the logbook.'
			]
		},
		{
			title: 'Somebody must leave',
			lines: [
				`For a few minutes: hold (H). ${clock}`,
				'For the day: carry over. They finish another time, with their answers and the time they have left.'
			]
		},
		{
			title: 'Somebody handed in by mistake',
			lines: ['A coordinator can reopen (O): the answers are still there, and so is the time that was left.']
		}
	];
}
