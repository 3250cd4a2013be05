import { nanoid } from 'nanoid';
import { foldNumber } from '$core/access';
import type { GrantBody } from '$core/grants';
import { questionsOf } from '$core/paper';
import { localDate, MINUTE } from '$core/time';
import { keepInBank, noteUse } from '../bank';
import { giveGrant } from '../grants';
import { addStaff } from '../identity';
import { BANK, BANK_REMARKS } from './bank';
import { beingWritten } from './paper-being-written';
import { DEMO_PAPERS } from './papers';
import { candidatesFor, DEMO_PASSWORD, DEMO_STAFF } from './people';
import { ADMINISTRATION, PlayedDay, ZONE } from './played-day';
import { watchkeeping } from './watchkeeping';

/** A day in a house that has all it needs: sites, rooms, people, papers and standing grants. */
export class FurnishedDay extends PlayedDay {
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
			this.staff.set(person.key, { role: roles[0].role === 'proctor' ? 'proctor' : 'coordinator', id });
		}
		const author = this.staff.get('brandreth')!.id;
		const keeping = { at: this.clock.at, writer: { id: author, sites: null }, siteId: null, audience: 'all' as const };
		for (const { paper, version } of DEMO_PAPERS) {
			const id = nanoid();
			await db('paper').insert({ id, title: paper.title, version, content: JSON.stringify(paper) });
			await db('paper_allowed').insert({ administration_id: ADMINISTRATION, paper_id: id });
			const questions = questionsOf(paper);
			await noteUse(db, (await keepInBank(db, questions, keeping)).ids, id);
			this.papers.set(paper.title, { id, paper });
		}
		await keepInBank(db, BANK, keeping);
		for (const [i, { id: question_id, text }] of BANK_REMARKS.entries())
			await db('question_remark').insert({
				id: `remark-${i + 1}`,
				question_id,
				text,
				at: this.clock.at,
				by: this.staff.get('ode')!.id
			});
		const { id: from, paper } = this.papers.get('Coastal Navigation I')!;
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
			for (const person of people) this.people.set(person.number, person);
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
			await giveGrant(this.otium, this.by('ode'), nanoid(), {
				candidateId: this.person(number).id,
				scope: { kind: 'standing' },
				body,
				reason: 'Agreed with the access office',
				givenBy: this.by('ode').id,
				givenAt: this.clock.at
			});
		}
	}
}

/** Invented, and the same every day. */
function birthOf(number: string): string {
	const n = Number(number.slice(-4));
	const two = (value: number) => String(value).padStart(2, '0');
	return `${2004 + (n % 4)}-${two(1 + (n % 12))}-${two(1 + ((n * 7) % 28))}`;
}
