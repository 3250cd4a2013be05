import { nanoid } from 'nanoid';
import { hasEnded, refusal, type Refusal } from '$core/sitting';
import { noteRefusal, settleRefusals } from '../door';
import type { House } from '../house';
import { readPhoto } from '../pictures';
import { offerAgain, sitAgain, type Again } from '../session';
import { act, loadSitting, noteDevice, type Loaded } from '../sitting';
import { standingAtDoor } from '../steps';
import { offNetwork, type Answer } from './answer';
import { signInDevice, type SignedIn } from './device';
import { readDoorNote, type Recognition } from './door-note';
import { isOnNetwork } from './network';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'hub' | 'limits' | 'presence' | 'dataDir' | 'quotas'>;

/** What a proctor can do something about; too early, for one, settles itself. */
const TOLD_TO_PROCTOR = new Set<string>(['past_last_entry', 'window_over', 'barred', 'already_ended', 'off_network']);

/** What the order of the administration's parts says against it, told to both sides; null: nothing. */
async function closedByOrder(otium: Needs, one: Loaded, deviceName: string): Promise<Refusal | null> {
	const { sitting, session, candidate } = one;
	if (sitting.beganAt !== null || session.kind === 'rehearsal') return null;
	const place = {
		administrationId: session.administrationId,
		paperTitle: session.paper.title,
		candidateId: candidate.id
	};
	const standing = await standingAtDoor(otium.db, place);
	if (standing.open) return null;
	await tellProctor(otium, one, 'step_closed', deviceName);
	return { ...refusal('step_closed'), instead: `${standing.why} Your proctor can see this.` };
}

/**
 * The photo of whomever a note from the door recognised; null: none, or the note is old, not ours, or another browser's.
 */
export async function photoByNote(
	otium: Needs,
	text: string,
	browser: string | null
): Promise<{ bytes: Uint8Array; type: string } | null> {
	const note = await readDoorNote(otium, text, browser);
	if (!note) return null;
	const row = await otium.db('sitting').where({ id: note.sittingId }).first('candidate_id');
	return row ? readPhoto(otium, row.candidate_id) : null;
}

/** What somebody sends who says "this is me". */
type Arrival = {
	note: string;
	commandId: string;
	/** By which the record knows the browser; null: it keeps no cookies. */
	browser?: string | null;
	deviceId: string;
	deviceName: string;
	address: string;
	/** null: its browser can't sign what it sends. */
	publicKey: string | null;
};

const tooLate: Answer<never> = {
	ok: false,
	refusal: { code: 'gone', message: 'That took too long.', instead: 'Enter the code and your number once more.' }
};

/**
 * "This is me": arrives at the door and binds this device, or signs the bound device in again. Whoever repeats it is held
 * against how things are now: an arrival that was answered once signs nobody in whose device is not the bound one.
 */
export async function arrive(otium: Needs, asked: Arrival): Promise<Answer<{ device: SignedIn }>> {
	const now = otium.now();
	const note = await readDoorNote(otium, asked.note, asked.browser ?? null);
	if (!note) return tooLate;
	await otium.quotas.take('arrivals', note.sittingId, 1, asked.browser ?? asked.deviceId);
	const before = await loadSitting(otium.db, note.sittingId, now);
	if (!before) return { ok: false, refusal: refusal('gone') };
	if (!(await isOnNetwork(otium.db, before.session, asked.address))) return offNetwork();

	const { sitting } = before;
	const isBound = sitting.device?.id === asked.deviceId;
	// They were recognised for another session, or before another device took the place: the door has to look once more.
	const isStale = sitting.sessionId !== note.sessionId || sitting.epoch !== note.epoch;
	if (isStale && !isBound) return tooLate;

	let { sittingId } = note;
	if (hasEnded(sitting.state) && offerAgain(before, now)) {
		// Whoever has handed in and may sit the paper again is shown what they handed in, and asked there.
		if (!isBound) {
			const next = await againElsewhere(otium, before, note, asked);
			if (!next.ok) return next;
			({ sittingId } = next);
		}
	} else if (isBound && ['at_door', 'let_in', 'working', 'on_hold'].includes(sitting.state)) {
		await noteDevice(otium, { sittingId, epoch: sitting.epoch }, 'signed_in_anew', asked.deviceName);
	} else {
		const refused = await comeIn(otium, before, note, asked);
		if (refused) return { ok: false, refusal: refused };
	}
	const device = await signInDevice(otium, sittingId, asked.deviceId, asked.publicKey);
	if (!device) return { ok: false, refusal: refusal('second_device') };
	await settleRefusals(otium, note.sessionId, { candidate_id: before.candidate.id });
	return { ok: true, device };
}

