import type { StaffRole } from '$core/access';

/** Invented names, in no order. */
const GIVEN =
	'Adaeze Bram Cecily Dov Esi Finn Greta Hale Inge Jory Kemi Lars Mina Nils Oona Pia Quill Rafe Sanna Tobias Una Vik Wren Ximo Yara Zeb Anouk Bo Cleo Dilan Ebba Faro Gwen Hedda Ivo Juno Kaito Lior Maro Nessa'.split(
		' '
	);
const FAMILY =
	'Obi Teller Moor Lindqvist Amankwah Oakes Vance Ito Brandt Penn Adler Holt Sato Ferro Reyes Kestrel Dastan Soto Weir Rook Mercer Harrow Abara Bell Quist Thorne Daly Castell Nakata Sorley Ashdown Breck Corvin Dunbar Ebsen Falk Garrow Hewitt Ilves Jarrow'.split(
		' '
	);

export type DemoCandidate = { number: string; given: string; family: string; group: string };

/**
 * Candidates with invented names. No two share a full name; a number, a given and a family name follow from the place
 * in the row, so that the demo is the same every day.
 */
export function candidatesFor(group: string, count: number, from: number): DemoCandidate[] {
	return Array.from({ length: count }, (_, i) => {
		const at = from + i;
		const lap = Math.floor(at / GIVEN.length);
		return {
			number: `DO-${1001 + at}`,
			given: GIVEN[at % GIVEN.length],
			family: FAMILY[(at + lap * 7) % FAMILY.length],
			group
		};
	});
}

export type DemoStaff = {
	key: string;
	name: string;
	signIn: string;
	roles: { role: StaffRole; site: string | null }[];
};

/** One password for the whole demo; `./otium demo` prints it. */
export const DEMO_PASSWORD = 'high-water-0510';

export const DEMO_STAFF: DemoStaff[] = [
	{ key: 'ode', name: 'Maren Ode', signIn: 'ode', roles: [{ role: 'coordinator', site: null }] },
	{ key: 'brandreth', name: 'Edda Brandreth', signIn: 'brandreth', roles: [{ role: 'author', site: null }] },
	{ key: 'furtado', name: 'Inês Furtado', signIn: 'furtado', roles: [{ role: 'coordinator', site: 'lighthouse' }] },
	{ key: 'holt', name: 'Anders Holt', signIn: 'holt', roles: [{ role: 'marker', site: null }] },
	{ key: 'dunmore', name: 'Rhys Dunmore', signIn: 'dunmore', roles: [{ role: 'proctor', site: 'quayside' }] },
	{ key: 'finch', name: 'Alba Finch', signIn: 'finch', roles: [{ role: 'proctor', site: 'quayside' }] },
	{ key: 'sorrel', name: 'João Sorrel', signIn: 'sorrel', roles: [{ role: 'proctor', site: 'lighthouse' }] },
	{ key: 'quill', name: 'Imre Quill', signIn: 'quill', roles: [{ role: 'technician', site: 'quayside' }] },
	{ key: 'penrose', name: 'Ilse Penrose', signIn: 'penrose', roles: [{ role: 'grants_officer', site: null }] },
	{ key: 'lorne', name: 'Petra Lorne', signIn: 'lorne', roles: [{ role: 'closing_officer', site: null }] }
];
