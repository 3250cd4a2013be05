import { clockTime, localTime, MINUTE } from '../../time';
import { counted, listed, someNames } from '../../names';
import type { SessionFacts } from '../facts';
import type { Finding, Fix } from '../finding';
import { isSameLanguage, languageName } from '../language';

/** Who would be missing, in the way of others, or in two places. */
export function checkPeople(facts: SessionFacts): Finding[] {
	const found: Finding[] = [];
	const { candidates, room, clashes, entitlement, zone } = facts;
	const seated = candidates - facts.elsewhere;
	const push = (
		code: string,
		level: Finding['level'],
		field: Finding['field'],
		title: string,
		message: string,
		fixes: Fix[] = []
	) => found.push({ code, level, field, title, message, fixes });

	if (candidates === 0) push('nobody', 'block', 'who', 'Nobody is expected.', 'Choose a group that has candidates.');
	if (seated > room.seats && room.seats > 0)
		push(
			'seats',
			'block',
			'where',
			'Too small.',
			`${counted(seated, 'candidate')}${facts.elsewhere > 0 ? ' in the room' : ''}, ${counted(room.seats, 'seat')} in the ${room.name}.`,
			roomFixes(facts)
		);
	if (room.seats === 0 && seated > 0)
		push('seats', 'block', 'where', 'No seats.', `The ${room.name} has no seat in use.`, roomFixes(facts));
	if (facts.trials.length > 0 && facts.kind !== 'rehearsal')
		push(
			'trial',
			'block',
			'who',
			'A made-up person.',
			'The trial person sits rehearsals only, so that nothing they do counts. Leave them out, or make this a rehearsal.',
			[{ text: 'a rehearsal', set: { kind: 'rehearsal' } }]
		);
	if (facts.notOpen.length > 0) {
		const [{ why }] = facts.notOpen;
		const who = someNames(facts.notOpen.map(({ person }) => person.name));
		push('K38', 'warn', 'who', 'Not open for everyone yet.', `${who}: ${why} They are refused at the door until then.`);
	}
	if (facts.elsewhere > 0) checkElsewhere(facts, push);
	if (clashes.room && facts.elsewhere < Math.max(1, candidates))
		push(
			'room_clash',
			'warn',
			'where',
			'Room taken.',
			`The ${room.name} has ${clashes.room} at that time.`,
			otherRoom(facts)
		);
	if (facts.proctors === 0)
		push('proctor', 'warn', 'where', 'No proctor.', 'Only coordinators can run this room until one is named.');
	for (const clash of clashes.proctors)
		push('proctor_clash', 'warn', 'where', 'Two rooms at once.', `${clash.name} also has ${clash.with} at that time.`);
	if (clashes.candidates.length > 0) {
		const [first] = clashes.candidates;
		const who = someNames(clashes.candidates.map((clash) => clash.person.name));
		const what =
			clashes.candidates.length === 1
				? `${first.with} at ${clockTime(first.from, zone)}`
				: `other commitments, the first at ${clockTime(Math.min(...clashes.candidates.map((clash) => clash.from)), zone)}`;
		push('K5', 'warn', 'who', 'Clashes with another commitment.', `${who}: ${what}.`, earlierStart(facts));
	}
	if (entitlement && entitlement.needed > entitlement.left)
		push(
			'K30',
			'block',
			'who',
			'Not enough sittings.',
			`${entitlement.needed} are needed, ${entitlement.left} are left for this site: ${entitlement.needed - entitlement.left} short. ${facts.mayAllot.length === 0 ? 'Somebody who coordinates all sites' : facts.mayAllot.join(' or ')} can allot more in the administration.`
		);
	if (facts.rules.door.identity === 'names_and_birthday' && facts.withoutIdentity.length > 0)
		push(
			'identity',
			'block',
			'door',
			'Could not sign in.',
			`${someNames(facts.withoutIdentity.map((one) => one.name))} ${facts.withoutIdentity.length === 1 ? 'has' : 'have'} no date of birth on record.`,
			[{ text: 'ask for number and family name', set: { 'rules.door.identity': 'number_and_family' } }]
		);

	return [...found, ...checkLanguages(facts)];
}

