import { strToU8, zipSync } from 'fflate';
import { writeCsv, writeNeedsProfile } from '$core/formats';
import { COLUMNS, writeOneRoster, type KnownPerson } from '$core/people';

/** The people of a site as a table that can be imported again without changing anything. */
export function peopleCsv(people: KnownPerson[]): string {
	return writeCsv([
		Object.values(COLUMNS)
			.filter((column) => column !== COLUMNS.whole)
			.map((column) => column.name),
		...people
			.filter((person) => !person.left)
			.map((person) => [
				person.number,
				person.given,
				person.family,
				person.groups.join('; '),
				person.email,
				person.birth,
				person.language,
				person.grade,
				person.userName,
				person.elsewhere ? 'yes' : 'no',
				person.extraTime.factor > 1 ? person.extraTime.factor : null,
				person.extraTime.minutes > 0 ? person.extraTime.minutes : null,
				person.separateRoom ? 'yes' : 'no'
			])
	]);
}

/** The same as a OneRoster 1.1 folder, zipped. */
export function peopleOneRoster(
	site: { id: string; name: string },
	groups: { id: string; name: string }[],
	people: KnownPerson[]
): Uint8Array {
	return zip(writeOneRoster(site, groups, people));
}

/** A needs profile for each who has needs, zipped, each named after its candidate's number. */
export function peopleNeeds(people: KnownPerson[]): Uint8Array {
	const files = people
		.filter(
			({ left, extraTime, language, unlimited, display }) =>
				!left && (extraTime.factor > 1 || extraTime.minutes > 0 || language || unlimited || display)
		)
		.map((person): [string, string] => [
			`${person.number}.xml`,
			writeNeedsProfile({
				...person.extraTime,
				unlimited: person.unlimited,
				magnification: person.display && person.display.magnification > 1 ? person.display.magnification : null,
				contrast: person.display?.contrast ?? false,
				language: person.language
			})
		]);
	return zip(new Map(files));
}

function zip(files: Map<string, string>): Uint8Array {
	return zipSync(Object.fromEntries([...files].map(([name, text]) => [name, strToU8(text)])));
}
