import { MAIL_WORDS, type MailFacts } from './templates';

/** What somebody plans their day by: when one of these changes after a mail, they have to hear of it. */
const MATTERS = [
	'paper',
	'date',
	'time',
	'door',
	'last_entry',
	'minutes',
	'room',
	'seat',
	'entering',
	'requirements'
] as const satisfies readonly (keyof MailFacts)[];

/** What was told, kept with the mail. */
export type Told = Partial<MailFacts>;
export type ToldChange = { what: string; was: string; is: string };

/** What a mail tells that will be compared with how things stand later. */
export function toldIn(facts: MailFacts): Told {
	return Object.fromEntries(MATTERS.map((word) => [word, facts[word]]));
}

/** What stands otherwise now than it was told. What an earlier mail did not speak of is no change. */
export function changedSince(told: Told, facts: MailFacts): ToldChange[] {
	return MATTERS.filter((word) => told[word] !== undefined && told[word] !== facts[word]).map((word) => ({
		what: MAIL_WORDS[word],
		was: told[word]!,
		is: facts[word]
	}));
}

/** The sentences that a mail of a change begins with. */
export function changesInWords(changes: ToldChange[]): string {
	const lines = changes.map(({ what, was, is }) => `- ${what}: ${is} (before: ${was})`);
	return `This has changed since we last wrote to you:\n${lines.join('\n')}\n\nThis mail replaces the earlier one.`;
}
