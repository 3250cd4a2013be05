import { isSetUp, setUpSteps, type SetUpStep } from '$core/setting-up';
import { perHouse, type Query } from '../db';
import { houseCard } from '../house-card';
import { houseFacts } from './facts';

/** Once somebody has sat, it stays so: Today asks every quarter of a minute, and counts nothing in an old house. */
const known = perHouse(() => ({ isSetUp: false }));

/** What is left to set up; null: it is done, or the list is hidden. @param url of the request */
export async function leftToSetUp(db: Query, url: URL): Promise<SetUpStep[] | null> {
	const cell = known(db);
	if (cell.isSetUp || (await houseCard(db)).isListHidden) return null;
	const facts = await houseFacts(db, url);
	cell.isSetUp = isSetUp(facts);
	return cell.isSetUp ? null : setUpSteps(facts);
}
