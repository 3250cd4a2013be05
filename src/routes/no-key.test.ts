import { afterEach, beforeEach, expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { bringToWork, buildHouse, openDoor, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';

/** Every route that answers a candidate's device or a proctor's room, found and not listed. */
const ROUTES = import.meta.glob<Record<string, unknown>>(['./sit/**/+server.ts', './(staff)/live/**/+server.ts'], {
	eager: true
});
/** What would be read in a key, and nowhere else. */
const KEY = /SECRET|73517|0\.4242|"answer":|"accepted"|"tolerance"|"pinned"|"formula"|"conditions"|"feedback"/;

const choices = ['one', 'two', 'three'].map((text) => ({ id: `id-${text}`, text, pinned: text === 'two' }));
const shared = { points: 1, topic: '' };
/** A question of every kind. */
const PAPER: Paper = {
	title: 'Numbers',
	parts: [
		{
			title: 'All kinds',
			draw: null,
			questions: [
				{ ...shared, id: 'q1', stem: 'Is 1 odd?', kind: 'true_false', answer: true },
				{ ...shared, id: 'q2', stem: 'Which one?', kind: 'single', choices, answer: 'id-two' },
				{ ...shared, id: 'q3', stem: 'Which ones?', kind: 'multiple', choices, answer: ['id-two'], partial: true },
				{
					...shared,
					id: 'q4',
					stem: 'Match.',
					kind: 'matching',
					items: choices,
					matches: choices.map(({ id, text }) => ({ id: `m-${id}`, text })),
					answer: Object.fromEntries(choices.map(({ id }) => [id, `m-${id}`])),
					partial: true
				},
				{
					...shared,
					id: 'q5',
					stem: 'In order.',
					kind: 'ordering',
					choices,
					answer: choices.map(({ id }) => id),
					partial: true
				},
				{
					...shared,
					id: 'q6',
					stem: 'It is [a].',
					kind: 'fill_in',
					gaps: [{ id: 'a', accepted: ['SECRET gap'] }],
					partial: false
				},
				{ ...shared, id: 'q7', stem: 'A word?', kind: 'short', accepted: ['SECRET word'] },
				{
					...shared,
					id: 'q8',
					stem: 'How many?',
					kind: 'numeric',
					answer: 73517,
					tolerance: { kind: 'absolute', amount: 0.4242 },
					unit: 'm'
				},
				{ ...shared, id: 'q9', stem: 'Tell.', kind: 'essay', words: null, feedback: { wrong: 'SECRET, so it was' } },
				{ ...shared, id: 'q11', stem: 'Draw.', kind: 'upload', most: 1 },
				{
					...shared,
					id: 'q10',
					stem: 'Twice {half}?',
					kind: 'calculated',
					parameters: [{ name: 'half', from: 1, to: 9, step: 1 }],
					conditions: ['half > 2'],
					formula: 'half * 73517',
					tolerance: { kind: 'absolute', amount: 0.4242 },
					unit: 'm'
				}
			]
		}
	]
};

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	await house.otium
		.db('paper')
		.where({ id: 'numbers' })
		.update({ content: JSON.stringify(PAPER) });
});
afterEach(() => house.close());

it('no key leaves to a candidate’s device or to a proctor’s room, with a paper of every kind', async () => {
	const epoch = await bringToWork(house, 0, await openDoor(house));
	const { sittingId } = house.people[0];
	const { form } = (await house.otium.db('form').where({ sitting_id: sittingId }).first('form')) as { form: string };
	expect(form, 'a form as it is dealt').not.toMatch(KEY);
	const proctor = somebody('dunmore', 'proctor', 'quayside');
	const seen: string[] = [];
	for (const [file, module] of Object.entries(ROUTES)) {
		const handler = module.GET;
		// A stream never ends; what it carries comes from the same pictures.
		if (!handler || file.includes('stream')) continue;
		const isStaff = file.includes('(staff)');
		for (const place of ['1', '8', '9', '10', '11']) {
			const answer = await call(handler as never, {
				otium: house.otium,
				method: 'GET',
				params: { id: 's1', sitting: sittingId, place, snapshot: 'x', incident: 'x' },
				query: `?rooms=s1&text=Family&at=${place}&page=${place}`,
				staff: isStaff ? proctor : null,
				device: isStaff ? null : { sittingId, epoch }
			});
			expect(answer.text, `${file} at ${place}: ${answer.status}`).not.toMatch(KEY);
			// Nor which number stands for what.
			if (!isStaff) expect(answer.text).not.toContain('"drawn"');
			if (answer.status === 200) seen.push(answer.text);
		}
	}
	// The questions themselves did come, so that something was looked at.
	for (const stem of ['Which ones?', 'How many?', 'A word?', 'Twice ']) expect(seen.join('\n')).toContain(stem);
	expect((await loadSitting(house.otium.db, sittingId, house.otium.now()))!.sitting.state).toBe('working');
});
