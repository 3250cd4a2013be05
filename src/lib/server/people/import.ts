import { createHash } from 'node:crypto';
import {
	isArchive,
	readArchive,
	readNeedsProfile,
	readTable,
	readText,
	type NeedsProfile,
	type RowProblem
} from '$core/formats';
import {
	guessMapping,
	isDateOrderOpen,
	missingColumns,
	planImport,
	readOneRoster,
	readPeople,
	type DateOrder,
	type ImportPlan,
	type KnownPerson,
	type Mapping,
	type School
} from '$core/people';
import { foldNumber } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact } from '../db';
import { giveWay } from '../event-loop';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';
import { knownPeople, NO_GROUP } from './known';
import { writePeople } from './write';

export const MOST_BYTES = 10 * 1024 * 1024;

export type ImportAsked = {
	siteId: string;
	mapping: Mapping | null;
	separator: string | null;
	dateOrder: DateOrder | null;
	makeGroups: boolean;
	missing: 'keep' | 'leave';
	schoolId: string | null;
};

/** What a file is and would do. Nothing has been written. */
export type Checked = {
	format: 'csv' | 'one_roster' | 'needs';
	note: string | null;
	plan: ImportPlan;
	table: { header: string[]; mapping: Mapping; separator: string; sample: string[][]; dateOrderOpen: boolean } | null;
	schools: School[];
	isDelta: boolean;
	/** Of the file, the wishes and the plan; what is applied must be what was shown. */
	seal: string;
};
export type Refused = { message: string; schools?: School[]; table?: Checked['table'] };
export type CheckResult = { ok: true; checked: Checked } | { ok: false; refused: Refused };

/** Reads a file and works out what it would do: by what is in it, not by what it is called. */
export async function checkImport(
	otium: Writing,
	name: string,
	bytes: Uint8Array,
	asked: ImportAsked
): Promise<CheckResult> {
	if (bytes.length > MOST_BYTES)
		return refuse(
			`This file has ${Math.round(bytes.length / 1024 / 1024)} MB; 10 MB are taken. Split it by group, or zip it.`
		);
	if (bytes.length === 0) return refuse('This file is empty.');
	const known = await knownPeople(otium.db, asked.siteId);
	const groups: string[] = await otium
		.db('candidate_group')
		.where({ site_id: asked.siteId })
		.whereNot({ name: NO_GROUP })
		.pluck('name');
	await giveWay();
	if (isArchive(bytes)) return checkArchive(bytes, known, groups, asked);
	const read = readText(bytes);
	if (!read.ok) return refuse(read.message);
	if (/^\s*</.test(read.text)) return checkProfiles(new Map([[name, bytes]]), known, groups, bytes, asked);
	return checkTable(read, known, groups, bytes, asked);
}

function refuse(message: string, more: Omit<Refused, 'message'> = {}): CheckResult {
	return { ok: false, refused: { message, ...more } };
}

async function checkTable(
	read: { text: string; note: string | null },
	known: KnownPerson[],
	groups: string[],
	bytes: Uint8Array,
	asked: ImportAsked
): Promise<CheckResult> {
	const table = readTable(read.text, asked.separator ?? undefined);
	await giveWay();
	if (table.header.length === 0 && table.problems.length > 0)
		return refuse(`Line ${table.problems[0].line}: ${table.problems[0].message}`);
	const mapping = asked.mapping ?? guessMapping(table.header);
	const shown = {
		header: table.header,
		mapping,
		separator: table.separator,
		sample: table.rows.slice(0, 3).map((row) => row.cells),
		dateOrderOpen: isDateOrderOpen(table, mapping)
	};
	const missing = missingColumns(mapping);
	if (missing.length > 0)
		return refuse(`Say which column holds: ${missing.join(', ')}. The first line of the file is its heading.`, {
			table: shown
		});
	if (table.rows.length === 0 && table.problems.length === 0)
		return refuse('There are no rows below the heading.', { table: shown });
	const people = readPeople(table, mapping, asked.dateOrder);
	await giveWay();
	const plan = planImport(known, groups, people, asked);
	return sealed({ format: 'csv', note: read.note, plan, table: shown, schools: [], isDelta: false }, bytes, asked);
}

