import { afterEach, beforeEach, expect, it } from 'vitest';
import { searchLogbook } from '$lib/server/logbook';
import { call } from '$lib/server/testing/call';
import { buildHouse, openDoor, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { GET as details } from '../../(staff)/live/[id]/sitting/[sitting]/+server';
import { POST as arrive } from './arrive/+server';
import { POST as knock } from './knock/+server';

let house: House;
let code: string;
beforeEach(async () => {
	house = await buildHouse();
	code = await openDoor(house);
});
afterEach(() => house.close());

let commands = 0;
const ask = (handler: unknown, body: unknown, jar = new Map<string, string>()) =>
	call(handler as never, { otium: house.otium, body, jar });
/** Somebody comes to the door with these cookies. */
async function come(jar: Map<string, string>, nth = 0) {
	const { number, family } = house.people[nth];
	const met = await ask(knock, { code, number, family }, jar);
	return ask(arrive, { note: met.body.note, commandId: `arrive-${++commands}`, deviceName: 'Laptop' }, jar);
}
const device = 'otium-device';

it('a device is given who it is, comes back by it, and no other comes in its place', async () => {
	const jar = new Map<string, string>();
	expect((await come(jar)).status).toBe(200);
	expect(jar.get(device)!.length).toBeGreaterThan(60);
	const given = jar.get(device);
	expect((await come(jar)).status).toBe(200);
	expect(jar.get(device)).toBe(given);
	expect((await come(new Map())).body.code).toBe('second_device');
});

it.each([
	['a name of its own choosing', 'shared-by-two-conspirators'],
	['a seal of its own making', `${'a'.repeat(43)}.${'b'.repeat(43)}`],
	['nothing before the seal', `.${'b'.repeat(43)}`],
	['what the record holds', null]
])('two devices with the same %s are two devices', async (_, chosen) => {
	const first = new Map<string, string>();
	expect((await come(first)).status).toBe(200);
	const { fold } = await house.otium.db('sitting').where({ id: 'sit0' }).first('fold');
	const second = new Map([[device, chosen ?? (JSON.parse(fold).device.id as string)]]);
	expect((await come(second)).body.code).toBe('second_device');
	// It is given one of its own in the place of what it made up.
	expect(second.get(device)).not.toBe(chosen ?? JSON.parse(fold).device.id);
	// And it makes no difference who of them comes first.
	const third = new Map([[device, chosen ?? 'x']]);
	expect((await come(third, 1)).status).toBe(200);
	expect(third.get(device)).not.toBe(chosen);
});

it('what makes a device known stands in no log, no panel and no table', async () => {
	const jar = new Map<string, string>();
	await come(jar);
	const [secret] = jar.get(device)!.split('.');
	const staff = somebody('dunmore', 'proctor', 'quayside');
	const panel = await call(details as never, { otium: house.otium, staff, params: { id: 's1', sitting: 'sit0' } });
	expect(panel.text).toContain('Laptop');
	const everywhere = [panel.text, JSON.stringify(await searchLogbook(house.otium.db, {}))];
	const tables: { name: string }[] = await house.otium.db('sqlite_master').where({ type: 'table' }).select('name');
	for (const { name } of tables) everywhere.push(JSON.stringify(await house.otium.db(name)));
	for (const text of everywhere) expect(text).not.toContain(secret);
	expect(everywhere.length).toBeGreaterThan(30);
});
