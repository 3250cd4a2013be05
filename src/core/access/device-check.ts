/** What a rehearsal looks at on a device. */
export const DEVICE_CHECKS = {
	client: 'Sealed client',
	screen: 'Screen',
	sound: 'Sound',
	microphone: 'Microphone',
	camera: 'Camera',
	storage: 'Keeping answers',
	line: 'Connection',
	clock: 'Clock',
	power: 'Power',
	screens: 'Screens',
	language: 'Language',
	accounts: 'Other accounts'
} as const;
export type DeviceCheck = keyof typeof DEVICE_CHECKS;

/** `without`: the person can't have it, has said so, and goes on without. */
export type CheckResult = { key: DeviceCheck; ok: boolean; says: string; without?: boolean };

/** What a candidate's sessions to come ask of the device. `sound`: some question has sound or a film. */
export type DeviceNeeds = { client: string | null; camera: boolean; sound: boolean };

/**
 * Whether a device is ready: every check that is needed has passed. Sound is heard, or somebody who hears none goes on
 * without it: nobody is kept out by that. A microphone helps, and nothing asks for one yet; a
 * wrong clock is told and keeps nobody out, as time goes by the server's. Whether somebody is signed out elsewhere is asked
 * at the door only, and counts where it was asked.
 */
export function isDeviceReady(results: CheckResult[], needs: DeviceNeeds): boolean {
	const needed: DeviceCheck[] = ['screen', 'storage', 'line'];
	if (needs.sound) needed.push('sound');
	if (needs.client !== null) needed.push('client');
	if (needs.camera) needed.push('camera');
	const stillIn = results.some((result) => result.key === 'accounts' && !result.ok);
	const passes = ({ key, ok, without }: CheckResult) => ok || (key === 'sound' && without === true);
	return !stillIn && needed.every((key) => results.some((result) => result.key === key && passes(result)));
}

/** A clock that is further off than this shows a candidate the wrong time of finishing. */
export const CLOCK_TOLERANCE_MS = 60_000;
/** A line slower than this makes saving feel slow, though nothing is lost. */
export const SLOW_LINE_MS = 1_500;

/** A battery with less than this does not last a paper. */
const BATTERY_ENOUGH = 0.4;

/** What is to be said of the power: `level` from 0 to 1. */
export function powerCheck({ charging, level }: { charging: boolean; level: number }): CheckResult {
	const percent = `${Math.round(level * 100)} %`;
	if (charging) return { key: 'power', ok: true, says: `plugged in, ${percent}` };
	return level >= BATTERY_ENOUGH
		? { key: 'power', ok: true, says: `battery at ${percent}` }
		: { key: 'power', ok: false, says: `battery at ${percent}: plug it in` };
}
