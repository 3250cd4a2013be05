import { toldToCandidate } from '$core/grants';
import { limitsCalculator } from '$core/paper';
import { whatBinds, type BindingFacts, type ToldSubject } from '$core/told';
import { allottedMinutes, minutesLeft, secondsEach } from '$core/time';
import type { Query } from '../db';
import { networkNames, paperVersion, type Session } from '../records';
import type { Loaded } from './load';

/** What binds beside the rules, the same for everybody in a session. */
export type BesideRules = Pick<BindingFacts, 'networks' | 'limitsCalculator'>;

export async function besideRules(db: Query, { rules, paper }: Pick<Session, 'rules' | 'paper'>): Promise<BesideRules> {
	const { content } = await paperVersion(db, paper.id);
	return { networks: await networkNames(db, rules.door.networks), limitsCalculator: limitsCalculator(content) };
}

/** Their day in a few sentences, as on their own page: time, window, place, and what was given to them. */
export function dayToldTo({ sitting, session, merge, reckoning }: Loaded): string[] {
	return toldToCandidate({
		merge,
		begun: sitting.beganAt !== null,
		reckoning,
		timing: session.rules.timing,
		room: session.room.name,
		zone: session.site.zone
	});
}

/** Everything that binds one candidate, in their words, with what was granted to them. */
export async function toldOf(db: Query, one: Loaded): Promise<ToldSubject[]> {
	return toldWith(one, await besideRules(db, one.session));
}

/** Minutes that somebody has for their work from here on: all of it, or what is left once they have begun; null: no limit. */
export function minutesToWork({ sitting, session, merge, reckoning }: Loaded): number | null {
	if (sitting.beganAt === null) return allottedMinutes(session.rules.timing, merge.grants);
	return reckoning.remaining === null ? null : minutesLeft(reckoning.remaining);
}

/** The same for many of one session, of which it is known what else binds there. */
export function toldWith(one: Loaded, beside: BesideRules): ToldSubject[] {
	const { sitting, session, merge, reckoning } = one;
	return whatBinds({
		...beside,
		rules: session.rules,
		window: reckoning.window,
		zone: session.site.zone,
		// Who sits elsewhere is not bound to the room's.
		networks: session.rules.door.networks.length === 0 ? [] : beside.networks,
		own: {
			minutes: allottedMinutes(session.rules.timing, merge.grants),
			questionSeconds: secondsEach(session.rules.timing, merge.grants),
			breaks: merge.breaks ?? null,
			calculator: merge.calculator ?? null,
			extraAttempts: merge.extraAttempts,
			goesOnWith: sitting.beganAt === null ? null : { minutes: minutesToWork(one) }
		}
	});
}

/** The same for everybody without a grant. */
export async function toldToAll(
	db: Query,
	session: Pick<Session, 'rules' | 'window' | 'site' | 'paper'>
): Promise<ToldSubject[]> {
	const { rules, window, site } = session;
	return whatBinds({ ...(await besideRules(db, session)), rules, window, zone: site.zone, own: null });
}
