import type { Difficulty, Parameter, Question } from '$core/paper';
import { bankOfLines } from './bank-lines';
import { inOrder, match, pick, short, yes, no, type Draft } from './drafts';

/** Questions of the bank that no paper has yet: reckoned ones for tides, courses and stability, and some on weather and safety. */

type Entry = { topic: string; difficulty: Difficulty; draft: Draft };

const on = (topic: string, difficulty: Difficulty, ...drafts: Draft[]): Entry[] =>
	drafts.map((draft) => ({ topic, difficulty, draft }));

/** A number that is drawn, by steps. */
const from = (name: string, first: number, last: number, step: number): Parameter => ({
	name,
	from: first,
	to: last,
	step
});

const calculated = (
	stem: string,
	parameters: Parameter[],
	formula: string,
	tolerance: number,
	unit: string,
	conditions: string[] = []
): Draft => ({
	kind: 'calculated',
	stem,
	parameters,
	conditions,
	formula,
	tolerance: { kind: 'absolute', amount: tolerance },
	unit,
	points: 2
});

const ENTRIES: Entry[] = [
	...on(
		'Tides and Currents / Heights',
		'medium',
		calculated(
			'High water is {high} m and low water {low} m. What is the range of the tide?',
			[from('high', 4.2, 6.8, 0.1), from('low', 0.4, 1.9, 0.1)],
			'high - low',
			0.05,
			'm'
		),
		calculated(
			'The charted depth is {depth} m and the height of tide {height} m. The draught is {draught} m. How much water is under the keel?',
			[from('depth', 1.5, 4, 0.1), from('height', 1, 3.5, 0.1), from('draught', 1.4, 2.2, 0.1)],
			'depth + height - draught',
			0.05,
			'm',
			['depth + height > draught + 0.5']
		),
		calculated(
			'A rock dries {drying} m. The height of tide is {height} m. How much water is over the rock?',
			[from('drying', 0.5, 2.5, 0.1), from('height', 2.8, 5, 0.1)],
			'height - drying',
			0.05,
			'm'
		)
	),
	...on(
		'Tides and Currents / Heights',
		'hard',
		calculated(
			'Low water is {low} m and the range {range} m. By the rule of twelfths, how high is the tide three hours after low water?',
			[from('low', 0.5, 1.8, 0.1), from('range', 2.4, 5.4, 0.6)],
			'low + range / 2',
			0.05,
			'm'
		),
		calculated(
			'Low water is {low} m and the range {range} m. By the rule of twelfths, how high is the tide two hours after low water?',
			[from('low', 0.5, 1.8, 0.1), from('range', 2.4, 6, 0.4)],
			'low + range * 3 / 12',
			0.05,
			'm'
		)
	),
	...on(
		'Coastal Navigation I / Speed, time and distance',
		'easy',
		calculated(
			'A vessel makes {speed} knots over the ground. How far does she go in {minutes} minutes?',
			[from('speed', 5, 15, 0.5), from('minutes', 12, 54, 6)],
			'speed * minutes / 60',
			0.05,
			'nautical miles'
		),
		calculated(
			'A vessel goes {miles} nautical miles in {minutes} minutes. What is her speed?',
			[from('miles', 2, 12, 0.5), from('minutes', 20, 60, 10)],
			'miles * 60 / minutes',
			0.1,
			'knots'
		)
	),
	...on(
		'Coastal Navigation I / Courses',
		'medium',
		calculated(
			'The true course is {course}° and the variation {variation}° west. What is the magnetic course, in degrees?',
			[from('course', 5, 355, 5), from('variation', 2, 12, 1)],
			'mod(course + variation, 360)',
			0,
			'degrees'
		),
		calculated(
			'The compass course is {course}°, the deviation {deviation}° east and the variation {variation}° west. What is the true course, in degrees?',
			[from('course', 5, 355, 5), from('deviation', 1, 6, 1), from('variation', 3, 12, 1)],
			'mod(course + deviation - variation, 360)',
			0,
			'degrees'
		)
	),
	...on(
		'Coastal Navigation I / Distance off',
		'hard',
		calculated(
			'A light {height} m above the sea is measured at a vertical angle of {angle}°. How far off is it?',
			[from('height', 20, 60, 5), from('angle', 0.4, 1.6, 0.2)],
			'height / tan(angle) / 1852',
			0.05,
			'nautical miles'
		)
	),
	...on(
		'Ship Stability / Worked',
		'medium',
		calculated(
			'KM is {km} m and KG {kg} m. What is the metacentric height?',
			[from('km', 6, 8.5, 0.1), from('kg', 5, 7.5, 0.1)],
			'km - kg',
			0.02,
			'm',
			['km > kg + 0.2']
		),
		calculated(
			'A weight of {weight} t is moved {distance} m across a vessel that displaces {displacement} t. How far does her centre of gravity move?',
			[from('weight', 10, 80, 5), from('distance', 2, 12, 1), from('displacement', 2000, 8000, 500)],
			'weight * distance / displacement',
			0.005,
			'm'
		)
	),
	...on(
		'Ship Stability / Worked',
		'hard',
		calculated(
			'GM is {gm} m and the vessel heels to {heel}°. What is the righting lever GZ?',
			[from('gm', 0.4, 1.6, 0.1), from('heel', 2, 10, 1)],
			'gm * sin(heel)',
			0.005,
			'm'
		),
		calculated(
			'The waterplane is {area} m². How many tonnes sink the vessel by one centimetre in sea water of 1.025 t/m³?',
			[from('area', 400, 2400, 100)],
			'1.025 * area / 100',
			0.1,
			't'
		)
	),
	...on(
		'Weather / Pressure and wind',
		'easy',
		pick(
			'A barometer that falls fast tells of…',
			'strong winds soon',
			'fine weather to stay',
			'fog at once',
			'a wind that drops'
		),
		yes('Isobars that are close together mean strong winds.'),
		no('In the northern hemisphere the wind blows clockwise around a low.')
	),
	...on(
		'Weather / Pressure and wind',
		'medium',
		pick(
			'With your back to the wind in the northern hemisphere, the low pressure is…',
			'on your left',
			'on your right',
			'ahead of you',
			'behind you'
		),
		pick(
			'When a cold front passes in the northern hemisphere, the wind usually…',
			'veers',
			'backs',
			'dies away',
			'does not change'
		),
		inOrder(
			'Put the winds of these forces in order, weakest first.',
			'light breeze',
			'moderate breeze',
			'strong breeze',
			'gale',
			'storm'
		)
	),
	...on(
		'Weather / Fog and cloud',
		'medium',
		pick(
			'Advection fog forms when…',
			'moist warm air moves over a colder sea',
			'the ground cools on a clear night',
			'cold air moves over a warmer sea',
			'rain falls through dry air'
		),
		pick(
			'High, thin cloud that thickens and lowers through the day tells of…',
			'a warm front on its way',
			'a high that builds',
			'a sea breeze',
			'a squall that has passed'
		),
		match('Match the cloud with what it looks like.', [
			['cirrus', 'thin and feathery, high up'],
			['stratus', 'a grey, even layer, low down'],
			['cumulonimbus', 'a tower with an anvil']
		])
	),
	...on(
		'Safety / Fire',
		'easy',
		pick(
			'Burning oil in a pan in the galley is best put out with…',
			'a fire blanket',
			'water',
			'a fan',
			'salt water from a hose'
		),
		no('A carbon dioxide extinguisher may be used in a small closed space without leaving it.')
	),
	...on(
		'Safety / Man overboard',
		'medium',
		inOrder(
			'Somebody falls overboard beside you. Put what you do first in order.',
			'shout “Man overboard”',
			'throw a lifebuoy',
			'point at the person and keep them in sight',
			'help to recover them'
		),
		pick(
			'The “man overboard” function of a satellite receiver stores…',
			'the position at which it was pressed',
			'the course to the nearest port',
			'the time of high water',
			'the speed of the stream'
		)
	),
	...on(
		'Safety / Signals',
		'easy',
		pick('A red parachute flare means…', 'distress', 'a pilot is wanted', 'all is well', 'a race begins'),
		short('What three-letter signal is sent by sound or light in distress?', ['SOS'])
	)
];

/** The bank’s own questions, each with an id of its own. */
export const BANK: Question[] = [
	...ENTRIES.map(({ topic, difficulty, draft }, i) => ({ ...draft, id: `bk-${i + 1}`, topic, difficulty }) as Question),
	...bankOfLines()
];

/** What colleagues have remarked: the question, and the words. */
export const BANK_REMARKS: { id: string; text: string }[] = [
	{ id: 'bk-10', text: 'At 0.4° the light may be beyond the horizon: say that the shore line is in sight?' },
	{ id: 'bk-17', text: 'Should we say that this is away from the equator?' }
];

/** How hard a question of the papers is taken to be, until it has been sat often enough to tell. */
export function statedDifficulty({ kind }: Pick<Question, 'kind'>): Difficulty {
	if (kind === 'true_false') return 'easy';
	return kind === 'single' || kind === 'short' ? 'medium' : 'hard';
}
