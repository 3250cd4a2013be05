import { counted } from '../names';
import { siteAddress } from '../lockdown';
import type { Band } from '../marking';
import { FORM_LETTERS } from '../paper';
import type { SessionRules } from '../session';

// One list, and so one file however long it is: form, sheets, comparison, reading and words are all made from it.

/** What a setting can be, and so how it is entered and read. */
export type SettingKind =
	| { type: 'choice'; options: { value: string; text: string }[] }
	| { type: 'switch'; on: string; off: string }
	/** `empty` tells what no number means; without it a number is needed. */
	| { type: 'number'; unit: string; min: number; max: number; empty?: string; decimals?: number }
	| { type: 'numbers'; unit: string; min: number; max: number }
	| { type: 'word'; most: number }
	| { type: 'sites'; most: number }
	| { type: 'version' }
	| { type: 'networks' }
	| { type: 'bands'; most: number };

export type Section = 'Time' | 'Door' | 'Lockdown' | 'Paper' | 'Afterwards';

/** One setting: where it stands in the rules, what it is called and what it does. */
export type Setting = {
	path: string;
	section: Section;
	name: string;
	says: string;
	kind: SettingKind;
};

const minutes = (min: number, max: number, empty?: string): SettingKind => ({
	type: 'number',
	unit: 'min',
	min,
	max,
	empty
});
const choice = (options: Record<string, string>): SettingKind => ({
	type: 'choice',
	options: Object.entries(options).map(([value, text]) => ({ value, text }))
});
const yesNo = (on: string, off: string): SettingKind => ({ type: 'switch', on, off });

