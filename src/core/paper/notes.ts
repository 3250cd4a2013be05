/**
 * A candidate's scratch notes travel as if they were the answer to a question of this name, so that they are as safe as
 * an answer. They are on no form: nothing counts, marks or shows them but the candidate's own screen.
 */
export const NOTES = 'notes';
