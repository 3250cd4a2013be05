import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { keptUntil } from '$core/retention';
import { MINUTE } from '$core/time';
import { heldBack, verifyAnswers } from '../answers';
import { bankQuestion, findInBank, writerOf } from '../bank';
import { NO_PLAN } from '$core/by-hand';
import { archivesIn, verifyArchive } from '../archive';
import { accountFor, closable, close, closingOf, decideIncident, signOff } from '../closing';
import { giveMark, savePlan, workOfMarker } from '../marking';
import { verifyLogbook } from '../logbook';
import { deviceByToken, hashToken, knock } from '../identity';
import { sendWaiting, wordsOf } from '../mail';
import { keepMedium, notePlayed, playedIn, readMedium } from '../media';
import { startOtium, type Otium } from '../otium';
import { owedAmong, owedTo, waive } from '../owed';
import { freezeDraft, listPapers, makeDraft } from '../paper';
import { signedReceipt, verifyReceipt, verifyRecord } from '../proof';
import { findSession, slipsFor } from '../session';
import { act, loadSitting } from '../sitting';
import { deleteWhatIsDue, saveRetentionTerms } from '../retention';
import { COORDINATOR, PROCTOR } from '../testing/house';
import { somebody } from '../testing/staff';
import { heldAnswers, planOf, proctorsBeside } from '.';

const NINE = Date.parse('2026-12-08T09:00:00Z');
let dir: string;
let otium: Otium;

/** A small data folder as that release left it, opened by this one. */
async function openOld(release: string, change = '') {
	dir = mkdtempSync(join(tmpdir(), 'otium-release-'));
	const old = new Database(join(dir, 'otium.sqlite'));
	// The dump fills its tables in its own order.
	old.pragma('foreign_keys = OFF');
	old.exec(readFileSync(new URL(`./releases/${release}.sql`, import.meta.url), 'utf8'));
	// As a server leaves it that is killed while it brings its data up to date.
	old.exec(`UPDATE knex_migrations_lock SET is_locked = 1; ${change}`);
	old.close();
	const key = new URL(`./releases/${release}.key`, import.meta.url);
	if (existsSync(key)) copyFileSync(key, join(dir, 'house.key'));
	otium = await startOtium({ dataDir: dir, now: () => NINE + 40 * MINUTE, sweep: false, logLevel: 'silent' });
}
afterEach(async () => {
	await otium.stop();
	rmSync(dir, { recursive: true });
});

const one = async (id: string) => (await loadSitting(otium.db, id, NINE + 40 * MINUTE))!;

describe('a data folder of 0.5.0', () => {
	beforeEach(() => openOld('0.5.0'));

	it('gives each sitting its own clock: the room’s, where the room was started', async () => {
		expect((await one('sit0')).sitting).toMatchObject({ beganAt: NINE + MINUTE, clockStartedAt: NINE });
		expect((await one('sit3')).sitting).toMatchObject({ beganAt: null, clockStartedAt: null });
	});

	it('knows from the logbook which sessions a sitting was in, so that minutes given back come with it', async () => {
		const moved = await one('sit0');
		expect(moved.sitting.visits).toMatchObject([
			{ sessionId: 's1', begunBefore: false, begunWhenLeaving: true },
			{ sessionId: moved.session.id, to: null, begunBefore: true }
		]);
		// Twenty of sixty minutes were worked, and ten given back before it was carried over.
		expect(moved.reckoning.remaining! / MINUTE).toBe(50);
	});

	it('keeps what a hold gave back', async () => {
		// Started at nine with the room, held from 09:20, carried over from the hold.
		expect((await one('sit2')).reckoning.remaining! / MINUTE).toBe(40);
	});

	it('has ledgers that add up and an unbroken chain', async () => {
		for (const id of await otium.db('session').pluck('id')) {
			const { ledger } = await accountFor(otium.db, (await findSession(otium.db, id))!);
			expect(ledger).toMatchObject({ addsUp: true });
		}
		expect(await verifyLogbook(otium.db)).toMatchObject({ broken: null });
	});

	it('keeps every answer', async () => {
		expect(await otium.db('answer')).toHaveLength(3);
		expect(await otium.db('answer_standing')).toHaveLength(3);
	});
});