function checkLanguages({ languages, paper }: SessionFacts): Finding[] {
	const found: Finding[] = [];
	const spoken = languages.filter((one) => one.tag !== null);
	const ask = (one: { tag: string | null; ids: string[] }) =>
		`${one.ids.length} ${one.ids.length === 1 ? 'asks' : 'ask'} for ${languageName(one.tag!)}`;
	const [own, ...others] = paper.languages;
	for (const one of spoken) {
		const version = paper.languages.find(({ tag }) => isSameLanguage(tag, one.tag!));
		if (version && version.questions >= own.questions) continue;
		const whole = [own, ...others.filter(({ questions }) => questions >= own.questions)];
		const partly = version
			? `, and ${version.questions} of its ${counted(own.questions, 'question')} in ${languageName(one.tag!)}`
			: '';
		const rest = languages.filter((other) => other !== one).flatMap(({ ids }) => ids);
		found.push({
			code: 'K27',
			level: 'block',
			field: 'paper',
			title: 'Not in their language.',
			message: `${ask(one)}; the paper is there in ${whole.map(({ tag }) => languageName(tag)).join(' and ')}${partly}.`,
			fixes:
				rest.length === 0
					? []
					: [
							{
								text: one.ids.length === 1 ? 'without that one' : `without those ${one.ids.length}`,
								set: { only: rest }
							}
						]
		});
	}
	if (languages.length > 1 && spoken.length > 0)
		found.push({
			code: 'K26',
			level: 'warn',
			field: 'who',
			title: 'Two languages in one room.',
			message: `${spoken.map(ask).join(', ')}.`,
			fixes: [{ text: 'a session for each language', set: { split: 'language' } }]
		});
	return found;
}

function otherRoom({ otherRooms, candidates }: SessionFacts): Fix[] {
	const fits = otherRooms.find((room) => room.seats >= candidates);
	return fits ? [{ text: `use the ${fits.name}`, set: { roomId: fits.id } }] : [];
}

/** A larger room; or the same room twice, the second start when the first have gone. */
type Push = (
	code: string,
	level: Finding['level'],
	field: Finding['field'],
	title: string,
	message: string,
	fixes?: Fix[]
) => void;

/** What would shut out, or let in unseen, those who do not sit in the room. */
function checkElsewhere({ elsewhere, candidates, rules, networks }: SessionFacts, push: Push) {
	const who = `${elsewhere} of ${candidates} ${elsewhere === 1 ? 'sits' : 'sit'} elsewhere`;
	if (rules.door.networks.length > 0 && !rules.elsewhere.anyNetwork)
		push(
			'K24_elsewhere',
			'block',
			'door',
			'Those elsewhere are shut out.',
			`${who}, but only ${networks.named.map((one) => one.name).join(' and ')} may enter.`,
			[{ text: 'from anywhere, for them', set: { 'rules.elsewhere.anyNetwork': true } }]
		);
	if (rules.startWord || rules.finishWord)
		push(
			'K23_elsewhere',
			'info',
			'door',
			'A word said in the room.',
			`${who}: the ${rules.startWord ? 'start' : 'finish'} word must be sent to them.`
		);
	if (rules.timing.clockStarts === 'room')
		push('elsewhere_together', 'info', 'time', 'They start with the room.', `${who}, and everyone starts together.`);
}

function roomFixes(facts: SessionFacts): Fix[] {
	const { room, window, zone, rules, otherRooms } = facts;
	const candidates = facts.candidates - facts.elsewhere;
	const fixes = otherRoom(facts);
	const beside = otherRooms.find((other) => other.seats + room.seats >= candidates);
	if (fixes.length === 0 && beside && room.seats > 0)
		fixes.push({ text: `share with the ${beside.name}`, set: { split: `room:${beside.id}` } });
	const limit = rules.timing.limitMinutes;
	if (limit !== null && room.seats > 0 && candidates > room.seats) {
		const turns = Math.ceil(candidates / room.seats);
		const every = Math.ceil((limit + rules.timing.graceMinutes + 15) / 15) * 15;
		if (turns <= 4) {
			const times = Array.from({ length: turns }, (_, i) => clockTime(window.opens + i * every * MINUTE, zone));
			fixes.push({
				text: `split at ${listed(times)}`,
				set: { split: `stagger:${every}` }
			});
		}
	}
	return fixes;
}

/** Begin so much earlier that everyone is done before what comes next. */
function earlierStart({ clashes, window, zone, rules }: SessionFacts): Fix[] {
	const limit = rules.timing.limitMinutes;
	if (limit === null) return [];
	const first = Math.min(...clashes.candidates.map((clash) => clash.from));
	if (first <= window.opens) return [];
	const longest = Math.max(...clashes.candidates.map((clash) => clash.to)) - window.opens;
	const start = Math.floor((first - Math.max(longest, 0)) / (5 * MINUTE)) * 5 * MINUTE;
	return start < window.opens && window.opens - start <= 180 * MINUTE
		? [{ text: `start at ${clockTime(start, zone)}`, set: { time: localTime(start, zone) } }]
		: [];
}
