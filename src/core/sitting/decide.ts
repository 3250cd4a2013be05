import { LOADING_MS, MINUTE } from '../time';
import type { Command, Context } from './commands';
import type { SittingEvent, SittingEventBody } from './events';
import { refusal, type Refusal, type RefusalCode } from './refusals';
import { breakSince, hasEnded, isResting, isUnfinished, type Sitting, type SittingState } from './sitting';
import { TABLE } from './table';

export type Decision = { ok: true; events: SittingEvent[] } | { ok: false; refusal: Refusal };

/**
 * What becomes of a command. Decides only; `evolve` carries out.
 * A command that was already carried out is accepted again with no events.
 */
export function decide(sitting: Sitting, command: Command, context: Context): Decision {
	if (sitting.commandIds.includes(command.id)) return { ok: true, events: [] };

	const row = TABLE[command.kind];
	if (!row.who.includes(command.by.role)) return refuse('not_allowed');

	const objection = guard(sitting, command, context);
	if (objection) return refuse(objection);
	if (!row.from.includes(sitting.state)) return refuse(illegal(sitting, command));

	const events = eventsOf(sitting, command, context).map((body) => ({
		...body,
		at: context.now,
		by: command.by.role,
		commandId: command.id
	}));
	return { ok: true, events };
}

function refuse(code: RefusalCode): Decision {
	return { ok: false, refusal: refusal(code) };
}

/** What stands in the way besides the state itself; the most telling reason first. */
function guard(sitting: Sitting, command: Command, context: Context): RefusalCode | null {
	switch (command.kind) {
		case 'arrive':
			return guardArrival(sitting, command.deviceId, context);
		case 'begin':
			return guardBeginning(sitting, context);
		case 'let_in':
			if (context.sessionOver) return 'session_over';
			return sitting.state === 'at_door' && !sitting.device ? 'no_device' : null;
		case 'hand_in':
			return command.by.role === 'candidate' && context.finishWord === 'wrong'
				? 'finish_word_wrong'
				: notBegun(sitting);
		case 'run_out':
			return context.over && !isResting(sitting) ? notBegun(sitting) : 'time_not_over';
		case 'carry_over':
			return isOver(sitting, context) ? 'over_not_carried' : null;
		case 'mark_absent':
			return sitting.beganAt === null ? null : 'has_begun';
		case 'start_clock':
			return notBegun(sitting);
		case 'take_back':
			return guardTakingBack(sitting, context);
		case 'expect_again':
			// Expected in what is over, nobody could come, and nobody could plan them anew.
			return sitting.state === 'absent' && context.sessionOver ? 'session_over' : null;
		case 'continue_later':
			return guardContinuing(sitting, command.reason, context);
		case 'reopen':
			return guardReopening(sitting, command.reason, context);
		case 'set_aside':
			return command.reason.trim() === '' ? 'reason_missing' : notBegun(sitting);
		case 'hold':
			return guardHold(sitting, command.reason, command.isBreak === true);
		case 'turn_away':
		case 'allow_fresh':
		case 'take_from_paper':
			return command.reason.trim() === '' ? 'reason_missing' : null;
		case 'move_device':
			if (hasEnded(sitting.state) && !context.sitsAgain) return 'already_ended';
			return sitting.device === null && sitting.state !== 'on_hold' ? 'no_device' : null;
		default:
			return null;
	}
}

function guardArrival(sitting: Sitting, deviceId: string, context: Context): RefusalCode | null {
	if (!context.entry.ok) return context.entry.code;
	if (context.sessionOver) return 'session_over';
	if (sitting.device && sitting.device.id !== deviceId && TABLE.lose_line.from.includes(sitting.state))
		return 'second_device';
	if (sitting.state === 'on_hold') return 'barred';
	if (hasEnded(sitting.state) || sitting.state === 'set_aside') return 'already_ended';
	if (sitting.state === 'at_door' && sitting.device) return 'already';
	return null;
}

