import { minutesInWords } from '../../time';
import { counted } from '../../names';
import { forwardBy } from '../movement';
import type { SessionFacts } from '../facts';
import { checkForms } from './forms';
import type { Finding, Fix } from '../finding';

/** What the paper and the way it is shown would do. */
export function checkPaper(facts: SessionFacts): Finding[] {
	const { paper, rules, kind, othersPending, owing, forPractice } = facts;
	const { movement, order, tools, review, attempts, lockdown, marking, timing } = rules;
	const found: Finding[] = [];
	const push = (
		code: string,
		level: Finding['level'],
		title: string,
		message: string,
		fixes: Fix[] = [],
		field: Finding['field'] = 'paper'
	) => found.push({ code, level, field, title, message, fixes });

	if (kind === 'rehearsal' && (othersPending > 0 || owing > 0))
		push(
			'rehearsal_counts',
			'block',
			'Its questions would be known.',
			`${paper.title} is still to be sat for real${owing > 0 ? ` by ${owing} ${owing === 1 ? 'candidate' : 'candidates'}` : ''}. Rehearse with a paper that is only for practice.`,
			forPractice.map(({ id, title }) => ({ text: `rehearse with ${title}`, set: { paperId: id } }))
		);
	if (paper.isForPractice && kind !== 'rehearsal')
		push(
			'for_practice',
			'block',
			'Only for practice.',
			`Anyone may try ${paper.title} at any time, and is told what is right. It can be rehearsed with, and not be sat for real.`,
			[{ text: 'a rehearsal', set: { kind: 'rehearsal' } }]
		);
	if (!paper.allowed)
		push(
			'not_allowed',
			'block',
			'Not allowed here.',
			`${paper.title} may not be sat by these groups at this site. Allow it in the administration, or choose another.`
		);
	if (paper.withdrawn)
		push(
			'withdrawn',
			// Who sits it already goes on, and a make-up sits what the others sat.
			paper.withdrawn.isChosen || kind === 'make_up' ? 'warn' : 'block',
			'Withdrawn.',
			`Version ${paper.version} of ${paper.title} was withdrawn: ${paper.withdrawn.why}`,
			paper.newer ? [{ text: `use version ${paper.newer.version}`, set: { paperId: paper.newer.id } }] : []
		);
	// A make-up sits what the others sat.
	if (paper.newer && kind === 'live')
		push(
			'newer_version',
			'warn',
			'A newer version is ready.',
			`This session uses version ${paper.version} of ${paper.title}; version ${paper.newer.version} has been frozen since.`,
			[{ text: `use version ${paper.newer.version}`, set: { paperId: paper.newer.id } }]
		);
	for (const pool of paper.pools) {
		if (pool.draw > pool.of)
			push('K11', 'block', 'Pool too small.', `“${pool.title}” deals ${pool.draw} of ${counted(pool.of, 'question')}.`);
		if (!pool.equalPoints)
			push(
				'K10',
				'block',
				'Unequal totals.',
				`The questions of “${pool.title}” have different points, so candidates could reach different totals.`
			);
	}
	found.push(...checkForms(facts));
	if (paper.keepPlace > 0 && order.choicesInOwnOrder)
		push(
			'K8',
			'info',
			'Some choices stay.',
			`${paper.keepPlace} ${paper.keepPlace === 1 ? 'question keeps a choice' : 'questions keep choices'} in place (“none of these”).`
		);
	if (order.choicesInOwnOrder && !order.questionsInOwnOrder)
		push('K9', 'info', 'Only choices are mixed.', 'The questions come in one order for all.', [
			{ text: 'mix questions too', set: { 'rules.order.questionsInOwnOrder': true } }
		]);
	if (!movement.goingBack && tools.marking)
		push('K13', 'warn', 'Marking is useless.', 'Candidates can mark for later but not go back.', [
			{ text: 'allow going back', set: { 'rules.movement.goingBack': true } },
			{ text: 'no marking', set: { 'rules.tools.marking': false } }
		]);
	if (marking.earlyMinutes != null && timing.limitMinutes === null)
		push(
			'early_without_limit',
			'block',
			'Nobody hands in early.',
			`Points are given for handing in with ${minutesInWords(marking.earlyMinutes)} left, and there is no limit to be left of.`,
			[{ text: 'no points for it', set: { 'rules.marking.earlyMinutes': null } }]
		);
	else if (marking.earlyMinutes != null && marking.earlyMinutes >= timing.limitMinutes!)
		push(
			'early_at_once',
			'block',
			'Nobody can be so early.',
			`${minutesInWords(marking.earlyMinutes)} are to be left of ${timing.limitMinutes}.`,
			[{ text: 'no points for it', set: { 'rules.marking.earlyMinutes': null } }]
		);
	if (!movement.goingBack && movement.answerToGoOn)
		push('K14', 'warn', 'Guessing is forced.', 'Each question must be answered, and none can be changed later.', [
			{ text: 'blanks allowed', set: { 'rules.movement.answerToGoOn': false } },
			{ text: 'allow going back', set: { 'rules.movement.goingBack': true } }
		]);
	if (attempts.most > 1 && attempts.startsFromLast && forwardBy(movement) !== null)
		push(
			'from_last',
			'block',
			'It would begin at its end.',
			'A further attempt with the answers of the last has every page behind it, where nobody goes back.',
			[
				{ text: 'allow going back', set: { 'rules.movement.goingBack': true } },
				{ text: 'start each attempt blank', set: { 'rules.attempts.startsFromLast': false } }
			]
		);
	if (
		(review.shows === 'key' || review.shows === 'own_answers') &&
		review.when !== 'all_finished' &&
		othersPending > 0 &&
		kind !== 'rehearsal'
	)
		push(
			'K15',
			'block',
			'Answers would spread.',
			`${othersPending} other ${othersPending === 1 ? 'session' : 'sessions'} of this paper ${othersPending === 1 ? 'is' : 'are'} still to come.`,
			[
				{ text: 'when all have finished', set: { 'rules.review.when': 'all_finished' } },
				{ text: 'show nothing', set: { 'rules.review.shows': 'nothing' } }
			],
			'afterwards'
		);
	if (attempts.most > 1 && rules.timing.lastEntryMinutes === null && lockdown.level !== 'open')
		push(
			'K16',
			'block',
			'Anyone can try again.',
			`${counted(attempts.most, 'attempt')} in a window that stays open let the whole group sit twice.`,
			[
				{ text: 'one attempt', set: { 'rules.attempts.most': 1 } },
				{ text: 'last entry after 15 min', set: { 'rules.timing.lastEntryMinutes': 15 } }
			],
			'afterwards'
		);
	if (attempts.most > 1 && review.shows === 'key' && kind !== 'rehearsal')
		push(
			'K17',
			'warn',
			'Free points.',
			'Right answers are shown after each of several attempts.',
			[
				{ text: 'show the score only', set: { 'rules.review.shows': 'score' } },
				{ text: 'one attempt', set: { 'rules.attempts.most': 1 } }
			],
			'afterwards'
		);
	if (attempts.most > 1 && attempts.counts === 'last')
		push(
			'K36',
			'info',
			'A better result can be lost.',
			'The last attempt counts, even when an earlier one was higher. All are kept.',
			[{ text: 'count the highest', set: { 'rules.attempts.counts': 'highest' } }],
			'afterwards'
		);
	if (review.shows !== 'nothing' && review.when === 'at_once' && lockdown.level === 'sealed')
		push(
			'K39',
			'warn',
			'Scores at once.',
			'An examination that decides something usually shows nothing on the day.',
			[{ text: 'show nothing', set: { 'rules.review.shows': 'nothing' } }],
			'afterwards'
		);
	if (tools.hints && lockdown.level !== 'open')
		push('K43', 'block', 'Answers given away.', `Hints are shown in a ${lockdown.level} sitting.`, [
			{ text: 'no hints', set: { 'rules.tools.hints': false } }
		]);
	return found;
}
