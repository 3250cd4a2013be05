import { describe, expect, it } from 'vitest';
import {
	DEFAULT_RULES,
	applyFix,
	checkSession,
	completeRules,
	rulesSentence,
	sessionSentence,
	type SessionFacts,
	type SessionRules
} from '.';
import { MINUTE, setHourStyle } from '../time';

const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
type Change = Partial<Omit<SessionFacts, 'rules' | 'paper'>> & {
	paper?: Partial<SessionFacts['paper']>;
	rules?: { [K in keyof SessionRules]?: SessionRules[K] extends object ? Partial<SessionRules[K]> : SessionRules[K] };
};

/** As a time for each question needs it. */
const ONE_WAY = { movement: { goingBack: false }, tools: { marking: false } };

/** A session in which nothing is wrong, but for the change. */
function facts(change: Change = {}): SessionFacts {
	const rules = { ...DEFAULT_RULES };
	for (const [key, value] of Object.entries(change.rules ?? {})) {
		const part = rules[key as keyof SessionRules];
		Object.assign(rules, {
			[key]: typeof part === 'object' && part !== null ? { ...part, ...(value as object) } : value
		});
	}
	return {
		kind: 'live',
		groups: [{ name: 'Watch A', count: 29 }],
		candidates: 29,
		elsewhere: 0,
		trials: [],
		notOpen: [],
		languages: [{ tag: null, ids: [] }],
		room: { id: 'chart', name: 'Chart Room', seats: 30 },
		otherRooms: [],
		clashes: { room: null, candidates: [], proctors: [] },
		proctors: 1,
		zone: 'Europe/London',
		hours: { opens: '08:00', closes: '18:00' },
		days: { first: '2026-11-01', last: '2026-12-20' },
		window: { opens: at('09:00'), closes: at('10:15') },
		busyUntil: 0,
		extraTime: { count: 0, lastEnds: null, needs: [] },
		networks: { named: [], lost: 0, known: [] },
		siteHasClients: true,
		entitlement: { left: 100, needed: 29 },
		othersPending: 0,
		owing: 0,
		limitBeside: null,
		mayAllot: ['Maren Ode'],
		forPractice: [],
		goingOn: [],
		withoutClient: 0,
		withoutIdentity: [],
		withoutEmail: 0,
		...change,
		paper: {
			title: 'Tides and Currents',
			version: 3,
			questions: 40,
			isForPractice: false,
			allowed: true,
			withdrawn: null,
			forms: [],
			pools: [],
			newer: null,
			keepPlace: 0,
			languages: [{ tag: 'en', questions: 20 }],
			suggestedMinutes: 60,
			...change.paper
		},
		rules
	};
}
const FORMS: SessionFacts['paper']['forms'] = [
	{ name: 'A', questions: 20, points: 20 },
	{ name: 'B', questions: 20, points: 20 }
];
const sentence = (change: Change = {}) =>
	sessionSentence(facts(change), at('08:00'))
		.map((part) => part.text)
		.join('');
const found = (one: SessionFacts, now = at('08:00')) => checkSession(one, now);
const codes = (one: SessionFacts, now?: number) => found(one, now).map((finding) => `${finding.level} ${finding.code}`);

