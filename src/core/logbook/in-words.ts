import { counted, capital } from '../names';
import { INCIDENT_KINDS, type IncidentKind } from '../incident';
import { INCIDENT_DECISIONS, type IncidentDecision } from '../validity';
import { LAPSE_NAMES, type Lapse } from '../lockdown';
import type { DeviceNote } from '../sitting';
import { minutesInWords, clockLength } from '../time';
import { REQUEST_WHAT, type RequestWhat } from '../request';
import { KEPT_BECAUSE, type KeptBecause } from './kept-because';
import type { LogLine } from './line';

/** Where an act takes two persons: what their accounts have in common. */
const SHARED: Record<string, string> = { email: 'an e-mail address', browser: 'a browser' };
function onePerson({ shares }: LogLine['body']): string {
	if (!Array.isArray(shares) || shares.length === 0) return '';
	return `. The accounts of both persons share ${shares.map((what) => SHARED[what as string]).join(' and ')}`;
}
/** What was noted of a device, in words. */
export const DEVICE_NOTE_WORDS: Record<DeviceNote, string> = {
	forged: 'A request with this device’s cookie but without its signature was refused',
	second_line: 'This sign-in is in use in two browsers',
	other_address: 'The device came from another address than before',
	signed_in_anew: 'Signed in at the door again'
};

/** What goes in its time. */
const DELETED: Record<string, string> = {
	snapshots: 'pictures from the camera',
	evidence: 'pieces of evidence',
	photos: 'photos of candidates',
	answers: 'answers'
};
const yearsKept = (years: unknown) => (years === null ? 'for ever' : `for ${years} ${years === 1 ? 'year' : 'years'}`);