function guardBeginning(sitting: Sitting, context: Context): RefusalCode | null {
	if (sitting.state !== 'let_in') return null;
	if (context.sessionOver) return 'session_over';
	if (!sitting.device) return 'no_device';
	if (!context.identityConfirmed) return 'identity_unconfirmed';
	if (!context.deviceChecked && sitting.beganAt === null) return 'device_unchecked';
	if (context.client === 'outdated') return 'client_outdated';
	if (context.client === 'missing') return 'client_unproven';
	if (context.roomWaits) return 'room_waits';
	if (context.beforeOpening) return 'not_open_yet';
	if (context.startWord === 'wrong') return 'start_word_wrong';
	// By `flag` work goes on after the time, marked late: also on another device.
	return context.remaining === 0 && context.atTimeUp !== 'flag' ? 'time_over' : null;
}

/** A break is from work; a hold takes the place of a break, and of nothing else. */
function guardHold(sitting: Sitting, reason: string, isBreak: boolean): RefusalCode | null {
	if (reason.trim() === '') return 'reason_missing';
	if (isBreak) return sitting.state === 'working' ? null : 'no_break_now';
	return sitting.state === 'on_hold' && breakSince(sitting) === null ? 'already' : null;
}

function guardContinuing(sitting: Sitting, reason: string, context: Context): RefusalCode | null {
	if (!TABLE.continue_later.from.includes(sitting.state)) return null;
	if (reason.trim() === '') return 'reason_missing';
	if (context.ownRemaining === 0) return 'no_time_left';
	if (sitting.state === 'set_aside') return null;
	return context.endedToday || context.reopenGranted ? null : 'another_day';
}

/** At work in this session, and out of time. */
function isOver(sitting: Sitting, context: Context): boolean {
	return sitting.beganAt !== null && context.over && !isResting(sitting);
}

function guardReopening(sitting: Sitting, reason: string, context: Context): RefusalCode | null {
	if (!TABLE.reopen.from.includes(sitting.state)) return null;
	if (reason.trim() === '') return 'reason_missing';
	if (context.sessionOver) return 'session_over';
	if (context.remaining === 0) return 'no_time_left';
	return context.endedToday || context.reopenGranted ? null : 'another_day';
}

/** A slip of the hand is seen at once; what stood for longer is put right by the acts that are there for it. */
const TAKEN_BACK_WITHIN_MS = 2 * MINUTE;

function guardTakingBack(sitting: Sitting, context: Context): RefusalCode | null {
	if (!TABLE.take_back.from.includes(sitting.state)) return null;
	if (context.sessionOver) return 'session_over';
	const isLate = context.now - sitting.since > TAKEN_BACK_WITHIN_MS;
	return !sitting.before || isLate ? 'nothing_to_take_back' : null;
}

function notBegun(sitting: Sitting): RefusalCode | null {
	return sitting.beganAt === null ? 'not_begun' : null;
}

/** Names the illegal pair as helpfully as the pair allows. */
function illegal(sitting: Sitting, command: Command): RefusalCode {
	const reached: Partial<Record<Command['kind'], string>> = {
		let_in: 'let_in',
		begin: 'working',
		hold: 'on_hold',
		hand_in: 'handed_in',
		run_out: 'time_up',
		carry_over: 'carried_over',
		mark_absent: 'absent',
		set_aside: 'set_aside',
		expect_again: 'expected',
		turn_away: 'expected'
	};
	if (reached[command.kind] === sitting.state) return 'already';
	if (hasEnded(sitting.state)) return 'already_ended';
	return 'not_from_this_state';
}

