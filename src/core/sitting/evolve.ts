import { stopCounts, type Stop, type TimingRules } from '../time';
import type { SittingEvent, SittingEventKind } from './events';
import { isAtWork, stateBehindHold, type Before, type Sitting, type SittingState } from './sitting';

/** The sitting after one event. Never refuses: what is in the log has happened. */
export function evolve(sitting: Sitting, event: SittingEvent): Sitting {
	const next = apply(sitting, event);
	const commandIds = next.commandIds.includes(event.commandId)
		? next.commandIds
		: [...next.commandIds, event.commandId];
	return { ...next, before: beforeOf(sitting, event), commandIds };
}

/** What can be undone by one press afterwards. */
const UNDOABLE: readonly SittingEventKind[] = ['let_in', 'turned_away', 'carried_over'];
/** What happens beside the state leaves it undoable. */
const BESIDE: readonly SittingEventKind[] = [
	'line_lost',
	'line_back',
	'server_away',
	'other_device_refused',
	'device_noted'
];

function beforeOf(sitting: Sitting, { kind, by }: SittingEvent): Before | null {
	if (BESIDE.includes(kind)) return sitting.before ?? null;
	if (!UNDOABLE.includes(kind) || by === 'system' || by === 'candidate') return null;
	const { state, device, otherDevice, line, cameFrom, heldFrom, heldBy, holdKnownAt, reason, stops } = sitting;
	return { state, device, otherDevice, line, cameFrom, heldFrom, heldBy, holdKnownAt, reason, stops };
}

/** Back to how it was. Working time that passed in between is not theirs to lose. */
function takeBack(sitting: Sitting, at: number): Sitting {
	const { before } = sitting;
	if (!before) return sitting;
	const stood = sitting.state === 'carried_over' && before.stops.every((stop) => stop.to !== null);
	const rested: Stop[] =
		stood && sitting.beganAt !== null ? [{ from: sitting.since, to: at, why: 'carried_over' }] : [];
	// How their line is, is not undone, nor that the server was away: whoever lost it meanwhile has lost it.
	const away = sitting.stops.filter(
		(stop) => stop.why === 'away' && !before.stops.some(({ why, from }) => why === 'away' && from === stop.from)
	);
	const stops = [...before.stops, ...rested, ...away];
	return { ...sitting, ...before, line: sitting.line ?? before.line, since: at, stops };
}

