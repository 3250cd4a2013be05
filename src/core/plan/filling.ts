import type { Question } from '../paper';
import type { PlanCell } from './cell';

/** What the bank would add to a paper so that its plan is met. `minutes`: how long that takes together. */
export type Filling = {
	questions: Question[];
	missing: { cell: PlanCell; count: number }[];
	minutes: number;
	isBest: boolean;
};
