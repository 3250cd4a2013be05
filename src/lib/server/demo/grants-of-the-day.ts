import { nanoid } from 'nanoid';
import type { GrantBody } from '$core/grants';
import { instantFromLocal, localDate, MINUTE } from '$core/time';
import { giveGrant } from '../grants';
import { askFor } from '../requests';
import { ZONE, type PlayedDay } from './played-day';

const DAY_MS = 24 * 60 * MINUTE;

/** What waits for whoever gives grants: tomorrow's session in which some time does not fit, and three requests. */
export async function grantsOfTheDay(day: PlayedDay): Promise<void> {
	const { otium, now } = day;
	const nine = instantFromLocal(localDate(now + DAY_MS, ZONE), '09:00', ZONE);
	const opens = nine.ok ? nine.at : now + DAY_MS;
	const id = await day.plan('coastal-tomorrow', {
		paper: 'Coastal Navigation I',
		groups: ['evening'],
		room: 'boat',
		opens,
		minutes: 80,
		proctors: ['dunmore'],
		cutAfter: 40
	});
	const given: [number, GrantBody][] = [
		[1055, { kind: 'extra_time', factor: 1.25, minutes: 0 }],
		[1066, { kind: 'extra_time', factor: 2, minutes: 0 }],
		[1070, { kind: 'extra_time', factor: 1.25, minutes: 0 }],
		[1070, { kind: 'separate_room' }],
		[1073, { kind: 'breaks', count: 2, minutes: 12 }],
		[1079, { kind: 'beside', as: 'reader', name: 'Alba Finch' }]
	];
	for (const [number, body] of given)
		await giveGrant(otium, day.by('penrose'), nanoid(), {
			candidateId: day.person(number).id,
			scope: { kind: 'session', id },
			body,
			reason: 'Agreed with the access office',
			givenBy: day.by('penrose').id,
			givenAt: now
		});
	for (const number of [1055, 1061, 1066])
		await otium.db('commitment').insert({
			id: nanoid(),
			candidate_id: day.person(number).id,
			from_at: opens + 90 * MINUTE,
			to_at: opens + 180 * MINUTE,
			title: 'Ship Handling'
		});
	const coastal = { sessionId: id, shown: null };
	const dunmore = { as: 'proctor', by: 'Rhys Dunmore', email: 'dunmore@saltmarsh.example' } as const;
	await askFor(otium, day.by('dunmore'), {
		...coastal,
		...dunmore,
		candidateId: day.person(1058).id,
		what: 'apart',
		why: 'Has a cast on the writing arm and speaks the answers aloud; the others would hear them.'
	});
	await askFor(
		otium,
		{ role: 'candidate', id: day.person(1064).id },
		{
			...coastal,
			as: 'candidate',
			by: 'the candidate',
			email: null,
			candidateId: day.person(1064).id,
			what: 'another_time',
			why: 'My ferry arrives at 09:40 tomorrow. Could I begin at ten?'
		}
	);
	await askFor(
		otium,
		{ role: 'system', id: 'teacher: Noor Hallam' },
		{
			sessionId: null,
			shown: null,
			as: 'teacher',
			by: 'Noor Hallam',
			email: 'hallam@saltmarsh.example',
			candidateId: day.person(1033).id,
			what: 'more_time',
			why: 'Reads with a ruler in class and was given time and a quarter there all term.'
		}
	);
}
