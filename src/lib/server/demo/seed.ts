import { nanoid } from 'nanoid';
import { MINUTE } from '$core/time';
import { giveGrant } from '../grants';
import { noteLapses } from '../lockdown';
import { raiseHand } from '../messages';
import type { Otium } from '../otium';
import { endSession } from '../session';
import { act } from '../sitting';
import { aroundTheDay } from './around-the-day';
import { autumn } from './autumn';
import { keepDemoDevices } from './devices';
import { FurnishedDay } from './furnished-day';
import { grantsOfTheDay } from './grants-of-the-day';
import type { Sitter } from './played-day';

/**
 * Fills an empty database with a test day in the middle of its morning. Everything past is played through the same
 * functions that the day itself uses, on a clock that is wound forward, so that the log tells a true story.
 * @param otium started with `now: () => clock.at`
 * @param clock the clock that is wound; it stands at `now` when this returns
 * @param before what was there before this administration; none: nothing
 */
export async function seedDemo(
	otium: Otium,
	clock: { at: number },
	now: number,
	before?: (day: Day) => Promise<void>
): Promise<void> {
	const day = new Day(otium, clock, now);
	clock.at = now - (before ? 41 * 24 : 74) * 60 * MINUTE;
	await day.settle();
	await before?.(day);
	clock.at = now - 74 * 60 * MINUTE;
	await day.threeDaysAgo();
	await day.yesterday();
	await day.planToday();
	await day.radioFinished();
	await day.chartRoomRunning();
	await day.quietRoomRunning();
	clock.at = now;
	await grantsOfTheDay(day);
	keepDemoDevices(otium.dataDir, day.devices);
}

/** The same with the administration before it, which is over and not closed yet. */
export async function seedWithAutumn(otium: Otium, clock: { at: number }, now: number): Promise<void> {
	await seedDemo(otium, clock, now, autumn);
	const ode = await otium.db('staff').where({ sign_in: 'ode' }).first('id');
	await aroundTheDay(otium, { role: 'coordinator', id: ode.id });
}

class Day extends FurnishedDay {
	/** A session in which two were absent; nothing is arranged for them yet. */
	async threeDaysAgo() {
		const opens = this.now - 73 * 60 * MINUTE;
		const id = await this.plan('lights-before', {
			paper: 'Lights and Shapes',
			groups: ['second'],
			room: 'signal',
			opens,
			minutes: 60,
			proctors: ['finch']
		});
		await this.openDoor(id);
		const people = (await this.expected(id)).slice(0, -2);
		await this.letAllIn(id, people, opens);
		for (const person of people) await this.answer(person, 12, opens + MINUTE, 40 * MINUTE);
		this.clock.at = opens + 50 * MINUTE;
		for (const person of people) await this.handIn(person);
		this.clock.at = opens + 60 * MINUTE;
		await endSession(this.otium, id, this.by('finch'));
	}

	/** One room yesterday in which somebody did not get to the end. */
	async yesterday() {
		const opens = this.now - 25 * 60 * MINUTE;
		const id = await this.plan('stability-yesterday', {
			paper: 'Ship Stability',
			groups: ['second'],
			room: 'signal',
			opens,
			minutes: 60,
			proctors: ['dunmore']
		});
		await this.openDoor(id);
		const people = await this.expected(id);
		await this.letAllIn(id, people, opens);
		for (const [i, person] of people.entries())
			await this.answer(person, 12, opens + MINUTE, 40 * MINUTE, i === 3 ? 7 : 12);
		this.clock.at = opens + 44 * MINUTE;
		for (const [i, person] of people.entries()) if (i !== 3) await this.handIn(person);
		this.clock.at = opens + 50 * MINUTE;
		await endSession(this.otium, id, this.by('dunmore'));
	}

