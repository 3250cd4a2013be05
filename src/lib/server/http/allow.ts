import type { RequestEvent } from '@sveltejs/kit';
import {
	clientFor,
	isAtLeast,
	may,
	mayAnywhere,
	type Act,
	type Awaited,
	type ProvenClient,
	type StaffMember
} from '$core/access';
import { fail } from '$core/problem';
import { refusal, type Actor } from '$core/sitting';
import { bindingOf, type Binding } from '../db';
import { actorAt, readOwnNote, readTeacherNote, type KnownDevice as Device } from '../identity';
import type { Otium } from '../otium';
import { findPerson, type Person } from '../people';
import { coordinatesSite, findSession, placeOf, type Session } from '../session';
import { noteDevice } from '../sitting';
import { refuse, type Audience } from './refuse';
import { isSigned, mustBeSigned } from './signed';

/**
 * Who may ask, and what is known of them then. Refuses everybody else by throwing. `act`: what a member of staff must be
 * allowed to do; none: it is about themselves.
 */
export type Allow<C> = {
	audience: Audience;
	act?: Act;
	/** Who asks, by which secret, and what proves that it is theirs, in words for SECURITY.md. */
	proof: Proof;
	check: (event: RequestEvent) => C | Promise<C>;
};
export type Proof = { who: string; secret: string; by: string };
type House = { otium: Otium };

/** Whoever comes: the door, and what it needs. */
export const anyone: Allow<House> = {
	audience: 'candidate',
	proof: { who: 'anyone', secret: 'none', by: 'nothing' },
	check: ({ locals: { otium } }) => ({ otium })
};

/** Whoever comes with something of their own, which the route itself looks at: says by which secret, and what proves it. */
export const anyoneWith = (secret: string, by: string): Allow<House> => ({
	...anyone,
	proof: { who: 'whoever has it', secret, by }
});

/** Whoever is signed in as staff, and may do this at one site at least. */
export function staff(act?: Act): Allow<House & { staff: StaffMember }> {
	return {
		audience: 'staff',
		act,
		proof: { who: 'staff', secret: 'cookie `staff`', by: 'a sign-in that is through' },
		check({ locals: { otium, staff } }) {
			if (!staff) fail('signed_out');
			if (act && !mayAnywhere(staff, act)) fail('not_yours');
			return { otium, staff };
		}
	};
}

/** The same, once it has been shown not long ago that it is really them: for what matters most. */
export function confirmed<C>(allow: Allow<C>): Allow<C> {
	return {
		audience: allow.audience,
		act: allow.act,
		proof: { ...allow.proof, by: `${allow.proof.by}, confirmed within the hour` },
		async check(event) {
			const known = await allow.check(event);
			mustBeConfirmed(event.locals);
			return known;
		}
	};
}

/** @throws ProblemError confirm_identity */
export function mustBeConfirmed({ staffSession }: Pick<App.Locals, 'staffSession'>): void {
	if (staffSession && !staffSession.isConfirmed) fail('confirm_identity');
}

type Self = { staffId: string; signIn: string };

/**
 * Whoever is on the way in and has come to this step. One who is in already has taken it, and takes it no second time:
 * what it proves would be proved by nothing.
 * @param alsoWithin whoever is signed in may as well
 */
export function oneself(step: Awaited, { alsoWithin = false } = {}): Allow<House & { self: Self }> {
	const by = `a sign-in that waits for \`${step}\`${alsoWithin ? ', or is through' : ''}`;
	return {
		audience: 'staff',
		proof: { who: 'staff', secret: 'cookie `staff`', by },
		check({ locals: { otium, staffSession: session, signIn } }) {
			const isThere = session?.awaits === step || (alsoWithin && session?.awaits === null);
			if (!session || !isThere) fail('signed_out');
			return { otium, self: { staffId: session.staff.id, signIn: signIn! } };
		}
	};
}

/** Whoever may do this with the session that the path names. */
export function inSession(act: Act): Allow<House & { staff: StaffMember; session: Session; by: Actor }> {
	return {
		audience: 'staff',
		act,
		proof: { who: 'staff', secret: 'cookie `staff`', by: 'a sign-in that is through, for this session' },
		async check({ params, locals: { otium, staff } }) {
			if (!staff) fail('signed_out');
			return { otium, staff, ...(await sessionFor(otium, staff, params.id ?? '', act)) };
		}
	};
}

/**
 * Whoever comes with a link of their own, which the path holds as `note`. It is looked at before anything that was sent: a
 * stranger's file is not even read.
 */
function byLink<C extends object>(
	who: string,
	read: (otium: Otium, note: string) => Promise<C | null>
): Allow<House & C> {
	return {
		audience: 'candidate',
		proof: { who, secret: 'link', by: 'the seal of the house on it' },
		async check({ params, locals: { otium, address } }) {
			const link = await read(otium, params.note ?? '');
			if (!link) fail('link_over');
			if ((await otium.limits.asked('request', address)) > 0) fail('too_many_requests');
			return { otium, ...link };
		}
	};
}

/** A teacher, for candidates of one site. */
export const teacher = byLink('a teacher', async (otium, note) => {
	const link = await readTeacherNote(otium.db, note, otium.now());
	return link && { link };
});

