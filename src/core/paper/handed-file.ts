/** A photo or a PDF of working that a candidate handed over for a question. */
export type HandedFile = {
	id: string;
	questionId: string;
	name: string;
	type: string;
	bytes: number;
	at: number;
	/** It came from another device, by a code. */
	byCode: boolean;
};
