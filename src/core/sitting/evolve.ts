import type { Stop } from '../time';
import type { SittingEvent } from './events';
import type { Sitting, SittingState } from './sitting';

/** The sitting after one event. Never refuses: what is in the log has happened. */
export function evolve(sitting: Sitting, event: SittingEvent): Sitting {
	const next = apply(sitting, event);
	const commandIds = next.commandIds.includes(event.commandId)
		? next.commandIds
		: [...next.commandIds, event.commandId];
	return { ...next, commandIds };
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
			return enter('at_door', {
				sessionId: event.sessionId,
				device: { id: event.deviceId, name: event.deviceName, epoch },
				epoch,
				otherDevice: null,
				line: { up: true, since: event.at },
				stops: close(sitting.stops, ['lost'], event.at),
				reason: null
			});
		}
		case 'turned_away':
			return enter('expected', { device: null, line: null, reason: event.reason });
		case 'let_in':
			return enter('let_in');
		case 'began':
			return enter('working', {
				beganAt: sitting.beganAt ?? event.at,
				stops: close(sitting.stops, ['moved', 'handed_in', 'carried_over'], event.at)
			});
		case 'held':
			return enter('on_hold', {
				heldFrom: sitting.state,
				reason: event.reason,
				stops: event.isBreak
					? openWhileBegun(sitting, event.at, 'break')
					: openWhileBegun(sitting, event.at, 'hold', event.stopsClock)
			});
		case 'resumed':
			return enter(sitting.heldFrom ?? 'expected', {
				heldFrom: null,
				reason: null,
				stops: close(sitting.stops, ['hold', 'break'], event.at)
			});
		case 'device_freed':
			return freeDevice(sitting, event.at);
		case 'other_device_refused':
			return { ...sitting, otherDevice: { name: event.deviceName, at: event.at } };
		case 'handed_in':
		case 'time_ran_out':
			return enter(event.kind === 'handed_in' ? 'handed_in' : 'time_up', {
				heldFrom: null,
				reason: event.kind === 'handed_in' ? event.reason : null,
				stops: rest(sitting, event.at, 'handed_in'),
				ended: {
					by: event.by,
					at: event.at,
					receipt: event.receipt,
					...(event.kind === 'time_ran_out' && event.outcome === 'counts_nothing' && { countsNothing: true as const })
				}
			});
		case 'carried_over':
			return enter('carried_over', {
				heldFrom: null,
				device: null,
				line: null,
				otherDevice: null,
				reason: event.reason,
				stops: rest(sitting, event.at, 'carried_over')
			});
		case 'marked_absent':
			return enter('absent', { device: null, line: null });
		case 'reopened':
			return enter('let_in', { ended: null, reason: event.reason });
		case 'set_aside':
			return enter('set_aside', {
				setAsideFrom: sitting.state,
				reason: event.reason,
				stops: openWhileBegun(sitting, event.at, 'set_aside')
			});
		case 'restored':
			return enter(sitting.setAsideFrom ?? 'carried_over', {
				setAsideFrom: null,
				reason: null,
				stops: close(sitting.stops, ['set_aside'], event.at)
			});
		case 'expected_again':
			return enter('expected');
		case 'assigned':
			return { ...sitting, sessionId: event.sessionId };
		case 'line_lost':
			return {
				...sitting,
				line: { up: false, since: event.since },
				stops: atWork(sitting) ? open(sitting.stops, event.since, 'lost') : sitting.stops
			};
		case 'line_back':
			return { ...sitting, line: { up: true, since: event.at }, stops: close(sitting.stops, ['lost'], event.at) };
	}
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

function atWork(sitting: Sitting): boolean {
	return sitting.state === 'working' || (sitting.state === 'on_hold' && sitting.heldFrom === 'working');
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

/** Work has ended for now: whatever stopped it before is over, and one long stop begins. */
function rest(sitting: Sitting, at: number, why: Stop['why']): Stop[] {
	if (sitting.beganAt === null) return sitting.stops;
	const closed = close(sitting.stops, ['hold', 'break', 'lost', 'moved', 'handed_in', 'carried_over'], at);
	return open(closed, at, why);
}