	async planToday() {
		this.clock.at = this.now - 12 * 60 * MINUTE;
		const at = (minutes: number) => this.now + minutes * MINUTE;
		await this.plan('radio', {
			paper: 'Radio Procedure',
			groups: ['watch-b'],
			room: 'signal',
			opens: at(-87),
			minutes: 30,
			proctors: ['dunmore']
		});
		await this.plan('tides', {
			paper: 'Tides and Currents',
			groups: ['watch-a'],
			room: 'chart',
			opens: at(-42),
			minutes: 60,
			proctors: ['ode', 'dunmore'],
			watched: true
		});
		await this.plan('tides-quiet', {
			paper: 'Tides and Currents',
			groups: ['access'],
			room: 'quiet',
			opens: at(-72),
			minutes: 60,
			proctors: ['finch']
		});
		await this.plan('lights', {
			paper: 'Lights and Shapes',
			groups: ['watch-b'],
			room: 'signal',
			opens: at(48),
			minutes: 60,
			proctors: ['dunmore'],
			together: true,
			watched: true
		});
		await this.plan('coastal', {
			paper: 'Coastal Navigation I',
			groups: ['watch-a'],
			room: 'chart',
			opens: at(198),
			minutes: 80,
			proctors: ['finch']
		});
		await this.plan('stability', {
			paper: 'Ship Stability',
			groups: ['evening', 'second'],
			room: 'boat',
			opens: at(258),
			minutes: 75,
			proctors: []
		});
		await this.plan('lights-lamp', {
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
		const id = this.sessions.get('radio')!;
		const opens = this.now - 87 * MINUTE;
		await this.openDoor(id);
		const people = (await this.expected(id)).slice(0, -2);
		await this.letAllIn(id, people, opens);
		for (const person of people) await this.answer(person, 12, opens + MINUTE, 22 * MINUTE);
		this.clock.at = opens + 27 * MINUTE;
		for (const person of people) await this.handIn(person);
		this.clock.at = opens + 31 * MINUTE;
		await endSession(this.otium, id, this.by('dunmore'));
		await this.plan('radio-make-up', {
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
		const id = this.sessions.get('tides')!;
		const opens = this.now - 42 * MINUTE;
		await this.openDoor(id);
		const people = await this.expected(id);
		const rook = people.find((person) => person.family === 'Rook')!;
		const atTheDoor = people.find((person) => person.family === 'Reyes')!;
		const early = people.filter((person) => ['Oakes', 'Bell'].includes(person.family));
		const present = people.filter((person) => person !== rook && person !== atTheDoor);
		await this.letAllIn(id, present, opens);
		for (const [i, person] of present.entries()) {
			const done = early.includes(person) ? 24 : 11 + ((i * 5) % 9);
			// One of them has stopped reading: the last answers came in a second each.
			const rushed = person.family === 'Weir' ? 4 : 0;
			await this.answer(person, 24, opens + MINUTE, 39 * MINUTE, done, rushed);
		}
		this.clock.at = this.now - 4 * MINUTE;
		for (const person of early) await this.handIn(person);
		const held = present.find((person) => person.family === 'Moor')!;
		this.clock.at = this.now - 4 * MINUTE + 10_000;
		await act(this.otium, [
			{
				id: nanoid(),
				sittingId: held.sittingId,
				by: this.by('dunmore'),
				body: { kind: 'hold', reason: 'out of the room', stopsClock: true }
			}
		]);
		await this.#unrest(present);
		// Missed the ferry: an own window lets her in past last entry, and only her.
		this.clock.at = this.now - 3 * MINUTE;
		await giveGrant(this.otium, this.by('ode'), nanoid(), {
			candidateId: atTheDoor.id,
			scope: { kind: 'session', id },
			body: { kind: 'own_window', opens: this.now - 2 * MINUTE, closes: this.now + 88 * MINUTE },
			reason: 'Ferry cancelled',
			givenBy: this.by('ode').id,
			givenAt: this.clock.at
		});
		this.clock.at = this.now - MINUTE;
		await this.arrive(id, atTheDoor);
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
		const id = this.sessions.get('tides-quiet')!;
		const opens = this.now - 72 * MINUTE;
		await this.openDoor(id);
		const people = await this.expected(id);
		await this.letAllIn(id, people, opens);
		for (const [i, person] of people.entries()) await this.answer(person, 24, opens + MINUTE, 70 * MINUTE, 15 + i * 2);
	}
}
