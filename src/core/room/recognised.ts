import type { SessionKind } from '../session';

/** Whom the door has recognised, as they are asked "Is this you?". */
export type Recognised = {
	/** Proves for some minutes that the door had asked. */
	note: string;
	name: string;
	number: string;
	paper: string;
	room: string;
	seat: string | null;
	opens: number;
	zone: string;
	kind: SessionKind;
	photo: boolean;
};
