/** What a mail server takes at most (RFC 5321, 4.5.3.1.3, without the angle brackets). */
const MOST_LETTERS = 254;
/** HTML's valid e-mail address, with at least one dot in its domain. Each letter can be read in one way only. */
const LOCAL = /^[a-z0-9.!#$%&'*+/=?^_`{|}~-]{1,64}$/i;
const LABEL = /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/i;

/** Whether mail could go there. Never slow, however long the text is. */
export function isEmailAddress(text: string): boolean {
	if (text.length > MOST_LETTERS) return false;
	const at = text.indexOf('@');
	const labels = text.slice(at + 1).split('.');
	return LOCAL.test(text.slice(0, Math.max(0, at))) && labels.length > 1 && labels.every((label) => LABEL.test(label));
}
