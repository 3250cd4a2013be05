import { ownPage } from '../requests';
import { reviewFor } from '../review';
import { loadSitting } from '../sitting';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { parse } from 'csv-parse/sync';
import { XMLParser } from 'fast-xml-parser';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Form, Paper } from '$core/paper';
import { shownPercent } from '$core/results';
import { archivesIn, verifyArchive } from '../archive';
import { closable, close, closingOf, decideValidity, signOff } from '../closing';
import { searchLogbook } from '../logbook';
import { owedAmong, waive } from '../owed';
import { findSession } from '../session';
import { confirm, foresee, propose } from '../marking';
import { HOLT, LORNE, ODE, satHouse } from '../testing/sat';
import { somebody } from '../testing/staff';
import { COORDINATOR, type House } from '../testing/house';
import {
	callBack,
	jsonLines,
	oneRosterZip,
	ownResults,
	postReleases,
	qtiResultsZip,
	releaseResults,
	releasedTo,
	releasesOf,
	resultLines,
	resultsTable,
	sessionReport,
	type ReleaseRole
} from '.';

// The first to ask a thread waits until it has started, which a busy machine takes seconds for.
vi.setConfig({ testTimeout: 60_000 });

const choices = ['a', 'b'].map((id) => ({ id, text: `choice ${id}` }));
const PAPER: Paper = {
	title: 'Signals',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				{ id: 'one', kind: 'single', stem: 'One?', points: 1, topic: 'Flags / A', choices, answer: 'a' },
				{
					id: 'two',
					kind: 'multiple',
					stem: 'Two?',
					points: 3,
					topic: 'Flags / B',
					choices,
					answer: ['a', 'b'],
					partial: true
				},
				{
					id: 'three',
					kind: 'numeric',
					stem: 'Three?',
					points: 2,
					topic: 'Sums',
					answer: 4,
					tolerance: { kind: 'absolute', amount: 0 },
					unit: 'm'
				}
			]
		}
	]
};
const ANSWERS: Record<string, (string | string[])[]> = {
	one: ['a', 'b', 'a'],
	two: [['a', 'b'], ['a'], []],
	three: ['4', '5', '4']
};
const by = (staff: { id: string }) => ({ role: 'coordinator' as const, id: staff.id });
const OF = { administrationId: 'winter', paperId: 'numbers' };
const all = () => resultLines(house.otium.db, (query) => query.where('sitting.administration_id', 'winter'));

let house: House;
const open = async () =>
	(house = await satHouse(PAPER, 3, (i, id) => ANSWERS[id][i] ?? null, {
		change: {
			rules: {
				result: {
					passPercent: 50,
					creditPercent: 80,
					bands: [{ fromPercent: 80, name: 'Merit', message: 'Well done.' }]
				}
			}
		}
	}));
afterEach(() => house.close());

