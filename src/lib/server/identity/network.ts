import { isInside, readRanges } from '$core/access';
import type { Query } from '../db';
import type { Session } from '../session';

/** Whether the rules let an address in. Rules that name only networks which are gone let nobody in. */
export async function isOnNetwork(db: Query, session: Session, address: string): Promise<boolean> {
	const { networks } = session.rules.door;
	if (networks.length === 0) return true;
	const ranges: string[] = await db('network').whereIn('id', networks).pluck('ranges');
	return isInside(
		address,
		ranges.flatMap((text) => readRanges(text).ranges)
	);
}
