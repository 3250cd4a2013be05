import { addressesOf } from './server-process';

/** Where a server can be reached, and by whom, for whoever has started it. @param addresses for tests */
export function listeningWords(
	{ host, port, origin }: { host: string; port: number; origin?: string },
	addresses = addressesOf(port, host)
): string[] {
	if (origin) return [`Staff ${origin}   Candidates ${origin}/sit`];
	const lines = addresses.map((address) => `Staff ${address}   Candidates ${address}/sit`);
	const isAlone = addresses.every((address) => new URL(address).hostname === 'localhost');
	if (isAlone && (host === '127.0.0.1' || host === 'localhost'))
		return [...lines, 'Only this machine reaches it. For others on its network, start it with --lan.'];
	if (isAlone) return [...lines, 'This machine has no address in a network, so only itself reaches it.'];
	return [
		...lines,
		'The first is for this machine, the others for its network. Name the one that candidates type under Set up.',
		'This is plain HTTP: whoever listens on the network can read along, and cameras, offline reloads and sealed clients work on',
		'this machine alone. For HTTPS put a proxy before it, and name its address with --origin.'
	];
}
