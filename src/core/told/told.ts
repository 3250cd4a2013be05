import { earlyInWords, markingInWords } from '../marking';
import { DEFAULT_RULES, forwardBy, type SessionRules } from '../session';
import { minutesInWords, endsByTime, type Window } from '../time';
import { counted, listed } from '../names';
import { inLength, timeOf, times, whenOf } from './time-told';

/** What a group of sentences is about, in the order in which they are read. */
export const SUBJECTS = {
	when: 'When',
	coming: 'Coming in',
	time: 'Your time',
	paper: 'The paper',
	watched: 'What is watched',
	end: 'Handing in',
	afterwards: 'Afterwards'
} as const;

export type Subject = keyof typeof SUBJECTS;

export type ToldSubject = { subject: Subject; title: string; lines: string[] };

/** What of a session binds a candidate. */
export type BindingFacts = {
	rules: SessionRules;
	window: Window;
	zone: string;
	/** Names of the networks from which the door can be passed, as far as they exist. */
	networks: string[];
	/** Some questions of the paper allow a lesser calculator, or none. */
	limitsCalculator: boolean;
	/** What this candidate has beyond the rules; null: told to everybody. */
	own: OwnFacts | null;
};

export type OwnFacts = {
	/** Working minutes with everything that was granted; null: no limit. */
	minutes: number | null;
	/** Seconds for each question with everything that was granted; null: no time for each. */
	questionSeconds: number | null;
	/** Breaks that were granted. */
	breaks: { count: number; minutes: number } | null;
	calculator: 'basic' | 'scientific' | null;
	/** More attempts than the rules give. */
	extraAttempts: number;
	/** They have begun, and go on with so many minutes (null: no limit); null: they have not begun. */
	goesOnWith: { minutes: number | null } | null;
};

/**
 * Everything that binds a candidate, made from the rules alone: the start page, the mail and "what candidates are told"
 * show these same sentences. What a rule does not ask for is not spoken of.
 */
export function whatBinds(facts: BindingFacts): ToldSubject[] {
	const lines: Record<Subject, (string | false | null)[]> = {
		when: whenOf(facts),
		coming: comingIn(facts),
		time: timeOf(facts),
		paper: paperOf(facts),
		watched: watchedOf(facts),
		end: endOf(facts),
		afterwards: afterwardsOf(facts)
	};
	return (Object.keys(SUBJECTS) as Subject[])
		.map((subject) => ({
			subject,
			title: SUBJECTS[subject],
			lines: lines[subject].filter((line) => !!line) as string[]
		}))
		.filter(({ lines }) => lines.length > 0);
}

function comingIn({ rules: { door, startWord, admission }, networks }: BindingFacts): (string | false)[] {
	const identity = {
		number_and_family: 'your candidate number and your family name',
		names_and_birthday: 'both your names and the day and month of your birth',
		slip: 'the code on your own slip'
	}[door.identity];
	return [
		door.identity === 'slip'
			? `You sign in with ${identity}.`
			: `You sign in with the code on the board and ${identity}.`,
		door.code === 'turning' &&
			door.identity !== 'slip' &&
			`The code on the board changes every ${minutesInWords(door.turnsEveryMinutes)}.`,
		door.slips && door.identity !== 'slip' && 'The code on your own slip lets you in as well.',
		networks.length > 0 && `You can sign in only from ${networks.join(' or ')}.`,
		admission === 'proctor' ? 'Your proctor lets you in.' : 'You are let in as soon as you have signed in.',
		door.checklist === 'needed'
			? 'Before you begin you check your device.'
			: door.checklist === 'offered' && 'You can check your device before you begin.',
		door.photoOnPaper && 'Your photo, if there is one, stands beside your name on the paper.',
		startWord !== null && 'To begin you type a start word, which is given out in the room.'
	];
}

function paperOf({ rules, own, limitsCalculator }: BindingFacts): (string | false | null)[] {
	const { movement, order, tools, marking } = rules;
	const forward = forwardBy(movement);
	const calculator = tools.calculator === 'scientific' ? 'scientific' : (own?.calculator ?? tools.calculator);
	const may = [
		calculator !== 'none' && `a ${calculator} calculator`,
		tools.notes && 'a page for notes',
		tools.hints && 'hints'
	].filter((one) => one !== false);
	return [
		{
			one: 'You see one question at a time.',
			pages: `You see ${counted(movement.perPage, 'question')} on a page.`,
			all: 'You see all questions on one page.'
		}[movement.shown],
		forward !== null
			? `You can’t go back to ${forward === 1 ? 'a question' : 'a page'} after leaving it.`
			: movement.shown !== 'all' && 'You can go back to earlier questions.',
		forward === null && tools.marking && 'You can mark a question and come back to it.',
		movement.answerToGoOn && movement.shown !== 'all' && 'Each question must be answered before the next one is shown.',
		(order.questionsInOwnOrder || order.choicesInOwnOrder) &&
			`${[order.questionsInOwnOrder && 'Questions', order.choicesInOwnOrder && 'choices']
				.filter((one) => one !== false)
				.join(' and ')
				.replace(/^c/, 'C')} come in an order of your own.`,
		may.length > 0 ? `You have ${listed(may)}.` : 'No calculator, notes or hints.',
		limitsCalculator &&
			calculator !== 'none' &&
			!own?.calculator &&
			'Some questions have a lesser calculator, or none.',
		tools.striking && 'Choices can be struck out.',
		tools.readAloud && 'Where your device has a voice of its own, it reads questions aloud.',
		markingInWords(marking),
		earlyInWords(marking)
	];
}

