import { languageName, type SessionFacts } from '$core/session';
import { clockTime, localTime, MINUTE } from '$core/time';
import type { SessionInput, SessionPart } from './input';
import type { Roster } from './roster';

/**
 * The parts that a split makes of one setup: `language`, `room:<id>` to share with another room, or
 * `stagger:<minutes>` and `stagger:<minutes>:<people>` for several starts in one room. Groups that fit into the room
 * together may overlap there.
 * @throws RangeError for any other
 */
export function splitInput(split: string, input: SessionInput, facts: SessionFacts, roster: Roster): SessionPart[] {
	const [how, what, most] = split.split(':');
	const ids = roster.people.map((person) => person.candidateId);
	const base: SessionPart = {
		label: '',
		groupIds: input.groupIds,
		only: null,
		roomId: input.roomId,
		time: input.time,
		until: input.until,
		proctorIds: input.proctorIds
	};
	switch (how) {
		case 'language': {
			// Each language in a room of its own where there is one that is free and large enough.
			const free = [...facts.otherRooms];
			return [...facts.languages]
				.sort((a, b) => b.ids.length - a.ids.length)
				.map((language, i) => {
					const at = i === 0 ? -1 : free.findIndex((room) => room.seats >= language.ids.length);
					const [room] = at < 0 ? [] : free.splice(at, 1);
					const label = language.tag === null ? 'No language asked for' : languageName(language.tag);
					return { ...base, label, only: language.ids, roomId: room?.id ?? input.roomId };
				});
		}
		case 'room': {
			const [here, there] = [ids.slice(0, facts.room.seats), ids.slice(facts.room.seats)];
			const other = facts.otherRooms.find((room) => room.id === what);
			return [
				{ ...base, label: facts.room.name, only: here },
				{ ...base, label: other?.name ?? '', only: there, roomId: what, proctorIds: [] }
			];
		}
		case 'stagger': {
			const every = Number(what) * MINUTE;
			const size = Math.min(Number(most ?? facts.room.seats), facts.room.seats);
			const turns = Math.ceil(ids.length / size);
			const fitTogether = ids.length <= facts.room.seats;
			const length = facts.window.closes === null ? null : facts.window.closes - facts.window.opens;
			return Array.from({ length: turns }, (_, i) => {
				const opens = facts.window.opens + i * every;
				const time = localTime(opens, facts.zone);
				return {
					...base,
					label: `at ${clockTime(opens, facts.zone)}`,
					only: ids.slice(i * size, (i + 1) * size),
					time,
					// A window that would run into the next turn ends with it, unless there is a seat for everyone at once.
					until:
						length === null
							? null
							: localTime(opens + (i < turns - 1 && !fitTogether ? Math.min(length, every) : length), facts.zone)
				};
			});
		}
		default:
			throw new RangeError(`There is no way to split by “${split}”.`);
	}
}
