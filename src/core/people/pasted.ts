import { SEPARATORS } from '../formats';
import { guessMapping } from './columns';

/**
 * A list as somebody pastes it, as a table with a heading: rows of a spreadsheet come apart at their tabs, a list of names
 * is one column, `Lee, Ann` a name and no two columns.
 * @returns comma-separated values
 */
export function pastedTable(text: string): string {
	const lines = text.split(/\r\n|\r|\n/).filter((line) => line.trim() !== '');
	const separator = Object.keys(SEPARATORS).find((one) => one !== ',' && lines.every((line) => line.includes(one)));
	const heading = guessMapping((lines[0] ?? '').split(separator ?? ','));
	const hasHeading = heading.whole !== null || heading.family !== null || heading.number !== null;
	if (hasHeading) return lines.join('\n');
	const rows = lines.map((line) => (separator ? line.split(separator) : [line]));
	const columns = Math.max(1, ...rows.map((row) => row.length));
	const titles = ['Name', 'Class', ...Array.from({ length: Math.max(0, columns - 2) }, (_, i) => `Column ${i + 3}`)];
	return [titles.slice(0, columns), ...rows]
		.map((row) => row.map((cell) => `"${cell.trim().replaceAll('"', '""')}"`).join(';'))
		.join('\n');
}
