/**
 * Entries of the logbook by which somebody of the staff ran a room. Who supervised is read from them, and never from whom a
 * session names now: a name can be taken off it.
 */
export const SUPERVISING_ENTRIES = [
	'door_code_made',
	'door_code_renewed',
	'door_code_shown',
	'let_in',
	'turned_away',
	'held',
	'resumed',
	'device_freed',
	'handed_in',
	'carried_over',
	'marked_absent',
	'taken_back',
	'room_started',
	'opened_early',
	'entry_closed',
	'time_called',
	'message_sent',
	'handed_over',
	'session_ended'
] as const;
