import { nanoid } from 'nanoid';
import { rightAnswer } from '$core/marking';
import type { AnswerValue, FormQuestion, Paper, Revision } from '$core/paper';
import { DEFAULT_RULES, type ResultRules } from '$core/session';
import type { Actor } from '$core/sitting';
import { localDate, localTime, MINUTE } from '$core/time';
import { transact } from '../db';
import { arrive, knock } from '../identity';
import type { Otium } from '../otium';
import { findSession, makeDoorCode, newReceipt, saveSession, startRoom, type SessionInput } from '../session';
import { act, begin, formOf, startClock } from '../sitting';
import { demoDevice, newDemoDevice } from './devices';
import type { DemoCandidate } from './people';

export const ZONE = 'Europe/London';
export const ADMINISTRATION = 'winter';

/**
 * A day that is played through the functions that the day itself uses, on a clock that is wound forward, so that the log
 * tells a true story.
 */
export class PlayedDay {
	/** What each simulated device was given, by candidate number. */
	readonly devices = new Map<string, string>();
	staff = new Map<string, Actor>();
	papers = new Map<string, { id: string; paper: Paper }>();
	sessions = new Map<string, string>();
	people = new Map<string, DemoCandidate & { id: string }>();

	constructor(
		readonly otium: Otium,
		readonly clock: { at: number },
		readonly now: number
	) {}

	async plan(
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
			administration?: string;
			result?: ResultRules;
			/** The close ends the work, so many minutes after the limit would. */
			cutAfter?: number;
		}
	): Promise<string> {
		const zone = plan.room === 'lamp' ? 'Atlantic/Azores' : ZONE;
		const input: SessionInput = {
			name: '',
			kind: plan.kind ?? 'live',
			paperId: this.papers.get(plan.paper)!.id,
			groupIds: plan.groups,
			roomId: plan.room,
			date: localDate(plan.opens, zone),
			time: localTime(plan.opens, zone),
			untilDate: null,
			until: localTime(plan.opens + (plan.minutes + (plan.cutAfter ?? 15)) * MINUTE, zone),
			only: null,
			withoutIds: [],
			alsoIds: [],
			ruleSheetId: null,
			rules: {
				...DEFAULT_RULES,
				timing: {
					...DEFAULT_RULES.timing,
					limitMinutes: plan.minutes,
					clockStarts: plan.together ? 'room' : 'candidate',
					atClose: plan.cutAfter === undefined ? DEFAULT_RULES.timing.atClose : 'cut'
				},
				lockdown: { ...DEFAULT_RULES.lockdown, level: plan.watched ? 'watched' : 'open' },
				tools: { ...DEFAULT_RULES.tools, calculator: 'scientific' },
				result: plan.result ?? DEFAULT_RULES.result
			},
			administrationId: null,
			parts: null,
			proctorIds: plan.proctors.map((proctor) => this.by(proctor).id)
		};
		const saved = await saveSession(this.otium, this.by('ode'), plan.administration ?? ADMINISTRATION, input);
		if (!saved.ok)
			throw new Error(`The demo's ${key} can't be planned: ${saved.message} ${JSON.stringify(saved.errors)}`);
		const [id] = saved.ids;
		this.sessions.set(key, id);
		return id;
	}

	async openDoor(sessionId: string) {
		const session = (await findSession(this.otium.db, sessionId))!;
		this.clock.at = session.window.opens - 12 * MINUTE;
		await transact(this.otium.db, (trx) => makeDoorCode(trx, session, { role: 'system', id: 'sweep' }, this.clock.at));
	}

	async expected(sessionId: string): Promise<Sitter[]> {
		return this.otium
			.db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: sessionId })
			.orderBy(['candidate.family', 'candidate.given'])
			.select('sitting.id as sittingId', 'candidate.id', 'candidate.number', 'candidate.given', 'candidate.family');
	}

	async arrive(sessionId: string, person: Sitter) {
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

	async letAllIn(sessionId: string, people: Sitter[], opens: number) {
		const session = (await findSession(this.otium.db, sessionId))!;
		for (const [i, person] of people.entries()) {
			this.clock.at = opens - 9 * MINUTE + i * 12_000;
			await this.arrive(sessionId, person);
		}
		this.clock.at = opens - 2 * MINUTE;
		const by = { ...this.by('ode') };
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
	async answer(person: Sitter, total: number, from: number, lasting: number, done = total, rushed = 0) {
		const form = (await formOf(this.otium.db, person.sittingId))!;
		const key = new Map(
			[...this.papers.values()].flatMap(({ paper }) =>
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

	async handIn(person: Sitter) {
		const receipt = newReceipt();
		const by: Actor = { role: 'candidate', id: person.id };
		this.clock.at += 3_000;
		await act(this.otium, [
			{ id: nanoid(), sittingId: person.sittingId, by, body: { kind: 'hand_in', receipt, reason: null } }
		]);
	}

	by(key: string): Actor {
		return this.staff.get(key)!;
	}

	person(number: number) {
		return this.people.get(`DO-${number}`)!;
	}
}

export type Sitter = { sittingId: string; id: string; number: string; given: string; family: string };

const ESSAY =
	'A free surface lets the liquid run to the low side as the ship heels. Its weight moves with it, and so the righting lever is smaller than for a frozen load. I would press the tank up or empty it, one tank at a time, beginning low down.';

function somethingElse(question: FormQuestion): AnswerValue {
	if (question.kind === 'single') return question.choices!.at(-1)!.id;
	if (question.kind === 'multiple') return [question.choices![0].id];
	if (question.kind === 'ordering') return question.choices!.map((choice) => choice.id);
	if (question.kind === 'numeric') return '42';
	return question.kind === 'short' ? 'not sure' : null;
}
