import type { HeldRole } from '$core/access';
import type { Actor } from '$core/sitting';
import type { House } from '../house';
import { saveStaff } from '../identity';
import { mailLeaves } from '../mail';
import { invite } from '../sign-in';

export type ToInvite = { name: string; email: string | null; signIn: string; roles: HeldRole[] };
/** What became of one of them. `link`: to be handed over, where no mail leaves. */
export type Invited = { name: string; signIn: string; email: string | null; link: string | null; fault: string | null };

/** Makes an account for each of a list, and a link by which they choose a password. One that fails stops no other. */
export async function inviteAll(otium: House, by: Actor, people: ToInvite[], address: string): Promise<Invited[]> {
	const invited: Invited[] = [];
	for (const one of people) {
		const { name, signIn, email } = one;
		const saved = await saveStaff(otium, by, { id: null, password: null, ...one });
		if (!saved.ok) invited.push({ name, signIn, email, link: null, fault: saved.message });
		else {
			const { link } = await invite(otium, by, saved.id, address, mailLeaves());
			invited.push({ name, signIn, email, link, fault: null });
		}
	}
	return invited;
}
