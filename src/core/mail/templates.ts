/** To whom a mail goes, and so what it says unless the house has words of its own. */
export type MailKind = 'candidate' | 'proctor';
export type Template = { subject: string; body: string };

/** What a template may speak of, by the names that stand in braces. */
export const MAIL_WORDS = {
	name: 'who it is for',
	paper: 'the paper',
	session: 'the session’s name',
	date: 'the day',
	time: 'when it starts, with its zone',
	door: 'when the door opens',
	last_entry: 'the last time to enter',
	minutes: 'how long',
	room: 'the room and site',
	seat: 'the seat',
	number: 'the candidate number',
	link: 'the page to go to, with their own code where there is one',
	code: 'their own code, where the session is entered with slips',
	entering: 'how to enter',
	requirements: 'what the device needs',
	rules: 'everything that binds them on the day',
	rehearse: 'the page to try the device on',
	mine: 'their own page: what they sit and were given, and asking for more'
} as const;
export type MailFacts = Record<keyof typeof MAIL_WORDS, string>;

export const TEMPLATES: Record<MailKind, Template> = {
	candidate: {
		subject: '{paper}: {date} at {time}',
		body: `Dear {name},

you will sit {paper} on {date} at {time}, in the {room}, seat {seat}. You have {minutes}. The door opens at {door}; the last entry is at {last_entry}.

On the day go to {link}. {entering} Have your candidate number ready: {number}.

What your device needs: {requirements}

Please try it beforehand, on the device that you will use: {rehearse}
It takes a minute and does not count.

What applies:
{rules}

What you have been given, and asking for something else: {mine}`
	},
	proctor: {
		subject: 'You supervise {session} on {date}',
		body: `Dear {name},

you will supervise {session} in the {room} on {date} at {time}. The door opens at {door}; the last entry is at {last_entry}.

Your room is at {link}. It has the code for the board, the list and everything that candidates may need from you. The code stays hidden until you show it.`
	}
};

/** The names in braces that nothing is known by, so that a typing error is told before anybody gets it. */
export function unknownWords({ subject, body }: Template): string[] {
	const used = [...`${subject}\n${body}`.matchAll(/\{([^{}\n]*)\}/g)].map((match) => match[1]);
	return [...new Set(used)].filter((word) => !Object.hasOwn(MAIL_WORDS, word));
}

/** A subject is read on lock screens and in lists: what lets somebody in does not belong there. */
export function tellsInSubject({ subject }: Template): 'code' | 'link' | null {
	return (['code', 'link'] as const).find((word) => subject.includes(`{${word}}`)) ?? null;
}

/** The mail as one person gets it. A subject is one line, whatever was put into it. */
export function fillIn(template: Template, facts: MailFacts): Template {
	const fill = (text: string) =>
		text.replace(/\{([a-z_]+)\}/g, (whole, word) => facts[word as keyof MailFacts] ?? whole);
	return { subject: fill(template.subject).replace(/[\r\n]+/g, ' '), body: fill(template.body) };
}
