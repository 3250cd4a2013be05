import type { PaperSummary } from '../paper';
import type { Window } from '../time';
import type { SessionKind, SessionRules } from './rules';

/** Somebody whom a finding names. */
export type Named = { id: string; name: string };

/** All that can be known of a session before it is planned; what its sentence and its findings are made of. */
export type SessionFacts = {
	kind: SessionKind;
	paper: PaperFacts;
	/** `Watch A`; several are told as a list. */
	groups: { name: string; count: number }[];
	candidates: number;
	/** Of those, how many sit elsewhere and need no seat. */
	elsewhere: number;
	/** Language tags asked for by candidates, with how many; null: none asked for. */
	languages: { tag: string | null; ids: string[] }[];
	room: RoomFacts;
	/** Other rooms of the site that are free then, smallest first. */
	otherRooms: { id: string; name: string; seats: number }[];
	/** Who cannot be there, or is there twice. */
	clashes: {
		room: string | null;
		candidates: { person: Named; with: string; from: number; to: number }[];
		proctors: { name: string; with: string }[];
	};
	proctors: number;
	zone: string;
	/** Local opening hours of the site, `08:00` to `18:00`. */
	hours: { opens: string; closes: string } | null;
	/** First and last day of the administration, ISO dates. */
	days: { first: string; last: string } | null;
	window: Window;
	/** When the last of them has finished at the latest, grace included. */
	busyUntil: number;
	rules: SessionRules;
	/** The limit for the whole that was entered beside a time for each question; null: none. */
	limitBeside: number | null;
	/** Candidates with more time: what each needs, and when the last of them finishes at the latest, with all of it. */
	extraTime: { count: number; lastEnds: number | null; needs: { person: Named; minutes: number | null }[] };
	networks: { named: { id: string; name: string }[]; lost: number; known: { id: string; name: string }[] };
	siteHasClients: boolean;
	/** Sittings that the site may still use, and how many this session would; null: not counted. */
	entitlement: { left: number; needed: number } | null;
	/** Who can allot more sittings to the site, by name. */
	mayAllot: string[];
	/** Other sessions of the paper that are not finished. */
	othersPending: number;
	/** For whom the paper is not open by the order of the administration's parts, and why. */
	notOpen: { person: Named; why: string }[];
	/** Made-up people among them. */
	trials: Named[];
	/** How many can still sit the paper, or owe it, in this administration. */
	owing: number;
	/** Papers that may be sat here and that nobody owes: for a rehearsal. */
	forPractice: { id: string; title: string }[];
	/** Who has begun elsewhere and would go on here, with the limit under which they began. */
	goingOn: { person: Named; limitMinutes: number | null }[];
	/** Candidates whose own devices are tablets or have no sealed client, as far as their last check tells. */
	withoutClient: number;
	/** Candidates without what the identity rule asks for. */
	withoutIdentity: Named[];
	withoutEmail: number;
};

export type PaperFacts = {
	title: string;
	version: number;
	/** A later version that may be sat here too; null: this is the latest. */
	newer: { id: string; version: number } | null;
	questions: number;
	/** Anyone may try it, with the right answers. */
	isForPractice: boolean;
	/** Whether the site or its groups may sit it in this administration. */
	allowed: boolean;
	/** It is not offered any more, and why; `isChosen`: the session had it before. null: it is offered. */
	withdrawn: { why: string; isChosen: boolean } | null;
	/** Of which each candidate gets one; none: all are dealt from the whole paper. */
	forms: PaperSummary['forms'];
	/** Parts that draw from a pool: how many of how many, and whether their points are equal. */
	pools: { title: string; draw: number; of: number; equalPoints: boolean }[];
	/** Questions with a choice that points at others ("none of these") and so keeps its place. */
	keepPlace: number;
	/** Languages it is there in, each with how many of its questions are; its own comes first. */
	languages: { tag: string; questions: number }[];
	/** Minutes that its questions take by common practice. */
	suggestedMinutes: number;
};

export type RoomFacts = { id: string; name: string; seats: number };
