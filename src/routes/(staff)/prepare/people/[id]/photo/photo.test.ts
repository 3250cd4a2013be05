import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { deviceOf, knock, newDeviceSecret } from '$lib/server/identity';
import { buildHouse, openDoor, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { GET as atDoor } from '../../../../../sit/api/photo/+server';
import { GET as atRoom } from '../../../../live/[id]/sitting/[sitting]/photo/+server';
import { DELETE as remove, GET as show, PUT as put } from './+server';

let house: House;
/** Of the browser that asks. */
let secret: string;
beforeEach(async () => {
	house = await buildHouse();
	secret = await newDeviceSecret(house.otium.db);
});
afterEach(() => house.close());

const ODE = somebody('ode', 'coordinator', null);
const drawn = (background: string) => sharp({ create: { width: 30, height: 40, channels: 3, background } });
const JPEG = [...(await drawn('#1f5e57').jpeg().toBuffer())];
const PNG = [...(await drawn('#8a5a12').png().toBuffer())];
/** The colour of what is shown; photos are drawn afresh, so their bytes are others. */
async function colourOf({ bytes, type }: { bytes: number[]; type: string | null }) {
	expect(type).toBe('image/jpeg');
	return [...(await sharp(Uint8Array.from(bytes)).raw().toBuffer()).subarray(0, 3)].map((part) =>
		Math.round(part / 16)
	);
}
const GREEN = [0x1f, 0x5e, 0x57].map((part) => Math.round(part / 16));
const OCHRE = [0x8a, 0x5a, 0x12].map((part) => Math.round(part / 16));

async function ask(
	handler: unknown,
	more: { bytes?: number[]; staff?: StaffMember | null; params?: object; query?: string } = {}
) {
	const url = new URL(`http://localhost/${more.query ?? ''}`);
	const response = await (handler as (event: unknown) => Promise<Response>)({
		request: new Request(url, { method: 'PUT', body: Uint8Array.from(more.bytes ?? []) }),
		url,
		params: more.params ?? { id: 'can0' },
		cookies: { get: () => secret, set: () => {} },
		locals: { otium: house.otium, staff: more.staff === undefined ? ODE : more.staff, device: null }
	});
	return {
		status: response.status,
		type: response.headers.get('content-type'),
		bytes: [...new Uint8Array(await response.arrayBuffer())]
	};
}
const recognised = async () => {
	const code = await openDoor(house);
	const browser = await deviceOf(house.otium.db, secret, null);
	const met = await knock(house.otium, { code, number: 'DO-1001', family: 'Family0', address: '127.0.0.1', browser });
	if (!met.ok) throw new Error(met.refusal.code);
	return met.person;
};

describe('photos', () => {
	it.each([
		['JPEG', JPEG, GREEN],
		['PNG', PNG, OCHRE]
	])('a %s is kept, shown as a JPEG, and taken away again', async (_, bytes, colour) => {
		expect((await ask(show)).status).toBe(404);
		expect((await ask(put, { bytes })).status).toBe(200);
		expect(await colourOf(await ask(show))).toEqual(colour);
		expect((await ask(remove)).status).toBe(200);
		expect((await ask(show)).status).toBe(404);
	});

	it.each([
		['a page that calls itself a picture', [...new TextEncoder().encode('<svg onload=alert(1)>')]],
		['nothing', []],
		['one that is cut off', JPEG.slice(0, 200)],
		['one that is too large', [...JPEG, ...Array.from({ length: 400_001 }, () => 0)]]
	])('%s is refused, and what was kept stays', async (_, bytes) => {
		await ask(put, { bytes: JPEG });
		expect([413, 422]).toContain((await ask(put, { bytes })).status);
		expect(await colourOf(await ask(show))).toEqual(GREEN);
	});

	it('only whoever prepares at the candidate’s site keeps one', async () => {
		expect((await ask(put, { bytes: JPEG, staff: null })).status).toBe(401);
		expect((await ask(put, { bytes: JPEG, staff: somebody('dunmore', 'proctor', null) })).status).toBe(403);
		expect((await ask(put, { bytes: JPEG, staff: somebody('x', 'coordinator', 'elsewhere') })).status).toBe(403);
		expect((await ask(put, { bytes: JPEG, params: { id: '../../x' } })).status).toBe(404);
	});

	it('is shown at the door to whom the door recognised, and to nobody with a note that is not ours', async () => {
		expect((await recognised()).photo).toBe(false);
		await ask(put, { bytes: JPEG });
		const { note, photo } = await recognised();
		expect(photo).toBe(true);
		expect(await colourOf(await ask(atDoor, { query: `?note=${encodeURIComponent(note)}` }))).toEqual(GREEN);
		expect((await ask(atDoor, { query: `?note=${encodeURIComponent(`${note}x`)}` })).status).toBe(404);
		const own = secret;
		secret = await newDeviceSecret(house.otium.db);
		expect((await ask(atDoor, { query: `?note=${encodeURIComponent(note)}` })).status, 'another browser').toBe(404);
		secret = own;
		house.clock.at += 11 * 60_000;
		expect((await ask(atDoor, { query: `?note=${encodeURIComponent(note)}` })).status).toBe(404);
	});

	it('is shown in the room to its proctor, for the candidates of that room alone', async () => {
		await ask(put, { bytes: JPEG });
		const proctor = somebody('dunmore', 'proctor', 'quayside');
		const params = { id: 's1', sitting: 'sit0' };
		expect(await colourOf(await ask(atRoom, { staff: proctor, params }))).toEqual(GREEN);
		expect((await ask(atRoom, { staff: proctor, params: { ...params, sitting: 'elsewhere' } })).status).toBe(404);
		expect((await ask(atRoom, { staff: somebody('x', 'proctor', 'elsewhere'), params })).status).toBe(403);
	});
});
