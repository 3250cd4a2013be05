import { describe, expect, it } from 'vitest';
import { FINDER_ACTS, FINDER_VERBS, placesFor, readWish } from '.';

describe('what a text asks for', () => {
	it.each([
		['hold Cecily Moor', 'hold', 'Cecily Moor'],
		['  Give   minutes to  DO-1009 ', 'minutes', 'DO-1009'],
		['give time hale', 'minutes', 'hale'],
		['FREE DEVICE OF ito', 'move_device', 'ito'],
		['Holden', null, 'Holden'],
		['hold', null, 'hold'],
		['Moor', null, 'Moor'],
		['', null, '']
	])('"%s"', (text, act, words) => expect(readWish(text)).toEqual({ act, words }));

	it('each verb is read as its own act, whatever else it begins with', () => {
		for (const act of FINDER_ACTS)
			for (const verb of FINDER_VERBS[act]) expect(readWish(`${verb} Ada Lorne`)).toEqual({ act, words: 'Ada Lorne' });
	});
});

it('places are found by the beginnings of their words, whatever their accents', () => {
	const places = [{ name: 'Close-out' }, { name: 'Rule sheets' }, { name: 'Café' }];
	expect(placesFor(places, '')).toHaveLength(3);
	expect(placesFor(places, 'out')).toEqual([{ name: 'Close-out' }]);
	expect(placesFor(places, 'sh ru')).toEqual([{ name: 'Rule sheets' }]);
	expect(placesFor(places, 'cafe')).toEqual([{ name: 'Café' }]);
	expect(placesFor(places, 'heets')).toEqual([]);
});
