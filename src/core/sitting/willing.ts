import type { Context } from './commands';

/** For tests: circumstances in which nothing stands in the way of a command but the sitting's own state. */
export const WILLING: Context = {
	now: 1_000,
	sessionOver: false,
	entry: { ok: true },
	admission: 'proctor',
	startWord: 'not_asked',
	finishWord: 'not_asked',
	identityConfirmed: true,
	deviceChecked: true,
	client: 'not_asked',
	roomWaits: false,
	beforeOpening: false,
	roomClock: null,
	clockStops: 'hold',
	deadline: null,
	remaining: 60_000,
	over: false,
	ownRemaining: 60_000,
	atTimeUp: 'hand_in',
	endedToday: true,
	reopenGranted: false,
	sitsAgain: false,
	work: null
};
