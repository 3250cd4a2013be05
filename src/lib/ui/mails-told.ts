import { page } from '$app/state';
import { counted } from '$core/names';

/** What becomes of mails that have just been written: without a mail server they do not leave the machine. */
export function mailsTold(mails: number): string {
	if (mails === 0) return 'No mail was sent.';
	if (page.data.mailLeaves) return mails === 1 ? 'One mail is in the post.' : `${mails} mails are in the post.`;
	const [are, they] = mails === 1 ? ['is', 'It stays'] : ['are', 'They stay'];
	return `${counted(mails, 'mail')} ${are} written. ${they} on this machine, as no mail server is set up: see Mail.`;
}
