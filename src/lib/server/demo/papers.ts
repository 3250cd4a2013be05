import { inPortuguese } from './radio-in-portuguese';
import type { Paper, Question } from '$core/paper';
import { statedDifficulty } from './bank';
import { no, pick, reckoned, yes, type Draft } from './drafts';
import { DRAWN_LIGHTS, LIGHT_PICTURES, WORKED_STABILITY } from './papers-worked';

/** The demo's question bank: real questions that can be answered, for an invented college. Text, and so one long file. */

const TIDES: Draft[] = [
	pick(
		'Spring tides come shortly after which phases of the moon?',
		'New and full moon',
		'First and last quarter',
		'Only at full moon',
		'Only at new moon'
	),
	yes('At neap tides the range between high and low water is smaller than at springs.'),
	reckoned('High water is 6.4 m and low water 1.6 m. What is the range of the tide?', 4.8, 0.05, 'm'),
	pick(
		'High water is 05:10 at 6.4 m and low water 11:20 at 1.6 m. By the rule of twelfths, about how high is the tide at 08:15?',
		'4.0 m',
		'2.8 m',
		'5.2 m',
		'It cannot be told from these figures'
	),
	pick(
		'By the rule of twelfths, what share of the range does the tide rise in the third hour?',
		'Three twelfths',
		'One twelfth',
		'Two twelfths',
		'Six twelfths'
	),
	no('The rule of twelfths may be relied on where the tide has a double high water.'),
	reckoned('The range is 6 m. By the rule of twelfths, how far does the tide rise in the first hour?', 0.5, 0.02, 'm'),
	pick(
		'Charted depths are measured down from which level?',
		'Chart datum',
		'Mean sea level',
		'Mean high water springs',
		'The level at the time of survey'
	),
	reckoned('The charted depth is 3.2 m and the height of tide 2.5 m. How deep is the water?', 5.7, 0.05, 'm'),
	reckoned('A rock dries 1.4 m. The height of tide is 3.0 m. How much water is over the rock?', 1.6, 0.05, 'm'),
	yes('A drying height is shown on the chart as an underlined figure.'),
	pick(
		'The set of a current is the direction…',
		'towards which it flows',
		'from which it flows',
		'across which it flows',
		'in which the wind blows'
	),
	no('The direction of a wind and the set of a current are named by the same convention.'),
	pick(
		'The drift of a current, in the sense of a tidal vector, is…',
		'the distance it carries a vessel in a given time',
		'its direction',
		'the angle between heading and track',
		'its depth'
	),
	reckoned('A stream of 1.5 knots runs for 40 minutes. How far does it carry a vessel?', 1, 0.02, 'nautical miles'),
	pick('Wind against tide makes the sea…', 'steeper and shorter', 'longer and lower', 'calmer', 'no different'),
	pick(
		'Slack water is the time when…',
		'the tidal stream is weakest',
		'the tide is highest',
		'the wind drops',
		'the moon sets'
	),
	no('Slack water always falls exactly at high and low water.'),
	pick(
		'Barometric pressure well above average tends to make the tide…',
		'lower than predicted',
		'higher than predicted',
		'earlier by an hour',
		'no different'
	),
	reckoned(
		'The draught is 1.8 m and 0.5 m is wanted under the keel over a bar charted at 0.9 m. What height of tide is needed?',
		1.4,
		0.02,
		'm'
	),
	pick(
		'Tidal diamonds on a chart refer to…',
		'a table of the stream’s set and rate by the hour',
		'anchorages',
		'tide gauges ashore',
		'areas of overfalls'
	),
	yes('Most ports of the North Atlantic have two high waters in a lunar day.'),
	pick(
		'About how long is it from one high water to the next where tides are semi-diurnal?',
		'12 hours 25 minutes',
		'6 hours 12 minutes',
		'12 hours',
		'24 hours 50 minutes'
	),
	pick(
		'Mean high water springs is used on charts as the level from which to measure…',
		'heights of lights',
		'drying heights',
		'charted depths',
		'All of the above'
	)
];

