import type { Visit } from '../sitting';
import { minutesInWords, clockTime, NO_GRANTS, timeAndDate } from '../time';
import { languageName } from '../session';
import type { Beside, Grant, GrantedLook, GrantPlace, GrantScope, Merge } from './grant';

const REACH: Record<GrantScope['kind'], number> = { standing: 0, administration: 1, paper: 2, session: 3 };

/**
 * All that was given, as one answer for one sitting.
 *
 * Several multipliers: the largest counts, they are not multiplied. Several fixed minutes add up, and so do credits.
 * Of several own windows the one with the narrowest scope counts, and of those the latest given.
 * Working time that was given in a session goes on with work that was begun in it, wherever that is continued.
 * @param zone IANA zone in which the reasons tell times
 */
export function mergeGrants(all: Grant[], place: GrantPlace, zone: string): Merge {
	const given = all.filter((grant) => grant.withdrawnAt === null && (reaches(grant, place) || isBrought(grant, place)));
	const merge: Merge = {
		grants: { ...NO_GRANTS },
		mayReopen: false,
		separateRoom: false,
		display: { magnification: 1, contrast: false, colours: null, spacing: null, ruler: false },
		readAloud: false,
		aids: [],
		breaks: null,
		calculator: null,
		extraAttempts: 0,
		language: null,
		beside: [],
		paperCopy: false,
		otherForm: false,
		reasons: [],
		ownWindow: null,
		room: null,
		proctor: null
	};
	let window: Grant | null = null;
	let language: Grant | null = null;

	for (const grant of given) {
		const { body } = grant;
		switch (body.kind) {
			case 'extra_time':
				merge.grants.factor = Math.max(merge.grants.factor, body.factor);
				merge.grants.extraMinutes += body.minutes;
				break;
			case 'unlimited_time':
				merge.grants.unlimited = true;
				break;
			case 'credit':
				if (reaches(grant, place)) merge.grants.creditsMinutes += body.minutes;
				else merge.grants.earlierCreditsMinutes += body.minutes;
				break;
			case 'reopen':
			case 'continue_later':
				merge.mayReopen = true;
				break;
			case 'extra_attempt':
				merge.extraAttempts += body.count;
				break;
			case 'language':
				if (language === null || outranks(grant, language)) {
					language = grant;
					merge.language = body.tag;
				}
				break;
			case 'beside':
				merge.beside.push({ as: body.as, name: body.name });
				break;
			case 'paper_copy':
				merge.paperCopy = true;
				break;
			case 'read_aloud':
				merge.readAloud = true;
				break;
			case 'aid':
				merge.aids.push(body.name);
				break;
			case 'other_form':
				merge.otherForm = true;
				break;
			case 'separate_room':
				merge.separateRoom = true;
				break;
			case 'display':
				merge.display.magnification = Math.max(merge.display.magnification, body.magnification);
				merge.display.contrast ||= body.contrast;
				merge.display.colours = body.colours ?? merge.display.colours;
				merge.display.spacing = Math.max(body.spacing ?? 0, merge.display.spacing ?? 0) || null;
				merge.display.ruler ||= body.ruler ?? false;
				break;
			case 'breaks':
				if (!merge.breaks || body.count * body.minutes > merge.breaks.count * merge.breaks.minutes)
					merge.breaks = { count: body.count, minutes: body.minutes };
				break;
			case 'tools':
				if (merge.calculator !== 'scientific') merge.calculator = body.calculator;
				break;
			case 'own_window':
				if (window === null || outranks(grant, window)) window = grant;
				continue;
		}
		merge.reasons.push(`${grantInWords(grant, zone)}, ${scopeInWords(grant.scope)}`);
	}

	if (window?.body.kind === 'own_window') {
		merge.ownWindow = { opens: window.body.opens, closes: window.body.closes };
		merge.grants.window = merge.ownWindow;
		merge.room = window.body.room ?? null;
		merge.proctor = window.body.proctor ?? null;
		merge.reasons.push(`${grantInWords(window, zone)}, ${scopeInWords(window.scope)}`);
	}
	return merge;
}

function reaches(grant: Grant, place: GrantPlace): boolean {
	if (grant.candidateId !== null && grant.candidateId !== place.candidateId) return false;
	if (!isInItsTime(grant, place.opens)) return false;
	switch (grant.scope.kind) {
		case 'standing':
			return true;
		case 'administration':
			return grant.scope.id === place.administrationId;
		case 'paper':
			return grant.scope.id === place.paperId;
		case 'session':
			return grant.scope.id === place.sessionId && !wasBeforeItsTime(grant, place.visits?.at(-1));
	}
}

