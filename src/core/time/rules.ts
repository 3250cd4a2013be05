/** Minutes are what people enter and read; milliseconds are what the code reckons in. */
export const MINUTE = 60_000;
export const HOUR = 60 * MINUTE;

/** The timing part of a rule sheet. */
export type TimingRules = {
	/** Working time; null: no limit. Where the proctor ends the paper: how long is planned. */
	limitMinutes: number | null;
	/** A time for each question instead of one limit for the whole, which then follows from it; null: none. */
	questionSeconds: number | null;
	/** `proctor`: nobody's own clock ends the work; the proctor does, for everyone without more time. */
	endedBy: 'clock' | 'proctor';
	/** `room`: for everyone when the room is started; `candidate`: for each on beginning. */
	clockStarts: 'room' | 'candidate';
	/** Which stops give their time back. */
	clockStops: 'never' | 'hold' | 'hold_or_lost';
	/** At the window's end: `cut` ends the work, `finish` lets those who began finish. */
	atClose: 'cut' | 'finish';
	/** How long before the window opens the door does. */
	doorOpensMinutes: number;
	/** How long after the window opens people may still arrive; null: until it closes. */
	lastEntryMinutes: number | null;
	/** To finish up and hand in, after the limit; answers given in it are marked late. */
	graceMinutes: number;
	/** `hand_in` for them · `stop`: no more answers, they hand in · `flag`: may continue; answers are marked late · `zero`: counts nothing. */
	atTimeUp: 'hand_in' | 'stop' | 'flag' | 'zero';
	/** Warn when this many minutes are left, each once. */
	warnAtMinutes: number[];
	/** No allotment passes this, whatever is granted; null: no cap. */
	maxLimitMinutes: number | null;
};

/** When a session, or one candidate's own window, is open: UTC epoch milliseconds. */
export type Window = { opens: number; closes: number | null };

/** What was given to one candidate beyond the rule sheet, already merged (see `core/grants`). */
export type MergedGrants = {
	/** 1.5 is time and a half. */
	factor: number;
	extraMinutes: number;
	/** Replaces the session's window, with a door and a last entry of its own. */
	window: Window | null;
	/** Lost time given back in this session, to one or to all; never eaten by the close. */
	creditsMinutes: number;
	/** Given back in a session that this one continues: more working time, but this room closes when it closes. */
	earlierCreditsMinutes: number;
	unlimited: boolean;
};

export const NO_GRANTS: MergedGrants = {
	factor: 1,
	extraMinutes: 0,
	window: null,
	creditsMinutes: 0,
	earlierCreditsMinutes: 0,
	unlimited: false
};

/**
 * A span in which the candidate was not at work.
 * `handed_in`, `carried_over`, `set_aside` and `away` (the server was not there) always give their time back; `hold` and `moved`
 * (from freeing a device to beginning again on the next) follow `clockStops`; `lost` does so only under
 * `hold_or_lost`.
 */
export type Stop = {
	from: number;
	/** null: still going on. */
	to: number | null;
	why: 'hold' | 'break' | 'lost' | 'moved' | 'handed_in' | 'carried_over' | 'set_aside' | 'away';
	/** On a hold: the proctor said that this one does (true) or doesn't (false) stop the clock. */
	stopsClock?: boolean;
	/** Settled when the sitting was carried over, by the rules it was sat under; another session's rules don't change it. */
	counts?: boolean;
};

/** The paper may take this long to reach the screen at no cost; after it the clock starts in any case. */
export const LOADING_MS = MINUTE;

/** What happened to one sitting, as far as time is concerned. */
export type Track = {
	/** When the room of its session was started; of use only until the sitting has a clock of its own. */
	roomStartedAt: number | null;
	beganAt: number | null;
	/** When the proctor ended the paper, where that is the rule; null: not yet, or it is not. */
	timeCalledAt: number | null;
	/** When its own clock started; null while the first question is not on the screen yet. It never changes after that. */
	clockStartedAt: number | null;
	/** Carried over, and not yet at work again: no window closes on it. */
	isCarriedOver: boolean;
	stops: Stop[];
};

/** Nothing has happened yet. */
export const NEW_TRACK: Track = {
	roomStartedAt: null,
	timeCalledAt: null,
	beganAt: null,
	clockStartedAt: null,
	isCarriedOver: false,
	stops: []
};

/** Where a sitting stands in its day. */
export type Phase = 'before' | 'door' | 'open' | 'running' | 'grace' | 'over';
