import { nanoid } from 'nanoid';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { bringToWork, buildHouse, CANDIDATE, openDoor, type House } from '$lib/server/testing/house';
import { GET as filesOf } from './+server';
import { POST as codeOf } from './code/+server';
import { GET as fileOf } from './[id]/+server';
import { POST as byDevice } from './of/[question]/+server';
import { POST as byCode } from '../../hand/[code]/+server';
import { POST as answer } from '../answers/+server';
import { GET as paperOf } from '../paper/+server';
import { HAND_CODE_MS, readHanded } from '$lib/server/handed';

let house: House;
let device: { sittingId: string; epoch: number };
/** As the device knows it, and another of its form that takes no files. */
let [question, other] = ['', ''];

const photo = () =>
	sharp({ create: { width: 60, height: 40, channels: 3, background: '#eee' } })
		.png()
		.toBuffer();
const PDF = Buffer.from('%PDF-1.7\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF');
/** Bytes go as text of one letter for each. */
const ask = (handler: unknown, asked: object) => call(handler as never, { otium: house.otium, ...asked } as never);
const hand = (bytes: Uint8Array, to = question, name = 'plot.png') =>
	ask(byDevice, { device, params: { question: to }, bytes, headers: { 'x-file-name': encodeURIComponent(name) } });
const listed = async (by = device) => JSON.parse((await ask(filesOf, { device: by, method: 'GET' })).text).files;

const handIn = () => {
	const body = { kind: 'hand_in', receipt: 'R', reason: null } as const;
	return act(house.otium, [{ id: nanoid(), sittingId: device.sittingId, by: CANDIDATE, body }]);
};

beforeEach(async () => {
	house = await buildHouse();
	const row = await house.otium.db('paper').where({ id: 'numbers' }).first('content');
	const paper: Paper = JSON.parse(row.content);
	paper.parts[0].questions[0] = { id: 'plot', kind: 'upload', most: 2, stem: 'Plot it.', points: 4, topic: '' };
	await house.otium
		.db('paper')
		.where({ id: 'numbers' })
		.update({ content: JSON.stringify(paper) });
	const epoch = await bringToWork(house, 0, await openDoor(house));
	device = { sittingId: house.people[0].sittingId, epoch };
	const { questions } = JSON.parse((await ask(paperOf, { device, method: 'GET' })).text);
	question = questions.find((one: { kind: string }) => one.kind === 'upload').id;
	other = questions.find((one: { kind: string }) => one.kind !== 'upload').id;
});
afterEach(() => house.close());

describe('a file that a candidate hands over', () => {
	it('is drawn afresh or is a PDF, belongs to its sitting alone, and is part of the answer once that names it', async () => {
		const { file } = JSON.parse((await hand(await photo(), question, 'Plôt ../1.png')).text);
		expect(file).toMatchObject({ name: 'Plôt ../1.png', type: 'image/jpeg', questionId: question, byCode: false });
		expect((await hand(PDF)).status).toBe(200);
		expect((await listed()).map((one: { type: string }) => one.type)).toEqual(['image/jpeg', 'application/pdf']);
		const got = await ask(fileOf, { device, method: 'GET', params: { id: file.id } });
		expect([got.status, got.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
		expect(got.headers.get('content-security-policy')).toContain('sandbox');

		const epoch = await bringToWork(house, 1, await openDoor(house));
		const neighbour = { sittingId: house.people[1].sittingId, epoch };
		expect(await listed(neighbour)).toEqual([]);
		expect((await ask(fileOf, { device: neighbour, method: 'GET', params: { id: file.id } })).status).toBe(404);

		const send = (value: unknown, seq: number) =>
			ask(answer, {
				device,
				body: { revisions: [{ questionId: question, value, marked: false, struck: [], inViewMs: 1, seq }] }
			});
		expect((await send([file.id], 1)).text).not.toContain('unfitting');
		const stored = await house.otium.db('answer_standing').where({ question_id: 'plot' }).first();
		expect(JSON.stringify(stored)).toContain(file.id);
		expect((await send(['not a file'], 2)).text).toContain('unfitting');
		expect((await send(Array(3).fill(file.id), 3)).text).toContain('unfitting');
	});

	it('is refused where it is something else, is for a question that takes none, or comes when nothing is taken', async () => {
		expect((await hand(Buffer.from('<html>'))).status).toBe(422);
		expect((await hand(new Uint8Array())).status).toBe(422);
		expect((await hand(Buffer.concat([PDF, Buffer.alloc(10 * 1024 * 1024)]))).status).toBe(422);
		expect((await hand(PDF, other)).status).toBe(409);
		expect((await hand(PDF, 'plot')).status, 'the paper’s own name').toBe(409);
		await handIn();
		expect((await hand(PDF)).status).toBe(409);
	});

	it('is there once, however often it is sent, and is called by what is in it', async () => {
		const ids = [await hand(PDF), await hand(PDF), await hand(Buffer.concat([PDF, Buffer.from('% more')]))].map(
			({ text }) => JSON.parse(text).file.id
		);
		expect(ids[1]).toBe(ids[0]);
		expect(ids[2]).not.toBe(ids[0]);
		expect(await listed()).toHaveLength(2);
	});

	it('can’t be one of any number', async () => {
		let last = 200;
		for (let i = 0; i < 40 && last === 200; i++)
			last = (await hand(Buffer.concat([PDF, Buffer.from(`% ${i}`)]))).status;
		expect(last).toBe(409);
		expect(await listed()).toHaveLength(30);
	});
});

describe('a code for a phone', () => {
	const codeFor = async (of: string) => {
		const told = await ask(codeOf, { device, body: { question: of } });
		return told.status === 200 ? String(JSON.parse(told.text).address).split('/').at(-1)! : '';
	};
	const handBy = (code: string) => ask(byCode, { params: { code }, bytes: PDF });

	it('adds a file to its question and to nothing else, for ten minutes', async () => {
		const code = await codeFor(question);
		expect((await handBy(code)).status).toBe(200);
		expect(await listed()).toMatchObject([{ questionId: question, byCode: true }]);
		expect(await codeFor(other)).toBe('');
		house.clock.at += HAND_CODE_MS + 1;
		expect((await handBy(code)).status).toBe(410);
		expect(await listed()).toHaveLength(1);
	});

	it('can’t be made or changed by anybody else', async () => {
		const code = await codeFor(question);
		const [text, seal] = code.split('.');
		const [, questionId, until] = JSON.parse(Buffer.from(text, 'base64url').toString());
		const forged = Buffer.from(JSON.stringify([house.people[1].sittingId, questionId, until])).toString('base64url');
		for (const wrong of [`${forged}.${seal}`, text, `${text}.`, `.${seal}`, '', 'x.y', `${code}x`])
			expect((await handBy(wrong)).status, wrong).toBe(410);
	});

	it('is worth nothing once the work is over', async () => {
		const code = await codeFor(question);
		await handIn();
		expect((await handBy(code)).status).toBe(409);
		expect(await readHanded(house.otium, device.sittingId, 'none')).toBeNull();
	});
});