/** Every rule there is, in the order in which people meet them. Screens, comparisons and checks are made from this list. */
export const SETTINGS: Setting[] = [
	{
		path: 'timing.limitMinutes',
		section: 'Time',
		name: 'Limit',
		says: 'Working time for everyone without extra time.',
		kind: minutes(1, 1_440, 'no limit')
	},
	{
		path: 'timing.questionSeconds',
		section: 'Time',
		name: 'Time for each question',
		says: 'Instead of one limit. When it is up the next question comes, and nobody goes back. Extra time lengthens each.',
		kind: { type: 'number', unit: 's', min: 10, max: 3_600, empty: 'none' }
	},
	{
		path: 'timing.endedBy',
		section: 'Time',
		name: 'Who ends it',
		says: 'By hand: the proctor ends the paper for all at once, and those with extra time go on for as much longer as they are due. The limit is then what is planned.',
		kind: choice({ clock: 'each one’s clock', proctor: 'the proctor, by hand' })
	},
	{
		path: 'timing.clockStarts',
		section: 'Time',
		name: 'Clock starts',
		says: 'Together: everyone stops at the same time, so people who come late have less.',
		kind: choice({ candidate: 'for each, when they begin', room: 'for all together' })
	},
	{
		path: 'timing.clockStops',
		section: 'Time',
		name: 'Clock stops',
		says: 'Whether a hold or a lost connection costs the candidate time.',
		kind: choice({ never: 'never', hold: 'on hold', hold_or_lost: 'on hold and when the connection is lost' })
	},
	{
		path: 'timing.atClose',
		section: 'Time',
		name: 'At the close',
		says: 'Whether people still working when the window closes are stopped or may finish.',
		kind: choice({ finish: 'may finish', cut: 'stopped' })
	},
	{
		path: 'timing.graceMinutes',
		section: 'Time',
		name: 'Grace',
		says: 'Extra minutes after the limit to finish and hand in. Answers in them are marked late.',
		kind: minutes(0, 60)
	},
	{
		path: 'timing.atTimeUp',
		section: 'Time',
		name: 'When time is up',
		says: 'What happens to work that has not been handed in.',
		kind: choice({
			hand_in: 'handed in for them',
			stop: 'no more answers, they hand in',
			flag: 'may continue; answers are marked late',
			zero: 'not scored'
		})
	},
	{
		path: 'timing.warnAtMinutes',
		section: 'Time',
		name: 'Warnings',
		says: 'Shown once, this many minutes before the end.',
		kind: { type: 'numbers', unit: 'min', min: 1, max: 240 }
	},
	{
		path: 'pauses.most',
		section: 'Time',
		name: 'Pauses of their own',
		says: 'How many pauses everyone may take when they like. Breaks that were granted come on top.',
		kind: { type: 'number', unit: 'at most', min: 0, max: 10 }
	},
	{
		path: 'pauses.minutes',
		section: 'Time',
		name: 'A pause lasts',
		says: 'The paper is hidden meanwhile, and comes back after this long at the latest.',
		kind: minutes(1, 60)
	},
	{
		path: 'pauses.stopsClock',
		section: 'Time',
		name: 'Clock in a pause',
		says: 'Careful: a stopped clock is time to look things up.',
		kind: yesNo('stopped', 'runs on')
	},
	{
		path: 'timing.maxLimitMinutes',
		section: 'Time',
		name: 'Longest limit',
		says: 'The most working time anyone can have, extra time included.',
		kind: minutes(1, 1_440, 'none')
	},
	{
		path: 'timing.doorOpensMinutes',
		section: 'Door',
		name: 'Door opens',
		says: 'How long before the start the door opens. Until then candidates see a countdown.',
		kind: minutes(0, 240)
	},
	{
		path: 'timing.lastEntryMinutes',
		section: 'Door',
		name: 'Last entry',
		says: 'How long after the start people may still enter. An own window has its own last entry.',
		kind: minutes(0, 1_440, 'until it closes')
	},
	{
		path: 'admission',
		section: 'Door',
		name: 'Admission',
		says: 'Automatic suits remote sessions. In a room, let the proctor check each person.',
		kind: choice({ proctor: 'by the proctor', automatic: 'automatic' })
	},
	{
		path: 'door.code',
		section: 'Door',
		name: 'Door code',
		says: 'A changing code makes a photo of the board useless.',
		kind: choice({ fixed: 'same all day', turning: 'changes every few minutes' })
	},
	{
		path: 'door.turnsEveryMinutes',
		section: 'Door',
		name: 'Changes every',
		says: 'Only with a changing code.',
		kind: minutes(1, 60)
	},
	{
		path: 'door.identity',
		section: 'Door',
		name: 'Identity',
		says: 'What candidates enter besides the code. Capitals, accents and spaces in names do not matter.',
		kind: choice({
			number_and_family: 'number and family name',
			names_and_birthday: 'both names and birthday',
			slip: 'their slip'
		})
	},
	{
		path: 'door.slips',
		section: 'Door',
		name: 'Slips',
		says: 'A code for each candidate, printed or sent, that lets in only them.',
		kind: yesNo('printed', 'none')
	},
	{
		path: 'door.checklist',
		section: 'Door',
		name: 'Device check',
		says: 'A short list at the door: sound, connection, screen, and whatever else this session needs.',
		kind: choice({ none: 'not asked for', offered: 'optional', needed: 'required before starting' })
	},
	{
		path: 'door.networks',
		section: 'Door',
		name: 'Networks',
		says: 'People can enter only from these networks.',
		kind: { type: 'networks' }
	},
	{
		path: 'elsewhere.admission',
		section: 'Door',
		name: 'Admission, elsewhere',
		says: 'For people who do not sit in the room; who that is stands on their page under People.',
		kind: choice({ proctor: 'by the proctor', automatic: 'automatic' })
	},
	{
		path: 'elsewhere.anyNetwork',
		section: 'Door',
		name: 'Networks, elsewhere',
		says: 'Whether people who do not sit in the room may enter from anywhere.',
		kind: yesNo('any', 'only those named')
	},
	{
		path: 'door.shownDaysBefore',
		section: 'Door',
		name: 'Shown to candidates',
		says: 'How many days before they see it on their own page.',
		kind: { type: 'number', unit: 'days before', min: 0, max: 365, empty: 'once planned' }
	},
	{
		path: 'door.photoOnPaper',
		section: 'Door',
		name: 'Photo while they work',
		says: 'The candidate’s photo, where there is one, stays beside their name, so that a swap is seen from the aisle.',
		kind: yesNo('shown', 'not shown')
	},
	{
		path: 'startWord',
		section: 'Door',
		name: 'Start word',
		says: 'Read out in the room, so that nobody elsewhere can start.',
		kind: { type: 'word', most: 40 }
	},
	{
		path: 'finishWord',
		section: 'Door',
		name: 'Finish word',
		says: 'Read out in the room, so that nobody hands in early or by accident.',
		kind: { type: 'word', most: 40 }
	},
	{
		path: 'lockdown.level',
		section: 'Lockdown',
		name: 'Lockdown',
		says: 'Open enforces nothing. Watched asks for full screen and records leaving it. Sealed lets in only the sealed client.',
		kind: choice({ open: 'open', watched: 'watched', sealed: 'sealed' })
	},
	{
		path: 'lockdown.leavingsAllowed',
		section: 'Lockdown',
		name: 'May leave',
		says: 'How often someone may leave the screen before the next rule applies.',
		kind: { type: 'number', unit: 'times', min: 0, max: 20 }
	},
	{
		path: 'lockdown.onLeaving',
		section: 'Lockdown',
		name: 'On leaving',
		says: 'Careful: handing in on leaving also ends the exam of someone who only loses the connection.',
		kind: choice({ warn: 'warned', hold: 'put on hold', hand_in: 'handed in' })
	},
	{
		path: 'comingBack',
		section: 'Lockdown',
		name: 'Coming back',
		says: 'What somebody needs who closed or reloaded the paper. Careful: where it is not possible, a device that fails ends the exam.',
		kind: choice({ free: 'nothing', released: 'the proctor’s release', never: 'not possible' })
	},
	{
		path: 'lockdown.clientVersion',
		section: 'Lockdown',
		name: 'Minimum client version',
		says: 'Older clients are shown how to update.',
		kind: { type: 'version' }
	},
	{
		path: 'lockdown.sites',
		section: 'Lockdown',
		name: 'Sites allowed',
		says: 'Websites that stay open. Each one weakens the lock.',
		kind: { type: 'sites', most: 20 }
	},
	{
		path: 'lockdown.printing',
		section: 'Lockdown',
		name: 'Printing',
		says: 'Whether the paper may be printed.',
		kind: yesNo('allowed', 'not allowed')
	},
	{
		path: 'lockdown.tablets',
		section: 'Lockdown',
		name: 'Tablets',
		says: 'Whether a watched or sealed paper may be sat on one. No sealed client runs on tablets.',
		kind: yesNo('allowed', 'not allowed')
	},
	{
		path: 'lockdown.alsoForReview',
		section: 'Lockdown',
		name: 'Review',
		says: 'Whether the lockdown also applies when results are reviewed.',
		kind: yesNo('locked as well', 'open')
	},
	{
		path: 'lockdown.snapshotSeconds',
		section: 'Lockdown',
		name: 'Snapshots',
		says: 'A picture from the camera at this interval.',
		kind: { type: 'number', unit: 's', min: 10, max: 3_600, empty: 'none' }
	},
	{
		path: 'elsewhere.snapshotSeconds',
		section: 'Lockdown',
		name: 'Snapshots, elsewhere',
		says: 'A picture at this interval of people who do not sit in the room.',
		kind: { type: 'number', unit: 's', min: 10, max: 3_600, empty: 'as in the room' }
	},
	{
		path: 'lockdown.snapshotDays',
		section: 'Lockdown',
		name: 'Snapshots are kept',
		says: 'After that they are deleted automatically.',
		kind: { type: 'number', unit: 'days', min: 1, max: 730 }
	},
	{
		path: 'movement.shown',
		section: 'Paper',
		name: 'Questions',
		says: 'How many are shown at once.',
		kind: choice({ one: 'one at a time', pages: 'in pages', all: 'all on one page' })
	},
	{
		path: 'movement.perPage',
		section: 'Paper',
		name: 'A page holds',
		says: 'Only when shown in pages.',
		kind: { type: 'number', unit: 'questions', min: 2, max: 50 }
	},
	{
		path: 'movement.goingBack',
		section: 'Paper',
		name: 'Going back',
		says: 'If off, people cannot return to earlier questions: harder to look things up, impossible to correct. The next page needs the connection.',
		kind: yesNo('allowed', 'not allowed')
	},
	{
		path: 'movement.answerToGoOn',
		section: 'Paper',
		name: 'Answer required to continue',
		says: 'Whether each question must be answered before the next is shown.',
		kind: yesNo('must answer', 'may leave blank')
	},
	{
		path: 'movement.answerAll',
		section: 'Paper',
		name: 'Answers required to hand in',
		says: 'Whether all must be answered before handing in.',
		kind: yesNo('must answer all', 'blanks allowed')
	},
	{
		path: 'order.questionsInOwnOrder',
		section: 'Paper',
		name: 'Order of questions',
		says: 'Own order: neighbours do not have the same question at the same time.',
		kind: yesNo('own', 'the paper’s')
	},
	{
		path: 'order.choicesInOwnOrder',
		section: 'Paper',
		name: 'Order of choices',
		says: 'Own order: passing on letters is no use. The questions themselves are not reshuffled by this.',
		kind: yesNo('own', 'the paper’s')
	},
	{
		path: 'order.forms',
		section: 'Paper',
		name: 'Which form each gets',
		says: 'Of a paper in several forms, which one each gets. By seat: next to each other, before and behind nobody has the same.',
		kind: choice({
			dealt: 'drawn for each',
			site: 'by site',
			group: 'by group',
			seat: 'by seat',
			...Object.fromEntries(FORM_LETTERS.map((letter) => [letter, `form ${letter} for all`]))
		})
	},
	{
		path: 'pace.watched',
		section: 'Paper',
		name: 'Pace',
		says: 'Shows the proctor whose answers come faster than anyone can read.',
		kind: yesNo('watched', 'not watched')
	},
	{
		path: 'pace.holds',
		section: 'Paper',
		name: 'Pause when rushing',
		says: 'After five such answers in a row the paper pauses automatically, with the clock stopped, until the proctor comes.',
		kind: yesNo('automatic', 'by the proctor')
	},
	{
		path: 'tools.calculator',
		section: 'Paper',
		name: 'Calculator',
		says: 'On the candidate’s screen.',
		kind: choice({ none: 'none', basic: 'basic', scientific: 'scientific' })
	},
	{
		path: 'tools.marking',
		section: 'Paper',
		name: 'Mark for later',
		says: 'Of no use where nobody can go back.',
		kind: yesNo('offered', 'none')
	},
	{
		path: 'tools.notes',
		section: 'Paper',
		name: 'Notes',
		says: 'Scratch space, kept with the sitting.',
		kind: yesNo('offered', 'none')
	},
	{
		path: 'tools.striking',
		section: 'Paper',
		name: 'Striking out',
		says: 'Choices that somebody has ruled out can be struck through.',
		kind: yesNo('offered', 'none')
	},
	{
		path: 'tools.readAloud',
		section: 'Paper',
		name: 'Read aloud',
		says: 'By the device’s own voice, where it has one. Switch it off where reading is what is tested.',
		kind: yesNo('offered', 'none')
	},
	{
		path: 'tools.hints',
		section: 'Paper',
		name: 'Hints',
		says: 'For practice.',
		kind: yesNo('shown', 'none')
	},
	{
		path: 'marking.wrong',
		section: 'Paper',
		name: 'Wrong answers',
		says: 'What a wrong answer costs. Candidates are told before they begin; a blank never costs anything.',
		kind: choice({ free: 'cost nothing', fixed: 'cost a fixed amount', guessing: 'corrected for guessing' })
	},
	{
		path: 'marking.points',
		section: 'Paper',
		name: 'A wrong answer costs',
		says: 'Where wrong answers cost a fixed amount.',
		kind: { type: 'number', unit: 'points', min: 0.01, max: 10, decimals: 2 }
	},
	{
		path: 'marking.earlyMinutes',
		section: 'Paper',
		name: 'Points for handing in early',
		says: 'With at least so much of one’s own time left, as reckoned for each candidate. Candidates are told before they begin.',
		kind: { type: 'number', unit: 'min', min: 1, max: 600, empty: 'none' }
	},
	{
		path: 'marking.earlyPoints',
		section: 'Paper',
		name: 'Handing in early gives',
		says: 'Beyond the points of the paper.',
		kind: { type: 'number', unit: 'points', min: 0.01, max: 20, decimals: 2 }
	},
	{
		path: 'attempts.most',
		section: 'Afterwards',
		name: 'Attempts',
		says: 'How often the paper may be sat.',
		kind: { type: 'number', unit: 'at most', min: 1, max: 20 }
	},
	{
		path: 'attempts.counts',
		section: 'Afterwards',
		name: 'Which counts',
		says: 'All attempts are kept, whichever counts.',
		kind: choice({ highest: 'the highest', mean: 'the mean', first: 'the first', last: 'the last' })
	},
	{
		path: 'attempts.waitMinutes',
		section: 'Afterwards',
		name: 'Wait before the second',
		says: 'Prevents series of guesses.',
		kind: minutes(0, 43_200)
	},
	{
		path: 'attempts.laterWaitMinutes',
		section: 'Afterwards',
		name: 'Wait before any later one',
		says: 'May be longer than the first wait.',
		kind: minutes(0, 43_200)
	},
	{
		path: 'attempts.startsFromLast',
		section: 'Afterwards',
		name: 'A further attempt',
		says: 'For practice: what was answered before stands there already. Only where everyone has the same questions.',
		kind: yesNo('begins from the last', 'begins empty')
	},
	{
		path: 'review.shows',
		section: 'Afterwards',
		name: 'Candidates see',
		says: 'After handing in.',
		kind: choice({ nothing: 'nothing', score: 'their score', own_answers: 'their answers', key: 'the right answers' })
	},
	{
		path: 'review.when',
		section: 'Afterwards',
		name: 'From when',
		says: 'The right answers always wait until nobody in the administration can still sit the paper.',
		kind: choice({
			at_once: 'at once',
			session_ended: 'when the session has ended',
			all_finished: 'when all have finished'
		})
	},
	{
		path: 'result.passPercent',
		section: 'Afterwards',
		name: 'Pass mark',
		says: 'In per cent of the points.',
		kind: { type: 'number', unit: '%', min: 0, max: 100, empty: 'none' }
	},
	{
		path: 'result.creditPercent',
		section: 'Afterwards',
		name: 'A topic is credited',
		says: 'From this share of its points on. 80 is common practice; results by topic say which are.',
		kind: { type: 'number', unit: '%', min: 1, max: 100 }
	},
	{
		path: 'result.bands',
		section: 'Afterwards',
		name: 'Bands',
		says: 'One line per band, starting with its lowest per cent: 80 Merit: Well done. Candidates who see their score see its band.',
		kind: { type: 'bands', most: 12 }
	}
];