describe('a data folder of 0.7.0', () => {
	/** A device that was signed in when the new version came. */
	const TOKEN = 'a token of before';
	const change = `INSERT INTO device (token_hash, sitting_id, epoch, expires_at)
		VALUES ('${hashToken(TOKEN)}', 'sit0', 1, ${NINE + 600 * MINUTE})`;
	beforeEach(() => openOld('0.7.0', change));

	it('is verified whole: what was written without a key as it was, what comes with one, and no answer is missing', async () => {
		expect(await verifyRecord(otium)).toMatchObject({ answers: 3, broken: null });
		const revision = { seq: 3, questionId: 'q3', value: true, marked: false, struck: [], inViewMs: 1 };
		expect(await otium.answers.save('sit0', 1, [revision])).toMatchObject({ kept: null });
		await act(otium, [
			{ id: 'hold-it-now', sittingId: 'sit0', by: PROCTOR, body: { kind: 'hold', reason: 'x', stopsClock: true } }
		]);
		expect(await verifyRecord(otium)).toMatchObject({ answers: 4, broken: null });
		// Nobody rewrites the part from before either: its end is sealed.
		await otium.db.raw('DROP TRIGGER logbook_no_update');
		await otium.db('logbook').where({ seq: 2 }).update({ body: '{}' });
		expect((await verifyRecord(otium)).broken).toMatch(/breaks at entry 2/);
	});

	it('has its codes sealed, and they open the door as before', async () => {
		const text = readFileSync(join(dir, 'otium.sqlite'), 'latin1');
		const session = (await findSession(otium.db, 's1'))!;
		expect(session.doorCode).toBe('G8K835V');
		const turning = (await findSession(otium.db, 's2'))!.turningKey!;
		expect(turning).toMatch(/^[A-Z2-7]{32}$/);
		const asked = { number: 'DO-1004', family: 'Family3', address: 'a' };
		expect(await knock(otium, { ...asked, code: 'g8k8-35v' })).toMatchObject({ ok: true });
		expect((await slipsFor(otium.db, ['sit3'])).get('sit3')).toBe('QHG7Q114CF');
		// Nor does anything of it stay on a page of the file that is free now.
		for (const secret of ['G8K835V', 'QHG7Q114CF', turning]) expect(text).not.toContain(secret);
		expect(text).toContain('Numbers · Watch A'.slice(0, 7));
	});

	it('lets a candidate who was at work go on, and asks the staff to sign in anew', async () => {
		expect(await deviceByToken(otium.db, TOKEN, otium.now())).toMatchObject({
			sittingId: 'sit0',
			epoch: 1,
			publicKey: null
		});
		expect((await one('sit0')).sitting).toMatchObject({ state: 'working', noted: [] });
		expect((await one('sit1')).sitting.state).toBe('handed_in');
		expect(await otium.db('staff_session')).toEqual([]);
		// A receipt from before binds no answers, and says so.
		const receipt = (await signedReceipt(otium.db, 'sit1', otium.now()))!;
		expect(await verifyReceipt(otium.db, receipt)).toMatchObject({ isOurs: true, now: 'not_kept' });
	});

	it('has no keys of whole sites any more', async () => {
		expect(await otium.db('site_key').whereNull('withdrawn_at')).toEqual([]);
		expect(await otium.db('client_device')).toEqual([]);
	});
});

describe('a data folder of 0.8.0', () => {
	beforeEach(() => openOld('0.8.0'));

	it('has what its mails say sealed, and sends them as they were', async () => {
		const mail = await otium.db('mail').where({ id: 'mail-of-before' }).first();
		expect(wordsOf(otium.db, mail)).toBe('Your slip is QHG7-Q114-CF.');
		expect(readFileSync(join(dir, 'otium.sqlite'), 'latin1')).not.toContain('QHG7-Q114-CF');
		expect(await sendWaiting(otium)).toBe(1);
		const [sent] = readdirSync(join(dir, 'outbox'));
		expect(readFileSync(join(dir, 'outbox', sent), 'utf8')).toContain('QHG7-Q114-CF');
	});

	it('is verified whole, and its codes open the door', async () => {
		expect(await verifyRecord(otium)).toMatchObject({ answers: 3, broken: null });
		const asked = { code: 'G8K835V', number: 'DO-1004', family: 'Family3', address: 'a' };
		expect(await knock(otium, asked)).toMatchObject({ ok: true });
	});
});

