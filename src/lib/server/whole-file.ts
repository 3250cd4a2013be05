import { randomBytes } from 'node:crypto';
import { open, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';

/**
 * Writes a file that is there whole or not at all, and on the disk when this resolves: written beside its place, flushed,
 * put there by its name, and the folder flushed, without which a power cut may take the name away again.
 * @throws when it can't be written; what was there before stays
 */
export async function writeWhole(path: string, bytes: Uint8Array | string, mode = 0o600): Promise<void> {
	const part = `${path}.${randomBytes(6).toString('hex')}.part`;
	try {
		const file = await open(part, 'wx', mode);
		try {
			await file.writeFile(bytes);
			await file.sync();
		} finally {
			await file.close();
		}
		await rename(part, path);
	} catch (error) {
		await rm(part, { force: true });
		throw error;
	}
	await flushFolder(dirname(path));
}

/** A folder's names are on the disk. Some file systems can't flush folders: they keep names by themselves. */
async function flushFolder(path: string): Promise<void> {
	const folder = await open(path, 'r').catch(() => null);
	try {
		await folder?.sync().catch(() => {});
	} finally {
		await folder?.close();
	}
}
