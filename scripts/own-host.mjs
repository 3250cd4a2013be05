import { hostname, networkInterfaces } from 'node:os';

/**
 * Whether a request's Host header names this machine: without a named origin, what it says goes into mails, slips and
 * codes, and a page elsewhere could have its own name lead here.
 * @param {string | undefined} header
 * @param {string[]} also names under which the house is known besides
 */
export function isOwnHost(header, also = []) {
	let host;
	try {
		host = new URL(`http://${header}`).hostname.replace(/^\[|\]$/g, '');
	} catch {
		return false;
	}
	const addresses = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((one) => one.address));
	return ['localhost', hostname().toLowerCase(), ...addresses, ...also.map((name) => name.toLowerCase())].includes(
		host
	);
}
