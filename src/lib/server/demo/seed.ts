import { questionsOf } from '$core/paper';
import { nanoid } from 'nanoid';
import { beingWritten } from './paper-being-written';
import { watchkeeping } from './watchkeeping';
import { foldNumber } from '$core/access';
import type { GrantBody } from '$core/grants';
import { noteLapses } from '../lockdown';
import { raiseHand } from '../messages';
import { rightAnswer } from '$core/marking';
import type { AnswerValue, FormQuestion, Paper, Revision } from '$core/paper';
import { DEFAULT_RULES } from '$core/session';
import type { Actor } from '$core/sitting';
import { localDate, localTime, MINUTE } from '$core/time';
import { giveGrant } from '../grants';
import { addStaff, arrive, knock } from '../identity';
import { demoDevice, keepDemoDevices, newDemoDevice } from './devices';
import { keepInBank, noteUse } from '../bank';
import { transact } from '../db';
import type { Otium } from '../otium';
import {
	endSession,
	findSession,
	makeDoorCode,
	newReceipt,
	saveSession,
	startRoom,
	type SessionInput
} from '../session';
import { act, begin, formOf, startClock } from '../sitting';
import { candidatesFor, DEMO_PASSWORD, DEMO_STAFF, type DemoCandidate } from './people';
import { BANK, BANK_REMARKS } from './bank';
import { DEMO_PAPERS } from './papers';

const ZONE = 'Europe/London';
const ADMINISTRATION = 'winter';

/**
 * Fills an empty database with a test day in the middle of its morning. Everything past is played through the same
 * functions that the day itself uses, on a clock that is wound forward, so that the log tells a true story.
 * @param otium started with `now: () => clock.at`
 * @param clock the clock that is wound; it stands at `now` when this returns
 */
export async function seedDemo(otium: Otium, clock: { at: number }, now: number): Promise<void> {
	const day = new Day(otium, clock, now);
	clock.at = now - 26 * 60 * MINUTE;
	await day.settle();
	await day.yesterday();
	await day.planToday();
	await day.radioFinished();
	await day.chartRoomRunning();
	await day.quietRoomRunning();
	clock.at = now;
	keepDemoDevices(otium.dataDir, day.devices);
}

class Day {
	/** What each simulated device was given, by candidate number. */
	readonly devices = new Map<string, string>();
	#staff = new Map<string, Actor>();
	#papers = new Map<string, { id: string; paper: Paper }>();
	#sessions = new Map<string, string>();
	#people = new Map<string, DemoCandidate & { id: string }>();

	constructor(
		private readonly otium: Otium,
		private readonly clock: { at: number },
		private readonly now: number
	) {}