const LIGHTS: Draft[] = [
	pick(
		'A power-driven vessel under way by night, less than 50 metres long, shows…',
		'masthead, side and stern lights',
		'two masthead lights and no sidelights',
		'an all-round white light only',
		'an all-round red light over a white one'
	),
	pick('The sidelight on the port side is…', 'red', 'green', 'white', 'yellow'),
	reckoned('Over what arc does a sidelight show, from right ahead on its own side?', 112.5, 0.1, 'degrees'),
	reckoned('Over what arc does a sternlight show?', 135, 0.1, 'degrees'),
	reckoned('Over what arc does a masthead light show?', 225, 0.1, 'degrees'),
	pick(
		'Two all-round red lights in a vertical line mean a vessel…',
		'not under command',
		'at anchor',
		'fishing',
		'constrained by her draught'
	),
	pick(
		'Red over white, all-round, by night, is shown by a vessel…',
		'fishing other than trawling',
		'trawling',
		'on pilotage duty',
		'aground'
	),
	pick(
		'White over red, all-round, by night, is shown by a vessel…',
		'on pilotage duty',
		'fishing',
		'towing',
		'not under command'
	),
	pick(
		'A single black ball forward, by day, means a vessel…',
		'at anchor',
		'not under command',
		'aground',
		'under sail and power'
	),
	pick(
		'A cone with its point down, by day, is shown by a vessel…',
		'under sail that is also using her engine',
		'at anchor',
		'fishing',
		'mine-clearing'
	),
	pick(
		'Ball, diamond, ball in a vertical line mean a vessel…',
		'restricted in her ability to manoeuvre',
		'not under command',
		'aground',
		'trawling'
	),
	pick('A cylinder by day is shown by a vessel…', 'constrained by her draught', 'at anchor', 'being towed', 'dredging'),
	yes('A vessel aground shows three balls in a vertical line by day.'),
	no('A sailing vessel under way must show a masthead light.'),
	pick(
		'One short blast means…',
		'I am altering my course to starboard',
		'I am altering my course to port',
		'I am operating astern propulsion',
		'I am in doubt about your intentions'
	),
	pick(
		'Five or more short and rapid blasts mean…',
		'I am in doubt about your intentions',
		'I am at anchor',
		'man overboard',
		'I am altering my course to port'
	),
	reckoned(
		'At most how many minutes lie between the fog signals of a power-driven vessel making way?',
		2,
		0.01,
		'minutes'
	),
	pick('By the lateral system of region A, a port-hand buoy is…', 'red', 'green', 'yellow', 'black and red')
];

const COASTAL: Draft[] = [
	reckoned('One nautical mile is how many metres?', 1852, 0.5, 'm'),
	reckoned('At 6 knots, how many minutes does it take to go 4.5 nautical miles?', 45, 0.1, 'minutes'),
	reckoned('A true course is 075° and the variation 5° west. What is the magnetic course?', 80, 0.1, 'degrees'),
	reckoned(
		'A compass course is 210°, the deviation 3° east and the variation 8° west. What is the true course?',
		205,
		0.1,
		'degrees'
	),
	reckoned('A vessel covers 10.5 nautical miles in 1 hour 45 minutes. What is her speed?', 6, 0.02, 'knots'),
	pick(
		'Distance on a Mercator chart is measured on…',
		'the latitude scale beside the position',
		'the longitude scale',
		'any scale on the chart',
		'the compass rose'
	),
	pick(
		'A transit gives…',
		'a position line that needs no compass',
		'a distance off',
		'a fix by itself',
		'the height of a light'
	),
	yes('Three position lines that cross in a small triangle give more confidence than two.'),
	no('Deviation is the same on all headings.'),
	pick(
		'Variation is found on the chart…',
		'in the compass rose',
		'in the title alone',
		'at tidal diamonds',
		'nowhere: it is on the deviation card'
	),
	pick(
		'The best angle of cut between two position lines is about…',
		'90 degrees',
		'30 degrees',
		'10 degrees',
		'150 degrees'
	),
	pick('A light is charted “Fl(3) 15s 30m 20M”. Its period is…', '15 seconds', '3 seconds', '30 seconds', '20 seconds'),
	pick(
		'In that same light, “20M” tells its…',
		'nominal range in nautical miles',
		'height in metres',
		'period in minutes',
		'power'
	),
	pick(
		'A north cardinal mark is passed…',
		'to the north of it',
		'to the south of it',
		'on either side',
		'to the east of it'
	)
];

const RADIO: Draft[] = [
	pick(
		'The distress call by voice begins with…',
		'MAYDAY, three times',
		'PAN PAN, three times',
		'SÉCURITÉ, three times',
		'SOS, once'
	),
	pick('The urgency signal is…', 'PAN PAN', 'MAYDAY', 'SÉCURITÉ', 'URGENT'),
	pick(
		'The safety signal, before a message about navigation or weather, is…',
		'SÉCURITÉ',
		'PAN PAN',
		'MAYDAY',
		'ALL STATIONS'
	),
	reckoned('Which VHF channel is for distress, safety and calling by voice?', 16, 0.01, ''),
	reckoned('Which VHF channel is for digital selective calling?', 70, 0.01, ''),
	reckoned('How many digits has an MMSI?', 9, 0.01, ''),
	pick(
		'“Over” at the end of a transmission means…',
		'I have finished and expect an answer',
		'I have finished and expect none',
		'Wait',
		'Repeat'
	),
	pick(
		'“Out” at the end of a transmission means…',
		'I have finished and expect no answer',
		'Please answer',
		'I am leaving the channel open',
		'Going to another channel'
	),
	no('“Over and out” is correct procedure.'),
	pick('In the phonetic alphabet, the letter Q is…', 'Quebec', 'Queen', 'Quarter', 'Quilt'),
	yes('VHF range is roughly line of sight and grows with the height of the aerials.'),
	pick(
		'“SEELONCE MAYDAY” on a channel means…',
		'distress traffic is going on: keep off the channel',
		'the distress is over',
		'call the coastguard',
		'change to channel 70'
	)
];

