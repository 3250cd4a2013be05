/** The most rows that a page lists: each costs the server a third of a millisecond, in which nobody else is answered. */
export const MOST_LISTED = 200;
