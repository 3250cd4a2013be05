import { createPrivateKey, createPublicKey, generateKeyPairSync } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Query } from '../db';
import { deviceOf, newDeviceSecret } from '../identity';

const FILE = 'demo-devices.json';

/** By candidate number: what the demo's devices were given, so that the simulated candidates come back to them. */
export function demoDevices(dataDir: string): Map<string, string> {
	const file = join(dataDir, FILE);
	return new Map(
		existsSync(file) ? Object.entries(JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>) : []
	);
}

/** What a device of its own is given, and the key with which it signs (PKCS #8, in base64url), as one text. */
export async function newDemoDevice(db: Query): Promise<string> {
	const { privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
	const key = privateKey.export({ format: 'der', type: 'pkcs8' }).toString('base64url');
	return `${await newDeviceSecret(db)} ${key}`;
}

/** As whom the record knows a device of the demo, and by which key. */
export async function demoDevice(db: Query, device: string): Promise<{ deviceId: string; publicKey: string }> {
	const [secret, kept] = device.split(' ');
	const key = createPrivateKey({ key: Buffer.from(kept, 'base64url'), format: 'der', type: 'pkcs8' });
	const publicKey = createPublicKey(key).export({ format: 'der', type: 'spki' }).toString('base64url');
	return { deviceId: (await deviceOf(db, secret, publicKey))!, publicKey };
}

export function keepDemoDevices(dataDir: string, devices: Map<string, string>): void {
	writeFileSync(join(dataDir, FILE), JSON.stringify(Object.fromEntries(devices)), { mode: 0o600 });
}
