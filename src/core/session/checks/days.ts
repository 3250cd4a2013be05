import { fieldDate, isOverDays, localDate, MINUTE, timeAndDate, type Window } from '../../time';
import type { SessionFacts } from '../facts';
import type { Finding } from '../finding';

/** Open for days on end, and so at night on purpose. */
export function isForDays({ opens, closes }: Window): boolean {
	return closes !== null && closes - opens > 24 * 60 * MINUTE;
}

/** What a window of several days asks of the door. */
export function checkDays({ window, zone, rules, days }: SessionFacts): Finding[] {
	if (!isOverDays(window, zone)) return [];
	const found: Finding[] = [];
	const last = localDate(window.closes! - 1, zone);
	if (days && last > days.last)
		found.push({
			code: 'days_end',
			level: 'block',
			field: 'when',
			title: 'Outside the dates.',
			message: `This administration ends on ${fieldDate(days.last)}, and the window on ${fieldDate(last)}.`,
			fixes: [{ text: `close on ${fieldDate(days.last)}`, set: { untilDate: days.last } }]
		});
	if (rules.timing.clockStarts === 'room')
		found.push({
			code: 'days_together',
			level: 'block',
			field: 'time',
			title: 'Days, but one start.',
			message: 'Everyone starts together, so a window over several days is of no use.',
			fixes: [
				{ text: 'each from when they begin', set: { 'rules.timing.clockStarts': 'candidate' } },
				{ text: 'close on the same day', set: { untilDate: null } }
			]
		});
	else if (isForDays(window) && rules.admission === 'proctor')
		found.push({
			code: 'days_admission',
			level: 'warn',
			field: 'door',
			title: 'Open at night.',
			message: 'People who arrive at night wait until a proctor lets them in.',
			fixes: [{ text: 'automatic admission', set: { 'rules.admission': 'automatic' } }]
		});
	if (isForDays(window) && rules.timing.lastEntryMinutes !== null)
		found.push({
			code: 'days_entry',
			level: 'warn',
			field: 'door',
			title: 'Closed after the start.',
			message: `The last entry is at ${timeAndDate(window.opens + rules.timing.lastEntryMinutes * MINUTE, zone, window.opens)}, so the later days are of no use.`,
			fixes: [{ text: 'until it closes', set: { 'rules.timing.lastEntryMinutes': null } }]
		});
	if (rules.door.identity !== 'slip')
		found.push({
			code: 'days_code',
			level: 'info',
			field: 'door',
			title: 'A code for each day.',
			message:
				'The code changes at midnight, so people elsewhere need a new one each day. With slips, everyone has a code of their own.',
			fixes: [{ text: 'enter with slips', set: { 'rules.door.identity': 'slip', 'rules.door.slips': true } }]
		});
	return found;
}
