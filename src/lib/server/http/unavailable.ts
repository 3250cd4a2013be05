import { isUnavailable } from '../db';
import { problem } from './answer';

/** A write that the disk refused just now, in words for a candidate: nothing is lost, and nobody has to do anything. */
export function orNotSavedYet(work: () => Promise<Response>): Promise<Response> {
	return unlessUnavailable(
		work,
		'Not saved yet.',
		'Go on: this device keeps your answers and sends them again by itself.'
	);
}

/** The same in words for staff. */
export function orTryAgain(work: () => Promise<Response>): Promise<Response> {
	return unlessUnavailable(
		work,
		'Not done: the server can’t write to its disk just now.',
		'Try again in a moment; nothing that was saved is lost.'
	);
}

async function unlessUnavailable(work: () => Promise<Response>, message: string, instead: string): Promise<Response> {
	try {
		return await work();
	} catch (error) {
		if (!isUnavailable(error)) throw error;
		return problem(503, { code: 'not_saved_yet', message, instead, waitSeconds: 2 });
	}
}
