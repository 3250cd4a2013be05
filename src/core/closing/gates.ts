/** What must be settled before an administration is closed. */
export const GATES = {
	sessions: 'Sessions ended',
	sitting: 'Nobody still sitting',
	turn: 'Everyone had their turn',
	held_back: 'Late answers decided',
	incidents: 'Incidents decided',
	by_hand: 'Marked by hand',
	validity: 'Doubtful results decided',
	alike: 'Similar answers decided',
	questions: 'Doubtful questions',
	signed: 'Signed off'
} as const;
export type GateKey = keyof typeof GATES;

/** A list of which only the first few are named. */
export type Few = { count: number; named: string[] };

/** How a site stands, in numbers and names. */
export type SiteFacts = {
	siteId: string;
	site: string;
	coordinators: string[];
	/** `open`: those that have not ended. */
	sessions: { all: number; open: Few };
	sitting: Few;
	/** Nothing is arranged for them; a sitting or a window is to come; somebody waived it, with the reasons. */
	owed: Few;
	arranged: Few;
	waived: { count: number; reasons: string[] };
	heldBack: Few;
	incidents: { all: number; undecided: Few };
	byHand: { all: number; left: number; minutes: number | null; markers: string[] };
	validity: { results: number; undecided: Few };
	alike: { sessions: number; undecided: Few };
	/** `fell`: what has changed since; none: it stands. */
	signOff: { by: string; at: number; fell: string[] } | null;
};

/** What belongs to no one site. */
export type SharedFacts = {
	/** Questions that speak against themselves and of which nobody has decided anything. */
	doubtful: Few;
	/** Corrections that a second person has not confirmed. */
	unconfirmed: Few;
	correctors: string[];
};

/** A gate at one site, or (null) at all of them together. */
export type Gate = {
	key: GateKey;
	siteId: string | null;
	isSettled: boolean;
	/** "4 are owed a sitting". */
	words: string;
	detail: string;
	/** Names of those who can settle it. */
	who: string[];
	/** Per cent done, where there is much of it. */
	done?: number;
};

const are = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
const list = ({ count, named }: Few) =>
	named.join(', ') + (count > named.length ? ` and ${count - named.length} more` : '');

/** Every gate, in the order in which they are shown: by gate, and within it by site. Derived; nothing is ticked by hand. */
export function gatesOf(sites: SiteFacts[], shared: SharedFacts): Gate[] {
	const perSite = sites.map((site) => ofSite(site));
	const questions = questionGate(shared);
	const gates = (Object.keys(GATES) as GateKey[]).flatMap((key) =>
		key === 'questions' ? [questions] : perSite.flatMap((gates) => gates.filter((gate) => gate.key === key))
	);
	return gates.map((gate) => (gate.key === 'signed' ? withOpen(gate, gates) : gate));
}

function ofSite(site: SiteFacts): Gate[] {
	const { siteId, coordinators: who } = site;
	const gate = (key: GateKey, isSettled: boolean, words: string, detail = '', more: Partial<Gate> = {}): Gate => ({
		key,
		siteId,
		isSettled,
		words,
		detail,
		who: isSettled ? [] : who,
		...more
	});
	const few = (key: GateKey, open: Few, settled: string, words: string, detail = list(open)) =>
		open.count === 0 ? gate(key, true, settled) : gate(key, false, words, detail);
	const { sessions, sitting, heldBack, incidents, validity, alike } = site;
	return [
		few(
			'sessions',
			sessions.open,
			`${sessions.all} of ${sessions.all}`,
			`${are(sessions.open.count, 'session has', 'sessions have')} not ended`
		),
		few('sitting', sitting, 'nobody', `${are(sitting.count, 'is', 'are')} still sitting`),
		turnGate(site, gate),
		few('held_back', heldBack, 'none', `${are(heldBack.count, 'person has', 'people have')} answers that came late`),
		few(
			'incidents',
			incidents.undecided,
			incidents.all === 0 ? 'none' : `all ${incidents.all}`,
			`${incidents.undecided.count} of ${are(incidents.all, 'incident', 'incidents')} undecided`
		),
		handGate(site, gate),
		few(
			'validity',
			validity.undecided,
			`${are(validity.results, 'result', 'results')}, none open`,
			`${are(validity.undecided.count, 'result is', 'results are')} doubtful`
		),
		few(
			'alike',
			alike.undecided,
			alike.sessions === 0 ? 'nothing to compare' : `${are(alike.sessions, 'session', 'sessions')} compared`,
			`similar answers in ${are(alike.undecided.count, 'session', 'sessions')}`
		),
		signGate(site, gate)
	];
}