describe('a data folder of 0.9.0', () => {
	beforeEach(() => openOld('0.9.0'));

	it('has its papers as they were, and the next version is written from one of them', async () => {
		const [paper] = await otium.db('paper').select('id', 'title', 'version', 'sha256');
		expect(paper).toMatchObject({ version: 1, sha256: null });
		const coordinator = { id: 'ode', name: 'Ode', roles: [{ role: 'coordinator', siteId: null }] } as const;
		const staff = { ...coordinator, roles: [...coordinator.roles] };
		const by = { role: 'coordinator', id: 'ode' } as const;
		const id = await makeDraft(otium, staff, by, { title: '', siteId: null, from: paper.id });
		expect(await freezeDraft(otium, staff, by, id, 1)).toMatchObject({ version: 2 });
		expect(await listPapers(otium.db, staff)).toMatchObject([{ title: paper.title, versions: [{}, {}] }]);
	});

	it('is verified whole, and its code opens the door', async () => {
		expect(await verifyRecord(otium)).toMatchObject({ answers: 3, broken: null });
		const asked = { code: '6AT7H53', number: 'DO-1004', family: 'Family3', address: 'a' };
		expect(await knock(otium, asked)).toMatchObject({ ok: true });
	});
});

describe('a data folder of 0.10.0', () => {
	beforeEach(() => openOld('0.10.0'));

	it('has every frozen question in the bank, with its revisions and its papers, for the authors who could read them', async () => {
		const author = somebody('edda', 'author', 'quayside');
		const found = await findInBank(otium.db, writerOf(author), { topic: 'Depths' }, NINE);
		expect(found.lines.map(({ id, papers }) => [id, papers])).toEqual([
			['deep', 2],
			['wide', 2]
		]);
		const deep = await bankQuestion(otium.db, author, 'deep', NINE);
		expect(deep.question.stem).toBe('How deep is the water?');
		expect(deep.revisions.map(({ revision, question }) => [revision, question.stem])).toEqual([
			[2, 'How deep is the water?'],
			[1, 'How deep is it?']
		]);
		expect(deep.papers.map(({ title, version }) => `${title} ${version}`)).toEqual(['Soundings 2', 'Soundings 1']);
		const elsewhere = await findInBank(otium.db, writerOf(somebody('ilse', 'author', 'lighthouse')), {}, NINE);
		expect(elsewhere.total).toBe(0);
		const all = await findInBank(otium.db, writerOf(somebody('ode', 'coordinator', null)), {}, NINE);
		expect(all.total).toBeGreaterThan(2);
	});
});

describe('a data folder of 0.11.0', () => {
	beforeEach(() => openOld('0.11.0'));

	it('takes files for its questions, and its sittings go on', async () => {
		const square = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"/></svg>';
		const { file } = await keepMedium(otium, Buffer.from(square), null);
		expect((await readMedium(otium, file))?.type).toBe('image/webp');
		expect((await one('sit0')).sitting.state).toBe('working');
		await notePlayed(otium.db, 'sit0', { of: 'q1', place: 0, times: 1 });
		expect(await playedIn(otium.db, 'sit0')).toEqual([{ of: 'q1', place: 0, times: 1 }]);
	});

	it('is verified whole, and its code opens the door', async () => {
		expect(await verifyRecord(otium)).toMatchObject({ broken: null });
		const asked = { code: '91Y650R', number: 'DO-1002', family: 'Family1', address: 'a' };
		expect(await knock(otium, asked)).toMatchObject({ ok: true });
	});
});