function watchedOf({ rules: { lockdown, comingBack, pace } }: BindingFacts): (string | false)[] {
	const { level, leavingsAllowed, onLeaving } = lockdown;
	const often = leavingsAllowed === 0 ? 'When you leave it' : `When you leave it more than ${times(leavingsAllowed)}`;
	const then = {
		warn: 'you are warned',
		hold: 'the paper is paused until your proctor comes',
		hand_in: 'your work is handed in, also if only your connection failed'
	}[onLeaving];
	return [
		level === 'watched' &&
			'The paper fills the screen. Leaving it, copying, pasting and printing are noted, and your proctor sees that.',
		level === 'sealed' &&
			`The paper opens only in the sealed client, version ${lockdown.clientVersion} or newer. Other programs are closed off.`,
		level !== 'open' && `${often}, ${then}.`,
		level !== 'open' &&
			(lockdown.sites.length > 0 ? `You may open ${listed(lockdown.sites)}.` : 'No other sites may be opened.'),
		level !== 'open' && lockdown.printing && 'You may print the paper.',
		level !== 'open' && !lockdown.tablets && 'It can’t be sat on a tablet.',
		comingBack === 'released' && 'If you close or reload the paper, your proctor has to let you go on.',
		comingBack === 'never' && 'If you close or reload the paper, your work is handed in and you can’t go on.',
		lockdown.snapshotSeconds !== null &&
			`The camera takes a small picture every ${counted(lockdown.snapshotSeconds, 'second')}. Only staff see them, and they are deleted after ${lockdown.snapshotDays} days.`,
		pace.watched && 'Your proctor sees when answers come faster than anyone can read.',
		pace.holds && pace.watched && 'After several such answers in a row the paper pauses until your proctor comes.'
	];
}

function endOf({ rules: { timing, movement, finishWord } }: BindingFacts): (string | false)[] {
	const atTimeUp = {
		hand_in: 'When time is up, your work is handed in for you.',
		stop: 'When time is up, no more answers are taken. You then hand in yourself.',
		flag: 'When time is up you may go on; answers after it are marked late.',
		zero: 'When time is up, work that has not been handed in is not scored.'
	}[timing.atTimeUp];
	return [
		'Answers are saved as you enter them. You hand in at the end, after seeing what is blank.',
		movement.answerAll && 'You can hand in only when every question has been answered.',
		finishWord !== null && 'To hand in you type a finish word, which is given out in the room.',
		endsByTime(timing) && atTimeUp
	];
}

function afterwardsOf({
	rules: { attempts, review, result, lockdown, movement },
	own
}: BindingFacts): (string | false)[] {
	const most = attempts.most + (own?.extraAttempts ?? 0);
	const counts = {
		highest: 'the best one counts',
		mean: 'their mean counts',
		first: 'the first one counts',
		last: 'the last one counts'
	}[attempts.counts];
	const waits = [
		attempts.waitMinutes > 0 && most > 1 && `The second can begin ${inLength(attempts.waitMinutes)} after the first.`,
		attempts.laterWaitMinutes > 0 && most > 2 && `Each later one waits ${inLength(attempts.laterWaitMinutes)}.`
	].filter((one) => one !== false);
	const shows = {
		nothing: '',
		score: 'your score',
		own_answers: 'your score and your answers',
		key: 'your score, your answers and the right answers'
	}[review.shows];
	const when = {
		at_once: 'after handing in',
		session_ended: 'when the session has ended',
		all_finished: 'when everyone has finished'
	}[review.when];
	const from =
		review.shows === 'key' && review.when !== 'all_finished' ? `${when}, and when nobody can still sit it` : when;
	return [
		most > 1 && `You may sit it ${most} times; ${counts}. ${waits.join(' ')}`.trim(),
		most > 1 &&
			attempts.startsFromLast &&
			forwardBy(movement) === null &&
			'A further attempt begins with the answers of the one before.',
		review.shows === 'nothing' ? 'You see nothing of your result here.' : `You see ${shows} ${from}.`,
		review.shows !== 'nothing' &&
			lockdown.level !== 'open' &&
			lockdown.alsoForReview &&
			'You look back under the same lock.',
		result.passPercent !== null && `The pass mark is ${result.passPercent} %.`,
		result.creditPercent !== DEFAULT_RULES.result.creditPercent &&
			`A topic is credited from ${result.creditPercent} % of its points.`,
		result.bands.length > 0 &&
			`Results are called ${listed([...result.bands].sort((a, b) => b.fromPercent - a.fromPercent).map((band) => `${band.name} from ${band.fromPercent} %`))}.`
	];
}
