import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { DRAW } from './draw';

const { resolve } = createRequire(import.meta.url);
const pdfmakeAt = resolve('pdfmake');
const fonts = join(dirname(resolve('pdfmake/package.json')), 'fonts', 'Roboto');

/** Two registers of five thousand at once would take the memory of the rooms. */
let before: Promise<unknown> = Promise.resolve();

/**
 * The document as a PDF, drawn in a thread of its own, one after the other: a register of thousands takes seconds,
 * in which answers go on being saved.
 * @param document data alone: functions do not reach the thread
 */
export function toPdf(title: string, document: TDocumentDefinitions): Promise<Uint8Array> {
	const drawn = before.then(() => draw(title, document));
	before = drawn.catch(() => {});
	return drawn;
}

function draw(title: string, document: TDocumentDefinitions): Promise<Uint8Array> {
	return new Promise((done, fail) => {
		const worker = new Worker(DRAW, {
			eval: true,
			workerData: { pdfmakeAt, fonts, title, document },
			execArgv: [],
			resourceLimits: { maxOldGenerationSizeMb: 512 }
		});
		worker.once('message', (bytes: Uint8Array) => done(bytes));
		worker.once('error', fail);
		worker.once('exit', () => fail(new Error('The document was not drawn.')));
	});
}
