import type { RowProblem } from '../formats';
import type { ReadFile } from './file';

export type CheckedTable = NonNullable<ReadFile['table']>;

/** What a file would do, as it is shown: so many of each by name, and how many there are. */
export type CheckedFile = Omit<ReadFile, 'plan'> & {
	/** Of file, wishes and plan: what is applied must be what was shown. */
	seal: string;
	counts: { add: number; change: number; same: number; missing: number; problems: number };
	newGroups: string[];
	add: string[];
	change: { who: string; differences: string[] }[];
	missing: string[];
	problems: RowProblem[];
};