describe('the sentence', () => {
	it('names who, what, which version, where, when, in which zone and for how long', () => {
		expect(sentence()).toBe(
			'29 candidates of Watch A sit Tides and Currents (version 3) in the Chart Room on Tuesday 8 December at 09:00 GMT for 60 minutes (61 with grace), each from when they begin. The door opens at 08:45, last entry 09:15, and work can be begun until 10:15.'
		);
	});

	it('cannot be mistaken when it is no live session, and speaks of one as one', () => {
		const groups = [
			{ name: 'Watch A', count: 1 },
			{ name: 'Evening', count: 0 }
		];
		expect(sentence({ kind: 'rehearsal', candidates: 1, groups })).toMatch(
			/^Rehearsal, which does not count: 1 candidate of Watch A and Evening sits /
		);
		expect(sentence({ kind: 'make_up' })).toMatch(/^Make-up: 29 candidates/);
	});

	it('tells the other rules, and who has more time', () => {
		const change: Change = {
			extraTime: { count: 2, lastEnds: at('10:30'), needs: [] },
			rules: {
				timing: { clockStarts: 'room', atClose: 'cut', limitMinutes: null, lastEntryMinutes: null },
				lockdown: { level: 'sealed' }
			}
		};
		expect(sentence(change)).toContain(
			'with no time limit, all starting together, in a sealed client. The door opens at 08:45, last entry 10:15, and work ends for everyone at 10:15. 2 have extra time; the last finishes by 10:30.'
		);
		expect(sentence({ extraTime: { count: 1, lastEnds: null, needs: [] } })).toMatch(/One has extra time\.$/);
	});

	it('tells time in the room’s zone, also in summer', () => {
		const summer = Date.parse('2026-07-01T08:00:00Z');
		expect(sentence({ zone: 'Atlantic/Azores', window: { opens: summer, closes: summer + 75 * MINUTE } })).toContain(
			'on Wednesday 1 July at 08:00 GMT '
		);
	});
});

const person = { id: 'c1', name: 'Adaeze Obi' };
const clash = { person, with: 'Chartwork', from: at('10:00'), to: at('11:00') };
const needs = (minutes: number) => ({ count: 1, lastEnds: null, needs: [{ person, minutes }] });

describe('the rules in one breath', () => {
	it('say what ends the work, how one moves and what is seen', () => {
		expect(rulesSentence(DEFAULT_RULES)).toBe(
			'When time is up, work is handed in for them. One question at a time, back and forth. Afterwards they see nothing of the result here.'
		);
		expect(
			rulesSentence({
				...DEFAULT_RULES,
				timing: { ...DEFAULT_RULES.timing, limitMinutes: null },
				movement: { ...DEFAULT_RULES.movement, shown: 'pages', goingBack: false },
				review: { shows: 'score', when: 'session_ended' }
			})
		).toBe(
			'No time ends the work. 5 questions a page, and no way back. Afterwards they see their score when the session has ended.'
		);
	});
});

