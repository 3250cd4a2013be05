import type { RowProblem } from '../formats';

/**
 * One person as a file tells of them. What the file has no column for is undefined and stays as it is; what its column
 * leaves empty is null and is taken away.
 */
export type PersonEntry = {
	/** Where in the file. */
	line: number;
	number: string;
	given: string;
	family: string;
	/** Names of groups. */
	groups?: string[];
	email?: string | null;
	/** ISO date. */
	birth?: string | null;
	/** BCP 47 tag. */
	language?: string | null;
	/** `10`, `Second Year`. */
	grade?: string | null;
	/** What they sign in with elsewhere. */
	userName?: string | null;
	/** They do not sit in the room. */
	elsewhere?: boolean;
	/** The id by which another system knows them. */
	sourceId?: string | null;
	/** Standing extra time; factor 1 with 0 minutes: none. */
	extraTime?: { factor: number; minutes: number };
	separateRoom?: boolean;
	/** No limit of time at all. */
	unlimited?: boolean;
	/** How papers are to look for them; null: as for everybody. */
	display?: Display | null;
	/** The other system says that they have left. */
	leaves?: boolean;
};

/** 2: everything twice as large. */
export type Display = { magnification: number; contrast: boolean };

/** What a file brings: people, and the rows that could not be read. */
export type People = { entries: PersonEntry[]; problems: RowProblem[] };

/** Standing needs that a file can tell of. */
export type Needs = {
	extraTime: { factor: number; minutes: number };
	separateRoom: boolean;
	unlimited: boolean;
	display: Display | null;
};

/** A person as they are known now. */
export type KnownPerson = {
	id: string;
	number: string;
	given: string;
	family: string;
	groups: string[];
	email: string | null;
	birth: string | null;
	language: string | null;
	grade: string | null;
	userName: string | null;
	elsewhere: boolean;
	sourceId: string | null;
	/** What holds now, whoever gave it. */
	extraTime: Needs['extraTime'];
	separateRoom: boolean;
	unlimited: boolean;
	display: Display | null;
	/** Of that, what a file brought: an import takes the place of this, and never of what was given by hand. */
	byFile?: Needs;
	/** No longer listed: kept for what they sat, offered nowhere. */
	left: boolean;
};