function apply(sitting: Sitting, event: SittingEvent): Sitting {
	const enter = (state: SittingState, change: Partial<Sitting> = {}): Sitting => ({
		...sitting,
		state,
		since: event.at,
		...change
	});

	switch (event.kind) {
		case 'arrived': {
			const epoch = sitting.epoch + 1;
			const isNew = ['expected', 'carried_over', 'absent'].includes(sitting.state);
			return enter('at_door', {
				sessionId: event.sessionId,
				device: {
					id: event.deviceId,
					name: event.deviceName,
					epoch,
					...(event.unsigned && { unsigned: true as const })
				},
				epoch,
				otherDevice: null,
				line: { up: true, since: event.at },
				stops: close(sitting.stops, ['lost'], event.at),
				cameFrom:
					sitting.state === 'expected' || sitting.state === 'carried_over' || sitting.state === 'absent'
						? sitting.state
						: sitting.cameFrom,
				...(isNew && { arrivedAt: event.at }),
				reason: null
			});
		}
		case 'turned_away':
			// Back to where they came from: at work before, that is the door, without a device.
			return enter(sitting.cameFrom ?? (sitting.beganAt === null ? 'expected' : 'at_door'), {
				device: null,
				line: null,
				otherDevice: null,
				cameFrom: null,
				reason: event.reason
			});
		case 'let_in':
			return enter('let_in');
		case 'began':
			return enter('working', {
				beganAt: sitting.beganAt ?? event.at,
				clockStartedAt: event.clockStartedAt ?? sitting.clockStartedAt,
				cameFrom: null,
				stops: close(sitting.stops, ['moved', 'handed_in', 'carried_over'], event.at)
			});
		case 'clock_started':
			return { ...sitting, clockStartedAt: event.startedAt };
		case 'held':
			return enter('on_hold', {
				// A hold that takes the place of a break goes back to where the break would have.
				heldFrom: stateBehindHold(sitting),
				heldBy: event.by,
				holdKnownAt: sitting.holdKnownAt ?? (sitting.line?.up ? event.at : null),
				reason: event.reason,
				stops: event.isBreak
					? openWhileBegun(sitting, event.at, 'break', event.stopsClock ? undefined : false)
					: openWhileBegun(
							{ ...sitting, stops: close(sitting.stops, ['break'], event.at) },
							event.at,
							'hold',
							event.stopsClock
						)
			});
		case 'resumed':
			return enter(sitting.heldFrom ?? 'expected', {
				heldFrom: null,
				holdKnownAt: null,
				reason: null,
				stops: close(sitting.stops, ['hold', 'break'], event.at)
			});
		case 'device_freed':
			return freeDevice(sitting, event.at);
		case 'other_device_refused':
			return { ...sitting, otherDevice: { name: event.deviceName, at: event.at } };
		case 'device_noted':
			return { ...sitting, noted: noteDevice(sitting, event) };
		case 'handed_in':
		case 'time_ran_out':
			return enter(event.kind === 'handed_in' ? 'handed_in' : 'time_up', {
				heldFrom: null,
				holdKnownAt: null,
				cameFrom: null,
				reason: event.kind === 'handed_in' ? event.reason : null,
				stops: rest(sitting, event.overSince ?? event.at, 'handed_in'),
				ended: {
					by: event.by,
					at: event.at,
					receipt: event.receipt,
					...(event.work && { work: event.work }),
					...(event.kind === 'handed_in' && event.leftMs !== undefined && { leftMs: event.leftMs }),
					...(event.kind === 'time_ran_out' && event.outcome === 'counts_nothing' && { countsNothing: true as const })
				}
			});
		case 'carried_over':
			return carryOver(sitting, event.at, event.reason, event.clockStops);
		case 'continued_later':
			return {
				...carryOver(sitting, event.at, event.reason, event.clockStops),
				setAsideFrom: null,
				ended: null
			};
		case 'fresh_allowed':
			return { ...sitting, allowsFresh: true };
		case 'marked_absent':
			return enter('absent', { device: null, line: null, otherDevice: null, cameFrom: null });
		case 'taken_from_paper':
			// Begun is whatever counts; of its time nothing is known, and none of it has gone on a clock.
			return enter('handed_in', {
				beganAt: event.at,
				cameFrom: null,
				reason: event.reason,
				stops: open(sitting.stops, event.at, 'handed_in'),
				ended: { by: event.by, at: event.at, receipt: event.receipt, ...(event.work && { work: event.work }) }
			});
		case 'reopened':
			// Whose device was freed meanwhile comes in by the door again.
			return enter(sitting.device ? 'let_in' : 'at_door', { ended: null, cameFrom: null, reason: event.reason });
		case 'set_aside':
			return enter('set_aside', {
				setAsideFrom: sitting.state,
				holdKnownAt: null,
				reason: event.reason,
				stops: openWhileBegun(sitting, event.at, 'set_aside')
			});
		case 'restored':
			return enter(sitting.setAsideFrom ?? 'carried_over', {
				setAsideFrom: null,
				allowsFresh: false,
				reason: null,
				stops: close(sitting.stops, ['set_aside'], event.at)
			});
		case 'expected_again':
			return enter('expected');
		case 'taken_back':
			return takeBack(sitting, event.at);
		case 'assigned':
			return { ...sitting, sessionId: event.sessionId, visits: visitNext(sitting, event.sessionId, event.at) };
		case 'line_lost':
			return {
				...sitting,
				line: { up: false, since: event.since },
				stops: isAtWork(sitting) ? open(sitting.stops, event.since, 'lost') : sitting.stops
			};
		case 'server_away':
			return { ...sitting, stops: [...sitting.stops, { from: event.from, to: event.at, why: 'away' }] };
		case 'line_back':
			return {
				...sitting,
				line: { up: true, since: event.at },
				holdKnownAt: sitting.state === 'on_hold' ? (sitting.holdKnownAt ?? event.at) : null,
				stops: close(sitting.stops, ['lost'], event.at)
			};
	}
}

