import { twoLimitsInWords } from '../../time';
import { forwardBy } from '../movement';
import type { SessionFacts } from '../facts';
import type { Finding, Fix } from '../finding';

/** What stands against a time for each question, and what it needs. */
export function checkQuestionTime({ rules, limitBeside }: SessionFacts): Finding[] {
	const { questionSeconds, endedBy, clockStops } = rules.timing;
	if (questionSeconds === null) return [];
	const found: Finding[] = [];
	const say = (code: string, level: Finding['level'], title: string, message: string, fixes: Fix[]) =>
		found.push({ code, level, field: 'time', title, message, fixes });
	const without: Fix = { text: 'no time for each question', set: { 'rules.timing.questionSeconds': null } };
	if (limitBeside !== null)
		say('K12', 'block', 'Two limits.', twoLimitsInWords(limitBeside, questionSeconds), [
			{ text: `${questionSeconds} s for each question`, set: { 'rules.timing.limitMinutes': null } },
			{ text: `${limitBeside} min for the whole`, set: { 'rules.timing.questionSeconds': null } }
		]);
	if (forwardBy(rules.movement) !== 1)
		say(
			'question_time_movement',
			'block',
			'A question that comes back has no end.',
			'With a time for each question they come one at a time, and nobody goes back.',
			[
				{
					text: 'one at a time, no way back',
					set: { 'rules.movement.shown': 'one', 'rules.movement.goingBack': false, 'rules.tools.marking': false }
				},
				without
			]
		);
	if (endedBy === 'proctor')
		say('question_time_by_hand', 'block', 'Two ends.', 'Each question ends by the clock, and the paper by hand.', [
			{ text: 'end by each one’s clock', set: { 'rules.timing.endedBy': 'clock' } },
			without
		]);
	if (clockStops !== 'hold_or_lost')
		say(
			'question_time_lost',
			'warn',
			'A break can cost a question.',
			`The clock runs on ${clockStops === 'never' ? 'during a hold or a lost connection' : 'while a connection is lost'}, and minutes given back bring no question back.`,
			[{ text: 'stop it then', set: { 'rules.timing.clockStops': 'hold_or_lost' } }]
		);
	return found;
}
