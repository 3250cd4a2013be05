import { strFromU8, unzipSync } from 'fflate';
import { nanoid } from 'nanoid';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { addScan, keepHanded } from '../handed';
import { verifyRecord } from '../proof';
import { findSession } from '../session';
import { act } from '../sitting';
import { bringToWork, buildHouse, CANDIDATE, COORDINATOR, openDoor } from '../testing/house';
import { accountFor, byHandZip, countByHand } from '.';

it('what a person marks comes in one archive: by question, under numbers, of those whose work is over', async () => {
	const house = await buildHouse();
	const { otium } = house;
	const row = await otium.db('paper').where({ id: 'numbers' }).first('content');
	const paper: Paper = JSON.parse(row.content);
	const shared = { points: 4, topic: '' };
	paper.parts[0].questions.push(
		{ ...shared, id: 'tell', kind: 'essay', stem: 'Tell of ../ the tides!', words: null },
		{ ...shared, id: 'plot', kind: 'upload', stem: 'Plot it.', most: 2 }
	);
	await otium
		.db('paper')
		.where({ id: 'numbers' })
		.update({ content: JSON.stringify(paper) });
	const code = await openDoor(house);
	const photo = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#ddd' } })
		.png()
		.toBuffer();
	for (const nth of [0, 1]) {
		const epoch = await bringToWork(house, nth, code);
		const { sittingId } = house.people[nth];
		const { id } = await keepHanded(otium, sittingId, 'plot', { name: 'x', bytes: photo, byCode: false });
		const revision = { marked: false, struck: [], inViewMs: 1 };
		await otium.answers.save(sittingId, epoch, [
			{ ...revision, seq: 1, questionId: 'tell', value: `Spring and neap, ${nth}` },
			{ ...revision, seq: 2, questionId: 'plot', value: [id] }
		]);
	}
	await act(otium, [
		{
			id: nanoid(),
			sittingId: house.people[0].sittingId,
			by: CANDIDATE,
			body: { kind: 'hand_in', receipt: 'R', reason: null }
		}
	]);
	const account = await accountFor(otium.db, (await findSession(otium.db, 's1'))!);
	expect(countByHand(account)).toBe(2);
	const bytes = new Uint8Array(await new Response(byHandZip(otium, account)).arrayBuffer());
	const files = unzipSync(bytes);
	expect(Object.keys(files).sort()).toEqual(['Plot it/DO-1001-1.jpg', 'Tell of the tides/DO-1001.txt']);
	expect(strFromU8(files['Tell of the tides/DO-1001.txt'])).toBe('Spring and neap, 0');
	expect((await sharp(files['Plot it/DO-1001-1.jpg']).metadata()).format).toBe('jpeg');

	// Working on paper that was scanned afterwards: part of the answer, once, and told.
	const { sittingId } = house.people[0];
	const other = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#111' } })
		.png()
		.toBuffer();
	const scan = (bytes: Uint8Array, question = 'plot', of = sittingId) =>
		addScan(otium, COORDINATOR, of, question, { name: 'page 2.png', bytes });
	for (let i = 0; i < 2; i++) await scan(other);
	const again = unzipSync(
		new Uint8Array(
			await new Response(
				byHandZip(otium, await accountFor(otium.db, (await findSession(otium.db, 's1'))!))
			).arrayBuffer()
		)
	);
	expect(Object.keys(again).filter((name) => name.startsWith('Plot'))).toEqual([
		'Plot it/DO-1001-1.jpg',
		'Plot it/DO-1001-2.jpg'
	]);
	expect(await otium.db('logbook').where({ kind: 'scan_added' })).toHaveLength(1);
	expect(await verifyRecord(otium)).toMatchObject({ broken: null });
	const third = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#777' } })
		.png()
		.toBuffer();
	await expect(scan(third)).rejects.toMatchObject({ problem: { message: 'The question takes 2 files.' } });
	await expect(scan(third, 'tell')).rejects.toMatchObject({ problem: { message: 'This question takes no files.' } });
	await expect(scan(third, 'plot', house.people[1].sittingId)).rejects.toMatchObject({
		problem: { message: 'Their work is not over.' }
	});
	await house.close();
});
