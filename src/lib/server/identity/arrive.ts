import { nanoid } from 'nanoid';
import { refusal, type Refusal } from '$core/sitting';
import { noteRefusal, settleRefusals } from '../door';
import type { House } from '../house';
import { readPhoto } from '../pictures';
import { offerAgain } from '../session';
import { act, loadSitting, noteDevice, type Loaded } from '../sitting';
import { standingAtDoor } from '../steps';
import { offNetwork, type Answer } from './answer';
import { signInDevice, type SignedIn } from './device';
import { isOnNetwork } from './network';
import { readNote } from './tokens';

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
	const refused = { sessionId: session.id, candidateId: candidate.id, sittingId: sitting.id };
	await noteRefusal(otium, { ...refused, code: 'step_closed', deviceName });
	return { ...refusal('step_closed'), instead: `${standing.why} Your proctor can see this.` };
}

/** The photo of whomever a note from the door recognised; null: none, or the note is old or not ours. */
export async function photoByNote(otium: Needs, text: string): Promise<{ bytes: Uint8Array; type: string } | null> {
	const note = await readNote(otium.db, text, otium.now());
	if (!note?.sittingId) return null;
	const row = await otium
		.db('sitting')
		.where({ id: note.sittingId as string })
		.first('candidate_id');
	return row ? readPhoto(otium, row.candidate_id) : null;
}

/** "This is me": arrives at the door and binds this device, or signs the bound device in again. */
export async function arrive(
	otium: Needs,
	asked: {
		note: string;
		commandId: string;
		deviceId: string;
		deviceName: string;
		address: string;
		/** null: its browser can't sign what it sends. */
		publicKey: string | null;
	}
): Promise<Answer<{ device: SignedIn }>> {
	const now = otium.now();
	const note = await readNote(otium.db, asked.note, now);
	if (!note)
		return {
			ok: false,
			refusal: { code: 'gone', message: 'That took too long.', instead: 'Enter the code and your number once more.' }
		};
	const sittingId = note.sittingId as string;
	const before = await loadSitting(otium.db, sittingId, now);
	if (!before) return { ok: false, refusal: refusal('gone') };

	if (!(await isOnNetwork(otium.db, before.session, asked.address))) return offNetwork();

	// Whoever has handed in and may sit the paper again is shown what they handed in, and asked there.
	if (offerAgain(before, now)) return { ok: true, device: await signInDevice(otium, sittingId, asked.publicKey) };
	const bound = before.sitting.device;
	const isBack =
		bound?.id === asked.deviceId && ['at_door', 'let_in', 'working', 'on_hold'].includes(before.sitting.state);
	if (!isBack) {
		const closed = await closedByOrder(otium, before, asked.deviceName);
		if (closed) return { ok: false, refusal: closed };
		const [outcome] = await act(otium, [
			{
				id: asked.commandId,
				sittingId,
				by: { role: 'candidate', id: before.candidate.id },
				body: {
					kind: 'arrive',
					sessionId: note.sessionId as string,
					deviceId: asked.deviceId,
					deviceName: asked.deviceName,
					...(asked.publicKey === null && { unsigned: true as const })
				}
			}
		]);
		if (!outcome.ok) {
			const { code } = outcome.refusal;
			if (code === 'second_device') await tellOfOtherDevice(otium, sittingId, asked.deviceName);
			else if (TOLD_TO_PROCTOR.has(code))
				await noteRefusal(otium, {
					sessionId: note.sessionId as string,
					code,
					deviceName: asked.deviceName,
					candidateId: before.candidate.id,
					sittingId
				});
			return { ok: false, refusal: outcome.refusal };
		}
	} else await noteDevice(otium, { sittingId, epoch: bound.epoch }, 'signed_in_anew', asked.deviceName);
	const device = await signInDevice(otium, sittingId, asked.publicKey);
	await settleRefusals(otium, note.sessionId as string, { candidate_id: before.candidate.id });
	return { ok: true, device };
}

/** "No" to "Is this you?": somebody else's details were typed, by mistake or not. The proctor hears of it. */
export async function notMe(otium: Needs, text: string, deviceName: string): Promise<void> {
	const note = await readNote(otium.db, text, otium.now());
	if (!note?.sittingId) return;
	const one = await loadSitting(otium.db, note.sittingId as string, otium.now());
	if (!one) return;
	await noteRefusal(otium, {
		sessionId: note.sessionId as string,
		code: 'not_me',
		deviceName,
		candidateId: one.candidate.id,
		sittingId: one.sitting.id
	});
}

async function tellOfOtherDevice(otium: Needs, sittingId: string, deviceName: string) {
	await act(otium, [
		{ id: nanoid(), sittingId, by: { role: 'system', id: 'door' }, body: { kind: 'refuse_other_device', deviceName } }
	]);
}
