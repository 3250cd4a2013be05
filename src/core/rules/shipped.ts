import { DEFAULT_RULES, type SessionRules } from '../session';

/** A rule sheet as Otium brings it along. */
export type ShippedSheet = { id: string; name: string; note: string; rules: SessionRules };

type Change = {
	[K in keyof SessionRules]?: SessionRules[K] extends object ? Partial<SessionRules[K]> : SessionRules[K];
};

function sheet(id: string, name: string, note: string, change: Change): ShippedSheet {
	const rules = { ...DEFAULT_RULES };
	for (const key of Object.keys(change) as (keyof SessionRules)[]) {
		const value = change[key];
		const isPart = typeof value === 'object' && value !== null;
		Object.assign(rules, { [key]: isPart ? { ...(DEFAULT_RULES[key] as object), ...value } : value });
	}
	return { id, name, note, rules };
}

/** The kinds of sitting that most houses have; each may be copied and changed. */
export const SHIPPED_SHEETS: ShippedSheet[] = [
	sheet(
		'certification',
		'Certification, sealed',
		'Examinations that decide something: a sealed client, a changing code, results when all have finished.',
		{
			timing: { clockStops: 'hold_or_lost' },
			door: { code: 'turning' },
			lockdown: { level: 'sealed', tablets: false, onLeaving: 'hold' },
			tools: { notes: false }
		}
	),
	sheet('class-test', 'Class test', 'A test in the lesson: watched, everyone starts together, scores the same day.', {
		timing: { limitMinutes: 45, clockStarts: 'room', atClose: 'cut', lastEntryMinutes: 10 },
		lockdown: { level: 'watched' },
		review: { shows: 'score', when: 'session_ended' }
	}),
	sheet(
		'open-book',
		'Open book',
		'Looking things up is part of it: all questions at once, and only the time is enforced.',
		{
			timing: { limitMinutes: 90, graceMinutes: 5 },
			movement: { shown: 'all' },
			tools: { calculator: 'scientific' }
		}
	),
	sheet(
		'remote',
		'Remote',
		'Candidates at home within a window: admission is automatic, with snapshots and one question at a time.',
		{
			timing: { lastEntryMinutes: null, clockStops: 'never' },
			admission: 'automatic',
			lockdown: { level: 'watched', snapshotSeconds: 60, onLeaving: 'hold' },
			movement: { goingBack: false },
			tools: { marking: false }
		}
	),
	sheet(
		'practice',
		'Practice',
		'To get to know the screens: no limit, right answers at once, as many attempts as wanted.',
		{
			timing: { limitMinutes: null, lastEntryMinutes: null, atTimeUp: 'stop' },
			admission: 'automatic',
			tools: { hints: true },
			attempts: { most: 20, counts: 'last' },
			review: { shows: 'key', when: 'at_once' }
		}
	)
];