const KINDS: Record<string, (entry: LogLine) => string> = {
	arrived: ({ body }) =>
		`Arrived at the door on ${body.deviceName}${body.unsigned ? ', in a browser that cannot sign its requests' : ''}`,
	turned_away: ({ body, who }) => `Turned away by ${who}: ${body.reason}`,
	let_in: ({ who, candidate }) => (who === candidate ? 'Let in as the rules say' : `Let in by ${who}`),
	began: () => 'Began',
	clock_started: ({ body, at }) =>
		Number(body.startedAt) < at
			? 'First question on screen; the clock had started after a minute'
			: 'First question on screen: the clock runs',
	held: ({ body, who }) =>
		`Put on hold by ${who}: ${body.reason}${body.stopsClock ? ', clock stopped' : ', clock running'}`,
	resumed: ({ who }) => `Resumed by ${who}`,
	device_freed: ({ who }) => `Device freed by ${who}`,
	other_device_refused: ({ body }) => `Another device was refused: ${body.deviceName}`,
	device_noted: ({ body }) =>
		`${DEVICE_NOTE_WORDS[body.what as DeviceNote]}${body.deviceName ? `: ${body.deviceName}` : ''}`,
	handed_in: ({ body, who }) => `Handed in by ${who}, receipt ${body.receipt}${body.reason ? `: ${body.reason}` : ''}`,
	time_ran_out: ({ body }) =>
		`Time up, ${body.outcome === 'counts_nothing' ? 'not scored' : `handed in for them, receipt ${body.receipt}`}`,
	carried_over: ({ body }) => `Carried over${body.reason ? `: ${body.reason}` : ''}`,
	marked_absent: ({ who }) => `Marked absent by ${who}`,
	reopened: ({ body, who }) => `Reopened by ${who}: ${body.reason}`,
	set_aside: ({ body, who }) => `Set aside by ${who}: ${body.reason}`,
	restored: ({ who }) => `Restored by ${who}`,
	continued_later: ({ body, who }) => `To continue another time, by ${who}: ${body.reason}`,
	fresh_allowed: ({ body, who }) => `May sit again from the start, allowed by ${who}: ${body.reason}`,
	taken_back: ({ who }) => `Undone by ${who}`,
	expected_again: ({ who }) => `Expected again, by ${who}`,
	assigned: ({ who }) => `Put into another session by ${who}`,
	line_lost: () => 'Line lost',
	line_back: () => 'Line back',
	server_away: ({ body, at }) => `The server was away for ${clockLength(at - Number(body.from))}; the clock stood`,
	answers_kept: ({ body }) =>
		`${counted(Number(body.answers), 'answer')} arrived ${KEPT_BECAUSE[body.because as KeptBecause]}: kept, not counted`,
	taken_from_paper: ({ body, who }) => `Handed in on paper, typed in by ${who}: ${body.reason}`,
	typed_from_paper: ({ body, who }) =>
		`${body.answers} ${body.answers === 1 ? 'answer' : 'answers'} typed in from paper${body.form ? `, printed form ${body.form},` : ''} by ${who}`,
	scan_added: ({ body, who }) => `A scan of work on paper added to question ${body.question} by ${who}: ${body.name}`,
	answers_counted: ({ body, who }) =>
		`${counted(Number(body.answers), 'answer')} that were kept are counted by ${who}: ${body.reason}`,
	grant_given: ({ body, who }) =>
		`${capital(String(body.what))}, ${body.effect ? `${body.effect}, ` : ''}by ${who}: ${body.reason}`,
	grant_withdrawn: ({ body, who }) => `Withdrawn by ${who}: ${body.what}`,
	owed_waived: ({ body, who }) => `Need not sit, decided by ${who}: ${body.reason}`,
	waiver_taken_back: ({ who }) => `Owed after all, decided by ${who}`,
	grant_asked: ({ body }) => `${REQUEST_WHAT[body.what as RequestWhat]}: asked for by ${body.by}`,
	request_given: ({ body, who }) => `${REQUEST_WHAT[body.what as RequestWhat]}: request granted by ${who}`,
	request_declined: ({ body, who }) =>
		`${REQUEST_WHAT[body.what as RequestWhat]}: request not granted by ${who}: ${body.note}`,
	request_taken_back: () => 'Request taken back by the candidate',
	incident_decided: ({ body, who }) =>
		`${INCIDENT_DECISIONS[body.decision as IncidentDecision]}, decided by ${who}${body.note ? `: ${body.note}` : ''}`,
	validity_decided: ({ body, who }) => `Result ${body.verdict}, decided by ${who}: ${body.note}`,
	alike_decided: ({ body, who }) => `Similar answers looked at by ${who} (${body.pairs} pairs): ${body.note}`,
	marking_planned: ({ who }) => `Who marks a question, and how, was set by ${who}`,
	marked: ({ body, who }) => `${counted(Number(body.points), 'point')} given by ${who}`,
	mark_taken_back: ({ body, who }) => `A mark was taken back by ${who}${body.why ? `: ${body.why}` : ''}`,
	correction_proposed: ({ body, who }) => `Correction of a question proposed by ${who}: ${body.reason}`,
	correction_confirmed: ({ body, who }) =>
		`Correction of a question confirmed by ${who}; ${counted(Number(body.changed), 'result')} changed${onePerson(body)}`,
	correction_declined: ({ who }) => `Correction of a question declined by ${who}`,
	site_signed: ({ who }) => `Signed for the site by ${who}`,
	site_unsigned: ({ who }) => `Signature taken back by ${who}`,
	closing_asked: ({ who }) => `${who} closed; another person has to as well`,
	administration_closed: ({ body, who }) =>
		`Administration closed by ${who}; archive ${String(body.archive).slice(0, 16)}${onePerson(body)}`,
	addendum_proposed: ({ body, who }) => `Addendum proposed by ${who}: ${body.text}`,
	addendum_confirmed: ({ body, who }) => `Addendum confirmed by ${who}${onePerson(body)}`,
	addendum_declined: ({ who }) => `Addendum declined by ${who}`,
	deleted_in_time: ({ body }) =>
		body.what === 'log'
			? `What ${counted(Number(body.count), 'entry', 'entries')} of the log said deleted, as its time had come`
			: `${body.count} ${DELETED[String(body.what)] ?? body.what} deleted, as their time had come`,
	retention_changed: ({ body }) =>
		`Kept after closing from now on: answers ${yearsKept(body.answers)}, the log ${yearsKept(body.log)}`,
	results_released: ({ body, who }) => `${counted(Number(body.results), 'result')} released by ${who}`,
	released_read: ({ who }) => `Released results read by ${who}`,
	release_called_back: ({ who }) => `Release called back by ${who}`,
	results_sent_out: ({ body, who }) => `${counted(Number(body.results), 'result')} taken out as ${body.as} by ${who}`,
	subject_data_given: ({ body, who }) => `All data of ${body.number} given out by ${who}`,
	session_planned: ({ body }) => `Planned: ${body.sentence}`,
	session_changed: ({ body }) => `Changed: ${body.sentence}`,
	window_moved: ({ body, who }) => `Moved by ${who} from ${body.was} to ${body.is}: ${body.reason}`,
	session_ended: ({ body }) => `Session ended, ${counted(Number(body.sittings), 'sitting')} accounted for`,
	person_added: ({ body }) => `Added by hand: ${body.name}, ${body.number}`,
	group_made: ({ body }) => `Group ${body.name} made`,
	group_renamed: ({ body }) => `Group ${body.was} is called ${body.name} now`,
	steps_changed: ({ body }) => `Parts in order: ${(body.steps as string[]).join(', ')}`,
	step_ticked: ({ body }) =>
		`${body.step}: ${body.on ? (body.why ? 'opened' : 'ticked done') : 'taken back'} for ${body.candidates}${body.why ? `. ${body.why}` : ''}`,
	contacts_changed: ({ body }) => `Contacts changed: ${body.contacts} now`,
	technical_ticked: ({ body }) => `${body.on ? 'Seen to' : 'Not seen to after all'}: ${body.task}`,
	time_called: () => 'The proctor ended the paper: time is up for all without more of it',
	room_started: () => 'Room started: all clocks are running',
	opened_early: ({ who }) => `Started early by ${who}`,
	door_code_made: () => 'Door code created',
	door_code_renewed: () => 'Door code replaced: the old one no longer works',
	door_code_shown: () => 'Door code shown',
	door_code_hidden: () => 'Door code hidden',
	door_code_died: () => 'Door code expired',
	entry_closed: ({ body }) => {
		const missing = body.notArrived as string[];
		return missing.length === 0
			? 'Last entry passed; everyone has arrived'
			: `Last entry passed; not arrived: ${missing.join(', ')}`;
	},
	paper_begun: ({ body }) => `Paper started: ${body.title}`,
	paper_questions_kept: ({ body }) =>
		`Questions of ${body.title} kept in the bank: ${body.added} new, ${body.changed} changed`,
	question_kept: ({ body }) => `Question ${body.question} of the bank kept as revision ${body.revision}`,
	bank_file_taken: ({ body }) =>
		`A file taken into the bank: ${counted(Number(body.added), 'question')} added, ${body.changed} changed`,
	questions_changed: ({ body }) => `${body.questions} questions of the bank changed at once`,
	paper_withdrawn: ({ body }) => `${body.title}, version ${body.version}, withdrawn: ${body.why}`,
	paper_offered: ({ body }) => `${body.title}, version ${body.version}, offered again`,
	paper_frozen: ({ body }) => `${body.title} frozen as version ${body.version}`,
	people_imported: ({ body }) =>
		`Imported ${body.file}: ${body.added} added, ${body.changed} changed${Number(body.left) > 0 ? `, ${body.left} no longer listed` : ''}`,
	people_exported: ({ body }) => `People of ${body.site} exported as ${body.format}`,
	person_changed: ({ body }) => `${body.name}, ${body.number}, changed${body.left ? ': no longer listed' : ''}`,
	timetable_imported: ({ body }) =>
		`Timetable imported: ${counted(Number(body.entries), 'entry', 'entries')} for ${counted(Number(body.candidates), 'candidate')}`,
	roster_exported: ({ body }) => `Roster exported: ${(body.fields as string[]).join(', ')}`,
	rule_sheet_copied: ({ body }) => `Rule sheet ${body.name} copied from ${body.from}`,
	rule_sheet_changed: ({ body }) =>
		`Rule sheet ${body.name} changed: ${(body.changes as string[]).join(', ') || 'its name or note'}`,
	rule_sheet_withdrawn: ({ body }) => `Rule sheet ${body.name} withdrawn`,
	room_made: ({ body }) => `Room ${body.name} added, ${counted(Number(body.seats), 'seat')}`,
	room_changed: ({ body }) => `Room ${body.name} changed, ${counted(Number(body.seats), 'seat')}`,
	network_saved: ({ body }) => `Network ${body.name}: ${body.ranges}`,
	network_removed: ({ body }) => `Network ${body.name} removed`,
	administration_changed: ({ body }) => `Administration ${body.name} changed`,
	administration_made: ({ body }) => `Administration ${body.name} added`,
	site_made: ({ body }) => `Site ${body.name} added, ${body.zone}`,
	staff_added: ({ body }) => `${body.name} added to the staff: ${(body.roles as string[]).join(', ')}`,
	staff_changed: ({ body }) =>
		`${body.name}’s roles: ${(body.roles as string[]).join(', ') || 'none'}${body.password ? ', new password' : ''}`,
	enrolment_opened: () => 'Code created for enrolling devices in the sealed client',
	client_enrolled: ({ body }) => `${body.device} enrolled in the sealed client`,
	client_withdrawn: ({ body }) => `${body.device} withdrawn: its sealed client is no longer accepted`,
	site_key_made: ({ body }) => `Key ${body.key} for sealed clients created`,
	site_key_withdrawn: ({ body }) => `Key ${body.key} for sealed clients withdrawn`,
	mail_posted: ({ body }) =>
		`${counted(Number(body.mails), 'mail')} to ${body.to === 'proctor' ? 'proctors' : 'candidates'} queued for sending`,
	signed_in: ({ body }) =>
		`Signed in${body.secondStep ? ', in two steps' : ''}${body.service ? `, by ${body.service}` : ''}`,
	sign_in_rules_changed: ({ body }) =>
		`Sign-in rules changed: second step for ${(body.secondStepFor as string[]).join(', ') || 'nobody'}, signed out after ${minutesInWords(Number(body.idleMinutes))}`,
	password_changed: ({ body }) => `Own password changed${body.byLink ? ', by a link' : ''}`,
	second_step_added: ({ body }) => `Second step set up: ${body.what}${body.name ? `, ${body.name}` : ''}`,
	second_step_removed: ({ body }) =>
		`Second step removed${body.of ? ` from ${body.of}` : ''}: ${body.what}${body.name ? `, ${body.name}` : ''}`,
	recovery_codes_made: () => 'New recovery codes created',
	recovery_code_used: () => 'Signed in with a recovery code',
	session_called_off: ({ body, who }) =>
		`${body.name} called off by ${who}: ${body.why}. ${body.people} expected no more, ${body.told} written to`,
	password_link_shown: ({ body, who }) =>
		`Link to choose a password for ${body.name} shown to ${who}, to be handed over`,
	house_named: ({ body }) =>
		`The house is called ${body.name ?? 'nothing yet'}, at ${body.address ?? 'the address where it is reached'}`,
	password_link_sent: ({ body }) => `Link to choose a password sent to ${body.name}`,
	sign_in_failed: ({ body }) => `${body.misses} wrong passwords in a row, the last from ${body.address}`,
	mail_template_changed: ({ body }) =>
		`Text of the mail to ${body.to === 'proctor' ? 'proctors' : 'candidates'} changed`,
	lapsed: ({ body }) =>
		`${LAPSE_NAMES[body.what as Lapse['kind']] ?? body.what}${Number(body.lastedMs) > 0 ? `, for ${Math.max(1, Math.round(Number(body.lastedMs) / 1_000))} s` : ''}`,
	message_sent: ({ body, who }) => `Message from ${who}: ${body.text}`,
	hand_raised: ({ body }) => `Raised a hand${body.text ? `: ${body.text}` : ''}`,
	incident_told: ({ body, who }) =>
		`Incident reported by ${who}: ${INCIDENT_KINDS[body.what as IncidentKind]}, ${counted(Number(body.people), 'candidate')}${Number(body.minutes) > 0 ? `, ${minutesInWords(Number(body.minutes))} given back` : ''}: ${body.note}`,
	incident_withdrawn: ({ body, who }) => `Incident report withdrawn by ${who}: ${body.note}`,
	another_attempt: ({ body }) => `Attempt ${body.attempt} started`,
	added_late: ({ body, who }) => `Added to this session by ${who}${body.seat ? `, seat ${body.seat}` : ''}`,
	reseated: ({ body, who }) => `Moved to seat ${body.to}${body.from ? ` from ${body.from}` : ''} by ${who}`,
	handed_over: ({ body, who }) =>
		`Handed over by ${who} to ${body.to}${body.stays ? `; ${who} stays as well` : ''}${body.note ? `: ${body.note}` : ''}`
};

/** What an entry says, in words. A kind without words of its own is told as it is. */
export function entryInWords(entry: LogLine): string {
	if (entry.isEmptied) return `${capital(entry.kind.replaceAll('_', ' '))}; the rest was deleted in its time`;
	return KINDS[entry.kind]?.(entry) ?? capital(entry.kind.replaceAll('_', ' '));
}
