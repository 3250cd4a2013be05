import { join } from 'node:path';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { instantFromLocal, localDate } from '$core/time';

const FILE = 'demo-clock.json';
const ZONE = 'Europe/London';

/**
 * The clock that a data folder runs on. A demo's stands at a quarter to ten in the morning when it is made, whatever
 * the hour, so that there is always a live day to look at; it goes on from there, also over restarts.
 */
export async function demoClock(dataDir: string): Promise<() => number> {
	const file = join(dataDir, FILE);
	if (!existsSync(file)) return Date.now;
	const { ahead } = JSON.parse(readFileSync(file, 'utf8')) as { ahead: number };
	return () => Date.now() + ahead;
}

/** Sets a new demo's clock to that time today. Returns the instant. */
export function setDemoClock(dataDir: string, time = '09:42'): number {
	const today = instantFromLocal(localDate(Date.now(), ZONE), time, ZONE);
	if (!today.ok) throw new Error(`${time} is not a time on the demo's day.`);
	writeFileSync(join(dataDir, FILE), JSON.stringify({ ahead: today.at - Date.now() }));
	return today.at;
}
