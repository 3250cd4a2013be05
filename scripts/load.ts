import { Agent, request, type IncomingMessage } from 'node:http';

import type { Browser } from '../stand-ins/crowd/browser';

/** `by`: the device that signs it. */
export type Shot = { path: string; body: string; by?: Browser };

/** Requests over kept connections, with as little of our own in the way as Node allows. */
export class Gun {
	#agent = new Agent({ keepAlive: true, maxSockets: 256 });

	constructor(
		private readonly port: number,
		private readonly connections: number
	) {}

	/** One POST; resolves with its status. */
	fire(shot: Shot): Promise<number> {
		return new Promise((resolve, reject) => {
			const headers: Record<string, string | number> = {
				'content-type': 'application/json',
				'content-length': Buffer.byteLength(shot.body),
				origin: `http://localhost:${this.port}`,
				...shot.by?.headersFor('POST', shot.path, shot.body)
			};
			const sent = request(
				{
					host: '127.0.0.1',
					port: this.port,
					path: shot.path,
					method: 'POST',
					agent: this.#agent,
					headers: { ...headers, host: `localhost:${this.port}` }
				},
				(response) => {
					response.resume();
					response.on('end', () => resolve(response.statusCode ?? 0));
				}
			);
			sent.on('error', reject);
			sent.end(shot.body);
		});
	}

	/** As many as it can for so long, `connections` at a time. Returns requests a second; any that fails ends it. */
	async rate(seconds: number, next: () => Shot): Promise<number> {
		const started = performance.now();
		const until = started + seconds * 1_000;
		let done = 0;
		const worker = async () => {
			while (performance.now() < until) {
				const shot = next();
				const status = await this.fire(shot);
				if (status !== 200) throw new Error(`${shot.path} answered ${status} under load`);
				done++;
			}
		};
		await Promise.all(Array.from({ length: this.connections }, worker));
		return done / ((performance.now() - started) / 1_000);
	}

	close() {
		this.#agent.destroy();
	}
}

/** Listens to a server-sent-events line until it is closed; `heard` gets each frame's data. */
export function listen(
	port: number,
	path: string,
	cookie: string,
	heard: (event: string, data: string) => void
): Promise<() => void> {
	return new Promise((resolve, reject) => {
		const sent = request(
			{ host: '127.0.0.1', port, path, headers: { cookie, host: `localhost:${port}` } },
			(response: IncomingMessage) => {
				if (response.statusCode !== 200) return reject(new Error(`${path} answered ${response.statusCode}`));
				let rest = '';
				response.setEncoding('utf8');
				response.on('data', (chunk: string) => {
					const frames = (rest + chunk).split('\n\n');
					rest = frames.pop()!;
					for (const frame of frames)
						heard(/^event: (.*)$/m.exec(frame)?.[1] ?? '', /^data: (.*)$/m.exec(frame)?.[1] ?? '');
				});
				response.on('error', () => {});
				resolve(() => sent.destroy());
			}
		);
		sent.on('error', reject);
		sent.end();
	});
}

/** The value below which so many of a hundred lie. */
export function percentile(values: number[], percent: number): number {
	const sorted = [...values].sort((a, b) => a - b);
	return sorted[Math.min(sorted.length - 1, Math.floor((sorted.length * percent) / 100))];
}
