import { expect, test, type Page } from '@playwright/test';
import { applyFix, DEFAULT_RULES, type Fix } from '../src/core/session';
import { go, house } from './house';

const home = house();
const TOMORROW = new Date(Date.now() + 24 * 3_600_000).toISOString().slice(0, 10);

type Rules = { [K in keyof typeof DEFAULT_RULES]?: object | string };
/** What is entered beside a session in which nothing is wrong. */
type Entered = {
	rules?: Rules;
	until?: string;
	time?: string;
	groups?: string[];
	room?: string;
	noProctor?: true;
	networks?: 'first' | 'gone';
};

/**
 * Each code with what brings it about in the form. What each code means stands in docs/findings.md; the codes that follow
 * from other people's data (clashes, allotments, pools, allowed papers) come last, with what brings them about.
 */
const ENTERED: Record<string, Entered> = {
	K1: { rules: { timing: { atTimeUp: 'flag' } } },
	K2: { rules: { timing: { limitMinutes: null }, lockdown: { level: 'watched' } } },
	K3: { rules: { timing: { atClose: 'cut', limitMinutes: 90 } } },
	K4: { rules: { timing: { atClose: 'cut', lastEntryMinutes: 30 } } },
	K6: { rules: { lockdown: { level: 'watched', onLeaving: 'hand_in' } } },
	K9: { rules: { order: { questionsInOwnOrder: false } } },
	K13: { rules: { movement: { goingBack: false } } },
	K14: { rules: { movement: { goingBack: false, answerToGoOn: true } } },
	K15: { rules: { review: { shows: 'key', when: 'at_once' } } },
	K16: { rules: { attempts: { most: 2 }, timing: { lastEntryMinutes: null }, lockdown: { level: 'watched' } } },
	K17: { rules: { attempts: { most: 2 }, review: { shows: 'key' } } },
	K19: { rules: { lockdown: { level: 'sealed', tablets: false, alsoForReview: false }, review: { shows: 'score' } } },
	K20: { rules: { lockdown: { level: 'sealed', sites: ['https://tables.example'] } } },
	K21: { rules: { lockdown: { level: 'sealed' } } },
	K28: { rules: { timing: { clockStarts: 'room' } } },
	K31: { rules: { admission: 'automatic', timing: { doorOpensMinutes: 120 } } },
	K36: { rules: { attempts: { most: 2, counts: 'last' } } },
	K39: { rules: { review: { shows: 'score', when: 'at_once' }, lockdown: { level: 'sealed' } } },
	K43: { rules: { tools: { hints: true }, lockdown: { level: 'watched' } } },
	zero: { rules: { timing: { atTimeUp: 'zero' } } },
	entry_after_close: { rules: { timing: { lastEntryMinutes: 200 } } },
	seats: { groups: ['Watch B', 'Second Years'], room: 'Signal Loft' },
	upside_down: { time: '11:00', until: '10:00' },
	hours: { time: '05:00', until: '06:30' }
};
/** Told so that it is known; there is nothing to mend. */
const ONLY_TOLD: Record<string, Entered> = {
	K7: { rules: { timing: { clockStops: 'never' }, lockdown: { level: 'watched' } } },
	K23: { rules: { admission: 'automatic', startWord: 'halyard' } },
	K25: { rules: { lockdown: { snapshotSeconds: 60 } } },
	K40: { rules: { lockdown: { level: 'sealed', tablets: false } } },
	K41: { rules: { admission: 'automatic' } },
	length: { rules: { timing: { limitMinutes: 300 } } },
	proctor: { noProctor: true }
};

