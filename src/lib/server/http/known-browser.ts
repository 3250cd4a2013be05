import type { Cookies } from '@sveltejs/kit';
import type { Query } from '../db';
import { deviceOf, newDeviceSecret } from '../identity';
import { readCookie, writeCookie } from './cookies';

const YEAR_S = 365 * 24 * 3_600;

/**
 * The secret of a browser, and by which name the record knows it. A browser does not choose who it is: one that brings none
 * of ours is given a new one with the answer.
 * @param name `device`: a candidate's; `browser`: of the staff
 */
export async function knownBrowser(
	db: Query,
	cookies: Cookies,
	url: URL,
	name: 'device' | 'browser' = 'device'
): Promise<{ secret: string; browser: string }> {
	const sent = readCookie(cookies, url, name);
	const known = await deviceOf(db, sent, null);
	if (known !== null) return { secret: sent!, browser: known };
	const secret = await newDeviceSecret(db);
	writeCookie(cookies, url, name, secret, YEAR_S);
	return { secret, browser: (await deviceOf(db, secret, null))! };
}
