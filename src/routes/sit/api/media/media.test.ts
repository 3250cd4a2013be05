import { readFile } from 'node:fs/promises';
import { nanoid } from 'nanoid';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { bringToWork, buildHouse, CANDIDATE, openDoor, type House } from '$lib/server/testing/house';
import { POST as played } from '../played/+server';
import { GET as paperOf } from '../paper/+server';
import { GET as file } from './[file]/+server';
import { keepMedium, readMedium } from '$lib/server/media';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
});
afterEach(() => house.close());

const SOUND = new URL('../../../../lib/server/demo/fog-signal.mp3', import.meta.url);
const drawn = () => sharp({ create: { width: 40, height: 30, channels: 3, background: '#1f5e57' } });
const svg = (inside: string) =>
	Buffer.from(
		`<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30">${inside}<rect width="9" height="9"/></svg>`
	);
const refused = (bytes: Uint8Array) =>
	keepMedium(house.otium, bytes, null).then(
		() => 'kept',
		(error: { problem?: { code: string }; code?: string }) => error.code ?? error.problem?.code
	);

describe('a file for a question', () => {
	it.each([
		['PNG', () => drawn().png().toBuffer(), 40],
		['JPEG', () => drawn().jpeg().toBuffer(), 40],
		['WebP', () => drawn().webp().toBuffer(), 40],
		['SVG', async () => svg(''), 1_000]
	])('that is a picture (%s) is drawn afresh as WebP', async (_, made, width) => {
		const kept = await keepMedium(house.otium, await made(), null);
		expect(kept).toMatchObject({ type: 'image/webp', alt: '', width });
		const { bytes, type } = (await readMedium(house.otium, kept.file))!;
		expect([type, (await sharp(bytes).metadata()).format]).toEqual(['image/webp', 'webp']);
		// The same once more lies there once.
		expect((await keepMedium(house.otium, await made(), null)).file).toBe(kept.file);
		expect(await house.otium.db('media_file').count('* as n')).toEqual([{ n: 1 }]);
	});

	it('that could run or fetch something is a picture afterwards, and nothing else', async () => {
		const hostile = svg('<script>alert(1)</script><image href="http://elsewhere.example/x.png" width="9" height="9"/>');
		const { file } = await keepMedium(house.otium, hostile, null);
		const { bytes } = (await readMedium(house.otium, file))!;
		expect(Buffer.from(bytes).toString('latin1')).not.toMatch(/script|elsewhere/);
		expect(await refused(Buffer.from('<html><script>alert(1)</script></html>'))).toBe('medium');
		expect(await refused(Buffer.from('%PDF-1.4 no picture'))).toBe('medium');
		expect(await refused(new Uint8Array())).toBe('medium');
		const swelling =
			'<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg" width="90000" height="90000"><text>&b;</text></svg>';
		const begun = performance.now();
		expect(await refused(Buffer.from(swelling))).toBe('medium');
		expect(performance.now() - begun).toBeLessThan(20_000);
	});

	it('that is sound is kept as it is, by what it is and not by its name', async () => {
		const sound = await readFile(SOUND);
		const kept = await keepMedium(house.otium, sound, null);
		expect(kept.type).toBe('audio/mpeg');
		expect(Buffer.from((await readMedium(house.otium, kept.file))!.bytes).equals(sound)).toBe(true);
		expect(await refused(Buffer.concat([sound, Buffer.alloc(11 * 1024 * 1024)]))).toBe('medium');
	});

	it('leads nowhere outside its folder', async () => {
		for (const name of ['../otium.db', '..%2fotium.db', 'a'.repeat(64), '']) {
			expect(await readMedium(house.otium, name)).toBeNull();
		}
	});
});

