import { nanoid } from 'nanoid';
import type { Actor, DeviceNote } from '$core/sitting';
import { bindingOf } from '../db';
import type { House } from '../house';
import { act } from './act';

const DOOR: Actor = { role: 'system', id: 'door' };

/**
 * Notes something about a device that its proctor should know, while the sitting is bound to it. What comes again and
 * again is noted a few times and no more.
 */
export async function noteDevice(
	otium: Pick<House, 'db' | 'now' | 'hub' | 'quotas'>,
	{ sittingId, epoch }: { sittingId: string; epoch: number },
	what: DeviceNote,
	deviceName = ''
): Promise<void> {
	if (bindingOf(otium.db, sittingId)?.device_epoch !== epoch || !(await otium.quotas.has('notes', sittingId, what)))
		return;
	await act(otium, [{ id: nanoid(), sittingId, by: DOOR, body: { kind: 'note_device', what, deviceName } }]);
}
