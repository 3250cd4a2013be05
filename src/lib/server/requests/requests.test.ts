import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MOST_A_DAY, MOST_OPEN } from '$core/request';
import { MINUTE } from '$core/time';
import { wordsOf, type Mail } from '../mail';
import { giveGrant } from '../grants';
import { ownNote, readOwnNote, readTeacherNote, teacherNote } from '../identity';
import { buildHouse, CANDIDATE, COORDINATOR, NINE, PROCTOR, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import { askFor, decide, ownPage, requestsAbout, requestsFor, takeBack, type NewRequest } from '.';

const ODE = somebody('ode', 'coordinator', null);
let house: House;
beforeEach(async () => {
	house = await buildHouse();
	await house.otium.db('candidate').where({ id: 'can0' }).update({ email: 'zoe@sea.example' });
});
afterEach(() => house.close());
const request = (change: Partial<NewRequest> = {}): NewRequest => ({
	candidateId: 'can0',
	sessionId: 's1',
	what: 'more_time',
	why: 'A broken arm.',
	as: 'proctor',
	by: 'Rhys Dunmore',
	email: 'dunmore@sea.example',
	shown: null,
	...change
});
const mails = async () => {
	const sent: Mail[] = await house.otium.db('mail').orderBy('to_address');
	return sent.map((mail) => [mail.to_address, mail.subject, wordsOf(house.otium.db, mail)]);
};

describe('a request', () => {
	it('is decided once; whoever asked and the candidate are told, and it stays with the person', async () => {
		house.clock.at = NINE - 60 * MINUTE;
		const id = await askFor(house.otium, PROCTOR, request());
		const { open } = await requestsFor(house.otium.db, ODE);
		expect(open).toMatchObject([{ id, candidate: { name: 'Given0 Family0' }, neededBy: NINE, state: 'open' }]);
		expect(await decide(house.otium, ODE, COORDINATOR, id, { state: 'given', note: 'It comes to 90 minutes.' })).toBe(
			2
		);
		await expect(decide(house.otium, ODE, COORDINATOR, id, { state: 'declined', note: 'no' })).rejects.toMatchObject({
			status: 409,
			problem: { message: 'This was decided already by Maren Ode.' }
		});
		expect(await mails()).toEqual([
			[
				'dunmore@sea.example',
				'Decided: your request for Given0 Family0',
				'Dear Rhys Dunmore,\n\nyour request for Given0 Family0 (more time for Numbers · Watch A) has been granted.\n\nIt comes to 90 minutes.'
			],
			[
				'zoe@sea.example',
				'Decided: your request',
				'Dear Given0 Family0,\n\nyour request (more time for Numbers · Watch A) has been granted.\n\nIt comes to 90 minutes.'
			]
		]);
		expect(await requestsAbout(house.otium.db, 'can0')).toMatchObject([{ state: 'given', decidedBy: 'Maren Ode' }]);
		expect((await requestsFor(house.otium.db, ODE)).decided).toHaveLength(1);
	});

	it('sent twice is one, and only so many wait about one person', async () => {
		const first = await askFor(house.otium, PROCTOR, request());
		expect(await askFor(house.otium, PROCTOR, request())).toBe(first);
		for (let i = 1; i < MOST_OPEN; i++) await askFor(house.otium, PROCTOR, request({ why: `And ${i}.` }));
		await expect(askFor(house.otium, PROCTOR, request({ why: 'One more.' }))).rejects.toMatchObject({ status: 422 });
	});

	it('taken back again and again is refused after so many in a day, and what is refused leaves no file', async () => {
		const shown = (text: string) => ({
			name: 'note.txt',
			type: 'text/plain' as const,
			base64: Buffer.from(text).toString('base64')
		});
		const ask = (i: number) =>
			askFor(house.otium, CANDIDATE, request({ as: 'candidate', why: `Number ${i}.`, shown: shown(`note ${i}`) }));
		for (let i = 0; i < MOST_A_DAY; i++) await takeBack(house.otium, 'can0', await ask(i));
		await expect(ask(MOST_A_DAY)).rejects.toMatchObject({ status: 422 });
		expect(readdirSync(join(house.dir, 'evidence'))).toHaveLength(MOST_A_DAY);
		house.clock.at += 25 * 60 * MINUTE;
		await ask(MOST_A_DAY + 1);
	});

	it('is nobody’s at another site to see or decide', async () => {
		const id = await askFor(house.otium, PROCTOR, request());
		const elsewhere = somebody('sol', 'grants_officer', 'lighthouse');
		expect(await requestsFor(house.otium.db, elsewhere)).toEqual({ open: [], decided: [] });
		await expect(decide(house.otium, elsewhere, COORDINATOR, id, { state: 'given', note: '' })).rejects.toMatchObject({
			status: 403
		});
	});
});

describe('a candidate’s own page', () => {
	it('tells what they were given in their words, and of requests only their own', async () => {
		await giveGrant(house.otium, COORDINATOR, 'time-and-half', {
			candidateId: 'can0',
			scope: { kind: 'standing' },
			body: { kind: 'extra_time', factor: 1.5, minutes: 0 },
			reason: 'a diagnosis that is nobody’s business',
			givenBy: 'ode',
			givenAt: NINE
		});
		await askFor(house.otium, PROCTOR, request());
		const id = await askFor(
			house.otium,
			CANDIDATE,
			request({ as: 'candidate', by: 'Given0 Family0', why: 'I write slowly.' })
		);
		const page = (await ownPage(house.otium.db, 'can0', NINE))!;
		expect(page.sittings).toMatchObject([
			{
				paper: 'Numbers',
				isToCome: true,
				told: [
					'You have 90 minutes: 60, and 30 more for you.',
					'It opens on Tuesday 8 December at 09:00; come between 08:45 and 09:15. It closes at 10:15.',
					'You sit in the Chart Room.'
				]
			}
		]);
		expect(page.requests.map((one) => one.why)).toEqual(['I write slowly.']);
		expect(JSON.stringify(page)).not.toContain('diagnosis');
		expect(await takeBack(house.otium, 'can1', id)).toBe(false);
		expect(await takeBack(house.otium, 'can0', id)).toBe(true);
		expect(await takeBack(house.otium, 'can0', id)).toBe(false);
	});

	it('is opened by its own link alone: not by another kind, a changed one, or one that is too old', async () => {
		const { db } = house.otium;
		const own = await ownNote(db, 'can0', NINE);
		const teacher = await teacherNote(db, { name: 'T', email: 't@sea.example', siteId: 'quayside' }, NINE);
		expect(await readOwnNote(db, own, NINE)).toBe('can0');
		expect(await readOwnNote(db, teacher, NINE)).toBeNull();
		// A link that went to a mistyped address ends when that is put right.
		const { email } = await db('candidate').where({ id: 'can0' }).first('email');
		await db('candidate').where({ id: 'can0' }).update({ email: 'right@saltmarsh.example' });
		expect(await readOwnNote(db, own, NINE)).toBeNull();
		await db('candidate').where({ id: 'can0' }).update({ email });
		expect(await readTeacherNote(db, own, NINE)).toBeNull();
		expect(await readTeacherNote(db, teacher, NINE)).toMatchObject({ siteId: 'quayside' });
		expect(await readOwnNote(db, own.slice(0, -1) + (own.endsWith('A') ? 'B' : 'A'), NINE)).toBeNull();
		expect(await readOwnNote(db, own, NINE + 61 * 24 * 60 * MINUTE)).toBeNull();
	});
});
