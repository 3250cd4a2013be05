import type { SessionRules } from '../session';
import { isAtLeast } from './version';

/** A sealed client that has proved itself: the device that it runs on, whose it is, and which version it is. */
export type ProvenClient = { siteId: string; version: string; deviceId: string };

/** Whether a session's rules are met by the client that somebody comes with; null: with none. */
export function clientFor(
	session: { rules: Pick<SessionRules, 'lockdown'>; site: { id: string } },
	client: ProvenClient | null
): 'not_asked' | 'proven' | 'outdated' | 'missing' {
	const { lockdown } = session.rules;
	if (lockdown.level !== 'sealed') return 'not_asked';
	if (client?.siteId !== session.site.id) return 'missing';
	return isAtLeast(client.version, lockdown.clientVersion) ? 'proven' : 'outdated';
}
