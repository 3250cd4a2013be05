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

const MOST_TRIES = 3;
/** So long after a failure the next try waits, doubled each time. */
const RETRY_MS = 30_000;

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
		await otium
			.db('mail')
			.where({ id: mail.id })
			.update(
				problem === null
					? { state: 'sent', sent_at: otium.now(), tries, trouble: null }
					: {
							state: tries >= MOST_TRIES || isFinal(problem) ? 'failed' : 'waiting',
							tries,
							trouble: problem.slice(0, 300)
						}
			);
		if (problem === null) sent++;
	}
	return sent;
}

async function sendOne(otium: Otium, mail: Mail): Promise<string | null> {
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
		return error instanceof Error ? error.message : String(error);
	}
}

/** A mailbox that does not exist will not exist in half a minute either (RFC 5321: replies from 500 on are permanent). */
function isFinal(problem: string): boolean {
	return /(^|\D)5\d\d[ -]/.test(problem);
}
