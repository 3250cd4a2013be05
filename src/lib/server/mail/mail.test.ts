import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ICAL from 'ical.js';
import { simpleParser } from 'mailparser';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { TEMPLATES } from '$core/mail';
import { findSession } from '../session';
import { buildHouse, COORDINATOR, NINE, type House } from '../testing/house';
import { isDue, lettersFor, postLetters, sendWaiting } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	const { db } = house.otium;
	await db('candidate').where({ id: 'can0' }).update({ given: 'Zoë', family: 'Ó Briain', email: 'zoe@sea.example' });
	await db('candidate').where({ id: 'can1' }).update({ email: 'bounce-1@sea.example' });
});
afterEach(() => house.close());

const letters = async () => {
	const session = (await findSession(house.otium.db, 's1'))!;
	return {
		session,
		letters: await lettersFor(house.otium.db, session, 'candidate', TEMPLATES.candidate, 'https://otium.example', NINE)
	};
};

describe('mail', () => {
	it('is read back by mailparser as it was written, with a calendar that ical.js reads', async () => {
		const { session, letters: all } = await letters();
		expect(await postLetters(house.otium, COORDINATOR, session, 'candidate', all)).toBe(2);
		expect(await sendWaiting(house.otium)).toBe(1);
		const outbox = join(house.dir, 'outbox');
		const [file] = readdirSync(outbox);
		const mail = await simpleParser(readFileSync(join(outbox, file)));
		expect(mail.subject).toBe('Numbers: Tuesday 8 December at 09:00 GMT');
		expect(mail.to).toMatchObject({ value: [{ name: 'Zoë Ó Briain', address: 'zoe@sea.example' }] });
		expect(mail.text).toContain(
			'you will sit Numbers on Tuesday 8 December at 09:00 GMT, in the Chart Room, Quayside, seat A1. You have 60 minutes.'
		);
		expect(mail.text).toContain('https://otium.example/sit/rehearse');
		const calendar = mail.attachments.find(
			(one) => one.contentType.startsWith('text/calendar') || one.filename === 'session.ics'
		)!;
		const event = new ICAL.Event(
			new ICAL.Component(ICAL.parse(calendar.content.toString()) as never).getFirstSubcomponent('vevent')!
		);
		expect(event.startDate.toJSDate().getTime()).toBe(NINE);
		expect(event.location).toBe('Chart Room, Quayside');
	});

	it('tells who has no address, what failed and why, and goes once when pressed twice', async () => {
		const { session, letters: all } = await letters();
		expect(all.map((letter) => [letter.to, letter.address])).toEqual([
			['Given1 Family1', 'bounce-1@sea.example'],
			['Given2 Family2', null],
			['Zoë Ó Briain', 'zoe@sea.example']
		]);
		await postLetters(house.otium, COORDINATOR, session, 'candidate', all);
		expect(await postLetters(house.otium, COORDINATOR, session, 'candidate', all)).toBe(0);
		await sendWaiting(house.otium);
		const failed = await house.otium.db('mail').where({ state: 'failed' });
		expect(failed).toMatchObject([
			{ to_address: 'bounce-1@sea.example', trouble: expect.stringMatching(/no such mailbox/) }
		]);
		expect((await letters()).letters.map((letter) => letter.state).sort()).toEqual(['failed', 'sent', null].sort());
	});

	it('tells each their own time', async () => {
		await house.otium.db('grant_given').insert({
			id: 'g1',
			candidate_id: 'can0',
			scope_kind: 'standing',
			kind: 'extra_time',
			body: JSON.stringify({ kind: 'extra_time', factor: 1.5, minutes: 0 }),
			reason: 'x',
			given_by: 'ode',
			given_at: NINE
		});
		const { letters: all } = await letters();
		expect(all.find((letter) => letter.to === 'Zoë Ó Briain')!.mail.body).toContain('You have 90 minutes.');
		expect(all.find((letter) => letter.to === 'Given1 Family1')!.mail.body).toContain('You have 60 minutes.');
	});

	it('knows what it told, and sends what has changed since with a calendar entry that replaces the first', async () => {
		const first = await letters();
		await postLetters(house.otium, COORDINATOR, first.session, 'candidate', first.letters);
		await sendWaiting(house.otium);
		expect((await letters()).letters.filter(isDue).map((letter) => letter.to)).toEqual(['Given1 Family1']);
		await house.otium.db('session').update({ opens: NINE + 4 * 3_600_000, closes: NINE + 5 * 3_600_000 });
		house.clock.at += 60_000;
		const { session, letters: all } = await letters();
		const zoe = all.find((letter) => letter.to === 'Zoë Ó Briain')!;
		expect(zoe.changes.map((change) => [change.was, change.is])).toContainEqual(['09:00 GMT', '13:00 GMT']);
		expect(isDue(zoe)).toBe(true);
		expect(zoe.mail.subject).toMatch(/^Changed: /);
		expect(zoe.mail.body).toMatch(/^This has changed since we last wrote to you:\n- .*13:00 GMT \(before: 09:00 GMT\)/);
		await postLetters(house.otium, COORDINATOR, session, 'candidate', [zoe]);
		const { calendar } = await house.otium
			.db('mail')
			.where({ to_name: 'Zoë Ó Briain' })
			.orderBy('made_at', 'desc')
			.first();
		const event = new ICAL.Component(ICAL.parse(calendar) as never).getFirstSubcomponent('vevent')!;
		// RFC 5546, 2.1.4: the same UID with a higher SEQUENCE takes the place of the earlier one.
		expect(Number(event.getFirstPropertyValue('sequence'))).toBe(1);
		await sendWaiting(house.otium);
		expect((await letters()).letters.filter(isDue).map((letter) => letter.to)).toEqual(['Given1 Family1']);
	});

	it('gives each their own link and code where the session is entered with slips', async () => {
		const row = await house.otium.db('session').first('rules');
		const rules = JSON.parse(row.rules);
		await house.otium
			.db('session')
			.update({ rules: JSON.stringify({ ...rules, door: { ...rules.door, slips: true } }) });
		const { letters: all } = await letters();
		const links = all.map((letter) => /https:\/\/otium\.example\/sit\?code=\w+/.exec(letter.mail.body)![0]);
		expect(new Set(links).size).toBe(3);
		expect((await letters()).letters[0].mail.body).toBe(all[0].mail.body);
	});
});