	/** Sites, rooms, people, papers and standing grants. */
	async settle() {
		const { db } = this.otium;
		const day = (days: number) => localDate(this.now + days * 24 * 60 * MINUTE, ZONE);
		await db('administration').insert({
			id: ADMINISTRATION,
			name: 'Winter Deck Officer Examinations',
			opens_on: day(-14),
			closes_on: day(28)
		});
		await db('site').insert([
			{ id: 'quayside', name: 'Quayside', zone: ZONE, opens_daily: '07:30', closes_daily: '21:00' },
			{
				id: 'lighthouse',
				name: 'Lighthouse Point',
				zone: 'Atlantic/Azores',
				opens_daily: '08:00',
				closes_daily: '19:00'
			}
		]);
		const room = (id: string, name: string, rows: number, perRow: number, site = 'quayside') => ({
			id,
			site_id: site,
			name,
			seat_rows: rows,
			seats_per_row: perRow
		});
		await db('room').insert([
			room('chart', 'Chart Room', 5, 6),
			room('signal', 'Signal Loft', 3, 6),
			room('quiet', 'Quiet Room', 2, 3),
			room('boat', 'Boat Shed', 5, 8),
			room('lamp', 'Lamp Room', 3, 8, 'lighthouse')
		]);
		for (const person of DEMO_STAFF) {
			const roles = person.roles.map(({ role, site }) => ({ role, siteId: site }));
			const id = await addStaff(db, {
				signIn: person.signIn,
				name: person.name,
				email: `${person.signIn}@saltmarsh.example`,
				password: DEMO_PASSWORD,
				roles
			});
			this.#staff.set(person.key, { role: roles[0].role === 'proctor' ? 'proctor' : 'coordinator', id });
		}
		const author = this.#staff.get('brandreth')!.id;
		const keeping = { at: this.clock.at, writer: { id: author, sites: null }, siteId: null, audience: 'all' as const };
		for (const { paper, version } of DEMO_PAPERS) {
			const id = nanoid();
			await db('paper').insert({ id, title: paper.title, version, content: JSON.stringify(paper) });
			await db('paper_allowed').insert({ administration_id: ADMINISTRATION, paper_id: id });
			const questions = questionsOf(paper);
			await noteUse(db, (await keepInBank(db, questions, keeping)).ids, id);
			this.#papers.set(paper.title, { id, paper });
		}
		await keepInBank(db, BANK, keeping);
		for (const [i, { id: question_id, text }] of BANK_REMARKS.entries())
			await db('question_remark').insert({
				id: `remark-${i + 1}`,
				question_id,
				text,
				at: this.clock.at,
				by: this.#staff.get('ode')!.id
			});
		const { id: from, paper } = this.#papers.get('Coastal Navigation I')!;
		await db('paper_draft').insert({
			id: nanoid(),
			title: paper.title,
			content: JSON.stringify(beingWritten(paper)),
			based_on: from,
			changed_at: this.clock.at,
			changed_by: author
		});
		const practical = await watchkeeping(this.otium, author);
		await db('paper_draft').insert({
			id: nanoid(),
			title: practical.title,
			content: JSON.stringify(practical),
			changed_at: this.clock.at,
			changed_by: author
		});
		await db('network').insert([
			{ id: 'labs', site_id: 'quayside', name: 'Quayside labs', ranges: '10.20.0.0/16 2001:db8:20::/48' },
			{ id: 'here', site_id: 'quayside', name: 'This machine', ranges: '127.0.0.0/8 ::1/128' },
			{ id: 'point', site_id: 'lighthouse', name: 'Lighthouse Point labs', ranges: '10.40.0.0/16' }
		]);
		await db('entitlement').insert([
			{ administration_id: ADMINISTRATION, site_id: null, count: 320 },
			{ administration_id: ADMINISTRATION, site_id: 'quayside', count: 260 },
			{ administration_id: ADMINISTRATION, site_id: 'lighthouse', count: 40 }
		]);
		await this.#addPeople();
		await this.#addTimetables();
		await this.#grantStanding();
	}

