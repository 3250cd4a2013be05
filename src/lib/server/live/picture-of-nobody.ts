import { markingInWords } from '$core/marking';
import { fullName } from '$core/names';
import { deal, formFor, type FormQuestion, type Picture } from '$core/paper';
import type { SittingPicture } from '$core/room';
import { forwardBy } from '$core/session';
import { NO_GRANTS, NEW_TRACK, reckon } from '$core/time';
import type { Query } from '../db';
import { paperVersion, type Session } from '../records';
import { toolsWith } from './sitting-picture';
import { breaksOf, loadSitting, toldOf, toldToAll } from '../sitting';

/** What candidates of a session will see, shown to staff with a made-up name: nothing of it is kept. */
export type SeenByCandidates = {
	picture: SittingPicture;
	questions: FormQuestion[];
	pictures: Record<string, Picture>;
};

/** Draws it as somebody without a grant would have it at the opening, with a form of one's own by `seed`. */
export async function pictureOfNobody(db: Query, session: Session, seed: number): Promise<SeenByCandidates> {
	const { title, content, questions, points, instructions } = await paperVersion(db, session.paper.id);
	const { rules, window } = session;
	const reckoning = reckon(rules.timing, window, NO_GRANTS, NEW_TRACK, window.opens);
	const { level, leavingsAllowed, onLeaving, sites, printing, alsoForReview } = rules.lockdown;
	const picture: SittingPicture = {
		now: window.opens,
		sittingId: '',
		state: 'let_in',
		epoch: null,
		begun: false,
		candidate: { name: 'Trial Person', number: 'TRIAL', seat: null },
		paper: { title, questions, points, instructions, language: content.language ?? 'en' },
		session: {
			kind: session.kind,
			room: session.room.name,
			zone: session.site.zone,
			movement: rules.movement,
			tools: rules.tools,
			hasOwnCalculator: false,
			watch: level === 'open' ? null : { level, leavingsAllowed, onLeaving, sites, printing, alsoForReview, left: 0 },
			snapshotSeconds: rules.lockdown.snapshotSeconds,
			checklist: rules.door.checklist,
			asksStartWord: rules.startWord !== null,
			asksFinishWord: rules.finishWord !== null,
			wrongAnswers: markingInWords(rules.marking),
			forwardBy: forwardBy(rules.movement),
			roomWaits: false,
			showsPhoto: false
		},
		time: {
			phase: 'open',
			opens: window.opens,
			allotted: reckoning.allotted,
			deadline: endOf(session, reckoning.allotted),
			graceEnds: null,
			remaining: reckoning.remaining,
			standing: false,
			cut: 0,
			warnAtMinutes: rules.timing.warnAtMinutes,
			isEndedByHand: rules.timing.endedBy === 'proctor',
			since: null,
			plannedEnd: rules.timing.endedBy === 'proctor' ? session.window.closes : null,
			atTimeUp: rules.timing.atTimeUp,
			question: null
		},
		told: await toldToAll(db, session),
		display: { magnification: 1, contrast: false, colours: null, spacing: null, ruler: false, language: null },
		breaks: null,
		mayReview: rules.review.shows !== 'nothing',
		again: null,
		attempt: 1,
		messages: [],
		hand: null,
		ended: null,
		turnedAway: null,
		heldByRules: false
	};
	const name = formFor(content, rules.order.forms, { seed, site: null, group: null, seat: null });
	const form = deal(content, rules.order, seed, name);
	// As it leaves for a device: without the numbers that were drawn, and without hints that the rules do not allow.
	const shown = form.questions.map(({ drawn: _, hint, ...question }) =>
		rules.tools.hints && hint !== undefined ? { ...question, hint } : question
	);
	return { picture, questions: shown, pictures: content.pictures ?? {} };
}

/**
 * The same as one of its candidates will have it: their minutes, size, colours, language, tools and breaks, and what binds
 * them. Their form is another each time, and nothing of it is theirs.
 * @returns null: there is nobody of that sitting in this session
 */
export async function pictureOfOne(
	db: Query,
	session: Session,
	sittingId: string,
	seed: number
): Promise<SeenByCandidates | null> {
	const { window } = session;
	const one = await loadSitting(db, sittingId, window.opens);
	if (!one || one.session.id !== session.id) return null;
	const { picture, ...seen } = await pictureOfNobody(db, one.session, seed);
	const { candidate, merge } = one;
	const { allotted, remaining } = reckon(one.session.rules.timing, window, merge.grants, NEW_TRACK, window.opens);
	return {
		...seen,
		picture: {
			...picture,
			candidate: { name: fullName(candidate), number: candidate.number, seat: null },
			session: {
				...picture.session,
				room: merge.room?.name ?? picture.session.room,
				tools: toolsWith(picture.session.tools, merge),
				hasOwnCalculator: merge.calculator !== null
			},
			time: { ...picture.time, allotted, remaining, deadline: endOf(one.session, allotted) },
			told: await toldOf(db, one),
			display: { ...merge.display, language: merge.language ?? candidate.language },
			breaks: breaksOf(one)
		}
	};
}

/** When time is up for all who start together, if they do at the opening; null: each has time from when they begin. */
function endOf({ rules, window }: Session, allotted: number | null): number | null {
	return rules.timing.clockStarts === 'room' && allotted !== null ? window.opens + allotted : null;
}