export const SECTIONS: Section[] = ['Time', 'Door', 'Lockdown', 'Paper', 'Afterwards'];

type Tree = Record<string, unknown>;

/** The value at a path like `timing.limitMinutes`. */
export function valueAt(rules: SessionRules, path: string): unknown {
	return path.split('.').reduce<unknown>((part, key) => (part as Tree | undefined)?.[key], rules);
}

/** The same rules with another value at a path. */
export function withValue(rules: SessionRules, path: string, value: unknown): SessionRules {
	const [key, inner] = path.split('.');
	if (inner === undefined) return { ...rules, [key]: value };
	return { ...rules, [key]: { ...((rules as unknown as Tree)[key] as Tree), [inner]: value } };
}

/** A value as people read it: `60 min`, `no limit`, `sealed`. */
export function valueInWords(setting: Setting, value: unknown, networkNames: Map<string, string> = new Map()): string {
	const { kind } = setting;
	switch (kind.type) {
		case 'choice':
			return kind.options.find((option) => option.value === value)?.text ?? String(value);
		case 'switch':
			return value ? kind.on : kind.off;
		case 'number':
			return value === null ? kind.empty! : kind.unit === 'at most' ? String(value) : `${value} ${kind.unit}`;
		case 'numbers':
			return (value as number[]).length === 0 ? 'none' : `${(value as number[]).join(', ')} ${kind.unit}`;
		case 'sites':
			return (value as string[]).join(', ') || 'none';
		case 'bands':
			return (value as Band[]).map((band) => `${band.name} from ${band.fromPercent} %`).join(', ') || 'none';
		case 'networks':
			return (value as string[]).map((id) => networkNames.get(id) ?? 'a network that is gone').join(', ') || 'anywhere';
		default:
			return value === null || value === '' ? 'none' : String(value);
	}
}

