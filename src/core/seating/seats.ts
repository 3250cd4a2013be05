/** What is special about a room's seats, by their names. */
export type SeatPlan = {
	/** Broken, blocked, or without a socket: nobody sits there. */
	outOfUse: string[];
	/** Away from the others: first for those who are to sit apart, last for everyone else. */
	apart: string[];
};

export const PLAIN_PLAN: SeatPlan = { outOfUse: [], apart: [] };

/** `A1`, `A2`, … row by row; past Z the letters are doubled (`AA1`). */
export function seatName(index: number, perRow: number): string {
	const row = Math.floor(index / perRow);
	const letter = String.fromCharCode(65 + (row % 26)).repeat(1 + Math.floor(row / 26));
	return `${letter}${(index % perRow) + 1}`;
}

/** What seats are sorted by, as text: A2 before A10, Z before AA, and whoever has none last. */
export function seatOrder(seat: string | null): string {
	const [, row, column] = /^([A-Z]+)(\d+)$/.exec(seat ?? '') ?? [];
	return row === undefined ? `~${seat ?? ''}` : `${row.length}${row}${column.padStart(4, '0')}`;
}

/** All seats of a room by rows, whatever is special about them. */
export function seatRows(rows: number, perRow: number): string[][] {
	return Array.from({ length: rows }, (_, row) =>
		Array.from({ length: perRow }, (_, seat) => seatName(row * perRow + seat, perRow))
	);
}

/** The seats that can be used: common ones row by row, then those apart. */
export function usableSeats(rows: number, perRow: number, plan: SeatPlan): string[] {
	const usable = seatRows(rows, perRow)
		.flat()
		.filter((seat) => !plan.outOfUse.includes(seat));
	const isApart = (seat: string) => plan.apart.includes(seat);
	return [...usable.filter((seat) => !isApart(seat)), ...usable.filter(isApart)];
}

/**
 * A seat for each, in their order. Whoever is to sit apart gets a seat apart as long as there is one; when all seats are
 * taken the rest have none.
 */
export function assignSeats(
	people: { apart: boolean }[],
	rows: number,
	perRow: number,
	plan: SeatPlan
): (string | null)[] {
	const free = usableSeats(rows, perRow, plan);
	const apart = free.filter((seat) => plan.apart.includes(seat));
	const seats = people.map((person) => {
		const seat = person.apart ? apart.shift() : undefined;
		if (seat !== undefined) free.splice(free.indexOf(seat), 1);
		return seat ?? null;
	});
	return seats.map((seat) => seat ?? free.shift() ?? null);
}
