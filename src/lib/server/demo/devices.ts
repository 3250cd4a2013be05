import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const FILE = 'demo-devices.json';

/** By candidate number: what the demo's devices were given, so that the simulated candidates come back to them. */
export function demoDevices(dataDir: string): Map<string, string> {
	const file = join(dataDir, FILE);
	return new Map(
		existsSync(file) ? Object.entries(JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>) : []
	);
}

export function keepDemoDevices(dataDir: string, devices: Map<string, string>): void {
	writeFileSync(join(dataDir, FILE), JSON.stringify(Object.fromEntries(devices)), { mode: 0o600 });
}
