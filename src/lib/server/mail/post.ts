import { join } from 'node:path';
import { createTransport, type Transporter } from 'nodemailer';
import { mailSink } from '../../../../stand-ins/mail-sink';
import type { Otium } from '../otium';

/** A mail as it waits, went or failed. */
export type Mail = {
	id: string;
	made_at: number;
	session_id: string | null;
	kind: string;
	to_name: string;
	to_address: string;
	subject: string;
	body: string;
	calendar: string | null;
	state: 'waiting' | 'sent' | 'failed';
	tries: number;
	sent_at: number | null;
	trouble: string | null;
};

/** A mail server that is away or misconfigured is tried again so often, and for so long; then the mail is failed. */
const RETRY_MS = 30_000;
const GIVE_UP_MS = 24 * 3_600_000;

/** Whether mail leaves the house: by SMTP when `OTIUM_SMTP` names a server, else into the outbox folder. */
export function mailLeaves(): boolean {
	return Boolean(process.env.OTIUM_SMTP);
}

let transporter: { dataDir: string; post: Transporter } | null = null;

function post({ dataDir }: Otium): Transporter {
	if (transporter?.dataDir === dataDir) return transporter.post;
	const made = process.env.OTIUM_SMTP
		? createTransport(process.env.OTIUM_SMTP)
		: createTransport(mailSink(join(dataDir, 'outbox')));
	transporter = { dataDir, post: made };
	return made;
}

/** Sends what waits, a few at a time. Returns how many went. */
export async function sendWaiting(otium: Otium, most = 20): Promise<number> {
	const now = otium.now();
	const waiting: Mail[] = await otium
		.db('mail')
		.where({ state: 'waiting' })
		.whereRaw('made_at + tries * ? <= ?', [RETRY_MS, now])
		.orderBy('made_at')
		.limit(most);
	let sent = 0;
	for (const mail of waiting) {
		const problem = await sendOne(otium, mail);
		const tries = mail.tries + 1;
		const isOver = problem !== null && (problem.isFinal || now - mail.made_at > GIVE_UP_MS);
		await otium
			.db('mail')
			.where({ id: mail.id })
			.update(
				problem === null
					? { state: 'sent', sent_at: otium.now(), tries, trouble: null }
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

/** What went wrong. Final: it lies with this mail, not with the server, and will be so again. */
type Problem = { words: string; isFinal: boolean };

async function sendOne(otium: Otium, mail: Mail): Promise<Problem | null> {
	try {
		await post(otium).sendMail({
			from: process.env.OTIUM_MAIL_FROM ?? 'Otium <otium@localhost>',
			to: { name: mail.to_name, address: mail.to_address },
			subject: mail.subject,
			text: mail.body,
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
