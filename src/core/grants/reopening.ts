/** Why somebody's sitting is opened again, with the words that stand in the record unless others are given. */
export const REOPEN_WHY = {
	by_mistake: { name: 'Handed in by mistake', words: 'Handed in by mistake' },
	failure: { name: 'A technical failure', words: 'A technical failure ended the sitting' },
	wrong_rule: { name: 'Time up by a wrong rule', words: 'The time was up by a rule that should not have held' },
	other: { name: 'Something else', words: '' }
} as const;
export type ReopenWhy = keyof typeof REOPEN_WHY;