/** What is wrong with a value, and what would work; null: nothing. */
export function faultOf(setting: Setting, value: unknown): string | null {
	const { kind, name } = setting;
	const isWhole = (one: unknown): one is number => typeof one === 'number' && Number.isInteger(one);
	switch (kind.type) {
		case 'choice':
			return kind.options.some((option) => option.value === value) ? null : `${name}: choose one from the list.`;
		case 'switch':
			return typeof value === 'boolean' ? null : `${name}: yes or no.`;
		case 'number':
			if (value === null && kind.empty !== undefined) return null;
			if (kind.decimals === undefined && !isWhole(value))
				return `${name}: a whole number${kind.empty ? `, or empty for ${kind.empty}` : ''}.`;
			if (!hasDecimals(value, kind.decimals ?? 0)) return `${name}: a number like ${kind.min} or 0.25.`;
			return value >= kind.min && value <= kind.max ? null : `${name}: between ${kind.min} and ${kind.max}.`;
		case 'numbers': {
			const list = Array.isArray(value) ? value : null;
			const right = list && list.length <= 6 && list.every((one) => isWhole(one) && one >= kind.min && one <= kind.max);
			return right ? null : `${name}: up to six whole numbers between ${kind.min} and ${kind.max}, like 10, 5, 1.`;
		}
		case 'word':
			if (value === null) return null;
			return typeof value === 'string' && value.trim() !== '' && value.length <= kind.most
				? null
				: `${name}: a word of at most ${kind.most} letters.`;
		case 'version':
			return typeof value === 'string' && /^\d{1,4}(\.\d{1,4}){0,2}$/.test(value)
				? null
				: `${name}: a version like 2.1.`;
		case 'bands': {
			const list = Array.isArray(value) ? value : [];
			if (!Array.isArray(value) || list.length > kind.most) return `${name}: at most ${kind.most}.`;
			const wrong = list.find((band) => !isBand(band));
			if (wrong !== undefined)
				return `${name}: ${typeof wrong === 'string' ? `“${wrong}”` : 'one'} can’t be read. Write a line like 80 Merit: Well done.`;
			const marks = new Set(list.map((band: Band) => band.fromPercent));
			return marks.size === list.length ? null : `${name}: two begin at the same mark.`;
		}
		case 'sites':
		case 'networks': {
			const most = kind.type === 'sites' ? kind.most : 50;
			const isList =
				Array.isArray(value) &&
				value.length <= most &&
				value.every((one) => typeof one === 'string' && one.length <= 200);
			if (!isList) return `${name}: at most ${counted(most, 'entry', 'entries')}.`;
			const wrong = kind.type === 'sites' && (value as string[]).find((one) => siteAddress(one) === null);
			return wrong
				? `${name}: “${wrong}” is not an address. Write tides.example.org, or https://tides.example.org/tables.`
				: null;
		}
	}
}

