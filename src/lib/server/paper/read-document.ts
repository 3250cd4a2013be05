import type { House } from '../house';
import { orTooLong, type ThreadKind } from '../thread';
import type { PaperReading, ReadDocument, ReadSheet } from './reading';

export const READING: ThreadKind<PaperReading> = { entry: 'src/lib/server/paper/reading.ts', memoryMb: 384 };
/** A hundred pages are read in well under a second. */
const DEADLINE_MS = 10_000;
/** With pictures in it; they are left out. */
export const MOST_DOCUMENT_BYTES = 10 * 1024 * 1024;

/** Reads a document in a thread of its own: no file stops the house, however it was made. */
export async function readDocument(otium: Pick<House, 'threads'>, bytes: Uint8Array): Promise<ReadDocument> {
	return orTooLong(otium.threads.run(READING, 'document', { bytes }, DEADLINE_MS), () => ({
		ok: false,
		message: 'This document takes too long to read. Send a part of it, or paste its text.'
	}));
}

/** Reads a workbook or comma-separated values, likewise. */
export async function readQuestionSheet(otium: Pick<House, 'threads'>, bytes: Uint8Array): Promise<ReadSheet> {
	return orTooLong(otium.threads.run(READING, 'sheet', { bytes }, DEADLINE_MS), () => ({
		ok: false,
		message: 'This table takes too long to read. Send a part of it.'
	}));
}