describe('results', () => {
	it('are exact, by topic, with band and pass mark; a void one counts as none', async () => {
		await open();
		expect(
			(await all()).map(({ result }) => [result.points, result.outOf, result.passed, result.band?.name ?? null])
		).toEqual([
			[6, 6, true, 'Merit'],
			[1.5, 6, false, null],
			[3, 6, true, null]
		]);
		expect((await all())[0].result.topics).toEqual([
			{ topic: 'Flags', points: 4, outOf: 4, isCredited: true },
			{ topic: 'Sums', points: 2, outOf: 2, isCredited: true }
		]);
		await decideValidity(house.otium, by(ODE), ['sit0'], 'void', 'Not the person on the card');
		expect((await all())[0]).toMatchObject({ validity: { verdict: 'void' }, counted: null });
	});

	// Neither by what is said nor by how much: all right, partly and void read the same until results are released.
	it('before they are released, nothing that a candidate is sent depends on them', async () => {
		await open();
		await decideValidity(house.otium, by(ODE), ['sit1'], 'void', 'Not the person on the card');
		const sentTo = async (i: number) => {
			const page = await ownPage(house.otium.db, `can${i}`, house.clock.at);
			const one = (await loadSitting(house.otium.db, `sit${i}`, house.clock.at))!;
			const review = await reviewFor(house.otium.db, one, house.clock.at);
			// Names and numbers of these three differ in one digit.
			return JSON.stringify([page, await ownResults(house.otium, `can${i}`), review]).replace(/\d/g, '#');
		};
		const [first, ...others] = [await sentTo(0), await sentTo(1), await sentTo(2)];
		expect(first).toContain('Signals');
		for (const other of others) expect(other).toBe(first);
	});

	it('rounding is for display, and never over a mark that was not reached', async () => {
		await open();
		expect([
			shownPercent({ points: 497, outOf: 1000 }),
			shownPercent({ points: 1, outOf: 3 }),
			shownPercent({ points: 2, outOf: 3 })
		]).toEqual(['49.7 %', '33.3 %', '66.7 %']);
	});

	it('go out as OneRoster 1.1, QTI results, CSV and JSON Lines, and come back the same', async () => {
		await open();
		const { db, now } = { db: house.otium.db, now: house.clock.at };
		const lines = await all();
		const rows = (text: string) => parse(text, { columns: true, bom: true }) as Record<string, string>[];

		const roster = unzipSync(await oneRosterZip(db, lines, true, now));
		expect(Object.keys(roster).sort()).toEqual(
			['academicSessions', 'categories', 'lineItems', 'manifest', 'results'].map((name) => `${name}.csv`)
		);
		// A whole file, in which status and date of change are empty, and all that it names is there.
		const [period] = rows(strFromU8(roster['academicSessions.csv']));
		const [item] = rows(strFromU8(roster['lineItems.csv']));
		expect(item).toMatchObject({
			title: 'Signals',
			resultValueMax: '6.0',
			categorySourcedId: 'counts',
			classSourcedId: 'watch',
			gradingPeriodSourcedId: period.sourcedId,
			status: ''
		});
		expect(
			rows(strFromU8(roster['results.csv'])).map((row) => [
				row.studentSourcedId,
				row.score,
				row.scoreStatus,
				row.lineItemSourcedId
			])
		).toEqual([
			['can0', '6', 'fully graded', item.sourcedId],
			['can1', '1.5', 'fully graded', item.sourcedId],
			['can2', '3', 'fully graded', item.sourcedId]
		]);
		const left = unzipSync(await oneRosterZip(db, lines, false, now));
		expect(rows(strFromU8(left['lineItems.csv']))[0].categorySourcedId).toBe('left-out');

		const files = unzipSync(new Uint8Array(await new Response(qtiResultsZip(db, () => {}, true)).arrayBuffer()));
		const second = Object.entries(files).find(([name]) => name.startsWith('DO-1002'))![1];
		const { assessmentResult: told } = new XMLParser({
			ignoreAttributes: false,
			attributeNamePrefix: '',
			isArray: (name) => ['itemResult', 'outcomeVariable', 'value'].includes(name)
		}).parse(strFromU8(second));
		expect(told.context.sourcedId).toBe('can1');
		expect(
			told.testResult.outcomeVariable.map((one: { identifier: string; value: string[] }) => [
				one.identifier,
				Number(one.value[0])
			])
		).toEqual([
			['SCORE', 1.5],
			['MAXSCORE', 6]
		]);
		const two = told.itemResult.find(({ identifier }: { identifier: string }) => identifier === 'two');
		expect(two).toMatchObject({
			sessionStatus: 'final',
			responseVariable: { cardinality: 'multiple', baseType: 'identifier' }
		});
		expect(two.responseVariable.candidateResponse.value).toEqual(['a']);

		expect(
			rows(resultsTable(lines, new Map([['numbers', 'Signals']]))).map((row) => [
				row.Number,
				Number(row.Points),
				row.Passed
			])
		).toEqual([
			['DO-1001', 6, 'yes'],
			['DO-1002', 1.5, 'no'],
			['DO-1003', 3, 'yes']
		]);
		const json = (await jsonLines(lines)).split('\n').map((line) => JSON.parse(line));
		expect(
			json.map(({ points, marks }) => [
				points,
				marks.reduce((sum: number, mark: { points: number }) => sum + mark.points, 0)
			])
		).toEqual([
			[6, 6],
			[1.5, 1.5],
			[3, 3]
		]);
	});
});