const STABILITY: Draft[] = [
	pick(
		'A vessel is in stable equilibrium when her metacentre lies…',
		'above her centre of gravity',
		'below her centre of gravity',
		'at her centre of gravity',
		'below her keel'
	),
	reckoned('KM is 8.2 m and KG 7.4 m. What is GM?', 0.8, 0.01, 'm'),
	pick(
		'The free surface of a half-full tank makes the effective GM…',
		'smaller',
		'larger',
		'no different',
		'negative in every case'
	),
	pick('Loading a weight high in the vessel makes her centre of gravity…', 'rise', 'sink', 'stay', 'move aft'),
	no('A stiff vessel has a small GM and rolls slowly.'),
	yes('The righting lever GZ at small angles is about GM times the sine of the heel.'),
	reckoned(
		'A weight of 20 t is moved 6 m across a vessel of 3000 t. How far does her centre of gravity move?',
		0.04,
		0.001,
		'm'
	),
	pick(
		'The centre of buoyancy is…',
		'the centre of the volume under water',
		'the centre of the waterplane',
		'the centre of all weights',
		'always amidships'
	),
	pick(
		'A vessel going from salt water into fresh water…',
		'sinks a little deeper',
		'rises a little',
		'keeps her draught',
		'lists'
	),
	reckoned('The density of sea water is taken as how many tonnes a cubic metre?', 1.025, 0.0005, 't/m³'),
	pick(
		'An angle of loll comes from…',
		'a negative GM when upright',
		'a weight off the centreline',
		'a strong wind',
		'too much freeboard'
	),
	pick(
		'The mark that shows how deep a vessel may be loaded is the…',
		'load line',
		'boot top',
		'draught figure',
		'Both A and B'
	)
];

const CODES = {
	'Tides and Currents': 'tc',
	'Lights and Shapes': 'ls',
	'Coastal Navigation I': 'cn',
	'Radio Procedure': 'rp',
	'Ship Stability': 'ss'
};

function paperOf(title: keyof typeof CODES, ...parts: { title: string; drafts: Draft[] }[]): Paper {
	let number = 0;
	return {
		title,
		parts: parts.map((part) => ({
			title: part.title,
			draw: null,
			questions: part.drafts.map((draft): Question => ({
				...draft,
				id: `${CODES[title]}-${++number}`,
				topic: `${title} / ${part.title}`,
				difficulty: statedDifficulty(draft)
			}))
		}))
	};
}

export const DEMO_PAPERS: { paper: Paper; version: number }[] = [
	{
		paper: {
			...paperOf(
				'Tides and Currents',
				{ title: 'Tides', drafts: TIDES.slice(0, 12) },
				{ title: 'Streams and levels', drafts: TIDES.slice(12) }
			),
			script:
				'This is Tides and Currents. Put tide tables, almanacs and telephones into your bags, and the bags under the window. Enter the code on the board and your details, and check that the name on the screen is yours. Heights are in metres above chart datum and times in local time unless a question says otherwise. Your answers are saved as you go; if your line is lost, just go on working. Raise your hand if you need anything. I let you in now, and each of you begins when you press Begin.'
		},
		version: 3
	},
	{
		paper: {
			...paperOf(
				'Lights and Shapes',
				{ title: 'Lights, shapes and sounds', drafts: LIGHTS },
				{ title: 'As seen from the bridge', drafts: DRAWN_LIGHTS }
			),
			pictures: LIGHT_PICTURES
		},
		version: 3
	},
	{ paper: paperOf('Coastal Navigation I', { title: 'On the chart', drafts: COASTAL }), version: 2 },
	{ paper: paperOf('Radio Procedure', { title: 'On the air', drafts: RADIO.map(inPortuguese) }), version: 1 },
	{
		paper: {
			...paperOf(
				'Ship Stability',
				{ title: 'Afloat', drafts: STABILITY },
				{ title: 'Worked', drafts: WORKED_STABILITY }
			),
			formulaSheet: [
				'Righting lever at small angles: $GZ = GM \\sin\\theta$',
				'Righting moment: $M = \\Delta \\cdot GZ$',
				'Metacentric height: $GM = KM - KG$',
				'Shift of the centre of gravity: $GG_1 = \\dfrac{w \\cdot d}{\\Delta}$',
				'Tonnes per centimetre: $TPC = \\dfrac{1.025 \\cdot A_w}{100}$'
			]
		},
		version: 2
	}
];
