import { readFileSync } from 'node:fs';

/** Linux counts a process's time in hundredths of a second for whoever reads it (`USER_HZ`, time(7)). */
const TICK_MS = 10;

/** Processor time that this process has had, its threads included, ms. */
export function ownProcessorMs(): number {
	const { user, system } = process.cpuUsage();
	return (user + system) / 1_000;
}

/** Processor time that another process has had, ms, as proc(5) has it; null: it is gone, or this system does not tell. */
export function processorMsOf(pid: number): number | null {
	try {
		const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
		// The second field is its name in brackets, which may hold anything; `utime` and `stime` are the 14th and 15th.
		const [utime, stime] = stat
			.slice(stat.lastIndexOf(')') + 2)
			.split(' ')
			.slice(11, 13)
			.map(Number);
		return (utime + stime) * TICK_MS;
	} catch {
		return null;
	}
}
