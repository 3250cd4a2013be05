import type { SeatView } from './view';

/** How far a room is on its way to beginning. */
export type RoomReady = {
	/** Who is meant to be here: everyone who has not been marked absent or gone elsewhere. */
	meant: number;
	/** At the door or further. */
	come: number;
	missing: string[];
	/** Let in and not begun yet. */
	letIn: number;
	/** Of those let in or at work, whose screen has said that it shows it. */
	screens: number;
	mayWork: number;
};

const GONE = ['absent', 'set_aside', 'carried_over'];

/** Whether a screen has said that it shows what it should, and its line is up. */
export function isScreenReady(seat: SeatView): boolean {
	return seat.shows === seat.state && seat.line?.up === true;
}

/** Counts a room. */
export function roomReady(seats: SeatView[]): RoomReady {
	const meant = seats.filter((seat) => !seat.movedOn && !GONE.includes(seat.state));
	const missing = meant.filter((seat) => seat.state === 'expected');
	const mayWork = meant.filter((seat) => seat.state === 'let_in' || seat.state === 'working');
	return {
		meant: meant.length,
		come: meant.length - missing.length,
		missing: missing.map((seat) => seat.name),
		letIn: mayWork.filter((seat) => seat.state === 'let_in').length,
		screens: mayWork.filter(isScreenReady).length,
		mayWork: mayWork.length
	};
}
