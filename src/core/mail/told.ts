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
	'requirements',
	'rules'
] as const satisfies readonly (keyof MailFacts)[];

/** What was told, kept with the mail, and by which version of Otium. */
export type Told = Partial<MailFacts> & { version?: string };
export type ToldChange = { what: string; was: string; is: string };

/** What a mail tells that will be compared with how things stand later. */
export function toldIn(facts: MailFacts, version: string): Told {
	return { ...Object.fromEntries(MATTERS.map((word) => [word, facts[word]])), version };
}

/**
 * What stands otherwise now than it was told. What an earlier mail did not speak of is no change, and neither is a rule
 * that another version of Otium put into other words.
 */
export function changedSince(told: Told, facts: MailFacts, version: string): ToldChange[] {
	return MATTERS.flatMap((word) => {
		const was = told[word];
		if (was === undefined || was === facts[word]) return [];
		if (word !== 'rules') return [{ what: MAIL_WORDS[word], was, is: facts[word] }];
		return told.version === version ? [rulesChanged(was, facts.rules)] : [];
	});
}

/** Of all rules only those that are new and those that are gone. */
function rulesChanged(was: string, is: string): ToldChange {
	const lines = (text: string) => text.split('\n').map((line) => line.replace(/^- /, ''));
	const [before, now] = [lines(was), lines(is)];
	const without = (all: string[], others: string[]) => all.filter((line) => !others.includes(line)).join(' ');
	return {
		what: 'what applies',
		was: without(before, now) || 'nothing of this',
		is: without(now, before) || 'this applies no more'
	};
}

/** The sentences that a mail of a change begins with. */
export function changesInWords(changes: ToldChange[]): string {
	const lines = changes.map(({ what, was, is }) => `- ${what}: ${is} (before: ${was})`);
	return `This has changed since we last wrote to you:\n${lines.join('\n')}\n\nThis mail replaces the earlier one.`;
}
