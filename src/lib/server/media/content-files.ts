import { createHash } from 'node:crypto';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { writeWhole } from '../whole-file';

/** Files of a folder, each named by the SHA-256 of its bytes: the same file twice lies there once. */
export class ContentFiles {
	constructor(private readonly folder: string) {}

	/** Keeps a file whole or not at all: it is on the disk when this resolves. Returns its name. */
	async keep(bytes: Uint8Array): Promise<string> {
		const name = createHash('sha256').update(bytes).digest('hex');
		const path = this.#pathOf(name);
		await mkdir(join(path, '..'), { recursive: true });
		await writeWhole(path, bytes);
		return name;
	}

	/** null: it is not there. */
	async read(name: string): Promise<Uint8Array | null> {
		return /^[0-9a-f]{64}$/.test(name) ? readFile(this.#pathOf(name)).catch(() => null) : null;
	}

	async drop(name: string): Promise<void> {
		await rm(this.#pathOf(name), { force: true });
	}

	#pathOf(name: string): string {
		return join(this.folder, name.slice(0, 2), name);
	}
}
