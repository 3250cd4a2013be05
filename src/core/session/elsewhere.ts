import type { SessionRules } from './rules';

/** A session's rules as they hold for whoever does not sit in its room. */
export function rulesElsewhere(rules: SessionRules): SessionRules {
	const { admission, anyNetwork, snapshotSeconds } = rules.elsewhere;
	return {
		...rules,
		admission,
		door: { ...rules.door, networks: anyNetwork ? [] : rules.door.networks },
		lockdown: { ...rules.lockdown, snapshotSeconds: snapshotSeconds ?? rules.lockdown.snapshotSeconds }
	};
}
