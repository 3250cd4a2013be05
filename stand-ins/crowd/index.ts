import { mersenne } from 'pure-rand/generator/MersenneTwister';
import { unsafeUniformIntDistribution as uniformInt } from 'pure-rand/distribution/UnsafeUniformIntDistribution';
import { BEHAVIOURS, ROOM, type Behaviour, type Kind } from './behaviour';
import { Candidate, type Acknowledged, type Person } from './candidate';

export { Browser } from './browser';
export type { Acknowledged, Kind, Person };

export type CrowdOptions = {
	url: string;
	/** The door code. */
	code: string;
	candidates: Person[];
	/** By number: the devices that they sat at before, and from now on those that they sit at. */
	devices?: Map<string, string>;
	/** The same seed behaves the same. */
	seed: number;
	/** 1 is real time; 0.01 is a hundred times as fast. */
	tempo: number;
	/** The mixture, dealt round; a common room's without it. */
	kinds?: Kind[];
	/** They go on changing their answers instead of handing in, until the signal comes. */
	keepWorking?: boolean;
	/** Nobody dawdles on the way: they were there before. */
	promptly?: boolean;
	/** The key of the site whose sealed client they sit with. */
	clientCode?: string;
	acknowledged?: (answer: Acknowledged) => void;
	log?: (line: string) => void;
	/** Stops the crowd where it is. */
	signal?: AbortSignal;
};

export type CrowdReport = { handedIn: number; saved: number; refused: number; refusals: Map<string, number> };

/** Simulated candidates, all at once, from the door to the hand-in. Resolves when the last is done. */
export async function runCrowd(options: CrowdOptions): Promise<CrowdReport> {
	const report: CrowdReport = { handedIn: 0, saved: 0, refused: 0, refusals: new Map() };
	const kinds = options.kinds ?? ROOM;
	const ears = {
		arrived: (number: string, device: string) => void options.devices?.set(number, device),
		acknowledged: (answer: Acknowledged) => {
			report.saved++;
			options.acknowledged?.(answer);
		},
		refused: (reply: { status: number; body: Record<string, unknown> }) => {
			const code = String(reply.body.code ?? reply.status);
			report.refused++;
			report.refusals.set(code, (report.refusals.get(code) ?? 0) + 1);
		},
		keepsWorking: options.keepWorking ?? false,
		clientCode: options.clientCode ?? null,
		log: options.log ?? (() => {}),
		stopping: () => options.signal?.aborted ?? false
	};
	await Promise.all(
		options.candidates.map(async (person, i) => {
			const generator = mersenne(options.seed * 7_919 + i);
			const random = () => uniformInt(0, 2 ** 30 - 1, generator) / 2 ** 30;
			const own = BEHAVIOURS[kinds[i % kinds.length]];
			const behaviour: Behaviour = options.promptly ? { ...own, comes: [0, 2] } : own;
			const device = person.device ?? options.devices?.get(person.number);
			const candidate = new Candidate(options.url, { ...person, device }, behaviour, random, options.tempo, ears);
			try {
				if (await candidate.sit(options.code)) {
					report.handedIn++;
					ears.log(`${person.number} handed in`);
				}
			} catch (error) {
				if (!ears.stopping()) ears.log(`${person.number}: ${(error as Error).message}`);
			}
		})
	);
	return report;
}
