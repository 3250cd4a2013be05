import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import type { House } from '../house';
import type { ThreadKind } from '../thread';
import type { Drawing } from './draw';

/** One document at a time: two registers of five thousand at once would take the memory of the rooms. */
const DRAWING: ThreadKind<Drawing> = { entry: 'src/lib/server/print/draw.ts', memoryMb: 512 };
/** A register of five thousand takes seconds; a machine with other work, several times that. */
const DEADLINE_MS = 120_000;

/**
 * The document as a PDF, drawn in a thread of its own: answers go on being saved meanwhile.
 * @param document data alone: functions do not reach the thread
 * @throws ThreadError when it can't be drawn
 */
export function toPdf(
	otium: Pick<House, 'threads'>,
	title: string,
	document: TDocumentDefinitions
): Promise<Uint8Array> {
	return otium.threads.run(DRAWING, 'pdf', { title, document }, DEADLINE_MS);
}