/** Where it is not known when the session opens, what holds only for a time is taken to hold. */
function isInItsTime({ from, until }: Grant, opens: number | undefined): boolean {
	if (opens === undefined) return true;
	return (from ?? -Infinity) <= opens && opens < (until ?? Infinity);
}

/** Given to all in a session before somebody came into it who had begun elsewhere: they did not lose that time. */
function wasBeforeItsTime(grant: Grant, visit: Visit | undefined): boolean {
	return grant.candidateId === null && visit !== undefined && visit.begunBefore && grant.givenAt < visit.from;
}

/** Working time given in an earlier session, to work that was begun by the time it left. */
function isBrought(grant: Grant, place: GrantPlace): boolean {
	if (grant.scope.kind !== 'session' || grant.scope.id === place.sessionId) return false;
	if (grant.body.kind !== 'credit' && grant.body.kind !== 'extra_time') return false;
	if (grant.candidateId !== null && grant.candidateId !== place.candidateId) return false;
	const { id } = grant.scope;
	return (place.visits ?? []).some(
		(visit) =>
			visit.sessionId === id &&
			visit.begunWhenLeaving &&
			!wasBeforeItsTime(grant, visit) &&
			(grant.candidateId !== null || visit.to === null || grant.givenAt <= visit.to)
	);
}

function outranks(a: Grant, b: Grant): boolean {
	const reach = REACH[a.scope.kind] - REACH[b.scope.kind];
	return reach === 0 ? a.givenAt >= b.givenAt : reach > 0;
}

/** `time and a half`, `12 minutes more`, `own window 09:30 to 11:00`. */
export function grantInWords(grant: Pick<Grant, 'body'>, zone: string): string {
	const { body } = grant;
	switch (body.kind) {
		case 'extra_time':
			return [
				body.factor > 1 ? factorInWords(body.factor) : '',
				body.minutes > 0 ? `${minutesInWords(body.minutes)} more` : ''
			]
				.filter(Boolean)
				.join(' and ');
		case 'unlimited_time':
			return 'no time limit';
		case 'credit':
			return `${minutesInWords(body.minutes)} given back`;
		case 'reopen':
			return 'may be reopened on a later day';
		case 'separate_room':
			return 'sits apart';
		case 'breaks':
			return `${body.count} ${body.count === 1 ? 'break' : 'breaks'} of ${body.minutes} minutes`;
		case 'display':
			return [
				body.magnification > 1 ? `enlarged ${body.magnification} times` : '',
				body.contrast ? 'strong contrast' : '',
				body.colours ? LOOK_NAMES[body.colours] : '',
				body.spacing ? 'wider lines' : '',
				body.ruler ? 'a reading ruler' : ''
			]
				.filter(Boolean)
				.join(', ');
		case 'tools':
			return `a ${body.calculator} calculator`;
		case 'own_window':
			return [
				`own window ${clockTime(body.opens, zone)} to ${timeAndDate(body.closes, zone, body.opens)}`,
				body.room ? `in the ${body.room.name}` : '',
				body.proctor ? `with ${body.proctor.name}` : ''
			]
				.filter(Boolean)
				.join(' ');
		case 'extra_attempt':
			return body.count === 1 ? 'one more attempt' : `${body.count} more attempts`;
		case 'continue_later':
			return 'may stop and go on another day';
		case 'language':
			return `reads it in ${languageName(body.tag)}`;
		case 'beside':
			return `a ${BESIDE_NAMES[body.as]} beside them${body.name ? `: ${body.name}` : ''}`;
		case 'paper_copy':
			return 'a copy on paper';
		case 'read_aloud':
			return 'questions read aloud by the device';
		case 'aid':
			return body.name;
		case 'other_form':
			return 'questions and choices in an order of their own';
	}
}

export const LOOK_NAMES: Record<GrantedLook, string> = {
	light: 'dark on light',
	strong: 'black on white',
	night: 'light on dark',
	sand: 'soft colours'
};

const BESIDE_NAMES: Record<Beside, string> = { reader: 'reader', scribe: 'scribe', assistant: 'helper' };

/** 1.25 is `time and a quarter`; factors without a name of their own are told as they are. */
export function factorInWords(factor: number): string {
	const names: Record<string, string> = {
		'1.1': 'time and a tenth',
		'1.25': 'time and a quarter',
		'1.5': 'time and a half',
		'1.75': 'time and three quarters',
		'2': 'double time',
		'3': 'triple time'
	};
	return names[String(factor)] ?? `${factor} times the time`;
}

export function scopeInWords(scope: GrantScope): string {
	switch (scope.kind) {
		case 'standing':
			return 'standing';
		case 'administration':
			return 'for this administration';
		case 'paper':
			return 'for this paper';
		case 'session':
			return 'for this session';
	}
}
