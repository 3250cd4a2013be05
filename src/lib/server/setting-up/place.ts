import { DateTime } from 'luxon';
import { fail } from '$core/problem';
import { readAddress } from '$core/setting-up';
import type { Actor } from '$core/sitting';
import type { Writing } from '../house';
import { houseCard, saveHouseCard, type HouseCard } from '../house-card';
import { listAdministrations, makeAdministration, makeSite } from '../places';

/** What the first page asks of a place. `zone`: null where there is a site already. */
export type PlaceAsked = { name: string; site: string; zone: string | null; address: string };

/**
 * Names the house, makes its first site with the clock that is there, and an administration for the year, which nobody has
 * to know of. Sent twice, it is done once.
 * @throws ProblemError not_taken
 */
export async function setUpPlace(otium: Writing, by: Actor, asked: PlaceAsked): Promise<HouseCard> {
	const address = asked.address.trim() === '' ? null : readAddress(asked.address);
	if (address === null && asked.address.trim() !== '')
		fail('not_taken', {
			message: `“${asked.address.trim().slice(0, 80)}” is no address.`,
			instead: 'Write it as candidates type it, like http://192.168.1.20:4600 or https://tests.school.example.'
		});
	const there = await otium.db('site').where({ name: asked.site }).first('id');
	if (asked.zone !== null && asked.site !== '' && !there) {
		const made = await makeSite(otium, by, asked.site, asked.zone);
		if (!made.ok) fail('not_taken', { message: made.message });
	}
	if ((await listAdministrations(otium.db)).length === 0)
		await makeAdministration(otium, by, schoolYear(otium.now(), asked.zone ?? 'UTC'));
	const before = await houseCard(otium.db);
	if (before.name === asked.name && before.address === address) return before;
	return saveHouseCard(otium, by, { name: asked.name, address });
}

/** Years begin in August, as most school years of the north do; it can be renamed. */
function schoolYear(now: number, zone: string): string {
	const { year, month } = DateTime.fromMillis(now, { zone });
	const first = month >= 8 ? year : year - 1;
	return `School year ${first}/${String((first + 1) % 100).padStart(2, '0')}`;
}
