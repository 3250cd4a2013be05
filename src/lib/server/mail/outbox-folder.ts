import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Transport } from 'nodemailer';

/**
 * Where mail ends without a mail server: every message is written, as it would go over the wire, into the outbox folder,
 * where the outbox page finds it. Addresses that begin with `bounce` are refused, so that failure can be seen too.
 */
export function outboxFolder(outbox: string): Transport {
	mkdirSync(outbox, { recursive: true });
	return {
		name: 'otium-outbox',
		version: '1',
		send(mail, done) {
			const { to } = mail.message.getEnvelope();
			if (to.some((address) => address.startsWith('bounce'))) {
				const refused = Object.assign(new Error(`550 ${to[0]}: no such mailbox`), { responseCode: 550 });
				return done(refused, null as never);
			}
			mail.message.build((error, message) => {
				if (error) return done(error, null as never);
				const id = mail.message.messageId();
				writeFileSync(join(outbox, `${id.replace(/[^\w.-]/g, '')}.eml`), message);
				done(null, { messageId: id, envelope: mail.message.getEnvelope() } as never);
			});
		}
	};
}
