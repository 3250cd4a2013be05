import { counted } from '../names';

/** `4:02`, `1:04:02`: a length as a clock shows it. */
export function clockLength(ms: number): string {
	const seconds = Math.max(0, Math.floor(ms / 1_000));
	const [h, m, s] = [Math.floor(seconds / 3_600), Math.floor(seconds / 60) % 60, seconds % 60];
	const two = (n: number) => String(n).padStart(2, '0');
	return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/** Minutes left as a person says them: rounded up, so that "1 min" is never nothing. */
export function minutesLeft(ms: number): number {
	return Math.ceil(ms / 60_000);
}

/** `1 minute`, `12 minutes`. */
export function minutesInWords(minutes: number): string {
	return counted(minutes, 'minute');
}

/** `60 + 2 = 62 min`, where there are minutes to finish up; else `60 min`. */
export function minutesAndGrace(minutes: number, grace: number): string {
	return grace > 0 ? `${minutes} + ${grace} = ${minutes + grace} min` : `${minutes} min`;
}
