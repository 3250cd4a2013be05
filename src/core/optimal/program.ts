import loadHighs from 'highs';

/** A linear expression: a number for each variable. */
export type Terms = Map<string, number>;
export type Constraint = { terms: Terms; is: '<=' | '>=' | '='; than: number };

/** An integer program: variables are 0 or more; those in `binary` are 0 or 1. */
export type Program = { least: Terms; constraints: Constraint[]; binary: string[] };
export type Solved = { values: (variable: string) => number; isBest: boolean; objective: number };

/** Nothing that a person waits for is sought longer. */
const SECONDS = 8;

/**
 * Solves a program with HiGHS (Huangfu & Hall, Parallelizing the dual revised simplex method, 2018; its branch and cut for
 * integers). Blocks until it is done: call it in a worker.
 * @returns the best that was found in time, `isBest` when it is proven to be; null: there is none
 */
export async function solve(program: Program, seconds = SECONDS): Promise<Solved | null> {
	const highs = await loadHighs();
	let solution: ReturnType<typeof highs.solve>;
	try {
		solution = highs.solve(asLp(program), { time_limit: seconds, mip_rel_gap: 1e-4, output_flag: false });
	} catch {
		// It has run out of its memory; each search has a module of its own, so the next one is not harmed.
		return null;
	}
	const isBest = solution.Status === 'Optimal';
	if (!isBest && solution.Status !== 'Time limit reached') return null;
	if (!Number.isFinite(solution.ObjectiveValue)) return null;
	const columns = solution.Columns as Record<string, { Primal?: number }>;
	return {
		values: (variable) => columns[variable]?.Primal ?? 0,
		isBest,
		objective: solution.ObjectiveValue
	};
}

/** The program in the LP format of CPLEX, which HiGHS reads; a line holds a few terms, for lines may not be long. */
function asLp({ least, constraints, binary }: Program): string {
	const sum = (terms: Terms) =>
		[...terms]
			.filter(([, factor]) => factor !== 0)
			.map(
				([variable, factor], i) =>
					`${i % 8 === 7 ? '\n ' : ''}${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${variable}`
			)
			.join(' ') || '0 nothing';
	return [
		'Minimize',
		` obj: ${sum(least)}`,
		'Subject To',
		...constraints.map(({ terms, is, than }, i) => ` c${i}: ${sum(terms)} ${is} ${than}`),
		'Binary',
		...binary.map((variable) => ` ${variable}`),
		'End'
	].join('\n');
}
