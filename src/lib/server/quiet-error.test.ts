import pino from 'pino';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { quietError } from './quiet-error';
import { buildHouse, type House } from './testing/house';

let house: House;
beforeEach(async () => (house = await buildHouse()));
afterEach(() => house.close());

it.each([
	[
		'a row that is there already',
		() => house.otium.db('candidate').insert({ id: 'can0', number: 'DO-1', given: 'Zoë' })
	],
	['a column that is not there', () => house.otium.db('candidate').where({ secret: 'Ó Briain' })],
	['a row that something else needs', () => house.otium.db('site').where({ name: 'Quayside' }).delete()]
])('%s: the log has the code and the place, and nothing of the row', async (_, work) => {
	const error = await Promise.resolve(work()).catch((thrown: Error) => thrown);
	expect((error as Error).message).toMatch(/Zoë|Briain|Quayside/);
	const lines: string[] = [];
	const log = pino({ serializers: { err: quietError } }, { write: (line: string) => void lines.push(line) });
	log.error({ err: error }, 'a request failed');
	expect(lines.join()).not.toMatch(/Zoë|Briain|Quayside/);
	expect(JSON.parse(lines[0]).err).toMatchObject({ code: expect.stringMatching(/^SQLITE_/) });
	expect(JSON.parse(lines[0]).err.stack.join()).toContain('better-sqlite3');
});

it('another error is told as it is', () => {
	expect(quietError(new TypeError('tide is not defined'))).toMatchObject({
		type: 'TypeError',
		message: 'tide is not defined'
	});
});