	async #addPeople() {
		const { db } = this.otium;
		const groups = [
			{ id: 'watch-a', name: 'Watch A', site: 'quayside', count: 29 },
			{ id: 'watch-b', name: 'Watch B', site: 'quayside', count: 17 },
			{ id: 'access', name: 'Access group', site: 'quayside', count: 4 },
			{ id: 'evening', name: 'Evening', site: 'quayside', count: 36 },
			{ id: 'azores', name: 'Lighthouse Watch', site: 'lighthouse', count: 22 },
			{ id: 'second', name: 'Second Years', site: 'quayside', count: 12 }
		];
		let from = 0;
		for (const { id, name, site, count } of groups) {
			await db('candidate_group').insert({ id, name, site_id: site });
			const people = candidatesFor(name, count, from).map((person) => ({ ...person, id: nanoid() }));
			from += count;
			for (const person of people) this.#people.set(person.number, person);
			await db('candidate').insert(
				people.map((person) => ({
					id: person.id,
					number: person.number,
					number_folded: foldNumber(person.number),
					given: person.given,
					family: person.family,
					email: `${person.number.toLowerCase()}@saltmarsh.example`,
					birth: birthOf(person.number),
					group_id: id
				}))
			);
		}
	}

	/** Watch A has chartwork this afternoon, which an exam must not run into. */
	async #addTimetables() {
		const { db } = this.otium;
		const ids: string[] = await db('candidate').where({ group_id: 'watch-a' }).pluck('id');
		const from = this.now + 330 * MINUTE;
		await db('commitment').insert(
			ids.map((candidate_id) => ({
				id: nanoid(),
				candidate_id,
				from_at: from,
				to_at: from + 90 * MINUTE,
				title: 'Chartwork'
			}))
		);
	}

	async #grantStanding() {
		const extra = (factor: number, minutes = 0): GrantBody => ({ kind: 'extra_time', factor, minutes });
		const standing: [number, GrantBody][] = [
			[1005, extra(1.5)],
			[1011, extra(1, 25)],
			[1023, extra(1.5)],
			[1032, extra(1.25)],
			[1040, extra(1.5)],
			[1047, extra(1.5)],
			[1048, extra(2)],
			[1049, extra(1.5)],
			[1050, extra(1.75)],
			[1061, extra(1.25)],
			[1077, extra(1.5)],
			[1090, extra(1, 15)]
		];
		for (const [number, body] of standing) {
			await giveGrant(this.otium, this.#by('ode'), nanoid(), {
				candidateId: this.#person(number).id,
				scope: { kind: 'standing' },
				body,
				reason: 'Agreed with the access office',
				givenBy: this.#by('ode').id,
				givenAt: this.clock.at
			});
		}
	}

	/** One room yesterday in which somebody did not get to the end. */
	async yesterday() {
		const opens = this.now - 25 * 60 * MINUTE;
		const id = await this.#plan('stability-yesterday', {
			paper: 'Ship Stability',
			groups: ['second'],
			room: 'signal',
			opens,
			minutes: 60,
			proctors: ['dunmore']
		});
		await this.#openDoor(id);
		const people = await this.#expected(id);
		await this.#letAllIn(id, people, opens);
		for (const [i, person] of people.entries())
			await this.#answer(person, 12, opens + MINUTE, 40 * MINUTE, i === 3 ? 7 : 12);
		this.clock.at = opens + 44 * MINUTE;
		for (const [i, person] of people.entries()) if (i !== 3) await this.#handIn(person);
		this.clock.at = opens + 50 * MINUTE;
		await endSession(this.otium, id, this.#by('dunmore'));
	}

	async planToday() {
		this.clock.at = this.now - 12 * 60 * MINUTE;
		const at = (minutes: number) => this.now + minutes * MINUTE;
		await this.#plan('radio', {
			paper: 'Radio Procedure',
			groups: ['watch-b'],
			room: 'signal',
			opens: at(-87),
			minutes: 30,
			proctors: ['dunmore']
		});
		await this.#plan('tides', {
			paper: 'Tides and Currents',
			groups: ['watch-a'],
			room: 'chart',
			opens: at(-42),
			minutes: 60,
			proctors: ['ode', 'dunmore'],
			watched: true
		});
		await this.#plan('tides-quiet', {
			paper: 'Tides and Currents',
			groups: ['access'],
			room: 'quiet',
			opens: at(-72),
			minutes: 60,
			proctors: ['finch']
		});
		await this.#plan('lights', {
			paper: 'Lights and Shapes',
			groups: ['watch-b'],
			room: 'signal',
			opens: at(48),
			minutes: 60,
			proctors: ['dunmore'],
			together: true,
			watched: true
		});
		await this.#plan('coastal', {
			paper: 'Coastal Navigation I',
			groups: ['watch-a'],
			room: 'chart',
			opens: at(198),
			minutes: 80,
			proctors: ['finch']
		});
		await this.#plan('stability', {
			paper: 'Ship Stability',
			groups: ['evening', 'second'],
			room: 'boat',
			opens: at(258),
			minutes: 75,
			proctors: []
		});
		await this.#plan('lights-lamp', {
			paper: 'Lights and Shapes',
			groups: ['azores'],
			room: 'lamp',
			opens: at(108),
			minutes: 60,
			proctors: ['sorrel']
		});
	}

	/** Everyone has handed in, but two were absent; their make-up is planned. */
	async radioFinished() {
		const id = this.#sessions.get('radio')!;
		const opens = this.now - 87 * MINUTE;
		await this.#openDoor(id);
		const people = (await this.#expected(id)).slice(0, -2);
		await this.#letAllIn(id, people, opens);
		for (const person of people) await this.#answer(person, 12, opens + MINUTE, 22 * MINUTE);
		this.clock.at = opens + 27 * MINUTE;
		for (const person of people) await this.#handIn(person);
		this.clock.at = opens + 31 * MINUTE;
		await endSession(this.otium, id, this.#by('dunmore'));
		await this.#plan('radio-make-up', {
			paper: 'Radio Procedure',
			groups: ['watch-b'],
			room: 'quiet',
			opens: this.now + 78 * MINUTE,
			minutes: 30,
			proctors: ['finch'],
			kind: 'make_up'
		});
	}

	/** Forty minutes in: most at work, two done, one not here, one on hold. */
	async chartRoomRunning() {
		const id = this.#sessions.get('tides')!;
		const opens = this.now - 42 * MINUTE;
		await this.#openDoor(id);
		const people = await this.#expected(id);
		const rook = people.find((person) => person.family === 'Rook')!;
		const atTheDoor = people.find((person) => person.family === 'Reyes')!;
		const early = people.filter((person) => ['Oakes', 'Bell'].includes(person.family));
		const present = people.filter((person) => person !== rook && person !== atTheDoor);
		await this.#letAllIn(id, present, opens);
		for (const [i, person] of present.entries()) {
			const done = early.includes(person) ? 24 : 11 + ((i * 5) % 9);
			// One of them has stopped reading: the last answers came in a second each.
			const rushed = person.family === 'Weir' ? 4 : 0;
			await this.#answer(person, 24, opens + MINUTE, 39 * MINUTE, done, rushed);
		}
		this.clock.at = this.now - 4 * MINUTE;
		for (const person of early) await this.#handIn(person);
		const held = present.find((person) => person.family === 'Moor')!;
		this.clock.at = this.now - 4 * MINUTE + 10_000;
		await act(this.otium, [
			{
				id: nanoid(),
				sittingId: held.sittingId,
				by: this.#by('dunmore'),
				body: { kind: 'hold', reason: 'out of the room', stopsClock: true }
			}
		]);
		await this.#unrest(present);
		// Missed the ferry: an own window lets her in past last entry, and only her.
		this.clock.at = this.now - 3 * MINUTE;
		await giveGrant(this.otium, this.#by('ode'), nanoid(), {
			candidateId: atTheDoor.id,
			scope: { kind: 'session', id },
			body: { kind: 'own_window', opens: this.now - 2 * MINUTE, closes: this.now + 88 * MINUTE },
			reason: 'Ferry cancelled',
			givenBy: this.#by('ode').id,
			givenAt: this.clock.at
		});
		this.clock.at = this.now - MINUTE;
		await this.#arrive(id, atTheDoor);
	}

	/** What a room has to tell besides: a hand that is up, somebody who keeps leaving the screen, somebody who rushes. */
	async #unrest(present: Sitter[]) {
		const [asking, leaving] = present
			.filter((person) => !['Oakes', 'Bell', 'Moor', 'Weir'].includes(person.family))
			.slice(6);
		for (let i = 1; i <= 4; i++) {
			const from = this.now - (20 - i * 4) * MINUTE;
			await noteLapses(this.otium, leaving.sittingId, [
				{ id: `demo-lapse-${i}`, kind: 'left', from, to: from + i * 6_000 }
			]);
		}
		this.clock.at = this.now - 70_000;
		await raiseHand(this.otium, asking.sittingId, 'The picture does not load');
		await this.otium.pace.sweep();
	}

	async quietRoomRunning() {
		const id = this.#sessions.get('tides-quiet')!;
		const opens = this.now - 72 * MINUTE;
		await this.#openDoor(id);
		const people = await this.#expected(id);
		await this.#letAllIn(id, people, opens);
		for (const [i, person] of people.entries()) await this.#answer(person, 24, opens + MINUTE, 70 * MINUTE, 15 + i * 2);
	}

	async #plan(
		key: string,
		plan: {
			paper: string;
			groups: string[];
			room: string;
			opens: number;
			minutes: number;
			proctors: string[];
			kind?: 'live' | 'make_up';
			together?: boolean;
			watched?: boolean;
		}
	): Promise<string> {
		const zone = plan.room === 'lamp' ? 'Atlantic/Azores' : ZONE;
		const input: SessionInput = {
			name: '',
			kind: plan.kind ?? 'live',
			paperId: this.#papers.get(plan.paper)!.id,
			groupIds: plan.groups,
			roomId: plan.room,
			date: localDate(plan.opens, zone),
			time: localTime(plan.opens, zone),
			until: localTime(plan.opens + (plan.minutes + 15) * MINUTE, zone),
			only: null,
			alsoIds: [],
			ruleSheetId: null,
			rules: {
				...DEFAULT_RULES,
				timing: {
					...DEFAULT_RULES.timing,
					limitMinutes: plan.minutes,
					clockStarts: plan.together ? 'room' : 'candidate'
				},
				lockdown: { ...DEFAULT_RULES.lockdown, level: plan.watched ? 'watched' : 'open' },
				tools: { ...DEFAULT_RULES.tools, calculator: 'scientific' }
			},
			administrationId: null,
			parts: null,
			proctorIds: plan.proctors.map((proctor) => this.#by(proctor).id)
		};
		const saved = await saveSession(this.otium, this.#by('ode'), ADMINISTRATION, input);
		if (!saved.ok)
			throw new Error(`The demo's ${key} can't be planned: ${saved.message} ${JSON.stringify(saved.errors)}`);
		const [id] = saved.ids;
		this.#sessions.set(key, id);
		return id;
	}

	async #openDoor(sessionId: string) {
		const session = (await findSession(this.otium.db, sessionId))!;
		this.clock.at = session.window.opens - 12 * MINUTE;
		await transact(this.otium.db, (trx) => makeDoorCode(trx, session, { role: 'system', id: 'sweep' }, this.clock.at));
	}

	async #expected(sessionId: string): Promise<Sitter[]> {
		return this.otium
			.db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: sessionId })
			.orderBy(['candidate.family', 'candidate.given'])
			.select('sitting.id as sittingId', 'candidate.id', 'candidate.number', 'candidate.given', 'candidate.family');
	}

	async #arrive(sessionId: string, person: Sitter) {
		const { doorCode } = (await findSession(this.otium.db, sessionId))!;
		const met = await knock(this.otium, {
			code: doorCode!,
			number: person.number,
			family: person.family,
			address: 'demo'
		});
		if (!met.ok) throw new Error(`${person.number} was not recognised: ${met.refusal.code}`);
		const device = this.devices.get(person.number) ?? (await newDemoDevice(this.otium.db));
		this.devices.set(person.number, device);
		const asked = {
			note: met.person.note,
			commandId: nanoid(),
			...(await demoDevice(this.otium.db, device)),
			deviceName: 'College laptop',
			address: 'demo'
		};
		const arrived = await arrive(this.otium, asked);
		if (!arrived.ok) throw new Error(`${person.number} could not arrive: ${arrived.refusal.code}`);
	}

	async #letAllIn(sessionId: string, people: Sitter[], opens: number) {
		const session = (await findSession(this.otium.db, sessionId))!;
		for (const [i, person] of people.entries()) {
			this.clock.at = opens - 9 * MINUTE + i * 12_000;
			await this.#arrive(sessionId, person);
		}
		this.clock.at = opens - 2 * MINUTE;
		const by = { ...this.#by('ode') };
		await act(
			this.otium,
			people.map((person) => ({ id: nanoid(), sittingId: person.sittingId, by, body: { kind: 'let_in' as const } }))
		);
		this.clock.at = opens;
		if (session.rules.timing.clockStarts === 'room') await startRoom(this.otium, sessionId, by);
		for (const [i, person] of people.entries()) {
			this.clock.at = opens + 4_000 + i * 1_500;
			await begin(this.otium, person.sittingId, nanoid(), '');
			await startClock(this.otium, person.sittingId);
		}
	}

	/** Answers `done` of the questions, spread over `lasting`; about four in five of them right. */
	async #answer(person: Sitter, total: number, from: number, lasting: number, done = total, rushed = 0) {
		const form = (await formOf(this.otium.db, person.sittingId))!;
		const key = new Map(
			[...this.#papers.values()].flatMap(({ paper }) =>
				paper.parts.flatMap((part) =>
					part.questions.flatMap((question) =>
						question.kind === 'calculated' ? [] : [[question.id, rightAnswer(question)] as const]
					)
				)
			)
		);
		const skill = Number(person.number.slice(-2));
		const revisions = form.questions.slice(0, done).map((question, i): Revision => {
			const right = (skill * 7 + i * 3) % 10 < 8;
			return {
				seq: i + 1,
				questionId: question.id,
				value: right ? (key.get(question.id) ?? ESSAY) : somethingElse(question),
				marked: (skill + i) % 17 === 0,
				struck: [],
				inViewMs: i >= done - rushed ? 1_100 : 30_000 + ((skill * 31 + i * 17) % 90) * 1_000
			};
		});
		for (const [i, revision] of revisions.entries()) {
			this.clock.at = from + Math.round((lasting * (i + 1)) / done);
			await this.otium.answers.save(person.sittingId, 1, [revision]);
		}
	}

	async #handIn(person: Sitter) {
		const receipt = newReceipt();
		const by: Actor = { role: 'candidate', id: person.id };
		this.clock.at += 3_000;
		await act(this.otium, [
			{ id: nanoid(), sittingId: person.sittingId, by, body: { kind: 'hand_in', receipt, reason: null } }
		]);
	}

	#by(key: string): Actor {
		return this.#staff.get(key)!;
	}

	#person(number: number) {
		return this.#people.get(`DO-${number}`)!;
	}
}

type Sitter = { sittingId: string; id: string; number: string; given: string; family: string };

const ESSAY =
	'A free surface lets the liquid run to the low side as the ship heels. Its weight moves with it, and so the righting lever is smaller than for a frozen load. I would press the tank up or empty it, one tank at a time, beginning low down.';

function somethingElse(question: FormQuestion): AnswerValue {
	if (question.kind === 'single') return question.choices!.at(-1)!.id;
	if (question.kind === 'multiple') return [question.choices![0].id];
	if (question.kind === 'ordering') return question.choices!.map((choice) => choice.id);
	if (question.kind === 'numeric') return '42';
	return question.kind === 'short' ? 'not sure' : null;
}

/** Invented, and the same every day. */
function birthOf(number: string): string {
	const n = Number(number.slice(-4));
	const two = (value: number) => String(value).padStart(2, '0');
	return `${2004 + (n % 4)}-${two(1 + (n % 12))}-${two(1 + ((n * 7) % 28))}`;
}
