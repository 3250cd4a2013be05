import { counted, someNames } from '../../names';
import {
	minutesInWords,
	addDays,
	clockTime,
	fieldDate,
	isOverDays,
	lastEntryOf,
	localDate,
	localTime,
	MINUTE,
	shownTime,
	timeAndDate,
	type TimingRules
} from '../../time';
import type { SessionFacts } from '../facts';
import type { Finding, Fix } from '../finding';
import { checkDays, isForDays } from './days';

/** What limit, window and clock would do to somebody on the day. */
export function checkTime(facts: SessionFacts, now: number): Finding[] {
	const found = [...checkWindow(facts, now), ...checkClock(facts), ...checkGoingOn(facts)];
	const { opens, closes } = facts.window;
	// A window that is upside down makes everything else about it meaningless.
	return closes !== null && closes <= opens ? found : [...found, ...checkDays(facts), ...checkFit(facts)];
}

function checkWindow({ window, zone, hours, days }: SessionFacts, now: number): Finding[] {
	const found: Finding[] = [];
	const when = (level: Finding['level'], code: string, title: string, message: string, fixes: Fix[] = []) =>
		found.push({ code, level, field: 'when', title, message, fixes });
	if (window.closes !== null && window.closes <= window.opens)
		when('block', 'upside_down', 'Ends too early.', 'It closes before it opens. Choose a later end.', [
			{ text: 'close on the next day', set: { untilDate: addDays(localDate(window.opens, zone), 1) } },
			{ text: 'leave the end open', set: { until: null } }
		]);
	if (window.opens < now - 12 * 60 * MINUTE)
		when('block', 'past', 'In the past.', 'This start has passed. Choose a time from now on.');
	else if (window.opens < now)
		when(
			'warn',
			'late',
			'Just passed.',
			`It starts in the past, at ${clockTime(window.opens, zone)}: the door opens as soon as it is planned.`
		);

	const [from, to] = [localTime(window.opens, zone), window.closes === null ? null : localTime(window.closes, zone)];
	const overMidnight = isOverDays(window, zone);
	if (hours && !isForDays(window) && (from < hours.opens || overMidnight || (to !== null && to > hours.closes)))
		when(
			'warn',
			'hours',
			'Out of hours.',
			`The site is open from ${shownTime(hours.opens)} to ${shownTime(hours.closes)}.`,
			withinHours(from, window.closes === null ? null : (window.closes - window.opens) / MINUTE, hours)
		);
	const day = localDate(window.opens, zone);
	if (days && (day < days.first || day > days.last))
		when(
			'block',
			'days',
			'Outside the dates.',
			`This administration runs from ${fieldDate(days.first)} to ${fieldDate(days.last)}. Choose a day within, or change its dates.`,
			[day < days.first ? days.first : days.last].map((date) => ({ text: `on ${fieldDate(date)}`, set: { date } }))
		);
	return found;
}

/** The day of an instant where it is another than that of the opening. */
function laterDay(at: number, opens: number, zone: string): string | null {
	const day = localDate(at, zone);
	return day === localDate(opens, zone) ? null : day;
}

