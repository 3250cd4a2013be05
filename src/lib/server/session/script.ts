import { scriptFor, type Script } from '$core/session';
import type { Query } from '../db';
import { paperVersion } from '../paper';
import { doorOpensAt, type Session } from '../records';

/** How this session is run, with what its paper's author wants read aloud. */
export async function scriptOf(db: Query, session: Session): Promise<Script> {
	const { content } = await paperVersion(db, session.paper.id);
	const { rules, window, site } = session;
	const facts = { rules, doorOpens: doorOpensAt(session), opens: window.opens, zone: site.zone };
	return scriptFor(facts, content.script ?? null);
}
