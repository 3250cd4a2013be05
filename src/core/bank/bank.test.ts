import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AUDIENCES, isOnBranch, likeness, mayChange, mayUse, NEARLY_THE_SAME, topicPath, topicTree } from '.';

describe('the tree of topics', () => {
	it('counts each branch with what is below it, and sorts as people do', () => {
		const tree = topicTree([
			{ topic: 'Tides', count: 2 },
			{ topic: 'Lights / Sectors', count: 3 },
			{ topic: 'Lights', count: 1 },
			{ topic: 'Lights/ Characters', count: 4 },
			{ topic: '', count: 9 },
			{ topic: 'Lights below', count: 1 }
		]);
		expect(tree.map(({ path, depth, count }) => `${'  '.repeat(depth)}${path} ${count}`)).toEqual([
			'Lights 8',
			'  Lights / Characters 4',
			'  Lights / Sectors 3',
			'Lights below 1',
			'Tides 2'
		]);
	});

	it('a topic is on its own branch and on those above, and on no other', () => {
		fc.assert(
			fc.property(fc.array(fc.constantFrom('A', 'AB', 'B'), { minLength: 1, maxLength: 4 }), (names) => {
				const topic = topicPath(names.join('/'));
				for (let i = 0; i <= names.length; i++) expect(isOnBranch(topic, names.slice(0, i).join(' / '))).toBe(true);
				expect(isOnBranch(topic, `${topic} / A`)).toBe(false);
				expect(isOnBranch(`${topic}B`, topic)).toBe(false);
			})
		);
	});
});

describe('stems that are nearly the same', () => {
	it.each([
		['What is the range of the tide?', 'what is the range of the tide'],
		[
			'A vessel sees a red light over a white light. What is she?',
			'A vessel sees a red light over a white light: what is she?'
		],
		['High water is at 06:12, 5.4 m. What is the range?', 'High water is at 06:12, 5.4 m. What is the range'],
		['Qual é a amplitude da maré?', 'Qual e a amplitude da mare?']
	])('%s', (a, b) => expect(likeness(a, b)).toBeGreaterThanOrEqual(NEARLY_THE_SAME));

	it.each([
		['Red over white: what is she?', 'White over red: what is she?'],
		['What is the range at springs?', 'What is the period at neaps?'],
		['', '']
	])('and that are not: %s', (a, b) => expect(likeness(a, b)).toBeLessThan(NEARLY_THE_SAME));

	it('are so both ways, and a stem is like itself', () => {
		const word = fc.constantFrom('tide', 'light', 'red', 'white', 'over');
		const stem = fc.array(word, { minLength: 1, maxLength: 12 }).map((words) => words.join(' '));
		fc.assert(
			fc.property(stem, stem, (a, b) => {
				expect(likeness(a, b)).toBe(likeness(b, a));
				expect(likeness(a, a)).toBe(1);
			})
		);
	});
});

describe('who may use a question', () => {
	const question = (audience: (typeof AUDIENCES)[number]) => ({
		owner: 'anna',
		siteId: 'quay',
		audience,
		named: ['carla']
	});
	it.each([
		['me', 'anna', ['quay'], 'change'],
		['me', 'ben', ['quay'], 'nothing'],
		['me', 'ode', null, 'nothing'],
		['named', 'carla', ['point'], 'use'],
		['named', 'ben', ['quay'], 'nothing'],
		['site', 'ben', ['quay'], 'change'],
		['site', 'carla', ['point'], 'nothing'],
		['site', 'ode', null, 'change'],
		['all', 'carla', ['point'], 'use'],
		['all', 'ben', ['quay', 'point'], 'change']
	] as const)('for %s: %s, who writes at %j, may %s', (audience, id, sites, expected) => {
		const writer = { id, sites: sites === null ? null : [...sites] };
		const may = mayChange(question(audience), writer)
			? 'change'
			: mayUse(question(audience), writer)
				? 'use'
				: 'nothing';
		expect(may).toBe(expected);
	});
});
