import { localTime, MINUTE } from '../time';
import type { SessionFacts } from './sentence';

/** Something that would go wrong on the day. `block` stops planning, `warn` speaks. */
export type Finding = {
	level: 'block' | 'warn';
	field: 'paper' | 'who' | 'where' | 'when' | 'limit' | 'door';
	message: string;
};

/** What can be told about a session before it is planned. */
export function checkSession(facts: SessionFacts, now: number): Finding[] {
	const { rules, window, zone } = facts;
	const { timing } = rules;
	const findings: Finding[] = [];
	const block = (field: Finding['field'], message: string) => findings.push({ level: 'block', field, message });
	const warn = (field: Finding['field'], message: string) => findings.push({ level: 'warn', field, message });

	if (facts.candidates === 0) block('who', 'Nobody is expected. Choose a group that has candidates.');
	if (facts.candidates > facts.seats) {
		block(
			'where',
			`Too small: ${facts.candidates} candidates, ${facts.seats} seats in the ${facts.room}. Choose a larger room or a smaller group.`
		);
	}
	if (window.closes !== null && window.closes <= window.opens)
		block('when', 'It closes before it opens. Choose a later end.');
	if (window.opens < now - 12 * 60 * MINUTE) block('when', 'This start lies in the past. Choose a time from now on.');
	else if (window.opens < now)
		warn(
			'when',
			`It starts in the past, at ${localTime(window.opens, zone)}: the door opens as soon as it is planned.`
		);

	if (timing.limitMinutes !== null && window.closes !== null && window.closes > window.opens) {
		const room = (window.closes - window.opens) / MINUTE;
		if (timing.atClose === 'cut' && room < timing.limitMinutes) {
			block(
				'when',
				`Cut short: the window is ${room} minutes and the limit ${timing.limitMinutes}. End it later, or let those who began finish.`
			);
		}
		if (timing.atClose === 'cut' && facts.extraTime.lastEnds !== null && facts.extraTime.lastEnds > window.closes) {
			block(
				'when',
				`Cut short: the window ends ${localTime(window.closes, zone)}, but those with extra time need until ${localTime(facts.extraTime.lastEnds, zone)}. End it then, or let those who began finish.`
			);
		}
		if (timing.lastEntryMinutes !== null && timing.lastEntryMinutes > room) {
			warn('door', 'Last entry is after the window closes; the window’s end counts.');
		}
	}
	if (timing.clockStarts === 'room' && (timing.lastEntryMinutes ?? 0) > 0) {
		warn('door', `All start together: whoever enters at the last moment has ${timing.lastEntryMinutes} minutes less.`);
	}
	if (timing.atTimeUp === 'flag')
		warn('limit', 'Candidates may go on after the limit, marked late: the limit stops nobody.');
	return findings;
}
