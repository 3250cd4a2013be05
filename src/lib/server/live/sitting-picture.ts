import { groupBy } from '$core/group-by';
import { fullName } from '$core/names';
import type { SittingPicture } from '$core/room';
import { markingInWords } from '$core/marking';
import type { Merge } from '$core/grants';
import { forwardBy, type ToolRules } from '$core/session';
import { isHeldByRules, opensFor, roomWaits } from '$core/sitting';
import type { Query } from '../db';
import { lapseCounts } from '../lockdown';
import { paperVersion } from '../paper';
import { openMessages, type Message } from '../messages';
import { offerAgain } from '../session';
import { breaksOf, loadSittings, toldOf, whereOf, type Loaded } from '../sitting';

/**
 * What a candidate's screen may know of their sitting. A device compares `epoch` with its own number and so learns
 * that it has been freed.
 */
export async function drawSitting(db: Query, sittingId: string, now: number): Promise<SittingPicture> {
	return (await drawSittings(db, [sittingId], now)).get(sittingId)!;
}

/**
 * The same for some at once, by sitting.
 * @throws when there is none by one of these ids
 */
export async function drawSittings(db: Query, ids: string[], now: number): Promise<Map<string, SittingPicture>> {
	const loaded = await loadSittings(db, ids, now);
	if (loaded.length < ids.length) throw new Error('there is no sitting by one of these ids');
	const lapses = await lapseCounts(db, ids);
	const open = groupBy(await openMessages(db, ids), (message) => message.sittingId);
	const seats = await seatsOf(db, loaded);
	const withPhoto = await havePhoto(db, loaded);
	const pictures = new Map<string, SittingPicture>();
	for (const one of loaded) {
		const { id } = one.sitting;
		const beside = {
			left: lapses.get(id)?.left ?? 0,
			open: open.get(id) ?? [],
			seat: seats.get(id) ?? null,
			hasPhoto: withPhoto.has(one.candidate.id)
		};
		pictures.set(id, await pictureOf(db, one, beside, now));
	}
	return pictures;
}

type Beside = {
	/** How often they left the screen. */
	left: number;
	open: Message[];
	seat: string | null;
	hasPhoto: boolean;
};

async function pictureOf(db: Query, one: Loaded, beside: Beside, now: number): Promise<SittingPicture> {
	const { sitting, session, candidate, reckoning } = one;
	const { timing, tools } = session.rules;
	const { title, questions, points, instructions, content } = await paperVersion(db, one.paperId);
	const { level, leavingsAllowed, onLeaving, sites, printing, alsoForReview } = session.rules.lockdown;
	const { left, open, hasPhoto } = beside;
	const { room, seat } = whereOf(one, beside.seat);
	// Read while they wait and before they begin, and not carried along with each change of a paper at work.
	const isBefore = ['expected', 'at_door', 'let_in'].includes(sitting.state);
	return {
		now,
		sittingId: sitting.id,
		state: sitting.state,
		epoch: sitting.device?.epoch ?? null,
		begun: sitting.beganAt !== null,
		candidate: { name: fullName(candidate), number: candidate.number, seat },
		paper: { title, questions, points, instructions, language: content.language ?? 'en' },
		session: {
			kind: session.kind,
			room,
			zone: session.site.zone,
			movement: session.rules.movement,
			tools: toolsWith(tools, one.merge),
			hasOwnCalculator: one.merge.calculator !== null,
			watch: level === 'open' ? null : { level, leavingsAllowed, onLeaving, sites, printing, alsoForReview, left },
			snapshotSeconds: session.rules.lockdown.snapshotSeconds,
			checklist: session.rules.door.checklist,
			asksStartWord: session.rules.startWord !== null && sitting.beganAt === null,
			asksFinishWord: session.rules.finishWord !== null,
			wrongAnswers: markingInWords(session.rules.marking),
			forwardBy: forwardBy(session.rules.movement),
			roomWaits: roomWaits(one),
			showsPhoto: hasPhoto
		},
		time: {
			phase: reckoning.phase,
			opens: opensFor(one),
			allotted: reckoning.allotted,
			deadline: reckoning.deadline,
			graceEnds: reckoning.graceEnds,
			remaining: reckoning.remaining,
			standing: reckoning.standing,
			cut: reckoning.cut,
			warnAtMinutes: reckoning.warnings.map((warning) => warning.minutes),
			isEndedByHand: timing.endedBy === 'proctor' && reckoning.allotted === null && !one.merge.grants.unlimited,
			since: sitting.beganAt,
			plannedEnd: timing.endedBy === 'proctor' ? session.window.closes : null,
			atTimeUp: timing.atTimeUp,
			question: one.question
		},
		told: isBefore ? await toldOf(db, one) : [],
		display: { ...one.merge.display, language: one.merge.language ?? candidate.language },
		breaks: breaksOf(one),
		mayReview: session.rules.review.shows !== 'nothing',
		again: offerAgain(one, now),
		attempt: one.attempt,
		messages: open.filter((each) => !each.fromCandidate).map(({ id, text, at }) => ({ id, text, at })),
		hand: open.find((each) => each.fromCandidate) ?? null,
		ended: sitting.ended && {
			at: sitting.ended.at,
			receipt: sitting.ended.receipt,
			by: sitting.ended.by === 'candidate' ? 'candidate' : sitting.ended.by === 'system' ? 'rules' : 'staff',
			countsNothing: sitting.ended.countsNothing ?? false
		},
		heldByRules: isHeldByRules(sitting),
		turnedAway: sitting.state === 'expected' ? sitting.reason : null
	};
}

/** The tools that somebody has: what was granted goes beyond the rules, never below them. */
export function toolsWith(tools: ToolRules, merge: Pick<Merge, 'calculator' | 'readAloud'>): ToolRules {
	const calculator = tools.calculator === 'scientific' ? tools.calculator : (merge.calculator ?? tools.calculator);
	return { ...tools, calculator, readAloud: tools.readAloud || merge.readAloud };
}

/** By sitting, of those who have one in the session that they are in now. */
async function seatsOf(db: Query, loaded: Loaded[]): Promise<Map<string, string>> {
	const rows: { session_id: string; sitting_id: string; seat: string | null }[] = await db('roster')
		.whereIn(
			'sitting_id',
			loaded.map((one) => one.sitting.id)
		)
		.whereNotNull('seat')
		.select('session_id', 'sitting_id', 'seat');
	const sessions = new Map(loaded.map((one) => [one.sitting.id, one.session.id]));
	return new Map(
		rows.filter((row) => sessions.get(row.sitting_id) === row.session_id).map((row) => [row.sitting_id, row.seat!])
	);
}

/** Who has a photo that their session shows beside the paper. */
async function havePhoto(db: Query, loaded: Loaded[]): Promise<Set<string>> {
	const shown = loaded.filter((one) => one.session.rules.door.photoOnPaper).map((one) => one.candidate.id);
	if (shown.length === 0) return new Set();
	return new Set(await db('candidate').whereIn('id', shown).whereNotNull('photo_at').pluck('id'));
}