/** Binds the device by the sitting's own table. Why it can't; null: it is bound. */
async function comeIn(otium: Needs, before: Loaded, note: Recognition, asked: Arrival): Promise<Refusal | null> {
	const { sittingId, sessionId } = note;
	const closed = await closedByOrder(otium, before, asked.deviceName);
	if (closed) return closed;
	const [outcome] = await act(otium, [
		{
			// A device's ids are its own: what one has asked for is no answer to another.
			id: `${asked.deviceId} ${asked.commandId}`,
			sittingId,
			by: { role: 'candidate', id: before.candidate.id },
			body: { kind: 'arrive', sessionId, ...deviceAsked(asked) }
		}
	]);
	if (outcome.ok) return null;
	const { code } = outcome.refusal;
	if (code === 'second_device') await tellOfOtherDevice(otium, sittingId, asked.deviceName);
	else if (TOLD_TO_PROCTOR.has(code)) await tellProctor(otium, before, code, asked.deviceName);
	return outcome.refusal;
}

/**
 * A further attempt from another device than the one that handed in: what was handed in is not for it, and it takes no
 * attempt by itself. The proctor frees the device that has finished, and then the next one begins its attempt at the door.
 */
async function againElsewhere(otium: Needs, before: Loaded, note: Recognition, asked: Arrival): Promise<Again> {
	if (before.sitting.device === null)
		return sitAgain(otium, note.sittingId, { commandId: asked.commandId, ...deviceAsked(asked) });
	await tellProctor(otium, before, 'again_elsewhere', asked.deviceName);
	return {
		ok: false,
		refusal: {
			code: 'second_device',
			message: 'You handed in on another device.',
			instead: 'Use that device for your next attempt, or ask your proctor to let you continue here.'
		}
	};
}

const deviceAsked = ({ deviceId, deviceName, publicKey }: Arrival) => ({
	deviceId,
	deviceName,
	...(publicKey === null && { unsigned: true as const })
});

const tellProctor = (otium: Needs, { session, candidate, sitting }: Loaded, code: string, deviceName: string) =>
	noteRefusal(otium, { sessionId: session.id, code, deviceName, candidateId: candidate.id, sittingId: sitting.id });

/** "No" to "Is this you?": somebody else's details were typed, by mistake or not. The proctor hears of it. */
export async function notMe(otium: Needs, text: string, browser: string | null, deviceName: string): Promise<void> {
	const note = await readDoorNote(otium, text, browser);
	if (!note) return;
	await otium.quotas.take('arrivals', note.sittingId, 1, browser ?? '');
	const one = await loadSitting(otium.db, note.sittingId, otium.now());
	if (one) await tellProctor(otium, one, 'not_me', deviceName);
}

/** A few times and no more: whoever goes on trying must not fill the record, which nobody may shorten. */
async function tellOfOtherDevice(otium: Needs, sittingId: string, deviceName: string) {
	if (!(await otium.quotas.has('notes', sittingId, 'other_device'))) return;
	await act(otium, [
		{ id: nanoid(), sittingId, by: { role: 'system', id: 'door' }, body: { kind: 'refuse_other_device', deviceName } }
	]);
}