describe('a data folder of 0.12.0', () => {
	beforeEach(() => openOld('0.12.0'));

	it('has its grants as they were: given by hand, and own windows found by their time', async () => {
		expect((await one('sit0')).merge.reasons).toEqual(['time and a half, standing']);
		expect((await one('sit1')).merge.ownWindow).toEqual({ opens: NINE + 60 * MINUTE, closes: NINE + 150 * MINUTE });
		const [window] = await otium.db('grant_given').where({ kind: 'own_window' });
		expect(window).toMatchObject({ opens: NINE + 60 * MINUTE, closes: NINE + 150 * MINUTE, source: 'hand' });
		expect((await one('sit0')).sitting.state).toBe('working');
	});

	it('knows who is owed a sitting, is verified whole, and its code opens the door', async () => {
		const ode = somebody('ode', 'coordinator', null);
		expect((await owedTo(otium.db, ode, otium.now())).map(({ sittingId, why }) => [sittingId, why])).toEqual([
			['sit2', 'absent']
		]);
		expect(await verifyRecord(otium)).toMatchObject({ broken: null });
		// Their door opens with their own window.
		const asked = { code: '34802E6', number: 'DO-1002', family: 'Family1', address: 'a' };
		expect(await knock(otium, asked)).toMatchObject({ ok: true });
	});
});

describe('a data folder of 0.13.0', () => {
	beforeEach(() => openOld('0.13.0'));

	it('is closed by this release: marked, decided, signed, and sealed with all that was there', async () => {
		const { db } = otium;
		const lorne = somebody('lorne', 'closing_officer', null);
		const ode = somebody('ode', 'coordinator', null);
		const as = (id: string) => ({ role: 'coordinator' as const, id });
		const of = { administrationId: 'winter', paperId: 'numbers', questionId: 'q2' };
		await waive(otium, as('ode'), await owedAmong(db, ode, ['sit2'], otium.now()), 'left');
		await decideIncident(otium, as('ode'), 'an-alarm-1', ['sit0', 'sit1'], 'time_given', '');
		await savePlan(otium, as('ode'), of, { ...NO_PLAN, markers: [{ id: 'ode', share: 1 }] }, 0);
		for (const [i, { key }] of (await workOfMarker(db, 'ode', of)).queue.entries())
			await giveMark(otium, as('ode'), of, { id: `mark-${i}`, key, points: 3, criteria: {}, comment: '', tookMs: 1 });
		await signOff(otium, ode, as('ode'), 'winter', 'quayside');
		const { basis, objection } = await closable(otium, lorne, 'winter');
		expect(objection).toBeNull();
		await close(otium, lorne, as('lorne'), 'winter', basis);
		const { archive, counts } = (await closingOf(db, 'winter'))!;
		expect(counts).toMatchObject({ results: 2, answers: 4 });
		expect(await verifyArchive(join(archivesIn(dir), archive))).toMatchObject({ faults: [], remarked: 2 });
		expect(await verifyRecord(otium)).toMatchObject({ broken: null });
	});
});

describe('a data folder of 0.14.0', () => {
	beforeEach(() => openOld('0.14.0'));

	it('keeps its waits between attempts, ends by the clock, asks nothing of whoever comes back', async () => {
		const { session } = await one('sit0');
		expect(session.rules.attempts).toMatchObject({
			most: 3,
			waitMinutes: 30,
			laterWaitMinutes: 30,
			startsFromLast: false
		});
		expect(session.rules).toMatchObject({ comingBack: 'free', pauses: { most: 0 }, timing: { endedBy: 'clock' } });
		expect(session.timeCalledAt).toBeNull();
	});

	it('goes on with who is at work', async () => {
		const { sitting, reckoning } = await one('sit0');
		expect(sitting.state).toBe('working');
		expect(Math.round(reckoning.remaining! / MINUTE)).toBe(20);
		expect(await otium.db('candidate').where({ elsewhere: 1 })).toEqual([]);
		expect(await verifyLogbook(otium.db)).toMatchObject({ broken: null });
	});
});

describe('a data folder of 0.15.0', () => {
	beforeEach(() => openOld('0.15.0'));

	it('has no time for each question: answers are taken as before, and where nobody goes back they still do not', async () => {
		const { session, question } = await one('sit0');
		expect(session.rules.timing.questionSeconds).toBeNull();
		expect(question).toBeNull();
		const { form } = await otium.db('form').where({ sitting_id: 'sit0' }).first('form');
		const [first, second] = JSON.parse(form).questions as { id: string }[];
		const save = (seq: number, questionId: string) =>
			otium.answers.save('sit0', 1, [{ seq, questionId, value: true, marked: false, struck: [], inViewMs: 0 }]);
		expect((await save(2, second.id)).kept).toBeNull();
		expect((await save(3, first.id)).kept).toBe('gone_past');
	});
});

