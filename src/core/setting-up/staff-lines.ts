import { isEmailAddress } from '../mail';

/** Somebody of a pasted list; `fault`: what is wrong with the line. */
export type StaffLine = { line: number; name: string; email: string | null; signIn: string; fault: string | null };

const MAIL = /[^\s<>,;()"]+@[^\s<>,;()"]+/;

/**
 * Reads a pasted list of colleagues, one a line, as address books and spreadsheets write them: `Ann Lee <ann@school.example>`,
 * `Ann Lee; ann@school.example`, or an address alone. A sign-in name is proposed for each, and none twice.
 * @param taken sign-in names and addresses that are there already
 */
export function readStaffLines(text: string, taken: { signIns: string[]; emails: string[] }): StaffLine[] {
	const used = new Set(taken.signIns.map((one) => one.toLowerCase()));
	const emails = new Map(taken.emails.map((one) => [one.toLowerCase(), 0]));
	return text.split(/\r\n|\r|\n/).flatMap((raw, i): StaffLine[] => {
		if (raw.trim() === '') return [];
		const email = MAIL.exec(raw)?.[0].replace(/[.]+$/, '') ?? null;
		const rest = (email === null ? raw : raw.replace(MAIL, ' '))
			.replace(/[<>;\t"()]/g, ' ')
			.replace(/\s+/g, ' ')
			.trim();
		const written = rest.replace(/^[,\s]+|[,\s]+$/g, '');
		const comma = /^([^,]+),\s*([^,]+)$/.exec(written);
		const name = comma ? `${comma[2]} ${comma[1]}` : written;
		const shown = name || nameFrom(email ?? '');
		const before = email === null ? undefined : emails.get(email.toLowerCase());
		const fault =
			email !== null && !isEmailAddress(email)
				? `“${email}” is not an e-mail address.`
				: before !== undefined
					? before === 0
						? `${email} has an account already.`
						: `${email} is on line ${before} as well.`
					: shown === ''
						? 'There is no name in it.'
						: null;
		if (email !== null && fault === null) emails.set(email.toLowerCase(), i + 1);
		const signIn = fault === null ? freeSignIn(email ?? shown, used) : '';
		return [{ line: i + 1, name: shown.slice(0, 120), email, signIn, fault }];
	});
}

/** `ann.lee@…` is Ann Lee. */
function nameFrom(email: string): string {
	return email
		.split('@')[0]
		.split(/[._-]+/)
		.filter(Boolean)
		.map((part) => part[0].toUpperCase() + part.slice(1))
		.join(' ');
}

/** A sign-in that nobody has: the address before its @, or the last name; with a number where that is taken. */
function freeSignIn(from: string, used: Set<string>): string {
	const word = from.includes('@') ? from.split('@')[0] : (from.split(' ').at(-1) ?? from);
	const plain = word
		.normalize('NFKD')
		.replace(/[^A-Za-z0-9._-]/g, '')
		.toLowerCase()
		.replace(/^[._-]+/, '')
		.slice(0, 30);
	const stem = plain.length >= 2 ? plain : `staff${plain}`;
	let signIn = stem;
	for (let n = 2; used.has(signIn); n++) signIn = `${stem}${n}`;
	used.add(signIn);
	return signIn;
}
