import type { HeldRole, StaffRole } from './permission';

/** How a house wants its staff to sign in. */
export type SignInRules = {
	/** Whoever has one of these roles needs a second step: a passkey, or codes from an app. */
	secondStepFor: StaffRole[];
	/** Whoever does nothing for so long is signed out; a live room that is open counts as doing something. */
	idleMinutes: number;
};
export const SIGN_IN_RULES: SignInRules = { secondStepFor: [], idleMinutes: 60 };
export const IDLE_MINUTES = { least: 5, most: 720 };

/** What is to be done before a sign-in holds, in this order. */
export const AWAITED = ['second', 'password', 'enrol'] as const;
export type Awaited = (typeof AWAITED)[number];

/**
 * What a sign-in still waits for; null: nothing.
 * @param has what is known of whoever signs in
 * @param hasPassed the second step has been passed, or the first was as strong as both
 */
export function awaited(
	has: { secondStep: boolean; mustChange: boolean; roles: HeldRole[] },
	hasPassed: boolean,
	rules: SignInRules
): Awaited | null {
	if (has.secondStep && !hasPassed) return 'second';
	if (has.mustChange) return 'password';
	return !has.secondStep && !hasPassed && has.roles.some(({ role }) => rules.secondStepFor.includes(role))
		? 'enrol'
		: null;
}

/** For so long nobody is asked again who they are before what matters most. */
export const CONFIRMED_FOR_MS = 60 * 60_000;
