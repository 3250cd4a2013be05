import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { networkInterfaces } from 'node:os';

export type ServerOptions = {
	port: number;
	host: string;
	dataDir: string;
	origin?: string;
	log?: string;
	/** Throws away what it no longer uses when it is asked to, for `residentMiB`. */
	collects?: boolean;
};

/**
 * What a request leaves behind is thrown away in larger portions, MiB: when a whole room comes back at once, a fifth of
 * the time went into doing it sixteen at a time, which is what Node does by itself.
 */
const PORTIONS = '--max-semi-space-size=32';
const COLLECTS = ['--expose-gc', '--import', './scripts/collect-garbage.mjs'];

/** Whether something else has the port. */
export function portIsTaken(port: number, host: string): Promise<boolean> {
	return new Promise((resolve) => {
		const probe = createServer();
		probe.once('error', () => resolve(true));
		probe.listen(port, host, () => probe.close(() => resolve(false)));
	});
}

/** A port that is free now, for tests and measurements. */
export function freePort(): Promise<number> {
	return new Promise((resolve) => {
		const probe = createServer();
		probe.listen(0, '127.0.0.1', () => {
			const { port } = probe.address() as { port: number };
			probe.close(() => resolve(port));
		});
	});
}

/** Starts the built server and resolves when it listens. Exits early with what it said when it can't. */
export function startServer(options: ServerOptions): Promise<ChildProcess> {
	const child = spawn(process.execPath, [PORTIONS, ...(options.collects ? COLLECTS : []), 'scripts/serve.mjs'], {
		stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
		env: {
			...process.env,
			PORT: String(options.port),
			HOST: options.host,
			OTIUM_DATA: options.dataDir,
			OTIUM_LOG: options.log ?? 'warn',
			...(options.origin ? { ORIGIN: options.origin } : {})
		}
	});
	return new Promise((resolve, reject) => {
		child.once('message', () => resolve(child));
		child.once('exit', (code) => reject(new Error(`The server stopped at once (exit code ${code}).`)));
	});
}

/** Where people on this network reach the server. */
export function addressesOf(port: number, host: string): string[] {
	const local = `http://localhost:${port}`;
	if (host === '127.0.0.1' || host === 'localhost') return [local];
	const others = Object.values(networkInterfaces())
		.flatMap((list) => list ?? [])
		.filter((one) => one.family === 'IPv4' && !one.internal)
		.map((one) => `http://${one.address}:${port}`);
	return [local, ...others];
}
