import { hostname, networkInterfaces } from 'node:os';

/** How long what this machine is called is known for: asking costs more than the rest of a small request. */
const KNOWN_FOR_MS = 5_000;
/** @type {{ names: Set<string>, until: number }} */
let own = { names: new Set(), until: 0 };

function ownNames() {
	const now = performance.now();
	if (now >= own.until) {
		const addresses = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((one) => one.address));
		own = { names: new Set(['localhost', hostname().toLowerCase(), ...addresses]), until: now + KNOWN_FOR_MS };
	}
	return own.names;
}

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
	return ownNames().has(host) || also.some((name) => name.toLowerCase() === host);
}
