import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import type { Query } from '../db';
import type { House } from '../house';
import type { ThreadKind } from '../thread';
import type { ArchiveTasks } from './archive-thread';
import type { SealedArchive, ToSeal } from './write';

const ARCHIVING: ThreadKind<ArchiveTasks> = { entry: 'src/lib/server/archive/archive-thread.ts', memoryMb: 1_024 };
/** Five thousand sittings take a minute; a slow disk several. */
const DEADLINE_MS = 900_000;

/** Where archives lie. */
export const archivesIn = (dataDir: string) => join(dataDir, 'archives');

/**
 * Writes the archive in a thread of its own, under a name of its own that nothing else has: `NAME.zip` in the folder of
 * archives. Nothing refers to it until the closing does.
 * @throws what the disk said, when it can't be written; nothing is left there then
 */
export async function sealArchive(
	otium: Pick<House, 'dataDir' | 'threads'>,
	asked: Omit<ToSeal, 'dataDir' | 'to'>
): Promise<SealedArchive & { name: string }> {
	const folder = archivesIn(otium.dataDir);
	await mkdir(folder, { recursive: true, mode: 0o700 });
	const name = `${nanoid()}.zip`;
	const part = join(folder, `${name}.part`);
	try {
		const sealed = await otium.threads.run(
			ARCHIVING,
			'write',
			{ ...asked, dataDir: otium.dataDir, to: part },
			DEADLINE_MS
		);
		await rename(part, join(folder, name));
		return { ...sealed, name };
	} catch (error) {
		await rm(part, { force: true });
		throw error;
	}
}

/** Longer than any closing takes: what is younger may be about to be named. */
const LEFT_MS = 24 * 3_600_000;

/** Removes what a server that was killed left behind: archives that no closing names. */
export async function dropLeftovers(db: Query, dataDir: string): Promise<number> {
	const there = await readdir(archivesIn(dataDir)).catch(() => []);
	const closings: string[] = await db('closing').pluck('archive');
	const addenda: (string | null)[] = await db('addendum').pluck('file');
	const named = new Set([...closings, ...addenda]);
	let dropped = 0;
	for (const name of there.filter((name) => !named.has(name))) {
		const file = join(archivesIn(dataDir), name);
		if (Date.now() - (await stat(file)).mtimeMs < LEFT_MS) continue;
		await rm(file, { force: true });
		dropped++;
	}
	return dropped;
}
