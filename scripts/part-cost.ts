import { createHash } from 'node:crypto';
import { cpus } from 'node:os';

/** What a part of the tests took. */
export type Cost = {
	name: string;
	/** Seconds that passed. */
	seconds: number;
	/** Seconds of all cores together in which the machine worked. */
	coreSeconds: number;
	/** The same, counted in yardsticks: so many on any machine and beside any load. */
	yards: number;
};

/** A part may take that much more than what is written down, without a word. */
const GROWTH = 1.2;

/** Measures a part while it runs. The machine does nothing else meanwhile, or that is counted too. */
export async function measured<T>(name: string, part: () => Promise<T>): Promise<{ cost: Cost; result: T }> {
	const started = performance.now();
	const before = workedSoFar();
	const lengths = [yardstick()];
	const ticker = setInterval(() => lengths.push(yardstick()), 2_000);
	try {
		const result = await part();
		lengths.push(yardstick());
		const coreSeconds = workedSoFar() - before;
		const yard = lengths.reduce((sum, one) => sum + one, 0) / lengths.length;
		return {
			result,
			cost: { name, seconds: (performance.now() - started) / 1_000, coreSeconds, yards: coreSeconds / yard }
		};
	} finally {
		clearInterval(ticker);
	}
}

/** Seconds that all cores have worked since the machine started. */
function workedSoFar(): number {
	const ms = cpus().reduce((sum, { times }) => sum + times.user + times.nice + times.sys + times.irq, 0);
	return ms / 1_000;
}

/**
 * Seconds of this process for a fixed piece of work, of the kind that tests do: objects made and thrown away, text written
 * and read, a digest. It takes longer on a slower machine, and while others use the same core's other half or its caches.
 */
function yardstick(): number {
	const { user, system } = process.cpuUsage();
	let digest = '';
	for (let round = 0; round < 12; round++) {
		const rows = Array.from({ length: 2_000 }, (_, i) => ({ id: `${digest}${i}`, at: i * round, of: [i, String(i)] }));
		rows.sort((a, b) => (a.id < b.id ? -1 : 1));
		digest = createHash('sha256')
			.update(JSON.stringify(JSON.parse(JSON.stringify(rows))))
			.digest('hex')
			.slice(0, 8);
	}
	const used = process.cpuUsage({ user, system });
	return (used.user + used.system) / 1e6;
}

/** One line for each part. */
export function costLines(costs: Cost[]): string[] {
	const sum = (of: 'seconds' | 'coreSeconds') => costs.reduce((all, cost) => all + cost[of], 0);
	const line = (name: string, seconds: number, coreSeconds: number, yards = '') =>
		`${name.padEnd(12)} ${seconds.toFixed(0).padStart(6)} s ${coreSeconds.toFixed(0).padStart(7)} core-s ${yards.padStart(9)}`;
	return [
		...costs.map(({ name, seconds, coreSeconds, yards }) => line(name, seconds, coreSeconds, yards.toFixed(0))),
		line('all', sum('seconds'), sum('coreSeconds'))
	];
}

/**
 * The parts that have grown by more than a fifth beyond what is written down for them, each in a sentence.
 * @param written yardsticks by part, as in `test-costs.json`
 */
export function grown(costs: Cost[], written: Record<string, { yards: number }>): string[] {
	return costs.flatMap(({ name, yards }) => {
		const most = written[name]?.yards;
		if (most === undefined || yards <= most * GROWTH) return [];
		const share = Math.round((yards / most - 1) * 100);
		return [
			`${name} takes ${yards.toFixed(0)} yardsticks, ${share} % more than the ${most} in scripts/test-costs.json: make it cheaper, or write there what it takes now and why`
		];
	});
}
