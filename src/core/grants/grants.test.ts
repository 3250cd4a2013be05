import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MINUTE, NEW_TRACK, NO_GRANTS, reckon, type TimingRules } from '../time';
import { effectInWords, mergeGrants, type Grant, type GrantBody, type GrantScope } from '.';

const PLACE = { candidateId: 'ann', administrationId: 'winter', paperId: 'tides', sessionId: 's1' };
const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
let count = 0;
const grant = (body: GrantBody, scope: GrantScope = { kind: 'standing' }, change: Partial<Grant> = {}): Grant => ({
	id: `g${count}`,
	candidateId: 'ann',
	scope,
	body,
	reason: '',
	givenBy: 'staff',
	givenAt: count++,
	withdrawnAt: null,
	...change
});
const merge = (...grants: Grant[]) => mergeGrants(grants, PLACE, 'Europe/London');
const extra = (factor: number, minutes = 0): GrantBody => ({ kind: 'extra_time', factor, minutes });

describe('merging', () => {
	it('takes the largest factor, adds minutes and credits', () => {
		const { grants } = merge(
			grant(extra(1.25)),
			grant(extra(1.5, 10)),
			grant(extra(1, 5), { kind: 'session', id: 's1' }),
			grant({ kind: 'credit', minutes: 7 }, { kind: 'session', id: 's1' }, { candidateId: null }),
			grant({ kind: 'credit', minutes: 3 })
		);
		expect(grants).toMatchObject({ factor: 1.5, extraMinutes: 15, creditsMinutes: 10 });
	});

	it('leaves out what was withdrawn, what is another’s and what reaches elsewhere', () => {
		const { grants, reasons } = merge(
			grant(extra(2), { kind: 'standing' }, { withdrawnAt: 9 }),
			grant(extra(2), { kind: 'standing' }, { candidateId: 'bob' }),
			grant(extra(2), { kind: 'session', id: 's2' }),
			grant(extra(2), { kind: 'paper', id: 'lights' }),
			grant(extra(2), { kind: 'administration', id: 'summer' })
		);
		expect(grants).toEqual(NO_GRANTS);
		expect(reasons).toEqual([]);
	});

	it('lets the narrower window win, and of two alike the later', () => {
		const window = (opens: string, closes: string): GrantBody => ({
			kind: 'own_window',
			opens: at(opens),
			closes: at(closes)
		});
		const wide = grant(window('13:00', '15:00'), { kind: 'administration', id: 'winter' });
		const first = grant(window('09:00', '10:30'), { kind: 'session', id: 's1' });
		const second = grant(window('09:30', '11:00'), { kind: 'session', id: 's1' });
		const result = mergeGrants([second, wide, first, grant(extra(1.5))], PLACE, 'Europe/London');
		expect(result.ownWindow).toEqual({ opens: at('09:30'), closes: at('11:00') });
		expect(result.reasons).toEqual(['time and a half, standing', 'own window 09:30 to 11:00, for this session']);
	});

	it('of two calculators the stronger is granted', () => {
		const tools = (calculator: 'basic' | 'scientific') => grant({ kind: 'tools', calculator });
		expect(merge().calculator).toBeNull();
		expect(merge(tools('basic'))).toMatchObject({ calculator: 'basic', reasons: ['a basic calculator, standing'] });
		expect(merge(tools('scientific'), tools('basic')).calculator).toBe('scientific');
	});

	it('aids are all there: what is read aloud, colours and lines at first, and what has no name here', () => {
		const given = [
			{ kind: 'read_aloud' },
			{ kind: 'aid', name: 'a bilingual dictionary' },
			{ kind: 'aid', name: 'a cushion' },
			{ kind: 'display', magnification: 1.5, contrast: false },
			{ kind: 'display', magnification: 1, contrast: false, colours: 'sand', spacing: 1.8, ruler: true }
		] as const;
		const merged = merge(...given.map((body) => grant(body)));
		expect(merged).toMatchObject({
			readAloud: true,
			aids: ['a bilingual dictionary', 'a cushion'],
			display: { magnification: 1.5, contrast: false, colours: 'sand', spacing: 1.8, ruler: true }
		});
		expect(merged.reasons.join()).toContain('soft colours, wider lines, a reading ruler');
	});

	it('does not depend on the order of multipliers, minutes and credits', () => {
		const anyGrant = fc.oneof(
			fc
				.record({ factor: fc.constantFrom(1, 1.25, 1.5, 2), minutes: fc.nat(30) })
				.map((e) => extra(e.factor, e.minutes)),
			fc.nat(20).map((minutes): GrantBody => ({ kind: 'credit', minutes }))
		);
		fc.assert(
			fc.property(fc.array(anyGrant, { maxLength: 8 }), (bodies) => {
				const all = bodies.map((body) => grant(body));
				expect(merge(...[...all].reverse()).grants).toEqual(merge(...all).grants);
			})
		);
	});
});

describe('the effect, told before saving', () => {
	const rules: TimingRules = {
		limitMinutes: 80,
		questionSeconds: null,
		endedBy: 'clock',
		clockStarts: 'candidate',
		clockStops: 'hold',
		atClose: 'finish',
		doorOpensMinutes: 15,
		lastEntryMinutes: 15,
		graceMinutes: 1,
		atTimeUp: 'hand_in',
		warnAtMinutes: [],
		maxLimitMinutes: null
	};
	const words = (body: GrantBody, change: Partial<TimingRules> = {}) => {
		const merged = merge(grant(body)).grants;
		const asked = { ...rules, ...change };
		const reckoning = reckon(asked, { opens: at('09:00'), closes: at('10:30') }, merged, NEW_TRACK, at('08:00'));
		return effectInWords(asked, merged, { reckoning, endedAt: null }, 'Europe/London');
	};

	it('names base, addition, total and end together', () => {
		expect(words(extra(1.25))).toBe('80 + 20 = 100 min, ends 10:55 at the latest');
		expect(words(extra(1, 10))).toBe('80 + 10 = 90 min, ends 10:45 at the latest');
		expect(words({ kind: 'credit', minutes: 7 })).toBe('80 min and 7 min given back, ends 10:42 at the latest');
	});

	it('says when the close or the cap takes some of it', () => {
		expect(words(extra(1.25), { atClose: 'cut' })).toBe('80 + 20 = 100 min, ends 10:30 at the latest');
		expect(words(extra(2), { maxLimitMinutes: 120 })).toBe(
			'80 + 40 = 120 min (the most the rules allow), ends 11:15 at the latest'
		);
	});

	it('knows the end of somebody who has begun from the clock, stops and all', () => {
		const stops = [{ from: at('09:20'), to: at('09:25'), why: 'hold' as const }];
		const track = { ...NEW_TRACK, beganAt: at('09:10'), clockStartedAt: at('09:10'), stops };
		const reckoning = reckon(rules, { opens: at('09:00'), closes: null }, NO_GRANTS, track, at('09:30'));
		expect(reckoning.latestFinish).toBe(at('09:10') + 85 * MINUTE);
	});
});