/** What other people's data bring about: prepared in the house first. */
const PREPARED: [string, (db: Db) => Promise<unknown>, Entered, mends: boolean][] = [
	[
		'K5',
		async (db) =>
			db('commitment').insert({
				id: 'next-lesson',
				candidate_id: await someone(db),
				from_at: Date.parse(`${TOMORROW}T10:30Z`),
				to_at: Date.parse(`${TOMORROW}T11:30Z`),
				title: 'Next lesson'
			}),
		{ time: '10:00', until: '11:15' },
		true
	],
	['K24', async () => {}, { rules: { admission: 'automatic' }, networks: 'first' }, true],
	['lost_network', async () => {}, { networks: 'gone' }, true],
	[
		'identity',
		async (db) =>
			db('candidate')
				.where({ id: await someone(db) })
				.update({ birth: null }),
		{ rules: { door: { identity: 'names_and_birthday' } } },
		true
	],
	['no_slips', async () => {}, { rules: { door: { identity: 'slip' } } }, true],
	[
		'room_clash',
		async (db) => {
			const like = await db('session').where('name', 'like', 'Tides%').first();
			const [opens, closes] = ['09:00', '10:00'].map((time) => Date.parse(`${TOMORROW}T${time}Z`));
			await db('session').insert({
				...like,
				id: 'other',
				name: 'Other',
				opens,
				closes,
				ended_at: null,
				door_code: null
			});
			await db('session_proctor').insert({ session_id: 'other', staff_id: named.finch });
		},
		{},
		true
	],
	['proctor_clash', async () => {}, {}, false],
	[
		'K27',
		async (db) =>
			db('candidate')
				.where({ id: await someone(db) })
				.update({ language: 'pt' }),
		{},
		true
	],
	['K26', async () => {}, {}, true],
	[
		'K8',
		(db) => change(db, (part) => (part.questions.find((one) => one.choices)!.choices![3].text = 'All of the above')),
		{},
		false
	],
	['K11', (db) => change(db, (part) => (part.draw = 99)), {}, false],
	['K10', (db) => change(db, (part) => ((part.draw = 3), (part.questions[0].points = 7))), {}, false],
	['K30', (db) => db('entitlement').whereNotNull('site_id').update({ count: 0 }), {}, false],
	[
		'not_allowed',
		(db) =>
			db('paper_allowed')
				.where({ paper_id: named.papers.get('Coastal Navigation I') })
				.delete(),
		{},
		false
	]
];
type Part = { draw: number | null; questions: { points: number; choices?: { text: string }[] }[] };
/** Changes the first part of the paper. */
const change = async (db: Db, how: (part: Part) => unknown) => {
	const id = named.papers.get('Coastal Navigation I');
	const paper: { parts: Part[] } = JSON.parse((await db('paper').where({ id }).first('content')).content);
	how(paper.parts[0]);
	await db('paper')
		.where({ id })
		.update({ content: JSON.stringify(paper) });
};
type Db = Parameters<Parameters<typeof home.read>[0]>[0];
const someone = async (db: Db): Promise<string> =>
	(
		await db('candidate')
			.join('group_member', 'group_member.candidate_id', 'candidate.id')
			.where({ 'group_member.group_id': named.groups.get('Watch B') })
			.orderBy('number')
			.first('candidate.id')
	).id;

let named: {
	papers: Map<string, string>;
	groups: Map<string, string>;
	rooms: Map<string, string>;
	finch: string;
	network: string;
};
test.beforeAll(async () => {
	named = await home.read(async (db) => {
		const map = async (table: string, column: string) =>
			new Map(
				((await db(table).select('id', `${column} as name`)) as { id: string; name: string }[]).map((row) => [
					row.name,
					row.id
				])
			);
		return {
			papers: await map('paper', 'title'),
			groups: await map('candidate_group', 'name'),
			rooms: await map('room', 'name'),
			network: (await db('network').first('id')).id,
			finch: (await db('staff').where({ name: 'Alba Finch' }).first('id')).id
		};
	});
});

