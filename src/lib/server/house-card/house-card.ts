import type { Actor } from '$core/sitting';
import { houseSetting, keepHouseSetting, perHouse, transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';

/** What a house calls itself, and where others reach it. */
export type HouseCard = {
	/** null: nobody has named it. */
	name: string | null;
	/** `https://tests.school.example`; null: the address at which whoever asks has reached it. */
	address: string | null;
	/** The list of what is left to set up is not shown. */
	isListHidden: boolean;
};

const KEY = 'house_card';
const EMPTY: HouseCard = { name: null, address: null, isListHidden: false };
const known = perHouse((): { card: HouseCard | null } => ({ card: null }));

export async function houseCard(db: Query): Promise<HouseCard> {
	const cell = known(db);
	return (cell.card ??= { ...EMPTY, ...(await houseSetting<HouseCard>(db, KEY)) });
}

/** Keeps what is given of it; the rest stays. */
export async function saveHouseCard(otium: Writing, by: Actor, change: Partial<HouseCard>): Promise<HouseCard> {
	const card = { ...(await houseCard(otium.db)), ...change };
	await transact(otium.db, async (trx) => {
		await keepHouseSetting(trx, KEY, card);
		const { name, address } = card;
		if (change.name !== undefined || change.address !== undefined)
			await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'house_named', body: { name, address } }]);
	});
	known(otium.db).card = card;
	return card;
}

/** The address that stands on slips, boards, emails and PDFs: the house's own, whoever prints them. @param url of the request */
export async function addressOf(db: Query, url: URL): Promise<string> {
	return (await houseCard(db)).address ?? url.origin;
}
