/** What a receipt proves. */
export type ReceiptVerdict =
	| { isOurs: false }
	| {
			isOurs: true;
			receipt: string;
			number: string;
			paper: string;
			version: number;
			/** When it was handed in, ISO 8601. */
			at: string;
			answers: number | null;
			/**
			 * How what is kept now compares with what was handed in: `same`; `went_on`, by an act that the logbook has;
			 * `changed`, by nothing that is known; `not_kept`, because it is older than digests; `deleted`, because its time had come.
			 */
			now: 'same' | 'went_on' | 'changed' | 'not_kept' | 'deleted';
	  };
