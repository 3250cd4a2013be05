/** An entry as people read it. */
export type LogLine = {
	seq: number;
	at: number;
	who: string;
	kind: string;
	session: string | null;
	candidate: string | null;
	body: Record<string, unknown>;
	hash: string;
	/** What it said was deleted when its time had come. */
	isEmptied: boolean;
};
