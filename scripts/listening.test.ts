import { expect, it } from 'vitest';
import { listeningWords } from './listening';

const words = (host: string, addresses: string[], origin?: string) =>
	listeningWords({ host, port: 4600, ...(origin ? { origin } : {}) }, addresses).join('\n');
const here = 'http://localhost:4600';

it('says who reaches a server, and what would let others', () => {
	expect(words('127.0.0.1', [here])).toContain('start it with --lan');
	expect(words('0.0.0.0', [here])).toContain('no address in a network');
	const lan = words('0.0.0.0', [here, 'http://192.168.1.20:4600']);
	expect(lan).toContain('Candidates http://192.168.1.20:4600/sit');
	expect(lan).toContain('plain HTTP');
	expect(words('127.0.0.1', [here], 'https://tests.example')).toBe(
		'Staff https://tests.example   Candidates https://tests.example/sit'
	);
});
