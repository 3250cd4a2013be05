import { foldName, foldNumber } from '../access';
import { groupBy } from '../group-by';
import { fullName } from '../names';
import type { KnownPerson, People, PersonEntry } from './person';

/** The first that is made: all have the same length until there are nine thousand. */
const FIRST = 1001;

/** The digit that checks others (ISO/IEC 7064, MOD 11,10): another where one is mistyped, or two have changed places. */
export function checkDigit(digits: string): string {
	let product = 10;
	for (const digit of digits) {
		const sum = (product + Number(digit)) % 10 || 10;
		product = (sum * 2) % 11;
	}
	return String((11 - product) % 10);
}

/** A candidate number that a house makes itself: digits alone, the last of which checks the others. */
export function madeNumber(counter: number): string {
	return `${counter}${checkDigit(String(counter))}`;
}

/** How two people of one name are told apart: not at all (somebody is asked), or by being two. */
export type SameNames = 'ask' | 'two';

/**
 * People of a file without numbers, each with the number that they have, or with a new one. Who is there already is known
 * by their name, by their date of birth where both are told, and by their group where that is not enough.
 * @param taken all numbers of the house, folded
 */
export function withNumbers(
	people: People,
	known: KnownPerson[],
	taken: Iterable<string>,
	sameNames: SameNames
): People {
	const used = new Set(taken);
	let counter = FIRST;
	const next = () => {
		while (used.has(foldNumber(madeNumber(counter)))) counter++;
		return madeNumber(counter++);
	};
	const byName = groupBy(known, nameOf);
	const met = new Map<string, number>();
	const given = new Set<string>();
	const problems = [...people.problems];
	const entries = people.entries.flatMap((entry): PersonEntry[] => {
		const whose = `${nameOf(entry)}|${entry.birth ?? ''}|${(entry.groups ?? []).map(foldName).sort().join(',')}`;
		const earlier = met.get(whose);
		met.set(whose, entry.line);
		const complain = (message: string) => void problems.push({ line: entry.line, field: 'Name', message });
		if (earlier !== undefined && sameNames === 'ask') {
			complain(
				`${fullName(entry)} is on line ${earlier} as well. Are they two people? Say so below, or take one line out.`
			);
			return [];
		}
		const could = (byName.get(nameOf(entry)) ?? []).filter(
			({ id, birth }) => !given.has(id) && (!birth || !entry.birth || birth === entry.birth)
		);
		const near = could.filter(({ groups }) =>
			groups.some((name) => entry.groups?.some((own) => foldName(own) === foldName(name)))
		);
		const there = could.length > 1 ? near : could;
		if (could.length > 1 && near.length !== 1) {
			complain(
				`${could.length} people here are called ${fullName(entry)}. Add a column with their numbers or dates of birth.`
			);
			return [];
		}
		if (there.length === 1) given.add(there[0].id);
		return [{ ...entry, number: there[0]?.number ?? next() }];
	});
	return { entries, problems };
}

function nameOf(one: { given: string; family: string }): string {
	return foldName(fullName(one));
}