function checkArchive(bytes: Uint8Array, known: KnownPerson[], groups: string[], asked: ImportAsked): CheckResult {
	const archive = readArchive(bytes);
	if (!archive.ok) return refuse(archive.message);
	if (!archive.files.has('users.csv') && [...archive.files.keys()].some((name) => name.endsWith('.xml')))
		return checkProfiles(archive.files, known, groups, bytes, asked);
	const texts = new Map<string, string>();
	for (const [name, content] of archive.files) {
		if (!name.endsWith('.csv')) continue;
		const read = readText(content);
		if (!read.ok) return refuse(`${name}: ${read.message}`);
		texts.set(name, read.text);
	}
	const roster = readOneRoster(texts, known, asked.schoolId);
	if (!roster.ok) return refuse(roster.message, { schools: roster.schools });
	// A delta tells of nobody but those who changed: nobody else is missing.
	const plan = planImport(known, groups, roster.people, asked);
	if (roster.isDelta) plan.missing = [];
	return sealed(
		{ format: 'one_roster', note: null, plan, table: null, schools: roster.schools, isDelta: roster.isDelta },
		bytes,
		asked
	);
}

/** Needs profiles name nobody; each file's name is its candidate's number. */
function checkProfiles(
	files: Map<string, Uint8Array>,
	known: KnownPerson[],
	groups: string[],
	bytes: Uint8Array,
	asked: ImportAsked
): CheckResult {
	const byNumber = new Map(known.map((person) => [foldNumber(person.number), person]));
	const problems: RowProblem[] = [];
	const entries = [...files].flatMap(([name, content], i) => {
		if (!name.endsWith('.xml')) return [];
		const complain = (message: string) => void problems.push({ line: i + 1, field: name, message });
		const person = byNumber.get(foldNumber(name.replace(/\.xml$/, '')));
		if (!person) {
			complain('No candidate has this number. Name the file after one, like DO-1043.xml.');
			return [];
		}
		const text = readText(content);
		const read = text.ok ? readNeedsProfile(text.text) : text;
		if (!read.ok) {
			complain(read.message);
			return [];
		}
		return [entryOf(person, read.profile, i + 1)];
	});
	const plan = planImport(known, groups, { entries, problems }, asked);
	return sealed(
		{ format: 'needs', note: null, plan: { ...plan, missing: [] }, table: null, schools: [], isDelta: true },
		bytes,
		asked
	);
}

function entryOf(person: KnownPerson, profile: NeedsProfile, line: number) {
	const { number, given, family } = person;
	return {
		line,
		number,
		given,
		family,
		extraTime: { factor: profile.factor, minutes: profile.minutes },
		unlimited: profile.unlimited,
		display:
			(profile.magnification ?? 1) > 1 || profile.contrast
				? { magnification: profile.magnification ?? 1, contrast: profile.contrast }
				: null,
		...(profile.language === null ? {} : { language: profile.language })
	};
}

function sealed(checked: Omit<Checked, 'seal'>, bytes: Uint8Array, asked: ImportAsked): CheckResult {
	const { add, change, missing, problems, newGroups } = checked.plan;
	const told = [
		asked,
		add.length,
		change.map((one) => [one.person.id, one.differences]),
		missing.length,
		problems.length,
		newGroups
	];
	const seal = createHash('sha256').update(bytes).update(JSON.stringify(told)).digest('hex');
	return { ok: true, checked: { ...checked, seal } };
}

export type Applied = { added: number; changed: number; left: number };
export type ApplyResult = { ok: true; applied: Applied } | { ok: false; refused: Refused };

/**
 * Does what was shown, all of it or nothing. Works the plan out anew first: when it is another by now, because somebody
 * changed people meanwhile, nothing is written.
 */
export async function applyImport(
	otium: Writing,
	by: Actor,
	name: string,
	bytes: Uint8Array,
	asked: ImportAsked,
	seal: string,
	told: (done: number, total: number) => void | Promise<void> = () => {}
): Promise<ApplyResult> {
	const again = await checkImport(otium, name, bytes, asked);
	if (!again.ok) return again;
	const { plan, format } = again.checked;
	if (again.checked.seal !== seal)
		return {
			ok: false,
			refused: { message: 'People were changed since you looked. Check the file again, then import it.' }
		};
	if (plan.problems.length > 0)
		return {
			ok: false,
			refused: {
				message: 'Some rows can’t be read. Correct them, or leave them out of the file; nothing was imported.'
			}
		};
	const leave = asked.missing === 'leave';
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		await writePeople(trx, asked.siteId, plan, leave, by, now, async (done, total) => {
			await told(done, total);
			await giveWay();
		});
		const body = {
			file: name.slice(0, 200),
			format,
			sha256: createHash('sha256').update(bytes).digest('hex'),
			added: plan.add.length,
			changed: plan.change.length,
			left: leave ? plan.missing.length : 0,
			groups: plan.newGroups
		};
		await appendToLogbook(trx, [{ at: now, by, kind: 'people_imported', body }]);
	});
	return {
		ok: true,
		applied: { added: plan.add.length, changed: plan.change.length, left: leave ? plan.missing.length : 0 }
	};
}