describe('a release', () => {
	const release = (fromAt: number, shows: 'outcome' | 'points' | 'topics' = 'topics', id = 'a-release-1') =>
		releaseResults(house.otium, by(ODE), { id, ...OF, rule: { shows }, fromAt, origin: 'https://otium.example' });
	const mails = () => house.otium.db('mail').where({ kind: 'results' }).orderBy('to_address').pluck('to_address');

	it('comes out when it is time, once, by a letter to those with an address; no more is shown than was said', async () => {
		await open();
		await house.otium.db('candidate').where({ id: 'can0' }).update({ email: 'one@saltmarsh.example' });
		const later = house.clock.at + 3_600_000;
		await release(later, 'outcome');
		expect([await postReleases(house.otium), await ownResults(house.otium, 'can0')]).toEqual([0, []]);
		house.clock.at = later;
		expect([await postReleases(house.otium), await postReleases(house.otium), await mails()]).toEqual([
			1,
			0,
			['one@saltmarsh.example']
		]);
		const [own] = await ownResults(house.otium, 'can0');
		expect(own).toMatchObject({ isFinal: false, passed: true, band: { name: 'Merit' }, points: null, topics: null });
		expect(JSON.stringify(own)).not.toMatch(/choice|One\?/);
		await expect(release(later, 'points', 'a-release-2')).rejects.toMatchObject({
			problem: { message: expect.stringContaining('released already') }
		});
	});

	it('can be called back until somebody has read theirs, who is then named', async () => {
		await open();
		await release(house.clock.at);
		await callBack(house.otium, by(ODE), 'a-release-1');
		expect(await ownResults(house.otium, 'can1')).toEqual([]);
		await release(house.clock.at, 'topics', 'a-release-2');
		expect((await ownResults(house.otium, 'can1'))[0]).toMatchObject({
			points: { points: '1.5', outOf: '6', percent: '25 %' },
			passed: false
		});
		await expect(callBack(house.otium, by(ODE), 'a-release-2')).rejects.toMatchObject({
			problem: { message: 'Given1 Family1 has read their result, so it can’t be called back.' }
		});
		expect(
			(await releasesOf(house.otium.db, 'winter')).map(({ read, of, calledBackAt }) => [
				read,
				of,
				calledBackAt !== null
			])
		).toEqual(
			expect.arrayContaining([
				[1, 3, false],
				[0, 3, true]
			])
		);
	});

	it('a correction after it tells those whose result changes, and the page says what was done', async () => {
		await open();
		await house.otium.db('candidate').update({ email: 'x@saltmarsh.example' });
		await release(house.clock.at);
		await postReleases(house.otium);
		await ownResults(house.otium, 'can1');
		await propose(
			house.otium,
			by(ODE),
			'correction-1',
			{ ...OF, questionId: 'three' },
			{ kind: 'leave_out' },
			'unclear'
		);
		const seen = await foresee(house.otium, { ...OF, questionId: 'three' }, { kind: 'leave_out' });
		expect([seen.shown, seen.told]).toEqual([1, 3]);
		await confirm(house.otium, by(LORNE), 'correction-1', seen.basis);
		expect(await house.otium.db('mail').where({ kind: 'results' }).where('subject', 'like', '%changed%')).toHaveLength(
			3
		);
		const [own] = await ownResults(house.otium, 'can1');
		const { form } = await house.otium.db('form').where({ sitting_id: 'sit1' }).first('form');
		const place = (JSON.parse(form) as Form).questions.findIndex(({ id }) => id === 'three') + 1;
		expect(own).toMatchObject({
			points: { points: '1.5', outOf: '4' },
			notes: [`Question ${place} was left out: no points, and none to reach.`]
		});
	});
});