type MakeGate = (key: GateKey, isSettled: boolean, words: string, detail?: string, more?: Partial<Gate>) => Gate;

function turnGate({ owed, arranged, waived }: SiteFacts, gate: MakeGate): Gate {
	const reasons = waived.reasons.join(', ');
	if (owed.count > 0) return gate('turn', false, `${are(owed.count, 'is', 'are')} owed a sitting`, list(owed));
	if (arranged.count > 0) return gate('turn', false, `${are(arranged.count, 'sits', 'sit')} later`, list(arranged));
	return gate('turn', true, waived.count > 0 ? `${waived.count} waived` : 'everyone', reasons);
}

function handGate({ byHand: { all, left, minutes, markers } }: SiteFacts, gate: MakeGate): Gate {
	if (all === 0) return gate('by_hand', true, 'nothing to mark');
	if (left === 0) return gate('by_hand', true, `${all} of ${all}`);
	const time = minutes === null ? '' : `, about ${are(minutes, 'minute', 'minutes')}`;
	return gate('by_hand', false, `${left} of ${all} to mark`, `${markers.join(', ') || 'nobody is named'}${time}`, {
		who: markers,
		done: Math.round(((all - left) / all) * 100)
	});
}

function signGate({ signOff }: SiteFacts, gate: MakeGate): Gate {
	if (!signOff) return gate('signed', false, 'not signed yet');
	if (signOff.fell.length > 0)
		return gate(
			'signed',
			false,
			`the signature of ${signOff.by} no longer holds`,
			`changed since: ${signOff.fell.join(', ')}`
		);
	return gate('signed', true, signOff.by);
}

function questionGate({ doubtful, unconfirmed, correctors }: SharedFacts): Gate {
	const open = doubtful.count + unconfirmed.count;
	const words =
		doubtful.count > 0
			? `${list(doubtful)} ${doubtful.count === 1 ? 'is' : 'are'} undecided`
			: unconfirmed.count > 0
				? `${are(unconfirmed.count, 'correction waits', 'corrections wait')} for a second person`
				: 'none';
	return {
		key: 'questions',
		siteId: null,
		isSettled: open === 0,
		words,
		detail: doubtful.count > 0 ? 'Change the key, count it for all, leave it out, or keep it' : list(unconfirmed),
		who: open === 0 ? [] : correctors
	};
}

/** Nobody signs what is open. */
function withOpen(gate: Gate, gates: Gate[]): Gate {
	const open = gates.filter(
		(one) => !one.isSettled && one.key !== 'signed' && (one.siteId === gate.siteId || one.siteId === null)
	);
	if (gate.isSettled || open.length === 0) return gate;
	const detail = `when the ${open.length === 1 ? 'one' : open.length} above ${open.length === 1 ? 'is' : 'are'} settled`;
	return { ...gate, detail: gate.detail ? `${gate.detail}; ${detail}` : detail, who: [] };
}

/** Whether a site's coordinator can sign: all else of the site, and what all share, is settled. */
export function maySign(gates: Gate[], siteId: string): boolean {
	return gates.every(
		(gate) => gate.isSettled || gate.key === 'signed' || (gate.siteId !== siteId && gate.siteId !== null)
	);
}

/** "Maren Ode: 4 are owed a sitting, Quayside": who can settle what is open, those with most first. */
export function whoSettles(gates: Gate[], siteNames: Map<string, string>): { name: string; open: string[] }[] {
	const by = new Map<string, string[]>();
	for (const { siteId, words, who, isSettled } of gates) {
		if (isSettled) continue;
		const where = siteId !== null && siteNames.size > 1 ? `, ${siteNames.get(siteId)}` : '';
		for (const name of who) by.set(name, [...(by.get(name) ?? []), `${words}${where}`]);
	}
	return [...by].map(([name, open]) => ({ name, open })).sort((a, b) => b.open.length - a.open.length);
}
