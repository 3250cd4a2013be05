import { offer } from '../thread';
import { writeArchive, type SealedArchive, type ToSeal } from './write';

const tasks = {
	/** Writes and seals an archive. */
	write: (asked: ToSeal): Promise<SealedArchive> => writeArchive(asked)
};
export type ArchiveTasks = typeof tasks;

offer(tasks);