describe('results that are released to the staff', () => {
	const release = (id: string, staff: ReleaseRole[], paperId = 'numbers') =>
		releaseResults(house.otium, by(ODE), {
			id,
			administrationId: 'winter',
			paperId,
			rule: { shows: 'points', staff },
			fromAt: house.clock.at,
			origin: 'https://otium.example'
		});
	const DUNMORE = somebody('dunmore', 'proctor', 'quayside');
	const STRANGER = somebody('finch', 'proctor', 'quayside');
	const AUTHOR = somebody('wren', 'author', null);

	it('reach the roles that are named, each as far as it goes, and nobody else', async () => {
		await open();
		await house.otium.db('staff').insert({ id: 'wren', name: 'Wren', sign_in: 'wren', password_hash: '-' });
		await release('release-1', ['proctor', 'author']);
		const [mine] = await releasedTo(house.otium, DUNMORE);
		expect(mine.lines!.map(({ number, points, outcome }) => [number, points, outcome])).toEqual([
			['DO-1001', '6 of 6', 'Merit, passed'],
			['DO-1002', '1.5 of 6', 'not passed'],
			['DO-1003', '3 of 6', 'passed']
		]);
		// Not of a session that names them; of another site; of a role that was not named.
		expect(await releasedTo(house.otium, STRANGER)).toEqual([]);
		expect(await releasedTo(house.otium, somebody('x', 'author', 'lighthouse'))).toEqual([]);
		expect(await releasedTo(house.otium, HOLT)).toEqual([]);
		const [sum] = await releasedTo(house.otium, AUTHOR);
		expect(sum).toMatchObject({ of: 3, lines: null });
		expect([...sum.shares].sort()).toEqual([0.25, 0.5, 1]);
	});

	it('can be called back until one of them has read them, and say who has', async () => {
		await open();
		await release('release-1', ['proctor']);
		await callBack(house.otium, by(ODE), 'release-1');
		expect(await releasedTo(house.otium, DUNMORE)).toEqual([]);
		await release('release-2', ['proctor']);
		await releasedTo(house.otium, DUNMORE);
		await releasedTo(house.otium, DUNMORE);
		await expect(callBack(house.otium, by(ODE), 'release-2')).rejects.toMatchObject({
			problem: { message: expect.stringContaining('Rhys Dunmore has read results') }
		});
		expect(await house.otium.db('logbook').where({ kind: 'released_read' })).toHaveLength(1);
	});
});

it('gives points for handing in early to whoever did it themselves, by their own time, and the archive proves them', async () => {
	const marking = { wrong: 'free' as const, earlyMinutes: 30, earlyPoints: 2 };
	house = await satHouse(PAPER, 3, () => null, { absent: [2], change: { rules: { marking } } });
	const { db } = house.otium;
	// Each handed in after 20 of 60 minutes.
	const [first] = await resultLines(db, (query) => query.where('sitting.id', 'sit0'));
	expect(first.sitting.leftMs).toBe(40 * 60_000);
	expect(first.result).toMatchObject({ early: 2, points: 2, outOf: 6 });
	const entry = await db('logbook').where({ sitting_id: 'sit0', kind: 'handed_in' }).first('body');
	expect(JSON.parse(entry.body).leftMs).toBe(40 * 60_000);
	await waive(house.otium, COORDINATOR, await owedAmong(db, ODE, ['sit2'], house.clock.at), 'left the college');
	await signOff(house.otium, ODE, { role: 'coordinator', id: 'ode' }, 'winter', 'quayside');
	const { basis, objection } = await closable(house.otium, LORNE, 'winter');
	expect(objection).toBeNull();
	await close(house.otium, LORNE, { role: 'closing_officer', id: 'lorne' }, 'winter', basis);
	const { archive } = (await closingOf(db, 'winter'))!;
	expect(await verifyArchive(join(archivesIn(house.dir), archive))).toMatchObject({ faults: [], remarked: 2 });
});

it('the report of a session tells what the staff did, and not what candidates and the server did', async () => {
	house = await satHouse(PAPER, 3, () => null, { absent: [2] });
	const { db } = house.otium;
	const acts = await searchLogbook(db, { sessionId: 's1', byStaff: true });
	expect([...new Set(acts.map(({ kind }) => kind))].sort()).toEqual(['door_code_died', 'let_in', 'session_ended']);
	const all = await searchLogbook(db, { sessionId: 's1' });
	expect(all.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['arrived', 'began', 'handed_in']));
	const pdf = await sessionReport(house.otium, (await findSession(db, 's1'))!);
	expect(new TextDecoder('latin1').decode(pdf.slice(0, 5))).toBe('%PDF-');
});
