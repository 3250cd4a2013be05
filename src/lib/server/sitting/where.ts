import type { Loaded } from './load';

/**
 * Where somebody sits: in the room of their own window where that has one, else in the session's. A seat is one of the
 * session's room.
 * @param seat theirs in the session's room; null: they have none
 */
export function whereOf(
	{ merge, session }: Pick<Loaded, 'merge' | 'session'>,
	seat: string | null
): { room: string; seat: string | null } {
	return merge.room
		? { room: merge.room.name, seat: merge.room.id === session.room.id ? seat : null }
		: { room: session.room.name, seat };
}