describe('a data folder of 0.21.0', () => {
	beforeEach(() => openOld('0.21.0'));

	it('finds by index what its pages ask for, and knows who supervises a window of somebody’s own', async () => {
		const { db } = otium;
		const plan = async (query: { toQuery(): string }) => (await planOf(db, query.toQuery())).join(', ');
		expect(await plan(db('sitting').where({ administration_id: 'winter' }))).toMatch(/^SEARCH sitting USING INDEX/);
		expect(await plan(db('sitting').where({ paper_id: 'numbers' }))).toMatch(/^SEARCH sitting USING INDEX/);
		expect(await plan(db('session').where({ administration_id: 'winter' }))).toMatch(/^SEARCH session USING INDEX/);
		const open = db('session').whereNull('ended_at').where('opens', '<=', 0).orderBy('opens');
		expect(await plan(open)).toBe('SEARCH session USING INDEX session_open (opens<?)');
		const turning = db('session').whereNotNull('turning_key').whereNotNull('door_code').orderBy('opens');
		expect(await plan(turning)).toBe('SCAN session USING INDEX session_turning');
		expect(await plan(db('session').select(proctorsBeside(db)))).toMatch(
			/SEARCH grant_given USING INDEX grant_given_beside/
		);
		expect((await findSession(db, 's1'))!.proctorIds.toSorted()).toEqual(['dunmore', 'ode']);
		expect((await one('sit0')).sitting.state).toBe('working');
		expect(await verifyRecord(otium)).toMatchObject({ broken: null });
	});
});

describe('a data folder of 0.22.0', () => {
	beforeEach(() => openOld('0.22.0'));

	it('seals what decides results as it finds it, says so once, and finds by index what waits for a person', async () => {
		const { db } = otium;
		const verified = await verifyRecord(otium);
		expect(verified).toMatchObject({ broken: null, sealedAnew: [expect.any(String)] });
		expect(verified.rows).toBe(8);
		const plan = await planOf(db, heldAnswers(db, ['sit1']).select('answer.seq').toQuery());
		expect(plan.join(', ')).toContain('USING INDEX answer_held_back');
		expect((await heldBack(db, ['sit1'])).get('sit1')?.count).toBe(1);
		// A second start seals nothing anew.
		await otium.stop();
		otium = await startOtium({ dataDir: dir, now: () => NINE + 41 * MINUTE, sweep: false, logLevel: 'silent' });
		// Three who were in the room: the minute that the server was away is nobody's time.
		expect(await verifyRecord(otium)).toEqual({
			...verified,
			entries: verified.entries + 3,
			head: expect.any(String)
		});
		// And what somebody changes by other means is found.
		const other = new Database(join(dir, 'otium.sqlite'));
		other.exec("UPDATE sitting SET state = 'handed_in' WHERE id = 'sit0'");
		other.close();
		expect((await verifyRecord(otium)).broken).toBe('sitting sit0 was changed without an entry in the record');
	});
});

describe('a data folder of 0.16.0', () => {
	beforeEach(() => openOld('0.16.0'));

	it('is closed, and its answers and log are deleted in their time without breaking a chain', async () => {
		const { db } = otium;
		const { at } = await db('closing').first('at');
		await expect(db('answer').delete()).rejects.toThrow(/closed|append-only/);
		expect(await verifyAnswers(db)).toMatchObject({ answers: 16, broken: null });
		await saveRetentionTerms(otium, COORDINATOR, { answers: 1, log: 1 });
		const later = { ...otium, now: () => keptUntil(at, 2) };
		expect(await deleteWhatIsDue(later)).toEqual({ answers: 16, log: expect.any(Number) });
		expect(await db('answer').first()).toBeUndefined();
		expect(await verifyAnswers(db)).toMatchObject({ broken: null });
		expect((await verifyLogbook(db)).broken).toBeNull();
	});
});
