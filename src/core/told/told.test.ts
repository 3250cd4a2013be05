import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SETTINGS, withValue, type Setting } from '../rules';
import { DEFAULT_RULES, rulesElsewhere, type SessionRules } from '../session';
import { runs } from '../testing/runs';
import { MINUTE, minutesAndGrace, NEW_TRACK, NO_GRANTS, reckon } from '../time';
import { scheduleInWords, whatBinds } from '.';

const NINE = Date.parse('2026-12-08T09:00Z');
const HOUR = 3_600_000;
const told = (rules: SessionRules, closes: number | null = NINE + 2 * HOUR, networks: string[] = []) =>
	whatBinds({
		rules,
		window: { opens: NINE, closes },
		zone: 'Europe/London',
		networks,
		limitsCalculator: false,
		own: null
	})
		.flatMap(({ lines }) => lines)
		.join('\n');

/** What binds nobody who sits: each with the reason why it is not told. */
const NOT_TOLD: Record<string, string> = {
	'timing.maxLimitMinutes': 'a cap on what may be granted; what one has is told',
	'order.forms': 'whose form is whose is no candidate’s affair',
	'door.shownDaysBefore': 'who reads this sees it already'
};

/** Rules under which a rule has something to say. */
function under(path: string): SessionRules {
	const base: SessionRules = {
		...DEFAULT_RULES,
		lockdown: { ...DEFAULT_RULES.lockdown, level: 'watched', snapshotSeconds: 60 },
		movement: { ...DEFAULT_RULES.movement, shown: 'pages' },
		attempts: { ...DEFAULT_RULES.attempts, most: 4 },
		pauses: { ...DEFAULT_RULES.pauses, most: 2 },
		review: { shows: 'score', when: 'session_ended' },
		door: { ...DEFAULT_RULES.door, code: 'turning' },
		marking: { wrong: 'fixed', points: 0.25, earlyMinutes: 10, earlyPoints: 1 }
	};
	return path === 'lockdown.clientVersion' ? { ...base, lockdown: { ...base.lockdown, level: 'sealed' } } : base;
}

function otherValue({ kind, path }: Setting, now: unknown): unknown {
	switch (kind.type) {
		case 'choice':
			return kind.options.map((option) => option.value).find((value) => value !== now);
		case 'switch':
			return !now;
		case 'number':
			return now === kind.max ? kind.min : kind.decimals ? 0.5 : Number(now ?? 0) + 1;
		case 'numbers':
			return [7];
		case 'word':
			return now === null ? 'halyard' : null;
		case 'sites':
			return ['tides.example.org'];
		case 'version':
			return '7.3';
		case 'networks':
			return ['n1'];
		case 'bands':
			return [{ fromPercent: 80, name: 'Merit', message: '' }];
		default:
			throw new Error(path);
	}
}

