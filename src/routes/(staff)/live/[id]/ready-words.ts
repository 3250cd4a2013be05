import { someNames } from '$core/names';
import type { RoomReady } from '$core/room';
import { clockLength } from '$core/time';

/** "12 of 13 have come; Tobias Rook has not; last entry in 6:20. 12 of 12 screens ready." Empty once everybody is at work. */
export function readyInWords(ready: RoomReady, lastEntry: number | null, now: number): string {
	const { meant, come, missing, letIn, screens, mayWork } = ready;
	const parts: string[] = [];
	if (missing.length > 0 && (lastEntry === null || now <= lastEntry)) {
		// Few are named, so that somebody can go and look for them.
		const who = missing.length > 3 ? '' : `; ${someNames(missing)} ${missing.length === 1 ? 'has' : 'have'} not`;
		const until = lastEntry === null ? '' : `; last entry in ${clockLength(lastEntry - now)}`;
		parts.push(`${come} of ${meant} have come${who}${until}.`);
	}
	if (letIn > 0) parts.push(`${screens} of ${mayWork} screens ready.`);
	return parts.join(' ');
}
