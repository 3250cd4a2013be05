import { asItSeems } from '$core/people';
import type { Actor } from '$core/sitting';
import type { Otium } from '$lib/server/otium';
import { applyImport, checkImport } from '$lib/server/people';

const BY: Actor = { role: 'coordinator', id: 'bench' };
const ASKED = { ...asItSeems('q'), makeGroups: true };

/** Checks a table of people and imports it, as a coordinator does. @throws when not everyone was added */
export async function importPeople(otium: Otium, table: string, people: number): Promise<void> {
	const file = new TextEncoder().encode(table);
	const checked = await checkImport(otium, 'people.csv', file, ASKED);
	if (!checked.ok) throw new Error(checked.refused.message);
	const done = await applyImport(otium, BY, 'people.csv', file, ASKED, checked.checked.seal);
	if (!done.ok || done.applied.added !== people) throw new Error('the import did not add everyone');
}
