import type { AnswerValue } from './answer';

/** One revision of one answer, as a device keeps and sends it and the server saves it. */
export type Revision = {
	/** The device's own sequence number, from 1. */
	seq: number;
	questionId: string;
	value: AnswerValue;
	/** Marked for later. */
	marked: boolean;
	struck: string[];
	/** How long the question has been in view altogether, ms. */
	inViewMs: number;
};