/** A number with no more than so many decimals. */
function hasDecimals(value: unknown, most: number): value is number {
	return typeof value === 'number' && Number.isFinite(value) && Number(value.toFixed(most)) === value;
}

function isBand(value: unknown): value is Band {
	if (typeof value !== 'object' || value === null) return false;
	const { fromPercent, name, message } = value as Record<string, unknown>;
	const isText = (text: unknown, most: number) => typeof text === 'string' && text.length <= most;
	return (
		Number.isInteger(fromPercent) &&
		(fromPercent as number) >= 0 &&
		(fromPercent as number) <= 100 &&
		isText(name, 40) &&
		name !== '' &&
		isText(message, 200)
	);
}

export type RuleFaults = Record<string, string>;

/** Reads rules that came from outside: every setting is checked, and nothing that is no setting gets in. */
export function readRules(
	given: unknown,
	base: SessionRules
): { ok: true; rules: SessionRules } | { ok: false; faults: RuleFaults } {
	const faults: RuleFaults = {};
	let rules = base;
	for (const setting of SETTINGS) {
		const value = valueAt((given ?? {}) as SessionRules, setting.path);
		if (value === undefined) continue;
		const fault = faultOf(setting, value);
		if (fault) faults[setting.path] = fault;
		else rules = withValue(rules, setting.path, typeof value === 'string' ? value.trim() : value);
	}
	return Object.keys(faults).length > 0 ? { ok: false, faults } : { ok: true, rules };
}

export type RuleDifference = { setting: Setting; before: unknown; after: unknown };

/** The settings in which two sets of rules differ. */
export function differingRules(before: SessionRules, after: SessionRules): RuleDifference[] {
	return SETTINGS.map((setting) => ({
		setting,
		before: valueAt(before, setting.path),
		after: valueAt(after, setting.path)
	})).filter(({ before, after }) => JSON.stringify(before) !== JSON.stringify(after));
}

/** Words that belong to one session, and networks that belong to one site: a sheet does not carry them over. */
const OWN = ['startWord', 'finishWord', 'door.networks'];

/** A sheet's rules as one session takes them. */
export function rulesFor(session: SessionRules, sheet: SessionRules): SessionRules {
	return OWN.reduce((rules, path) => withValue(rules, path, valueAt(session, path)), sheet);
}