/** A candidate, for themselves. */
export const ownPageOf = byLink('a candidate', async (otium, note) => {
	const candidateId = await readOwnNote(otium.db, note, otium.now());
	return candidateId === null ? null : { candidateId };
});

const SIGNATURE = 'its signature; the sealed client’s too where the session asks for one';

/** A device that is signed in, whether or not its sitting has gone on elsewhere since. */
export const device: Allow<House & { device: Device; binding: Binding; isBound: boolean }> = {
	audience: 'candidate',
	proof: { who: 'a device', secret: 'cookie `sitting`', by: SIGNATURE },
	async check(event) {
		const { otium, device } = event.locals;
		if (!device) fail('not_at_the_door');
		await mustBeSigned(event);
		const binding = bindingOf(otium.db, device.sittingId);
		if (!binding) fail('not_at_the_door');
		mustComeByClient(binding, event.locals.client);
		await otium.quotas.take('requests', device.sittingId, 1, event.locals.signIn ?? '');
		const odd = otium.whereabouts.heard(
			event.locals.signIn ?? '',
			event.locals.address,
			event.request.headers.get('user-agent') ?? ''
		);
		if (odd) await noteDevice(otium, device, odd);
		return { otium, device, binding, isBound: binding.device_epoch === device.epoch };
	}
};

/**
 * A device that is signed in and has signed this itself; anybody else is a stranger, whatever cookie comes along. Of
 * strangers only so many are heard from one address.
 */
export const deviceOrStranger: Allow<House & { device: Device | null }> = {
	audience: 'candidate',
	proof: {
		who: 'a device, or anyone',
		secret: 'cookie `sitting`, or none',
		by: `${SIGNATURE}; of others the seal of each row`
	},
	async check(event) {
		const { otium, device: known, address } = event.locals;
		if (known && (known.publicKey === null || isSigned(event.request))) return device.check(event);
		const waitSeconds = await otium.limits.asked('leftovers', address);
		if (waitSeconds > 0) fail('slow_down', { waitSeconds });
		return { otium, device: null };
	}
};

/** The device that its sitting is bound to. A freed one does nothing more. */
export const boundDevice: Allow<House & { device: Device }> = {
	audience: 'candidate',
	proof: { who: 'the bound device', secret: 'cookie `sitting`', by: SIGNATURE },
	async check(event) {
		const known = await device.check(event);
		if (!known.isBound) refuse(refusal('second_device'));
		return known;
	}
};

/** The same, or one that was freed: it hears what becomes of its sitting until another device is bound. */
export const listeningDevice: typeof device = {
	audience: 'candidate',
	proof: { who: 'the bound device, or one that was freed', secret: 'cookie `sitting`', by: SIGNATURE },
	async check(event) {
		const known = await device.check(event);
		if (!known.isBound && known.binding.device_epoch !== null) refuse(refusal('second_device'));
		return known;
	}
};

/** Where a session asks for a sealed client, each request of its sittings is signed by one. */
function mustComeByClient({ client_site: site, client_least: least }: Binding, client: ProvenClient | null): void {
	if (!site) return;
	if (client?.siteId !== site) refuse(refusal('client_unproven'));
	if (!isAtLeast(client!.version, least)) refuse(refusal('client_outdated'));
}

/** Not a question leaves without a client that has proved itself, where the session asks for one. */
export function mustBeProven(session: Session, client: ProvenClient | null): void {
	const proven = clientFor(session, client);
	if (proven === 'outdated') refuse(refusal('client_outdated'));
	if (proven === 'missing') refuse(refusal('client_unproven'));
}

/**
 * The session, for whoever may do that with it.
 * @param no how everybody else is refused
 */
export async function sessionFor(
	otium: Otium,
	staff: StaffMember,
	id: string,
	act: Act,
	no: (code: 'not_found' | 'not_yours') => never = fail
): Promise<{ session: Session; by: Actor }> {
	const session = await findSession(otium.db, id);
	if (!session) no('not_found');
	if (!may(staff, act, placeOf(session))) no('not_yours');
	return { session, by: actorAt(staff, session.site.id) };
}

/** Who acts, where only coordinators of that site may. */
export function coordinatorOf(staff: StaffMember, siteId: string): Actor {
	if (!coordinatesSite(staff, siteId)) fail('not_yours');
	return actorAt(staff, siteId);
}

/**
 * Who acts, where it concerns all sites, so that it takes somebody who coordinates them all.
 * @param words why, where the case is known better
 */
export function coordinatorOfAll(staff: StaffMember, words?: { message: string; instead: string }): Actor {
	if (!mayAnywhere(staff, 'change_shared')) fail('not_yours', words);
	return { role: 'coordinator', id: staff.id };
}

/** A candidate, for those who coordinate the site that they are of. */
export async function personFor(otium: Otium, staff: StaffMember, id: string): Promise<{ person: Person; by: Actor }> {
	const person = await findPerson(otium.db, id, otium.now());
	if (!person) fail('not_found');
	return { person, by: coordinatorOf(staff, person.site.id) };
}
