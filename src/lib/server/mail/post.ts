import { join } from 'node:path';
import { createTransport, type SendMailOptions } from 'nodemailer';
import { outboxFolder } from './outbox-folder';
import { openSecret, type Query } from '../db';
import type { House, MailTransport } from '../house';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'mail'>;

/** A mail as it waits, went or failed. */
export type Mail = {
	id: string;
	made_at: number;
	session_id: string | null;
	kind: string;
	to_name: string;
	to_address: string;
	subject: string;
	/** Sealed: it may hold a slip. `wordsOf` opens it. */
	body: string;
	calendar: string | null;
	state: 'waiting' | 'sent' | 'failed';
	tries: number;
	sent_at: number | null;
	trouble: string | null;
};

const UNREADABLE = 'This mail was sealed under another key and cannot be read here.';

/** What a mail says. */
export function wordsOf(db: Query, mail: Pick<Mail, 'body'>): string {
	return openSecret(db, mail.body) ?? UNREADABLE;
}

/** A mail server that is away or misconfigured is tried again so often, and for so long; then the mail is failed. */
const RETRY_MS = 30_000;
const MOST_WAITING = 2_000;
const GIVE_UP_MS = 24 * 3_600_000;

/** Whether mail leaves the house: by SMTP when `OTIUM_SMTP` names a server, else into the outbox folder. */
export function mailLeaves(): boolean {
	return Boolean(process.env.OTIUM_SMTP);
}

/** The way of every mail of this house; opened with the first. */
export function mailTransport(dataDir: string): MailTransport {
	let transport: MailTransport | null = null;
	const open = () =>
		process.env.OTIUM_SMTP
			? createTransport(process.env.OTIUM_SMTP)
			: createTransport(outboxFolder(join(dataDir, 'outbox')));
	return {
		sendMail: (mail: SendMailOptions) => (transport ??= open()).sendMail(mail),
		close: () => transport?.close()
	};
}

/** Sends what waits, a few at a time. Returns how many went. */
export async function sendWaiting(otium: Needs, most = 20): Promise<number> {
	const now = otium.now();
	const waiting: Mail[] = await otium
		.db('mail')
		.where({ state: 'waiting' })
		.orderBy(['tries', 'made_at'])
		.limit(MOST_WAITING);
	const due = waiting.filter((mail) => mail.made_at + mail.tries * RETRY_MS <= now).slice(0, most);
	let sent = 0;
	for (const mail of due) {
		const problem = await sendOne(otium, mail);
		const tries = mail.tries + 1;
		const isOver = problem !== null && (problem.isFinal || now - mail.made_at > GIVE_UP_MS);
		await otium
			.db('mail')
			.where({ id: mail.id })
			.update(
				problem === null
					? { state: 'sent', sent_at: otium.now(), tries, trouble: null, ...forgotten(mail) }
					: {
							state: isOver ? 'failed' : 'waiting',
							tries,
							trouble: problem.words.slice(0, 300)
						}
			);
		if (problem === null) sent++;
		// What stops one mail here stops all of them: the others wait without each being tried.
		else if (!problem.isFinal) break;
	}
	return sent;
}

/** A link that lets somebody in is kept nowhere once it is sent. */
const forgotten = ({ kind }: Mail) => (kind === 'password' ? { body: 'Sent. What it said is kept nowhere.' } : {});

/** What went wrong. Final: it lies with this mail, not with the server, and will be so again. */
type Problem = { words: string; isFinal: boolean };

async function sendOne(otium: Needs, mail: Mail): Promise<Problem | null> {
	try {
		await otium.mail.sendMail({
			from: process.env.OTIUM_MAIL_FROM ?? 'Writing <otium@localhost>',
			to: { name: mail.to_name, address: mail.to_address },
			subject: mail.subject,
			text: wordsOf(otium.db, mail),
			messageId: `<${mail.id}.${mail.tries}@otium>`,
			...(mail.calendar ? { icalEvent: { method: 'PUBLISH', filename: 'session.ics', content: mail.calendar } } : {})
		});
		return null;
	} catch (error) {
		const words = error instanceof Error ? error.message : String(error);
		const { code, responseCode = 0 } = error as { code?: string; responseCode?: number };
		// RFC 5321: replies from 500 on are permanent. One about the sign-in is about the house, not about the mailbox.
		return { words, isFinal: responseCode >= 500 && code !== 'EAUTH' };
	}
}