describe('what would go wrong on the day', () => {
	it('nothing, in a session that is right', () => expect(codes(facts())).toEqual([]));

	// Each code, what brings it about, and how it weighs. The K codes are combinations of settings that common practice
	// warns of; their numbers are Otium's own and stand in docs/findings.md.
	const cases: [string, Change][] = [
		['block nobody', { candidates: 0 }],
		['block seats', { candidates: 31 }],
		['block upside_down', { window: { opens: at('09:00'), closes: at('08:00') } }],
		['block days', { days: { first: '2026-11-01', last: '2026-12-07' } }],
		['warn hours', { hours: { opens: '09:30', closes: '18:00' } }],
		// Over midnight: its end reads earlier than its beginning.
		[
			'warn hours',
			{
				window: { opens: at('16:00'), closes: at('16:00') + 9 * 60 * MINUTE },
				hours: { opens: '09:00', closes: '18:00' }
			}
		],
		['warn K1', { rules: { timing: { atTimeUp: 'flag' } } }],
		['warn K2', { rules: { timing: { limitMinutes: null }, lockdown: { level: 'watched' } } }],
		['block K3', { rules: { timing: { atClose: 'cut', limitMinutes: 90 } } }],
		['block K3', { rules: { timing: { atClose: 'cut' } }, extraTime: needs(90) }],
		['warn K4', { rules: { timing: { atClose: 'cut', lastEntryMinutes: 30 } } }],
		['warn K5', { clashes: { room: null, candidates: [clash], proctors: [] } }],
		['warn K6', { rules: { lockdown: { level: 'watched', onLeaving: 'hand_in' } } }],
		['info K7', { rules: { timing: { clockStops: 'never' }, lockdown: { level: 'watched' } } }],
		['warn newer_version', { paper: { newer: { id: 'later', version: 4 } } }],
		['info K8', { paper: { keepPlace: 3 } }],
		['info K9', { rules: { order: { questionsInOwnOrder: false } } }],
		['block early_without_limit', { rules: { timing: { limitMinutes: null }, marking: { earlyMinutes: 10 } } }],
		['block early_at_once', { rules: { timing: { limitMinutes: 60 }, marking: { earlyMinutes: 60 } } }],
		['block K10', { paper: { pools: [{ title: 'Lights', draw: 2, of: 5, equalPoints: false }] } }],
		['block form_missing', { rules: { order: { forms: 'B' } } }],
		['block form_missing', { paper: { forms: FORMS }, rules: { order: { forms: 'C' } } }],
		['block forms_differ', { paper: { forms: [FORMS[0], { ...FORMS[1], points: 9 }] } }],
		['warn form_without_seat', { paper: { forms: FORMS }, candidates: 31, rules: { order: { forms: 'seat' } } }],
		['info form_by_one_group', { paper: { forms: FORMS }, rules: { order: { forms: 'group' } } }],
		['block K11', { paper: { pools: [{ title: 'Lights', draw: 6, of: 5, equalPoints: true }] } }],
		[
			'block K12',
			{ limitBeside: 60, rules: { timing: { questionSeconds: 90, clockStops: 'hold_or_lost' }, ...ONE_WAY } }
		],
		['block question_time_movement', { rules: { timing: { questionSeconds: 90, clockStops: 'hold_or_lost' } } }],
		[
			'block question_time_by_hand',
			{ rules: { timing: { questionSeconds: 90, endedBy: 'proctor', clockStarts: 'room' }, ...ONE_WAY } }
		],
		['warn question_time_lost', { rules: { timing: { questionSeconds: 90 }, ...ONE_WAY } }],
		['warn K13', { rules: { movement: { goingBack: false } } }],
		['warn K14', { rules: { movement: { goingBack: false, answerToGoOn: true } } }],
		[
			'block from_last',
			{
				rules: {
					attempts: { most: 3, startsFromLast: true },
					movement: { goingBack: false },
					tools: { marking: false }
				}
			}
		],
		['block K15', { othersPending: 2, rules: { review: { shows: 'key', when: 'at_once' } } }],
		[
			'block K16',
			{ rules: { attempts: { most: 2 }, timing: { lastEntryMinutes: null }, lockdown: { level: 'watched' } } }
		],
		['warn K17', { rules: { attempts: { most: 2 }, review: { shows: 'key' } } }],
		[
			'warn K19',
			{ rules: { lockdown: { level: 'sealed', tablets: false, alsoForReview: false }, review: { shows: 'score' } } }
		],
		['warn K20', { rules: { lockdown: { level: 'sealed', sites: ['https://tables.example'] } } }],
		['warn K21', { rules: { lockdown: { level: 'sealed' } } }],
		['info K21', { withoutClient: 2, rules: { lockdown: { level: 'sealed', tablets: false } } }],
		['info K23', { rules: { admission: 'automatic', startWord: 'halyard' } }],
		[
			'block K24',
			{
				rules: { admission: 'automatic', door: { networks: ['n1'] } },
				networks: { named: [{ id: 'n1', name: 'Labs' }], lost: 0, known: [] }
			}
		],
		['info K25', { rules: { lockdown: { snapshotSeconds: 60 } } }],
		[
			'warn K26',
			{
				languages: [
					{ tag: null, ids: ['a'] },
					{ tag: 'pt', ids: ['b'] }
				]
			}
		],
		['block K27', { languages: [{ tag: 'pt', ids: ['b'] }] }],
		['warn other_limit', { goingOn: [{ person, limitMinutes: 30 }], rules: { timing: { limitMinutes: 50 } } }],
		['warn K28', { rules: { timing: { clockStarts: 'room' } } }],
		['block K30', { entitlement: { left: 20, needed: 29 } }],
		['block K31', { rules: { admission: 'automatic', timing: { doorOpensMinutes: 120 } } }],
		['info K36', { rules: { attempts: { most: 2, counts: 'last' } } }],
		['warn K39', { rules: { review: { shows: 'score', when: 'at_once' }, lockdown: { level: 'sealed' } } }],
		['info K40', { rules: { lockdown: { level: 'sealed', tablets: false } } }],
		['warn K41', { rules: { admission: 'automatic' } }],
		['block K43', { rules: { tools: { hints: true }, lockdown: { level: 'watched' } } }],
		['block no_key', { siteHasClients: false, rules: { lockdown: { level: 'sealed' } } }],
		['block not_allowed', { paper: { allowed: false } }],
		['block withdrawn', { paper: { withdrawn: { why: 'A wrong key.', isChosen: false } } }],
		['warn withdrawn', { paper: { withdrawn: { why: 'A wrong key.', isChosen: true } } }],
		['block identity', { withoutIdentity: [person], rules: { door: { identity: 'names_and_birthday' } } }],
		['block no_slips', { rules: { door: { identity: 'slip' } } }],
		['block lost_network', { networks: { named: [], lost: 1, known: [] } }],
		['warn room_clash', { clashes: { room: 'Radio Procedure', candidates: [], proctors: [] } }],
		['warn proctor_clash', { clashes: { room: null, candidates: [], proctors: [{ name: 'Rhys', with: 'Radio' }] } }],
		['warn proctor', { proctors: 0 }],
		['info length', { rules: { timing: { limitMinutes: 20 } } }],
		['warn zero', { rules: { timing: { atTimeUp: 'zero' } } }],
		['warn entry_after_close', { rules: { timing: { lastEntryMinutes: 200 } } }]
	];
	it.each(cases)('%s', (wanted, change) => expect(codes(facts(change))).toContain(wanted));

	// What a fix sets in the rules is put back into the facts; the finding must then be gone.
	const inRules = (one: SessionFacts) =>
		found(one).flatMap((finding) =>
			finding.fixes
				.filter((fix) => Object.keys(fix.set).every((path) => path.startsWith('rules.')))
				.map((fix) => ({ finding, fix }))
		);
	it.each(cases.filter(([, change]) => inRules(facts(change)).length > 0))('a fix for %s ends it', (_, change) => {
		const one = facts(change);
		for (const { finding, fix } of inRules(one)) {
			const mended = applyFix(one, fix);
			mended.networks = { ...one.networks, lost: 0 };
			mended.limitBeside = one.limitBeside && mended.rules.timing.limitMinutes;
			expect(codes(mended), fix.text).not.toContain(`${finding.level} ${finding.code}`);
		}
	});

	it('a language is there when the whole paper is, by whichever region it is called', () => {
		const asked = (languages: SessionFacts['languages'], pt: number) =>
			found(
				facts({
					languages,
					paper: {
						languages: [
							{ tag: 'en', questions: 12 },
							{ tag: 'pt', questions: pt }
						]
					}
				})
			);
		const two = [
			{ tag: null, ids: ['a'] },
			{ tag: 'pt-PT', ids: ['b', 'c'] }
		];
		expect(asked(two, 12).map((one) => one.code)).toEqual(['K26']);
		const [partly] = asked(two, 3).filter((one) => one.code === 'K27');
		expect(partly.message).toBe(
			'2 ask for European Portuguese; the paper is there in English, and 3 of its 12 questions in European Portuguese.'
		);
		expect(partly.fixes).toEqual([{ text: 'without those 2', set: { only: ['a'] } }]);
		expect(asked([{ tag: 'en', ids: ['a'] }], 0)).toEqual([]);
	});

	it('a start that has passed: told when it is recent, refused when it is long ago', () => {
		const one = facts({ window: { opens: at('09:00'), closes: null } });
		expect(codes(one, at('09:30'))).toEqual(['warn late']);
		expect(codes(one, at('09:30') + 24 * 60 * MINUTE)).toEqual(['block past']);
	});

	it('a room that is too small: another room, two rooms, or two starts', () => {
		const texts = (otherRooms: SessionFacts['otherRooms']) =>
			found(facts({ candidates: 35, otherRooms }))[0].fixes.map((fix) => fix.text);
		expect(texts([{ id: 'boat', name: 'Boat Shed', seats: 40 }])).toEqual([
			'use the Boat Shed',
			'split at 09:00 and 10:30'
		]);
		expect(texts([{ id: 'quiet', name: 'Quiet Room', seats: 6 }])).toEqual([
			'share with the Quiet Room',
			'split at 09:00 and 10:30'
		]);
	});

	it('a window that ends too early is told with the time that is needed, as in the plan of a day', () => {
		const [finding] = found(
			facts({
				rules: { timing: { atClose: 'cut' } },
				window: { opens: at('10:30'), closes: at('11:30') },
				extraTime: needs(90)
			})
		);
		expect(finding.message).toBe('The window ends 11:30; Adaeze Obi needs until 12:00.');
		expect(finding.fixes.map((fix) => [fix.text, fix.set])).toEqual([
			['let those who began finish', { 'rules.timing.atClose': 'finish' }],
			['end at 12:00', { until: '12:00', untilDate: null }]
		]);
	});

	it('outside the hours or the dates: moved as little as that takes, and as long as it was', () => {
		const fixOf = (from: string, to: string | null, change: Change = {}) =>
			found(facts({ window: { opens: at(from), closes: to === null ? null : at(to) }, ...change }), at('00:00'))
				.filter((finding) => ['hours', 'days'].includes(finding.code))
				.flatMap((finding) => finding.fixes.map((fix) => fix.set));
		expect(fixOf('05:00', '06:30')).toEqual([{ time: '08:00', until: '09:30', untilDate: null }]);
		expect(fixOf('17:30', '19:00')).toEqual([{ time: '16:30', until: '18:00', untilDate: null }]);
		expect(fixOf('07:00', null)).toEqual([{ time: '08:00' }]);
		expect(fixOf('07:00', '19:00')).toEqual([]);
		expect(fixOf('09:00', '10:15')).toEqual([]);
		// How times are shown changes nothing that is checked or set.
		setHourStyle('12');
		expect(fixOf('05:00', '06:30')).toEqual([{ time: '08:00', until: '09:30', untilDate: null }]);
		expect(fixOf('09:00', '10:15')).toEqual([]);
		setHourStyle('24');
		const nextMorning = at('08:30') + 24 * 60 * MINUTE;
		const night = facts({ window: { opens: at('16:00'), closes: nextMorning } });
		expect(found(night, at('00:00')).find(({ code }) => code === 'hours')).toMatchObject({ level: 'warn', fixes: [] });
		expect(fixOf('09:00', '10:15', { days: { first: '2026-12-09', last: '2026-12-20' } })).toEqual([
			{ date: '2026-12-09' }
		]);
		expect(fixOf('09:00', '10:15', { days: { first: '2026-11-01', last: '2026-12-07' } })).toEqual([
			{ date: '2026-12-07' }
		]);
	});

	it('one press makes room for the limit and for everybody’s extra time', () => {
		const window = { opens: at('09:00'), closes: at('10:15') };
		const one = facts({ rules: { timing: { atClose: 'cut', limitMinutes: 90 } }, window, extraTime: needs(135) });
		const [finding] = found(one);
		expect(finding.message).toBe('The window is 75 minutes, the limit 90; with extra time the last need until 11:15.');
		expect(finding.fixes[1]).toEqual({ text: 'end at 11:15', set: { until: '11:15', untilDate: null } });
	});

	it('what stops planning comes first', () => {
		const levels = found(facts({ candidates: 0, paper: { keepPlace: 1 }, proctors: 0 })).map(
			(finding) => finding.level
		);
		expect(levels).toEqual(['block', 'warn', 'info']);
	});
});

describe('rules that were stored before', () => {
	it('are completed with the defaults, and keep what they say', () => {
		const stored = { timing: { ...DEFAULT_RULES.timing, limitMinutes: 45 }, shown: 'all' as const };
		const rules = completeRules(stored);
		expect(rules.timing.limitMinutes).toBe(45);
		expect(rules.movement).toEqual({ ...DEFAULT_RULES.movement, shown: 'all' });
		expect(rules.lockdown).toEqual(DEFAULT_RULES.lockdown);
	});
});