/** One row for each kind of thing noted of the device that is bound now, and how often. */
function noteDevice({ noted, epoch }: Sitting, { what, at }: Extract<SittingEvent, { kind: 'device_noted' }>) {
	const before = noted.find((one) => one.what === what && one.epoch === epoch);
	return [...noted.filter((one) => one !== before), { what, epoch, at, times: (before?.times ?? 0) + 1 }];
}

/** To the door if it had been let in; a hold stays a hold, so that freeing a device never lifts one. */
function freeDevice(sitting: Sitting, at: number): Sitting {
	const freed = { ...sitting, device: null, line: null, otherDevice: null };
	const from = sitting.state === 'on_hold' ? sitting.heldFrom : sitting.state;
	if (from !== 'working' && from !== 'let_in') return { ...freed, stops: close(sitting.stops, ['lost'], at) };
	const closed = close(sitting.stops, ['lost'], at);
	const stops = from === 'working' ? open(closed, at, 'moved') : closed;
	if (sitting.state === 'on_hold') return { ...freed, heldFrom: 'at_door', stops };
	return { ...freed, state: 'at_door', since: at, stops };
}

function open(stops: Stop[], from: number, why: Stop['why'], stopsClock?: boolean): Stop[] {
	const stop: Stop = { from, to: null, why };
	return [...stops, stopsClock === undefined ? stop : { ...stop, stopsClock }];
}

function openWhileBegun(sitting: Sitting, at: number, why: Stop['why'], stopsClock?: boolean): Stop[] {
	return sitting.beganAt === null ? sitting.stops : open(sitting.stops, at, why, stopsClock);
}

function close(stops: Stop[], why: Stop['why'][], at: number): Stop[] {
	return stops.map((stop) =>
		stop.to === null && why.includes(stop.why) ? { ...stop, to: Math.max(at, stop.from) } : stop
	);
}

/** Work rests until another session or an own window; which stops count is settled by the rules it was sat under. */
function carryOver(
	sitting: Sitting,
	at: number,
	reason: string | null,
	clockStops: TimingRules['clockStops'] | undefined
): Sitting {
	const stops = rest({ ...sitting, stops: close(sitting.stops, ['set_aside'], at) }, at, 'carried_over');
	return {
		...sitting,
		state: 'carried_over',
		since: at,
		heldFrom: null,
		holdKnownAt: null,
		cameFrom: null,
		device: null,
		line: null,
		otherDevice: null,
		reason,
		stops: clockStops ? stops.map((stop) => ({ ...stop, counts: stopCounts(clockStops, stop) })) : stops
	};
}

function visitNext(sitting: Sitting, sessionId: string, at: number): Sitting['visits'] {
	const begun = sitting.beganAt !== null;
	const before = sitting.visits.map((visit) =>
		visit.to === null ? { ...visit, to: at, begunWhenLeaving: begun } : visit
	);
	return [...before, { sessionId, from: at, to: null, begunBefore: begun, begunWhenLeaving: false }];
}

/** Work has ended for now: whatever stopped it before is over, and one long stop begins. */
function rest(sitting: Sitting, at: number, why: Stop['why']): Stop[] {
	if (sitting.beganAt === null) return sitting.stops;
	const closed = close(sitting.stops, ['hold', 'break', 'lost', 'moved', 'handed_in', 'carried_over'], at);
	return open(closed, at, why);
}
