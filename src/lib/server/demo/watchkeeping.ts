import { readFile } from 'node:fs/promises';
import type { Paper, Question, Stimulus } from '$core/paper';
import type { House } from '../house';
import { keepMedium } from '../media';

/** A vessel's radar picture: the heading line, two rings, and three echoes with where they were six minutes ago. */
const RADAR = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 640" width="640" height="640">
<rect width="640" height="640" fill="#10201e"/>
<g fill="none" stroke="#3f6a63" stroke-width="2"><circle cx="320" cy="320" r="290"/><circle cx="320" cy="320" r="193"/><circle cx="320" cy="320" r="97"/></g>
<path d="M320 320V30" stroke="#e8efe9" stroke-width="2"/>
<g fill="#f3c95b"><circle cx="455" cy="185" r="8"/><circle cx="320" cy="150" r="8"/><circle cx="165" cy="380" r="8"/></g>
<g fill="#f3c95b" opacity=".45"><circle cx="489" cy="151" r="6"/><circle cx="320" cy="90" r="6"/><circle cx="134" cy="392" r="6"/></g>
<g fill="#e8efe9" font-family="sans-serif" font-size="24"><text x="470" y="200">A</text><text x="335" y="160">B</text><text x="180" y="402">C</text></g>
</svg>`;

const shared = { topic: 'Watchkeeping / Radar', points: 2 } as const;

/** A paper that is being written with all that can stand beside words: a shared text, a picture, sound, working on paper. */
export async function watchkeeping(
	otium: Pick<House, 'db' | 'now' | 'dataDir' | 'threads'>,
	by: string
): Promise<Paper> {
	const radar = await keepMedium(otium, Buffer.from(RADAR), by);
	const signal = await keepMedium(otium, await readFile('src/lib/server/demo/fog-signal.mp3'), by);
	const stimulus: Stimulus = {
		id: 'radar-watch',
		text: 'You steer 000° at 10 knots in fog, in open water. The display is north-up with rings every two miles. The fainter echoes are where the targets were six minutes ago.',
		media: [
			{
				...radar,
				alt: 'A radar display. Echo A on the starboard bow, closing along the same bearing. Echo B right ahead, closing. Echo C on the port quarter, closing along the same bearing.'
			}
		]
	};
	const onRadar: Question[] = [
		{
			...shared,
			id: 'radar1',
			stimulus,
			kind: 'single',
			stem: 'Which echoes are on a collision course with you?',
			choices: [
				{ id: 'c1', text: 'A alone' },
				{ id: 'c2', text: 'A and B' },
				{ id: 'c3', text: 'B alone' },
				{ id: 'c4', text: 'all three' }
			],
			answer: 'c4',
			difficulty: 'medium',
			feedback: {
				right: 'Each of them closes along an unchanging bearing.',
				wrong: 'Look for bearings that do not change while the range falls: A, B and C all close along theirs.'
			}
		},
		{
			...shared,
			id: 'radar2',
			stimulus,
			kind: 'numeric',
			stem: 'B was 4.7 miles away six minutes ago and is 3.5 miles away now. In how many minutes from now would you meet?',
			answer: 17.5,
			tolerance: { kind: 'absolute', amount: 0.5 },
			unit: 'minutes',
			difficulty: 'medium'
		},
		{
			...shared,
			id: 'radar3',
			stimulus,
			kind: 'upload',
			most: 2,
			points: 6,
			stem: 'Plot the course and speed of A on paper, and photograph the plot.',
			difficulty: 'hard'
		}
	];
	const heard: Question[] = [
		{
			id: 'signal1',
			topic: 'Watchkeeping / Sound signals',
			points: 2,
			kind: 'single',
			stem: 'You hear this signal every two minutes in fog. Which of these vessels may give it?',
			media: [{ ...signal, plays: 2, alt: 'One prolonged blast followed by two short blasts.' }],
			choices: [
				{ id: 's1', text: 'a power-driven vessel making way' },
				{ id: 's2', text: 'a vessel engaged in fishing' },
				{ id: 's3', text: 'a vessel at anchor' },
				{ id: 's4', text: 'a pilot vessel on duty' }
			],
			answer: 's2',
			difficulty: 'easy'
		},
		{
			id: 'signal2',
			topic: 'Watchkeeping / Sound signals',
			points: 1,
			isExtra: true,
			kind: 'short',
			stem: 'In which rule of the collision regulations does that signal stand?',
			accepted: ['35', 'Rule 35', '35 c', 'Rule 35 (c)'],
			difficulty: 'hard'
		}
	];
	return {
		title: 'Watchkeeping, practical',
		parts: [
			{ title: 'Radar', questions: onRadar, draw: null },
			{ title: 'Sound signals', questions: heard, draw: null }
		]
	};
}
