import { fullName } from '$core/names';
import type { SittingPicture } from '$core/room';
import { markingInWords } from '$core/marking';
import type { Merge } from '$core/grants';
import { forwardBy, type ToolRules } from '$core/session';
import { opensFor, roomWaits } from '$core/sitting';
import type { Query } from '../db';
import { lapseCounts } from '../lockdown';
import { paperVersion } from '../paper';
import { openMessages } from '../messages';
import { offerAgain } from '../session';
import { breaksOf, loadSitting, toldOf } from '../sitting';

/**
 * What a candidate's screen may know of their sitting. A device compares `epoch` with its own number and so learns
 * that it has been freed.
 */
export async function drawSitting(db: Query, sittingId: string, now: number): Promise<SittingPicture> {
	const one = (await loadSitting(db, sittingId, now))!;
	const { sitting, session, candidate, reckoning } = one;
	const { timing, tools } = session.rules;
	const { title, questions, points, instructions, content } = await paperVersion(db, one.paperId);
	const roster = await db('roster').where({ session_id: session.id, sitting_id: sittingId }).first('seat');
	const { level, leavingsAllowed, onLeaving, sites, printing, alsoForReview } = session.rules.lockdown;
	const left = (await lapseCounts(db, [sittingId])).get(sittingId)?.left ?? 0;
	// Read while they wait and before they begin, and not carried along with each change of a paper at work.
	const isBefore = ['expected', 'at_door', 'let_in'].includes(sitting.state);
	const open = await openMessages(db, [sittingId]);
	return {
		now,
		sittingId,
		state: sitting.state,
		epoch: sitting.device?.epoch ?? null,
		begun: sitting.beganAt !== null,
		candidate: { name: fullName(candidate), number: candidate.number, seat: roster?.seat ?? null },
		paper: { title, questions, points, instructions, language: content.language ?? 'en' },
		session: {
			kind: session.kind,
			room: one.merge.room?.name ?? session.room.name,
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
			showsPhoto: session.rules.door.photoOnPaper && (await hasPhoto(db, candidate.id))
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
		turnedAway: sitting.state === 'expected' ? sitting.reason : null
	};
}

/** The tools that somebody has: what was granted goes beyond the rules, never below them. */
export function toolsWith(tools: ToolRules, { calculator }: Pick<Merge, 'calculator'>): ToolRules {
	return tools.calculator === 'scientific' ? tools : { ...tools, calculator: calculator ?? tools.calculator };
}

async function hasPhoto(db: Query, candidateId: string): Promise<boolean> {
	const row = await db('candidate').where({ id: candidateId }).first('photo_at');
	return Boolean(row?.photo_at);
}
