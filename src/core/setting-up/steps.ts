import { counted } from '../names';

/** What a house has so far. */
export type HouseFacts = {
	/** The name of the school or board; null: nobody has given one. */
	name: string | null;
	sites: number;
	rooms: number;
	people: number;
	/** Papers that can be sat, and those that are being written. */
	papers: number;
	drafts: number;
	staff: number;
	planned: number;
	/** A session in which somebody has sat. */
	held: number;
	mailLeaves: boolean;
	/** Where others reach this house: as it was named, or as it was reached just now. */
	address: string;
	isNamed: boolean;
	/** Only the machine on which it runs reaches this address. */
	isHereAlone: boolean;
	isSecure: boolean;
};

/** A step on the way to the first session. `later`: the first session can be held without it. */
export type SetUpStep = {
	key: 'place' | 'rooms' | 'people' | 'paper' | 'session' | 'staff' | 'address' | 'mail';
	state: 'done' | 'next' | 'open' | 'later';
	name: string;
	/** What it is for, or how far it is. */
	why: string;
	href: string;
	act: string;
	/** The first session can't be held without it. */
	isNeeded: boolean;
};

type Drawn = Omit<SetUpStep, 'state'> & { isDone: boolean };

/** The steps in the order in which each needs the one before it; the first that is open is the next. */
export function setUpSteps(facts: HouseFacts): SetUpStep[] {
	const { sites, rooms, people, papers, drafts, staff, planned, held } = facts;
	const steps: Drawn[] = [
		{
			key: 'place',
			isDone: sites > 0,
			isNeeded: true,
			name: 'Your place',
			why: sites > 0 ? `${facts.name ?? 'Your place'}: ${counted(sites, 'site')}` : 'Its name, its clock, its address',
			href: '/set-up',
			act: 'Set up'
		},
		{
			key: 'rooms',
			isDone: rooms > 0,
			isNeeded: true,
			name: 'Rooms',
			why: rooms > 0 ? counted(rooms, 'room') : 'Where candidates sit, seat by seat, or only how many',
			href: '/prepare/rooms',
			act: 'Add a room'
		},
		{
			key: 'people',
			isDone: people > 0,
			isNeeded: true,
			name: 'People',
			why: people > 0 ? counted(people, 'candidate') : 'A spreadsheet as your office has it, or pasted names',
			href: '/prepare/people/import',
			act: 'Bring people in'
		},
		{
			key: 'paper',
			isDone: papers > 0,
			isNeeded: true,
			name: 'A paper',
			why:
				papers > 0
					? `${counted(papers, 'paper')} ready to be sat`
					: drafts > 0
						? `${counted(drafts, 'paper')} being written: freeze one, so that it can be sat`
						: 'Questions from a document, a table or pasted text, or written here',
			href: '/papers',
			act: drafts > 0 ? 'Go on with it' : 'Make a paper'
		},
		{
			key: 'session',
			isDone: planned > 0,
			isNeeded: true,
			name: 'A session',
			why:
				held > 0
					? `${counted(held, 'session')} held`
					: planned > 0
						? `${counted(planned, 'session')} planned`
						: 'Who sits what, when and where',
			href: '/prepare/new',
			act: 'Plan a session'
		},
		{
			key: 'staff',
			isDone: staff > 1,
			isNeeded: false,
			name: 'Colleagues',
			why: staff > 1 ? counted(staff, 'account') : 'Who else runs rooms, writes papers or marks',
			href: '/prepare/staff',
			act: 'Invite'
		},
		{
			key: 'address',
			isDone: !facts.isHereAlone && facts.isSecure,
			isNeeded: false,
			name: 'Address',
			why: facts.isHereAlone
				? `Only this machine reaches ${facts.address}. Candidates on other devices can’t.`
				: facts.isSecure
					? `Candidates type ${facts.address}/sit`
					: `Candidates type ${facts.address}/sit. It is plain HTTP: whoever listens on the network can read along.`,
			href: '/set-up',
			act: facts.isHereAlone ? 'Name the address' : 'Look at it'
		},
		{
			key: 'mail',
			isDone: facts.mailLeaves,
			isNeeded: false,
			name: 'Mail',
			why: facts.mailLeaves
				? 'A mail server is set up'
				: 'No mail server is set up: links and slips are handed over instead',
			href: '/prepare/mail',
			act: 'Look at it'
		}
	];
	const next = steps.find(({ isDone, isNeeded }) => isNeeded && !isDone)?.key;
	return steps.map(({ isDone, ...step }) => ({
		...step,
		state: isDone ? 'done' : step.key === next ? 'next' : step.isNeeded ? 'open' : 'later'
	}));
}

/** Whether the list goes away by itself: the first session has been held. */
export function isSetUp({ held }: HouseFacts): boolean {
	return held > 0;
}

/** What has to be there before a session can be planned, in order; empty: it can. */
export function missingForSession(facts: HouseFacts): SetUpStep[] {
	return setUpSteps(facts).filter(({ key, state, isNeeded }) => isNeeded && state !== 'done' && key !== 'session');
}

/** Whether only the machine itself reaches an address. */
export function isHereAlone(address: string): boolean {
	try {
		const { hostname } = new URL(address);
		return /^(localhost|.*\.localhost|127(\.\d+){3}|\[::1\])$/i.test(hostname);
	} catch {
		return true;
	}
}

/** An address of a house as somebody types it: with http, without a path; null: it is none. */
export function readAddress(text: string): string | null {
	const typed = text.trim().replace(/\/sit\/?$/, '');
	try {
		const url = new URL(/^https?:\/\//i.test(typed) ? typed : `http://${typed}`);
		const isPlain = (url.pathname === '/' || url.pathname === '') && url.search === '' && url.username === '';
		return isPlain && /^https?:$/.test(url.protocol) ? url.origin : null;
	} catch {
		return null;
	}
}