describe('a candidate', () => {
	/** The paper of the session, with one file that is shown and one that is played twice; and a file of no question. */
	async function withMedia() {
		const picture = await keepMedium(house.otium, await drawn().png().toBuffer(), null);
		const sound = await keepMedium(house.otium, await readFile(SOUND), null);
		const other = await keepMedium(house.otium, svg('<circle r="4"/>'), null);
		const row = await house.otium.db('paper').where({ id: 'numbers' }).first('content');
		const paper: Paper = JSON.parse(row.content);
		paper.parts[0].questions[0].media = [{ ...sound, alt: 'a signal', plays: 2 }];
		paper.parts[0].questions[1].stimulus = { id: 'shared', text: 'See.', media: [{ ...picture, alt: 'a square' }] };
		paper.parts[0].questions[2].media = [{ ...picture, alt: 'a square' }];
		await house.otium
			.db('paper')
			.where({ id: 'numbers' })
			.update({ content: JSON.stringify(paper) });
		return { picture, sound, other };
	}
	const get = (device: { sittingId: string; epoch: number }, name: string) =>
		call(file as never, { otium: house.otium, method: 'GET', params: { file: name }, device });

	it('gets what their questions show and play, not before they have begun, and nothing else', async () => {
		const { picture, sound, other } = await withMedia();
		const { sittingId } = house.people[0];
		expect((await get({ sittingId, epoch: 1 }, picture.file)).status).toBe(409);
		const epoch = await bringToWork(house, 0, await openDoor(house));
		for (const { file: name } of [picture, sound]) expect((await get({ sittingId, epoch }, name)).status).toBe(200);
		expect((await get({ sittingId, epoch }, other.file)).status).toBe(404);
		await act(house.otium, [
			{ id: nanoid(), sittingId, by: CANDIDATE, body: { kind: 'hand_in', receipt: 'R', reason: null } }
		]);
		expect((await get({ sittingId, epoch }, picture.file)).status).toBe(409);
	});

	it('gets what lies beside the paper from the first question on, though none shows it', async () => {
		const { other } = await withMedia();
		const { content } = await house.otium.db('paper').where({ id: 'numbers' }).first('content');
		const material = [{ name: 'Tables', pages: [{ ...other, alt: 'a table' }] }];
		const paper: Paper = { ...JSON.parse(content), material };
		await house.otium
			.db('paper')
			.where({ id: 'numbers' })
			.update({ content: JSON.stringify(paper) });
		const { sittingId } = house.people[0];
		expect((await get({ sittingId, epoch: 1 }, other.file)).status).toBe(409);
		const device = { sittingId, epoch: await bringToWork(house, 0, await openDoor(house)) };
		expect((await get(device, other.file)).status).toBe(200);
		const sent = await call(paperOf as never, { otium: house.otium, method: 'GET', device });
		expect(JSON.parse(sent.text).material).toEqual(material);
	});

	it('is counted when they play what may be played only so often, whatever device tells it, and however late', async () => {
		await withMedia();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const { sittingId } = house.people[0];
		const device = { sittingId, epoch };
		const ask = (body: object) => call(played as never, { otium: house.otium, method: 'POST', body, device });
		const paper = async () =>
			JSON.parse((await call(paperOf as never, { otium: house.otium, method: 'GET', device })).text);
		const { questions } = await paper();
		const idOf = (stem: string) => questions.find((one: { stem: string }) => one.stem === stem).id;
		const [first, third] = [idOf('Is 0 even?'), idOf('Is 2 even?')];
		expect((await ask({ of: first, place: 0, times: 2 })).status).toBe(200);
		// Told late, after another device has told more.
		expect((await ask({ of: first, place: 0, times: 1 })).status).toBe(200);
		expect((await paper()).played).toEqual([{ of: first, place: 0, times: 2 }]);
		for (const body of [
			{ of: third, place: 0, times: 1 },
			{ of: first, place: 1, times: 1 },
			{ of: 'elsewhere', place: 0, times: 1 }
		])
			expect((await ask(body)).status).toBe(422);
	});
});
