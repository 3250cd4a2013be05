import { createHash } from 'node:crypto';
import { readCalendar } from '$core/formats';
import { readPeopleFile, type ImportAsked, type KnownSite, type ReadFile, type ReadFileResult } from '$core/people';
import { offer } from '../thread';
import { isWorkbook, readWorkbook } from '../workbook';

/** A file as it was checked. What is applied must be what was shown, which the seal tells. */
export type Checked = ReadFile & {
	/** Of the file, the wishes and the plan. */
	seal: string;
	/** Of the file alone, SHA-256. */
	sha256: string;
};
export type CheckResult = { ok: true; checked: Checked } | Extract<ReadFileResult, { ok: false }>;

const tasks = {
	people({
		name,
		bytes,
		known,
		asked
	}: {
		name: string;
		bytes: Uint8Array;
		known: KnownSite;
		asked: ImportAsked;
	}): CheckResult {
		const sheet = isWorkbook(bytes) ? readWorkbook(bytes, asked.sheet) : null;
		if (sheet?.ok === false) return { ok: false, refused: { message: sheet.message } };
		const rows = sheet && sheet.rows.filter(({ cells }) => cells.some(Boolean));
		const read = readPeopleFile(name, bytes, known, asked, sheet && { ...sheet, rows: rows! });
		if (!read.ok) return read;
		const { add, change, missing, problems, newGroups } = read.file.plan;
		const told = [
			asked,
			add.length,
			change.map((one) => [one.person.id, one.differences]),
			missing.length,
			problems.length,
			newGroups
		];
		const sha256 = createHash('sha256').update(bytes).digest('hex');
		const seal = createHash('sha256').update(bytes).update(JSON.stringify(told)).digest('hex');
		return { ok: true, checked: { ...read.file, seal, sha256 } };
	},

	timetable({ text, zone, from, to }: { text: string; zone: string; from: number; to: number }) {
		return readCalendar(text, zone, from, to);
	}
};
export type Reading = typeof tasks;

offer(tasks);