function input({
	rules = {},
	until = '10:15',
	time = '09:00',
	groups = ['Watch B'],
	room,
	noProctor,
	networks
}: Entered) {
	const merged: Record<string, unknown> = { ...DEFAULT_RULES };
	for (const [part, value] of Object.entries(rules))
		merged[part] = typeof value === 'object' ? { ...(merged[part] as object), ...value } : value;
	if (networks) merged.door = { ...(merged.door as object), networks: [networks === 'gone' ? 'gone' : named.network] };
	return {
		kind: 'live',
		name: '',
		paperId: named.papers.get('Coastal Navigation I'),
		groupIds: groups.map((name) => named.groups.get(name)),
		roomId: named.rooms.get(room ?? 'Chart Room'),
		date: TOMORROW,
		time,
		until,
		only: null,
		alsoIds: [],
		ruleSheetId: null,
		rules: merged,
		proctorIds: noProctor ? [] : [named.finch],
		administrationId: null,
		parts: null
	};
}

async function enter(page: Page, entered: Entered) {
	const kept = await page.request.post('/prepare/draft', {
		data: { id: null, revision: 0, title: 'A trial', input: input(entered), added: [] },
		headers: { origin: home.url }
	});
	const { id } = await kept.json();
	await go(page, `/prepare/new?draft=${id}`);
	await expect(page.getByTestId('sentence').first()).toBeVisible();
}
const finding = (page: Page, code: string) => page.locator(`[data-testid=findings] [data-code="${code}"]`);

type Planned = { findings: { code: string; fixes: Fix[] }[] };

/** What the page is told of a session as it is entered, by the request that the page makes. */
async function findingsOf(page: Page, entered: object): Promise<Planned['findings']> {
	const answer = await page.request.post('/prepare/plan', {
		data: { input: entered, editing: null },
		headers: { origin: home.url }
	});
	const { plans, errors }: { plans?: Planned[]; errors: object } = await answer.json();
	expect(plans, JSON.stringify(errors)).toBeDefined();
	return plans!.flatMap(({ findings }) => findings);
}

/** The finding is told, and each of its fixes ends it. Returns how many it has. */
async function isToldAndMended(page: Page, code: string, entered: Entered): Promise<number> {
	const told = (await findingsOf(page, input(entered))).find((one) => one.code === code);
	expect(told, code).toBeDefined();
	for (const fix of told!.fixes) {
		const after = await findingsOf(page, applyFix(input(entered), fix));
		expect(
			after.map((one) => one.code),
			`${code}: ${fix.text}`
		).not.toContain(code);
	}
	return told!.fixes.length;
}

test('each finding is told, and each of its fixes ends it', async ({ browser }) => {
	const page = await home.staff(browser);
	for (const [code, entered] of Object.entries(ENTERED))
		expect(await isToldAndMended(page, code, entered), code).toBeGreaterThan(0);
	for (const [code, entered] of Object.entries(ONLY_TOLD)) await isToldAndMended(page, code, entered);
});

/** On the page: a rule, a time, a room and a list that is cut are each changed by a button. */
const BY_BUTTON = ['K1', 'K20', 'upside_down', 'seats', 'zero'];

test('on the page a finding stands with its buttons, and each of them ends it', async ({ browser }) => {
	const page = await home.staff(browser);
	for (const code of BY_BUTTON) {
		await enter(page, ENTERED[code]);
		const told = finding(page, code).first();
		await expect(told, code).toBeVisible();
		const fixes = await told.getByRole('button').allInnerTexts();
		expect(fixes.length, code).toBeGreaterThan(0);
		for (const [i, text] of fixes.entries()) {
			if (i > 0) await enter(page, ENTERED[code]);
			await finding(page, code).first().getByRole('button', { name: text, exact: true }).click();
			await expect(finding(page, code), `${code}: ${text}`).toHaveCount(0);
		}
	}
	await enter(page, ONLY_TOLD.K41);
	await expect(finding(page, 'K41').first()).toBeVisible();
});

test('what others’ data bring about is told, and what can be mended is', async ({ browser }) => {
	const page = await home.staff(browser);
	for (const [code, prepare, entered, mends] of PREPARED) {
		await home.read(prepare);
		expect((await isToldAndMended(page, code, entered)) > 0, code).toBe(mends);
	}
});
