import { questionsOf } from '$core/paper';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { ProblemError } from '$core/problem';
import { DEMO_PAPERS } from '../demo';
import { buildHouse, type House } from '../testing/house';
import { packageOf, readQti } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
});
afterEach(() => house.close());
const refused = (bytes: Uint8Array) =>
	readQti(house.otium, bytes, null).then(
		() => 'taken',
		(error: unknown) => (error instanceof ProblemError ? error.problem.message : String(error))
	);

describe('a package in a thread', () => {
	it.each(DEMO_PAPERS.map(({ paper }) => [paper.title, paper] as const))(
		'%s goes out and comes in as the same',
		async (_, paper) => {
			const { paper: read, told } = await readQti(house.otium, await packageOf(house.otium, paper, '3.0'), null);
			expect(told).toEqual([]);
			// No text in another language is none, however it is said.
			const said = JSON.stringify(paper, (name, value) =>
				name === 'texts' && Object.keys(value).length === 0 ? undefined : value
			);
			expect(read).toEqual(JSON.parse(said));
		}
	);

	it('500 questions', async () => {
		const [{ paper }] = DEMO_PAPERS;
		const all = questionsOf(paper);
		const questions = Array.from({ length: 500 }, (_, i) => ({ ...all[i % all.length], id: `q${i}` }));
		const large: Paper = { title: 'Large', parts: [{ title: '', draw: null, questions }] };
		const { paper: read } = await readQti(house.otium, await packageOf(house.otium, large, '3.0'), null);
		expect(read.parts[0].questions).toHaveLength(500);
	});

	it('what is no package, points outside or swells is refused in words', async () => {
		expect(await refused(strToU8('PDF'))).toContain('not a zip');
		expect(await refused(zipSync({ 'a.txt': strToU8('x') }))).toContain('imsmanifest.xml');
		expect(await refused(zipSync({ '../../imsmanifest.xml': strToU8('<manifest/>') }))).toContain('points outside');
		const zeros = new Uint8Array(40 * 1024 * 1024);
		expect(await refused(zipSync({ 'imsmanifest.xml': zeros }))).toContain('unpacks to more than');
	});

	it('a question larger than questions may be is left out and told', async () => {
		const question = { id: 'a', kind: 'essay', stem: 'x'.repeat(30_000), points: 1, topic: '', words: null } as const;
		const small = { ...question, id: 'b', stem: 'Fine?' };
		const packed = await packageOf(
			house.otium,
			{ title: 'x', parts: [{ title: '', draw: null, questions: [question, small] }] },
			'3.0'
		);
		const { paper, told } = await readQti(house.otium, packed, null);
		expect(paper.parts[0].questions.map(({ id }) => id)).toEqual(['b']);
		expect(told[0].message).toContain('its stem does not fit');
		expect(Object.keys(unzipSync(packed))).toContain('items/a.xml');
	});
});
