/** A sheet as it looks: what each cell shows, row after row, and what of it is told. */
export type Sheet = { name: string; isHidden: boolean; rows: string[][]; told: string[] };
export type Cells = Map<number, Map<number, string>>;

/** The most that is read of a sheet; a roster of 10,000 people with 30 columns is 300,000 cells. */
export const SHEET_LIMITS = { cells: 2_000_000, columns: 16_384 };

/** Rows without holes, from the first to the last that holds something. */
export function rowsOf(cells: Cells): string[][] {
	const last = Math.max(-1, ...cells.keys());
	const width = Math.max(0, ...[...cells.values()].map((row) => Math.max(-1, ...row.keys()) + 1));
	return Array.from({ length: last + 1 }, (_, i) => {
		const row = cells.get(i);
		return Array.from({ length: row ? width : 0 }, (_, k) => row!.get(k) ?? '');
	});
}

/** `C` is 3 columns on: 2, from 0. */
export function columnOf(reference: string): number {
	let at = 0;
	for (const letter of /^[A-Z]+/.exec(reference)?.[0] ?? '') at = at * 26 + letter.charCodeAt(0) - 64;
	return at - 1;
}

/** `2`, as people count lines and columns: `B`. */
export function letterOf(column: number): string {
	return column < 26
		? String.fromCharCode(65 + column)
		: `${letterOf(Math.floor(column / 26) - 1)}${letterOf(column % 26)}`;
}
