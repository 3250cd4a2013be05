import { whatBinds, type ToldSubject } from '$core/told';
import { allottedMinutes, secondsEach } from '$core/time';
import type { Query } from '../db';
import { networkNames, type Session } from '../records';
import type { Loaded } from './load';

/** Everything that binds one candidate, in their words, with what was granted to them. */
export async function toldOf(db: Query, one: Loaded): Promise<ToldSubject[]> {
	return toldWith(one, await networkNames(db, one.session.rules.door.networks));
}

/** The same for many of one session, whose networks' names are known. */
export function toldWith({ session, merge, reckoning }: Loaded, networks: string[]): ToldSubject[] {
	return whatBinds({
		rules: session.rules,
		window: reckoning.window,
		zone: session.site.zone,
		// Who sits elsewhere is not bound to the room's.
		networks: session.rules.door.networks.length === 0 ? [] : networks,
		own: {
			minutes: allottedMinutes(session.rules.timing, merge.grants),
			questionSeconds: secondsEach(session.rules.timing, merge.grants),
			breaks: merge.breaks ?? null,
			calculator: merge.calculator ?? null,
			extraAttempts: merge.extraAttempts
		}
	});
}

/** The same for everybody without a grant. */
export async function toldToAll(
	db: Query,
	session: Pick<Session, 'rules' | 'window' | 'site'>
): Promise<ToldSubject[]> {
	const { rules, window, site } = session;
	const networks = await networkNames(db, rules.door.networks);
	return whatBinds({ rules, window, zone: site.zone, networks, own: null });
}
