import { counted } from '$core/names';
import {
	lateBy,
	needCounts,
	remainingNow,
	type DoorRefusal,
	type Need,
	type NeedAct,
	type NeedKind,
	type RoomHead,
	type SeatView
} from '$core/room';
import { clockLength, clockTime, minutesInWords, minutesLeft, timeAndDate } from '$core/time';
import { NEED_VERBS } from './asks';
import { KEPT_BECAUSE } from '$core/logbook';
import { listed } from '$core/names';

/** What is the matter, in a sentence that says what is safe and what presses. */
export function needInWords(need: Need, now: number, head: Pick<RoomHead, 'questions' | 'zone' | 'opens'>): string {
	if (need.refusal) return refusalInWords(need.refusal, now);
	return need.seat ? seatInWords(need, need.seat, now, head) : togetherInWords(need, now);
}

/** Whom it concerns: a name, how many, or somebody whom nobody knows yet. */
export function whomInWords({ kind, seat, seats, refusal }: Need, isMasked: boolean): string {
	const who = seat ?? refusal?.candidate;
	if (who) return isMasked ? who.number : who.name;
	if (seats.length === 0) return 'At the door';
	return kind === 'line_lost' ? `${seats.length} lines lost` : `${seats.length} on hold`;
}

/** What settles it, for how many: `Hold`, `Hold all 24`. */
export const verbInWords = (act: NeedAct, { seats }: Need) =>
	seats.length > 1 ? `${NEED_VERBS[act]} all ${seats.length}` : NEED_VERBS[act];

/** What many have in common, and what becomes of their work and their time. */
function togetherInWords({ kind, seats, since }: Need, now: number): string {
	const ago = clockLength(now - since);
	const standing = seats.filter((seat) => seat.standing).length;
	const time =
		standing === 0
			? 'Their time runs on.'
			: standing === seats.length
				? 'Their time stands still.'
				: `The time of ${standing} stands still.`;
	if (kind === 'line_lost')
		return `The first ${ago} ago: the network here, perhaps. Answers are kept on the devices and arrive by themselves. ${time}`;
	return `The first for ${ago}: ${seats[0].reason ?? 'no reason given'}. ${time}`;
}

function seatInWords(
	need: Need,
	seat: SeatView,
	now: number,
	{ questions, zone, opens }: Pick<RoomHead, 'questions' | 'zone' | 'opens'>
): string {
	const late = Math.floor(lateBy(seat, opens) / 60_000);
	const since = clockLength(now - need.since);
	switch (need.kind) {
		case 'line_lost':
			return `Line lost ${since} ago. ${seat.answered === 1 ? 'One answer is' : `${seat.answered} answers are`} safe here.`;
		case 'hand':
			return seat.hand?.text ? `Hand up for ${since}: “${seat.hand.text}”` : `Hand up for ${since}.`;
		case 'second_device':
			return `Tried to sign in on another device (${seat.otherDevice?.name}). Their first device is still in use.`;
		case 'copied':
			return seat.noted.some((one) => one.what === 'forged')
				? `A copy of this device’s sign-in was used elsewhere. It could not sign its requests, so it was refused.`
				: `This sign-in is in use in two browsers, and neither can sign its requests.`;
		case 'at_door':
			return `At the door for ${since}${late > 0 ? `, ${late} min late` : ''}.${seat.unsigned ? ' This browser cannot sign its requests: check who sits there.' : ''}${seat.lastEntry === null ? '' : ` Last entry ${clockTime(seat.lastEntry, zone)}.`}`;
		case 'held_by_rules':
			return `Paused by the rules ${since} ago: ${seat.reason ?? 'no reason given'}. ${seat.standing ? 'Clock stopped.' : 'The clock runs.'}`;
		case 'on_hold':
			return `On hold ${since}: ${seat.reason ?? 'no reason given'}. ${seat.standing ? 'Clock stopped.' : 'The clock runs.'}`;
		case 'held_back':
			return `${heldBackTold(seat.heldBack!)}, at ${timeAndDate(need.since, zone, now)}. Kept, and not counted.`;
		case 'spoiled':
			return `${seat.rapid} of ${counted(questions, 'answer')} came faster than reading takes: the score no longer shows what they can do.`;
		case 'rushing':
			return `${seat.rapid} ${seat.rapid === 1 ? 'answer' : 'answers'} faster than reading takes, ${Math.round((100 * seat.rapid) / Math.max(1, questions))} % of the paper. 30 % spoils it.`;
		case 'left':
			return seat.lapses?.awaySince
				? `Away from the paper’s screen for ${clockLength(now - seat.lapses.awaySince)}, the ${nth(seat.lapses.left)} time.`
				: `Left the paper’s screen ${seat.lapses?.left} times, last at ${timeAndDate(seat.lapses!.last, zone, now)}.`;
		case 'time_short':
			return `${minutesInWords(minutesLeft(remainingNow(seat, now) ?? 0))} left and ${questions - seat.answered} of ${questions} unanswered.`;
		case 'past_time':
			return `Their time ended at ${clockTime(seat.deadline!, zone)} and they are still working.`;
		case 'idle':
			return `No answer for ${since}, at ${seat.at === null ? 'a question that is not known' : `question ${seat.at + 1}`}. Nothing in the paper takes that long.`;
		case 'behind':
			return `${seat.answered} of ${questions} answered: less than half as fast as most in this room.`;
		case 'ahead':
			return `${seat.answered} of ${questions} answered: more than twice as fast as most in this room.`;
		case 'battery':
			return `The device’s battery is at ${Math.round(100 * (seat.battery ?? 0))} % and not charging.`;
		case 'refused':
			return '';
	}
}

