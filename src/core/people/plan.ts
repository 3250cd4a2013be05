import { foldName, foldNumber } from '../access';
import type { RowProblem } from '../formats';
import { fullName } from '../names';
import type { Display, KnownPerson, Needs, People, PersonEntry } from './person';

export type ImportOptions = {
	/** Groups that the file names and nobody knows are made; otherwise their rows are problems. */
	makeGroups: boolean;
	/** What becomes of those who are in the file's groups but not in the file. */
	missing: 'keep' | 'leave';
};

export type PersonChange = { person: KnownPerson; entry: PersonEntry; differences: string[] };

/** What an import would do, told before it does. Applied whole or not at all. */
export type ImportPlan = {
	add: PersonEntry[];
	change: PersonChange[];
	same: number;
	/** Known to be in a group that the file tells of, and not in the file. */
	missing: KnownPerson[];
	newGroups: string[];
	problems: RowProblem[];
};

/**
 * Compares a file with what is known. People are matched by the other system's id, else by number, so that importing a
 * file twice changes nothing the second time.
 */
export function planImport(known: KnownPerson[], groups: string[], people: People, options: ImportOptions): ImportPlan {
	const plan: ImportPlan = { add: [], change: [], same: 0, missing: [], newGroups: [], problems: [...people.problems] };
	const byNumber = new Map(known.map((person) => [foldNumber(person.number), person]));
	const bySource = new Map(known.filter((person) => person.sourceId).map((person) => [person.sourceId!, person]));
	const groupNames = new Map(groups.map((name) => [foldName(name), name]));
	const lineOf = new Map<string, number>();
	const met = new Set<string>();
	const told = new Set<string>();
	/** Groups that nobody knows, each told once. */
	const unmet = new Map<string, { line: number; count: number }>();

	for (const entry of people.entries) {
		const key = foldNumber(entry.number);
		const earlier = lineOf.get(key);
		if (earlier !== undefined) {
			const message = `${entry.number} is already on line ${earlier}. Keep the line that is right.`;
			plan.problems.push({ line: entry.line, field: 'Candidate number', message });
			continue;
		}
		lineOf.set(key, entry.line);
		const unknown = (entry.groups ?? []).filter((name) => !groupNames.has(foldName(name)));
		if (unknown.length > 0 && !options.makeGroups) {
			const before = unmet.get(unknown[0]);
			unmet.set(unknown[0], { line: before?.line ?? entry.line, count: (before?.count ?? 0) + 1 });
			continue;
		}
		for (const name of unknown) {
			groupNames.set(foldName(name), name);
			plan.newGroups.push(name);
		}
		const read = entry.groups
			? { ...entry, groups: entry.groups.map((name) => groupNames.get(foldName(name))!) }
			: entry;
		for (const name of read.groups ?? []) told.add(name);

		const bySourceId = entry.sourceId ? bySource.get(entry.sourceId) : undefined;
		const byItsNumber = byNumber.get(key);
		if (bySourceId && byItsNumber && bySourceId !== byItsNumber) {
			const message = `${entry.number} is ${fullName(byItsNumber)}’s number, but the id ${entry.sourceId} is ${fullName(bySourceId)}’s. Correct one of them.`;
			plan.problems.push({ line: entry.line, field: 'Candidate number', message });
			continue;
		}
		const person = bySourceId ?? byItsNumber;
		if (!person) {
			if (!entry.leaves) plan.add.push(read);
			continue;
		}
		met.add(person.id);
		const differences = differencesOf(person, read);
		if (differences.length > 0) plan.change.push({ person, entry: read, differences });
		else plan.same++;
	}
	for (const [name, { line, count }] of unmet)
		plan.problems.push({ line, field: 'Groups', message: unknownGroup(name, groups, count) });
	plan.problems.sort((a, b) => a.line - b.line);
	// Whoever could not be read is not missing.
	for (const person of known)
		if (
			!person.left &&
			!met.has(person.id) &&
			!lineOf.has(foldNumber(person.number)) &&
			person.groups.some((name) => told.has(name))
		)
			plan.missing.push(person);
	return plan;
}

function unknownGroup(name: string, groups: string[], count: number): string {
	const which = count === 1 ? '' : ` (${count} rows)`;
	const near = groups.find((one) => distance(foldName(one), foldName(name)) <= 2);
	return near
		? `There is no group “${name}”${which}. Is “${near}” meant? Correct it, or tick “make new groups”.`
		: `There is no group “${name}”${which}. Tick “make new groups”, or correct it.`;
}

/** What an entry would change, in words: `family name Moor → Moore`. */
function differencesOf(person: KnownPerson, entry: PersonEntry): string[] {
	const differences: string[] = [];
	const compare = (what: string, before: string | null, after: string | null | undefined) => {
		if (after !== undefined && before !== after) differences.push(`${what} ${before || 'none'} → ${after || 'none'}`);
	};
	compare('number', person.number, entry.number);
	compare('given name', person.given, entry.given);
	compare('family name', person.family, entry.family);
	compare('groups', named(person.groups), entry.groups && named(entry.groups));
	compare('e-mail', person.email, entry.email);
	compare('date of birth', person.birth, entry.birth);
	compare('language', person.language, entry.language);
	compare('grade', person.grade, entry.grade);
	compare('user name', person.userName, entry.userName);
	if (entry.elsewhere !== undefined) compare('elsewhere', yesNo(person.elsewhere), yesNo(entry.elsewhere));
	compare('id', person.sourceId, entry.sourceId);
	const byFile = person.byFile ?? person;
	const compareNeed = (what: string, tell: (needs: Needs) => string | undefined) => {
		const [holds, brought, after] = [tell(person), tell(byFile), tell(entry as Needs)];
		// A file that says what holds anyway changes nothing, whoever gave it.
		if (after === undefined || after === holds || after === brought) return;
		const stays = holds === brought ? '' : `; ${holds} given by hand stays`;
		differences.push(`${what} ${brought || 'none'} → ${after || 'none'}${stays}`);
	};
	compareNeed('extra time', ({ extraTime }) => extraTime && timeInWords(extraTime));
	compareNeed('separate room', ({ separateRoom }) => (separateRoom === undefined ? undefined : yesNo(separateRoom)));
	compareNeed('no time limit', ({ unlimited }) => (unlimited === undefined ? undefined : yesNo(unlimited)));
	compareNeed('display', ({ display }) => (display === undefined ? undefined : displayInWords(display)));
	compare('listed', yesNo(!person.left), yesNo(!entry.leaves));
	return differences;
}

function named(groups: string[]): string {
	return [...new Set(groups)].sort().join(', ');
}

function timeInWords({ factor, minutes }: { factor: number; minutes: number }): string {
	return [factor > 1 ? `× ${factor}` : '', minutes > 0 ? `+ ${minutes} min` : ''].filter(Boolean).join(' ');
}

function displayInWords(display: Display | null): string {
	if (!display) return '';
	const size = display.magnification > 1 ? `× ${display.magnification}` : '';
	return [size, display.contrast ? 'strong contrast' : ''].filter(Boolean).join(', ');
}

function yesNo(value: boolean): string {
	return value ? 'yes' : 'no';
}

/** Edits between two words (Levenshtein 1966), for "is … meant?". */
function distance(a: string, b: string): number {
	let row = Array.from({ length: b.length + 1 }, (_, j) => j);
	for (let i = 1; i <= a.length; i++) {
		const next = [i];
		for (let j = 1; j <= b.length; j++)
			next[j] = Math.min(next[j - 1] + 1, row[j] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
		row = next;
	}
	return row[b.length];
}
