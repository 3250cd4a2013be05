/** As many questions of the bank as one file holds. */
export const MOST_BANKED = 5_000;