/** The same length within the hours, moved as little as that takes; none when it is longer than they are. */
function withinHours(from: string, lasts: number | null, hours: { opens: string; closes: string }): Fix[] {
	const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
	const clock = (at: number) => `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
	const [opens, closes] = [minutes(hours.opens), minutes(hours.closes)];
	const length = lasts ?? 0;
	if (length < 0 || length > closes - opens) return [];
	const start = Math.min(Math.max(minutes(from), opens), closes - length);
	return [
		{
			text: `start at ${shownTime(clock(start))}`,
			set: { time: clock(start), ...(lasts === null ? {} : { until: clock(start + length), untilDate: null }) }
		}
	];
}

/** Whether everyone's time fits into the window. */
function checkFit(facts: SessionFacts): Finding[] {
	const { window, zone, rules, extraTime } = facts;
	const { limitMinutes: limit, atClose, lastEntryMinutes } = rules.timing;
	if (limit === null || window.closes === null) return [];
	const found: Finding[] = [];
	const room = Math.round((window.closes - window.opens) / MINUTE);
	const finish: Fix = { text: 'let those who began finish', set: { 'rules.timing.atClose': 'finish' } };
	const endAt = (at: number): Fix => ({
		text: `end at ${timeAndDate(at, zone, window.opens)}`,
		set: { until: localTime(at, zone), untilDate: laterDay(at, window.opens, zone) }
	});

	const short = extraTime.needs.filter((need) => need.minutes !== null && need.minutes > room);
	const longest = Math.max(limit, ...short.map((need) => need.minutes!));
	const needed = window.opens + longest * MINUTE;
	if (atClose === 'cut' && room < limit)
		found.push({
			code: 'K3',
			level: 'block',
			field: 'when',
			title: 'Cut short.',
			message: `The window is ${minutesInWords(room)}, the limit ${limit}${longest > limit ? `; with extra time the last need until ${clockTime(needed, zone)}` : ''}.`,
			fixes: [finish, endAt(needed)]
		});
	else if (atClose === 'cut' && short.length > 0)
		found.push({
			code: 'K3',
			level: 'block',
			field: 'when',
			title: 'Cut short.',
			message: `The window ends ${timeAndDate(window.closes, zone, window.opens)}; ${someNames(short.map((need) => need.person.name))} need${short.length === 1 ? 's' : ''} until ${clockTime(needed, zone)}.`,
			fixes: [finish, endAt(needed)]
		});
	const lastFull = window.closes - limit * MINUTE;
	const lastEntry = lastEntryOf(rules.timing, window) ?? window.closes;
	if (atClose === 'cut' && room >= limit && lastEntry > lastFull && rules.timing.clockStarts === 'candidate')
		found.push({
			code: 'K4',
			level: 'warn',
			field: 'time',
			title: 'Late starters lose time.',
			message: `People who start after ${timeAndDate(lastFull, zone, window.opens)} are cut short by the close at ${clockTime(window.closes, zone)}.`,
			fixes: [
				finish,
				{ text: `last entry at ${clockTime(lastFull, zone)}`, set: { 'rules.timing.lastEntryMinutes': room - limit } }
			]
		});
	const begunBy = rules.timing.clockStarts === 'room' ? window.opens : Math.min(lastEntry, window.closes);
	const late = extraTime.needs.filter(
		({ minutes }) =>
			minutes !== null && minutes > limit && minutes <= room && window.closes! - minutes * MINUTE < begunBy
	);
	if (atClose === 'cut' && late.length > 0) {
		const most = Math.max(...late.map(({ minutes }) => minutes!));
		const [last, needed] = [window.closes - most * MINUTE, begunBy + most * MINUTE];
		const who = someNames(late.map((need) => need.person.name));
		found.push({
			code: 'K4_extra',
			level: 'warn',
			field: 'time',
			title: 'Extra time that is cut.',
			message: `${who} must begin by ${timeAndDate(last, zone, window.opens)} to have all of it: entry goes on until ${clockTime(begunBy, zone)}, and the close at ${clockTime(window.closes, zone)} cuts.`,
			fixes: [finish, endAt(needed)]
		});
	}
	if (lastEntryMinutes !== null && lastEntryMinutes > room)
		found.push({
			code: 'entry_after_close',
			level: 'warn',
			field: 'door',
			title: 'Entry after the close.',
			message: 'Last entry is after the window closes; the window’s end counts.',
			fixes: [{ text: 'until it closes', set: { 'rules.timing.lastEntryMinutes': null } }]
		});
	return found;
}

function checkClock({ rules, candidates, paper }: SessionFacts): Finding[] {
	const { timing, lockdown } = rules;
	const found: Finding[] = [];
	const warn = (
		code: string,
		field: Finding['field'],
		title: string,
		message: string,
		fixes: Fix[],
		level: Finding['level'] = 'warn'
	) => found.push({ code, level, field, title, message, fixes });
	if (timing.limitMinutes !== null && timing.atTimeUp === 'flag')
		warn('K1', 'time', 'A limit that stops nobody.', 'Candidates may go on after the limit, marked late.', [
			{ text: 'hand in for them', set: { 'rules.timing.atTimeUp': 'hand_in' } }
		]);
	if (lockdown.level !== 'open' && (timing.limitMinutes === null || timing.atTimeUp === 'flag'))
		warn('K2', 'time', 'No time protection.', `It is ${lockdown.level}, but time never ends the work.`, [
			timing.limitMinutes === null
				? {
						text: `limit of ${paper.suggestedMinutes} min`,
						set: { 'rules.timing.limitMinutes': paper.suggestedMinutes }
					}
				: { text: 'hand in for them', set: { 'rules.timing.atTimeUp': 'hand_in' } }
		]);
	if (timing.atTimeUp === 'zero')
		warn(
			'zero',
			'time',
			'A slow connection costs everything.',
			'Anyone who has not handed in when time is up is not scored.',
			[{ text: 'hand in for them', set: { 'rules.timing.atTimeUp': 'hand_in' } }]
		);
	if (timing.clockStops === 'never' && lockdown.level !== 'open')
		warn(
			'K7',
			'time',
			'A break costs time.',
			'The clock keeps running during a hold or a lost connection; you can give minutes back.',
			[{ text: 'stop it on hold', set: { 'rules.timing.clockStops': 'hold' } }],
			'info'
		);
	if (timing.clockStarts === 'room' && (timing.lastEntryMinutes ?? 0) > 0)
		warn(
			'K28',
			'door',
			'Late arrivals have less time.',
			`All start together: anyone who enters at the last moment has ${minutesInWords(timing.lastEntryMinutes ?? 0)} less.`,
			[{ text: 'each from when they begin', set: { 'rules.timing.clockStarts': 'candidate' } }]
		);
	if (timing.limitMinutes !== null && timing.maxLimitMinutes !== null && timing.limitMinutes > timing.maxLimitMinutes)
		warn(
			'over_longest',
			'time',
			'Longer than the longest limit.',
			`The limit is ${minutesInWords(timing.limitMinutes)}, and the longest that anybody may have here ${timing.maxLimitMinutes}: nobody would get more.`,
			[
				{
					text: `limit of ${timing.maxLimitMinutes} min`,
					set: { 'rules.timing.limitMinutes': timing.maxLimitMinutes, 'rules.timing.questionSeconds': null }
				},
				{
					text: `longest limit of ${timing.limitMinutes} min`,
					set: { 'rules.timing.maxLimitMinutes': timing.limitMinutes }
				}
			],
			'block'
		);
	if (timing.endedBy === 'proctor' && timing.clockStarts !== 'room')
		warn(
			'by_hand',
			'time',
			'No common start.',
			'The proctor ends the paper for all at once, so all have to start at once.',
			[
				{ text: 'start the room together', set: { 'rules.timing.clockStarts': 'room' } },
				{ text: 'end by each one’s clock', set: { 'rules.timing.endedBy': 'clock' } }
			],
			'block'
		);
	if (rules.pauses.most > 0 && rules.pauses.stopsClock && lockdown.level !== 'open')
		warn(
			'pauses',
			'time',
			'Time to look things up.',
			`Everyone may stop the clock ${rules.pauses.most} times for ${minutesInWords(rules.pauses.minutes)}.`,
			[
				{ text: 'let the clock run on', set: { 'rules.pauses.stopsClock': false } },
				{ text: 'no pauses', set: { 'rules.pauses.most': 0 } }
			]
		);
	const limit = timing.limitMinutes;
	if (limit !== null && paper.questions > 0 && candidates > 0) {
		const suggested = paper.suggestedMinutes;
		if (limit < suggested * 0.6 || limit > suggested * 3)
			warn(
				'length',
				'time',
				limit < suggested ? 'Tight.' : 'Generous.',
				`${minutesInWords(limit)} for ${counted(paper.questions, 'question')}; about ${suggested} are usual.`,
				[suggestion(timing, paper)],
				'info'
			);
	}
	return found;
}

/** The usual time, entered as time is entered here. */
function suggestion({ questionSeconds }: TimingRules, { suggestedMinutes, questions }: SessionFacts['paper']): Fix {
	if (questionSeconds === null)
		return { text: `${suggestedMinutes} min`, set: { 'rules.timing.limitMinutes': suggestedMinutes } };
	const seconds = Math.ceil((suggestedMinutes * 60) / questions / 5) * 5;
	return { text: `${seconds} s for each`, set: { 'rules.timing.questionSeconds': seconds } };
}

/** Whoever began under another limit was told that they keep their time; under this one it is another. */
function checkGoingOn({ goingOn, rules }: SessionFacts): Finding[] {
	const limit = rules.timing.limitMinutes;
	const others = goingOn.filter((one) => one.limitMinutes !== limit);
	if (others.length === 0) return [];
	const [{ limitMinutes: before }] = others;
	const inWords = (minutes: number | null) =>
		minutes === null ? 'without a limit' : `with ${minutesInWords(minutes)}`;
	const who = someNames(others.filter((one) => one.limitMinutes === before).map((one) => one.person.name));
	return [
		{
			code: 'other_limit',
			level: 'warn',
			field: 'time',
			title: 'Not the time they began with.',
			message: `${who} began ${inWords(before)} and would go on ${inWords(limit)}, less what they have worked.`,
			fixes: [
				{
					text: before === null ? 'no limit' : `${minutesInWords(before)}, as before`,
					set: { 'rules.timing.limitMinutes': before, 'rules.timing.questionSeconds': null }
				}
			]
		}
	];
}
