/** The one response of an item, as we name it. */
export const RESPONSE = 'RESPONSE';

/** The outcome that other systems set to `right` or `wrong`, to tell what the author says to it. */
export const FEEDBACK = 'FEEDBACK';

/** The class of the block that holds what a calculated question is drawn from. */
export const CALCULATED = 'calculated';

/** What a gap's own response is called. */
export const gapIdentifier = (id: string) => `GAP_${id}`;

/** How the name of every element ends that takes an answer. */
export const ENDS = 'interaction';