function eventsOf(sitting: Sitting, command: Command, context: Context): SittingEventBody[] {
	switch (command.kind) {
		case 'arrive': {
			const { sessionId, deviceId, deviceName, unsigned } = command;
			const arrived: SittingEventBody = {
				kind: 'arrived',
				sessionId,
				deviceId,
				deviceName,
				...(unsigned && { unsigned })
			};
			// Whoever was marked absent stands at the proctor's, also where the door lets in by itself; and so does whoever
			// comes with a browser whose cookie alone would be enough to pass for it.
			const isLetIn =
				context.admission === 'automatic' && !unsigned && sitting.state !== 'absent' && sitting.cameFrom !== 'absent';
			return isLetIn ? [arrived, { kind: 'let_in' }] : [arrived];
		}
		case 'turn_away':
			return [{ kind: 'turned_away', reason: command.reason }];
		case 'let_in':
			return [{ kind: 'let_in' }];
		case 'begin':
			return [{ kind: 'began', clockStartedAt: sitting.clockStartedAt ?? context.roomClock }];
		case 'start_clock':
			return sitting.clockStartedAt === null
				? [{ kind: 'clock_started', startedAt: Math.min(context.now, sitting.beganAt! + LOADING_MS) }]
				: [];
		case 'hold':
			return [
				{
					kind: 'held',
					reason: command.reason,
					stopsClock: command.stopsClock,
					...(command.isBreak ? { isBreak: true as const } : {})
				}
			];
		case 'resume':
			return [{ kind: 'resumed' }];
		case 'move_device':
			return [{ kind: 'device_freed' }];
		case 'hand_in':
			return [
				{
					kind: 'handed_in',
					receipt: command.receipt,
					reason: command.reason,
					...(command.by.role === 'candidate' && context.ownRemaining !== null && { leftMs: context.ownRemaining }),
					...overSince(context),
					...workIn(context)
				}
			];
		case 'run_out':
			return [
				{
					kind: 'time_ran_out',
					receipt: command.receipt,
					outcome: context.atTimeUp === 'zero' ? 'counts_nothing' : 'handed_in',
					...overSince(context),
					...workIn(context)
				}
			];
		case 'carry_over':
			return [{ kind: 'carried_over', reason: command.reason, clockStops: context.clockStops }];
		case 'mark_absent':
			return [{ kind: 'marked_absent' }];
		case 'take_from_paper':
			return [{ kind: 'taken_from_paper', receipt: command.receipt, reason: command.reason, ...workIn(context) }];
		case 'reopen':
			return [{ kind: 'reopened', reason: command.reason }];
		case 'set_aside':
			return [{ kind: 'set_aside', reason: command.reason }];
		case 'restore':
			// Where its session is over, nobody could come: it goes on another time, and no clock runs meanwhile.
			return context.sessionOver && sitting.setAsideFrom !== null && isOpenEnded(sitting.setAsideFrom)
				? [{ kind: 'restored' }, { kind: 'carried_over', reason: null, clockStops: context.clockStops }]
				: [{ kind: 'restored' }];
		case 'continue_later':
			return [{ kind: 'continued_later', reason: command.reason, clockStops: context.clockStops }];
		case 'allow_fresh':
			return [{ kind: 'fresh_allowed', reason: command.reason }];
		case 'expect_again':
			return [{ kind: 'expected_again' }];
		case 'take_back':
			return [{ kind: 'taken_back' }];
		case 'assign':
			return [{ kind: 'assigned', sessionId: command.sessionId }];
		case 'lose_line':
			// Whose device was freed has no line.
			return sitting.device === null || sitting.line?.up === false ? [] : [{ kind: 'line_lost', since: command.since }];
		case 'note_away':
			return [{ kind: 'server_away', from: command.from }];
		case 'regain_line':
			return sitting.line?.up === true ? [] : [{ kind: 'line_back' }];
		case 'refuse_other_device':
			return [{ kind: 'other_device_refused', deviceName: command.deviceName }];
		case 'note_device':
			return [{ kind: 'device_noted', what: command.what, deviceName: command.deviceName }];
	}
}

/** Begun and not ended; one that was carried over waits already. */
const isOpenEnded = (state: SittingState) => isUnfinished(state) && state !== 'carried_over';

/** Their time was up before they ended: from then on nothing of it is used, also where they had minutes to finish up. */
const overSince = ({ deadline, now }: Context) => (deadline !== null && deadline < now ? { overSince: deadline } : {});

const workIn = ({ work }: Context) => (work === null ? {} : { work });
