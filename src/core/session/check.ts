import { checkLockdown } from './checks/lockdown';
import { checkPaper } from './checks/paper';
import { checkPeople } from './checks/people';
import { checkTime } from './checks/time';
import { checkQuestionTime } from './checks/question-time';
import type { SessionFacts } from './facts';
import type { Finding } from './finding';

const LEVELS: Record<Finding['level'], number> = { block: 0, warn: 1, info: 2 };

/** What can be told about a session before it is planned; what stops it comes first. */
export function checkSession(facts: SessionFacts, now: number): Finding[] {
	const found = [
		...checkPeople(facts),
		...checkTime(facts, now),
		...checkQuestionTime(facts),
		...checkLockdown(facts),
		...checkPaper(facts)
	];
	return found.sort((a, b) => LEVELS[a.level] - LEVELS[b.level]);
}
