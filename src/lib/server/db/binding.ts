import { readerOf, type Query } from './open';

/** What every request of a candidate's device is held against. SQLite has no booleans: 1 and 0. */
export type Binding = {
	/** The number of the device that the sitting is bound to; null: of none. */
	device_epoch: number | null;
	session_id: string;
	/** The clock starts with the first question on the screen, which has not been told yet. */
	clock_waits: 0 | 1;
	/** The site whose sealed client has to sign, and in which version at least; null: none has to. */
	client_site: string | null;
	client_least: string;
};

/** Which device a sitting is bound to, as it was committed last; undefined: there is no such sitting. */
export function bindingOf(db: Query, sittingId: string): Binding | undefined {
	return readerOf(db)
		.prepare('SELECT device_epoch, session_id, clock_waits, client_site, client_least FROM sitting WHERE id = ?')
		.get(sittingId) as Binding | undefined;
}