const REFUSED: Record<string, string> = {
	identity_unknown: 'gave details that match nobody on the list',
	not_on_list: 'is not on this list',
	wrong_session: 'is expected in another session',
	past_last_entry: 'arrived after last entry',
	window_over: 'arrived after the window had closed',
	off_network: 'is not on a network of this site',
	step_closed: 'has something to do before this paper',
	client_unproven: 'does not use the sealed client',
	client_outdated: 'uses a sealed client that is too old',
	no_tablets: 'uses a tablet, which the rules do not allow',
	not_me: 'was recognised at a device where somebody said: that is not me',
	word_guessed: 'is trying one word after another to begin or to hand in',
	barred: 'is on hold and tried to come in',
	behind_strangers: 'gave the right details, after many wrong tries by others',
	again_elsewhere: 'has handed in and wants to sit the paper again on another device',
	already_ended: 'has handed in and tried to come in again'
};

function refusalInWords({ code, device, tries, candidate, waitsUntil }: DoorRefusal, now: number): string {
	const what = REFUSED[code] ?? 'was refused';
	const often = tries > 1 ? `, ${tries} times` : '';
	const waits =
		waitsUntil !== null && waitsUntil > now ? ` Must wait ${clockLength(waitsUntil - now)} before the next try.` : '';
	const who = candidate ? capital(what) : `Somebody ${what}`;
	return `${who}${often}.${waits} Device: ${device}.`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function nth(count: number): string {
	const endings: Record<number, string> = { 1: 'st', 2: 'nd', 3: 'rd' };
	return `${count}${(count % 100 > 10 && count % 100 < 14 ? undefined : endings[count % 10]) ?? 'th'}`;
}

/** `3 answers came while on hold`, with each reason that there is. */
export function heldBackTold({ count, because }: NonNullable<SeatView['heldBack']>): string {
	return `${count === 1 ? 'One answer' : `${count} answers`} came ${listed(because.map((why) => KEPT_BECAUSE[why]))}`;
}

/** What each kind of need is called where they are counted. */
export const KIND_NAMES: Record<NeedKind, string> = {
	line_lost: 'Line lost',
	hand: 'Hands up',
	refused: 'Refused',
	copied: 'Copied sign-in',
	second_device: 'Second device',
	at_door: 'At the door',
	held_back: 'Answers held back',
	held_by_rules: 'Paused by the rules',
	spoiled: 'Spoiled',
	rushing: 'Rushing',
	left: 'Left the screen',
	on_hold: 'On hold',
	time_short: 'Time short',
	past_time: 'Past time',
	idle: 'Idle',
	behind: 'Far behind',
	ahead: 'Far ahead',
	battery: 'Battery'
};

/** So many are named when several come at once; of more it is said how many of each kind. */
const MOST_NAMED = 3;

/** What has just come up, for whoever hears the room: `Oona Reyes: at the door. Quill Dastan: hands up.` */
export function newsInWords(news: Need[], isMasked: boolean): string {
	if (news.length <= MOST_NAMED) return news.map((need) => oneNews(need, isMasked)).join(' ');
	const counts = needCounts(news).map(([kind, count]) => `${count} ${KIND_NAMES[kind].toLowerCase()}`);
	return `${news.length} new: ${listed(counts)}.`;
}

function oneNews(need: Need, isMasked: boolean): string {
	const whom = whomInWords(need, isMasked);
	// Several who are one need are called by what is the matter already.
	if (need.seats.length > 0 && !need.seat) return `${whom}.`;
	return `${whom}: ${need.kind === 'hand' ? 'hand up' : KIND_NAMES[need.kind].toLowerCase()}.`;
}