describe('what binds is told', () => {
	it.each(SETTINGS.map((setting) => [setting.path, setting] as const))('%s', (path, setting) => {
		const before = under(path);
		const now = path.split('.').reduce<unknown>((part, key) => (part as Record<string, unknown>)[key], before);
		const value = otherValue(setting, now);
		const after = withValue(before, path, value);
		const networks = path === 'door.networks' ? ['the Chart Room’s network'] : [];
		// What holds elsewhere is told to those who sit there.
		const isElsewhere = path.startsWith('elsewhere.');
		const base = { ...before, door: { ...before.door, networks: isElsewhere ? ['n1'] : [] } };
		const of = (rules: SessionRules) => (isElsewhere ? rulesElsewhere({ ...rules, door: base.door }) : rules);
		const named = (rules: SessionRules) => (isElsewhere ? rules.door.networks : networks);
		const isTold =
			told(of(after), NINE + 2 * HOUR, named(of(after))) !==
			told(of(base), NINE + 2 * HOUR, isElsewhere ? named(of(base)) : []);
		expect(isTold, `${path}: ${JSON.stringify(now)} to ${JSON.stringify(value)}`).toBe(!(path in NOT_TOLD));
	});

	it('says grace and total as one sum', () => {
		expect(minutesAndGrace(60, 2)).toBe('60 + 2 = 62 min');
		expect(minutesAndGrace(60, 0)).toBe('60 min');
		expect(told({ ...DEFAULT_RULES, timing: { ...DEFAULT_RULES.timing, graceMinutes: 2 } })).toContain(
			'You have 60 minutes, and 2 more to finish and hand in: 60 + 2 = 62 min in all.'
		);
	});

	it('does not speak of a lock that is not there, of going back where everything is on one page, or of a limit there is none', () => {
		const text = told(
			{
				...DEFAULT_RULES,
				movement: { ...DEFAULT_RULES.movement, shown: 'all', goingBack: false },
				timing: { ...DEFAULT_RULES.timing, limitMinutes: null, warnAtMinutes: [5] }
			},
			null
		);
		expect(text).not.toMatch(/leave|print|go back|warned|time is up|clock/);
		expect(text).toContain('There is no time limit.');
	});

	it('of warnings, of grace and of late answers only what comes when time goes on', () => {
		const timings = fc.record({
			limitMinutes: fc.option(fc.integer({ min: 1, max: 30 })),
			clockStarts: fc.constantFrom('candidate' as const, 'room' as const),
			endedBy: fc.constantFrom('clock' as const, 'proctor' as const),
			atClose: fc.constantFrom('cut' as const, 'finish' as const),
			graceMinutes: fc.integer({ min: 0, max: 2 }),
			warnAtMinutes: fc.subarray([10, 5, 1]),
			maxLimitMinutes: fc.option(fc.integer({ min: 2, max: 20 })),
			closes: fc.option(fc.constantFrom(NINE + HOUR, NINE + 2 * HOUR))
		});
		fc.assert(
			fc.property(timings, ({ closes, ...change }) => {
				const timing = {
					...DEFAULT_RULES.timing,
					...change,
					...(change.endedBy === 'proctor' ? { clockStarts: 'room' as const } : {})
				};
				const text = told({ ...DEFAULT_RULES, timing }, closes);
				// Somebody begins with the room at nine, and works until all is over; the proctor ends it after twenty minutes.
				const track = { ...NEW_TRACK, roomStartedAt: NINE, beganAt: NINE, clockStartedAt: NINE };
				const due = new Set<number>();
				let late = false;
				for (let now = NINE; now <= NINE + 3 * HOUR; now += MINUTE / 2) {
					const timeCalledAt = timing.endedBy === 'proctor' && now >= NINE + HOUR / 3 ? NINE + HOUR / 3 : null;
					const here = reckon(timing, { opens: NINE, closes }, NO_GRANTS, { ...track, timeCalledAt }, now);
					for (const warning of here.warnings) if (warning.due) due.add(warning.minutes);
					late ||= here.phase === 'grace';
				}
				const warned = /You are warned (.*?) minutes? before/.exec(text)?.[1].match(/\d+/g) ?? [];
				expect(warned.map(Number).sort()).toEqual([...due].sort());
				expect(/marked late/.test(text)).toBe(late);
				if (timing.clockStarts === 'room') expect(text).not.toContain('You can begin until');
			}),
			{ numRuns: runs(150) }
		);
	});

	it('tells a window over days with its last day, time and zone', () => {
		expect(told(DEFAULT_RULES, Date.parse('2026-12-11T17:00Z'))).toContain(
			'It is open until Friday 11 December, 17:00 GMT.'
		);
	});

	it('tells what one has oneself where that is more', () => {
		const own = {
			minutes: 90,
			questionSeconds: null,
			breaks: { count: 2, minutes: 10 },
			calculator: 'basic' as const,
			extraAttempts: 1,
			goesOnWith: null
		};
		const window = { opens: NINE, closes: NINE + 2 * HOUR };
		const text = whatBinds({
			rules: DEFAULT_RULES,
			window,
			zone: 'Europe/London',
			networks: [],
			limitsCalculator: false,
			own
		})
			.flatMap(({ lines }) => lines)
			.join('\n');
		expect(text).toContain('You have 90 minutes, and 1 more to finish and hand in: 90 + 1 = 91 min in all.');
		expect(text).toContain('You were given 2 breaks of 10 minutes; the clock stops during a break.');
		expect(text).toContain('a basic calculator');
		expect(text).toContain('You may sit it 2 times; the best one counts.');
	});
});

describe('the kinds of schedule', () => {
	const schedule = (timing: Partial<SessionRules['timing']>) =>
		scheduleInWords({ timing: { ...DEFAULT_RULES.timing, ...timing } });
	it('are told in a line each, with what an interruption costs', () => {
		expect(schedule({ clockStarts: 'room', clockStops: 'never' })).toBe(
			'Fixed: all start and end together. A hold or a lost connection costs time, which the proctor can give back.'
		);
		expect(schedule({ clockStops: 'never' })).toMatch(/^Own clock: .* the clock never stops\./);
		expect(schedule({ clockStops: 'hold_or_lost' })).toBe(
			'Own time: any start in the window, and everyone has the full time. Neither a hold nor a lost connection costs time.'
		);
		expect(schedule({ endedBy: 'proctor' })).toMatch(/^By hand/);
	});
});
