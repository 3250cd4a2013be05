import { SIGN_IN_RULES, type SignInRules } from '$core/access';
import type { Actor } from '$core/sitting';
import { houseSetting, keepHouseSetting, perHouse, transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';

const KEY = 'sign_in_rules';
const known = perHouse((): { rules: SignInRules | null } => ({ rules: null }));

/** How this house wants its staff to sign in. */
export async function signInRules(db: Query): Promise<SignInRules> {
	const cell = known(db);
	if (cell.rules) return cell.rules;
	return (cell.rules = { ...SIGN_IN_RULES, ...(await houseSetting<SignInRules>(db, KEY)) });
}

export async function saveSignInRules(otium: Writing, by: Actor, rules: SignInRules): Promise<void> {
	await transact(otium.db, async (trx) => {
		await keepHouseSetting(trx, KEY, rules);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'sign_in_rules_changed', body: { ...rules } }]);
	});
	known(otium.db).rules = rules;
}
