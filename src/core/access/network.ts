import ipaddr from 'ipaddr.js';

/** A range that was read, as it is written down again: `10.20.0.0/16`. */
export type ReadRanges = { ranges: string[]; problems: string[] };

/**
 * Reads ranges of addresses in CIDR notation (IPv4 by RFC 4632, IPv6 by RFC 4291), separated by spaces, commas or lines;
 * an address alone is a range of one. Bits beyond the prefix are cleared, as those who copy their own address expect.
 */
export function readRanges(text: string): ReadRanges {
	const read: ReadRanges = { ranges: [], problems: [] };
	for (const word of text.split(/[\s,;]+/).filter(Boolean)) {
		const range = readRange(word);
		if (range === null)
			read.problems.push(`“${word}” is not an address range. Write 10.20.0.0/16, 2001:db8::/32 or one address.`);
		else if (!read.ranges.includes(range)) read.ranges.push(range);
	}
	return read;
}

function readRange(word: string): string | null {
	const [address, prefix, ...rest] = word.split('/');
	// The library also takes 10.1 and 0x0a000001 for addresses; people who write them mean something else.
	const isWhole = address.includes(':') ? ipaddr.IPv6.isValid(address) : ipaddr.IPv4.isValidFourPartDecimal(address);
	if (!isWhole || rest.length > 0) return null;
	const parsed = ipaddr.parse(address);
	const most = parsed.kind() === 'ipv4' ? 32 : 128;
	const length = prefix === undefined ? most : /^\d{1,3}$/.test(prefix) ? Number(prefix) : NaN;
	if (!(length >= 0 && length <= most)) return null;
	const Kind = parsed.kind() === 'ipv4' ? ipaddr.IPv4 : ipaddr.IPv6;
	return `${Kind.networkAddressFromCIDR(`${address}/${length}`).toString()}/${length}`;
}

/** Whether an address lies in one of the ranges. An IPv4 address in IPv6's clothes is taken for what it is. */
export function isInside(address: string, ranges: string[]): boolean {
	if (!ipaddr.isValid(address)) return false;
	const given = ipaddr.process(address);
	return ranges.some((range) => {
		const [network, length] = ipaddr.parseCIDR(range);
		return network.kind() === given.kind() && given.match(network as never, length);
	});
}

/**
 * The address of whoever asks: the connection's own, unless that is a proxy which the deployment names; then the last
 * address in `X-Forwarded-For` that is no such proxy. Anybody can write that header, so nobody else's is believed.
 */
export function clientAddress(connection: string, forwardedFor: string | null, proxies: string[]): string {
	const chain = [...(forwardedFor?.split(',').map((one) => withoutPort(one.trim())) ?? []), connection];
	while (chain.length > 1 && isInside(chain[chain.length - 1], proxies)) chain.pop();
	return chain[chain.length - 1];
}

/** Some proxies write the port behind the address: `192.0.2.1:5555`, `[2001:db8::1]:5555`. */
function withoutPort(address: string): string {
	return /^\[(.+)\](?::\d+)?$/.exec(address)?.[1] ?? /^(\d+(?:\.\d+){3}):\d+$/.exec(address)?.[1] ?? address;
}

/** By what somebody who asks is told apart: the address, or the network that one subscriber has of IPv6 (RFC 6177: a /64). */
export function networkOf(address: string): string {
	if (!ipaddr.isValid(address)) return address.slice(0, 64);
	const given = ipaddr.process(address);
	if (given.kind() === 'ipv4') return given.toString();
	return `${ipaddr.IPv6.networkAddressFromCIDR(`${given.toString()}/64`).toString()}/64`;
}
