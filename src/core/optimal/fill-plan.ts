import { fitsCell, type PlanCell, type Plannable } from '../plan';
import { solve, type Constraint, type Terms } from './program';

/** A question of the bank that may be chosen. */
export type Choosable = Plannable & {
	/** When it was last sat, epoch ms; null: never. */
	lastUsed: number | null;
	/** In a paper that the same people sit. */
	isKnown: boolean;
};
export type Filled = {
	/** The chosen, by cell in the order of the plan. */
	ids: string[][];
	/** What the bank does not have: the cell, and how many are missing. */
	missing: { cell: PlanCell; count: number }[];
	minutes: number;
	/** Nothing better is possible; false: the time was over before that was proven. */
	isBest: boolean;
};

const YEAR_MS = 365 * 86_400_000;
/** What each fault of a choice costs; a question that is missing costs more than all others together. */
const COST = { missing: 1_000, known: 20, usedNow: 5, minute: 0.5 };

/**
 * Chooses questions for a plan: as many as each cell wants, each once; rather such that the same people do not meet again
 * and that have not been sat lately; with the wanted minutes as nearly as that allows. An integer program.
 * @param minutes how long what is chosen should take together; null: it does not matter
 * @param now to tell what was lately
 */
export async function fillPlan(
	bank: Choosable[],
	plan: PlanCell[],
	{ minutes, now, seconds }: { minutes: number | null; now: number; seconds?: number }
): Promise<Filled> {
	const least: Terms = new Map();
	const binary: string[] = [];
	const perCell = plan.map((): Terms => new Map());
	const perQuestion: Terms[] = [];
	const length: Terms = new Map();
	const chosen = new Map<string, { id: string; cell: number; minutes: number }>();
	bank.forEach((question, q) => {
		const terms: Terms = new Map();
		plan.forEach((cell, c) => {
			if (cell.count === 0 || !fitsCell(question, cell)) return;
			const variable = `x${q}_${c}`;
			chosen.set(variable, { id: question.id, cell: c, minutes: question.minutes });
			binary.push(variable);
			terms.set(variable, 1);
			perCell[c].set(variable, 1);
			length.set(variable, question.minutes);
			least.set(variable, costOf(question, now));
		});
		if (terms.size > 1) perQuestion.push(terms);
	});
	const constraints: Constraint[] = perQuestion.map((terms) => ({ terms, is: '<=', than: 1 }));
	plan.forEach((cell, c) => {
		const short = `short${c}`;
		least.set(short, COST.missing);
		constraints.push({ terms: new Map([...perCell[c], [short, 1]]), is: '=', than: cell.count });
	});
	if (minutes !== null && length.size > 0) {
		least.set('over', COST.minute).set('under', COST.minute);
		constraints.push({ terms: new Map([...length, ['over', -1], ['under', 1]]), is: '=', than: minutes });
	}
	const solved = await solve({ least, constraints, binary }, seconds);
	if (!solved) throw new RangeError('This plan could not be filled.');
	const taken = [...chosen].filter(([variable]) => solved.values(variable) > 0.5).map(([, one]) => one);
	const ids = plan.map((_, c) => taken.filter(({ cell }) => cell === c).map(({ id }) => id));
	return {
		ids,
		missing: plan.map((cell, c) => ({ cell, count: cell.count - ids[c].length })).filter(({ count }) => count > 0),
		minutes: taken.reduce((sum, one) => sum + one.minutes, 0),
		isBest: solved.isBest
	};
}

/** What choosing a question costs: nothing, unless the same people know it or it was sat within a year. */
export function costOf({ isKnown, lastUsed }: Pick<Choosable, 'isKnown' | 'lastUsed'>, now: number): number {
	const age = lastUsed === null ? 1 : Math.min(1, Math.max(0, (now - lastUsed) / YEAR_MS));
	return (isKnown ? COST.known : 0) + COST.usedNow * (1 - age);
}
