import type { Picture } from '$core/paper';
import { essay, fill, inOrder, match, pickAll, reckoned, short, type Draft } from './drafts';

/** Questions of the other kinds: with pictures and formulas, several answers, gaps, an order, a text. */

/** Lights at night: a dark ground, a horizon, and lamps as circles. */
function night(alt: string, ...lamps: { x: number; y: number; colour: string }[]): Picture {
	const lit = lamps
		.map(
			({ x, y, colour }) =>
				`<circle cx="${x}" cy="${y}" r="15" fill="${colour}" opacity=".22"/><circle cx="${x}" cy="${y}" r="7" fill="${colour}"/>`
		)
		.join('');
	return {
		alt,
		svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 480 200" width="480" height="200"><rect width="480" height="200" rx="10" fill="#13201f"/><path d="M0 158h480" stroke="#2f4744" stroke-width="2"/>${lit}</svg>`
	};
}

const RED = '#ff6b57';
const GREEN = '#5fe08f';
const WHITE = '#fff6dd';

export const LIGHT_PICTURES: Record<string, Picture> = {
	'end-on': night(
		'Night. Two white lights one above the other; below them a green light at the left and a red light at the right.',
		{ x: 240, y: 50, colour: WHITE },
		{ x: 240, y: 88, colour: WHITE },
		{ x: 200, y: 130, colour: GREEN },
		{ x: 280, y: 130, colour: RED }
	),
	fishing: night(
		'Night. A green light above a white light, and a red light low at the left.',
		{ x: 240, y: 55, colour: GREEN },
		{ x: 240, y: 92, colour: WHITE },
		{ x: 196, y: 134, colour: RED }
	),
	'not-under-command': night(
		'Night. Two red lights one above the other.',
		{ x: 240, y: 60, colour: RED },
		{ x: 240, y: 100, colour: RED }
	)
};

export const DRAWN_LIGHTS: Draft[] = [
	{
		kind: 'single',
		stem: 'You see these lights ahead. What do you see?',
		points: 2,
		picture: 'end-on',
		choices: [
			{ id: 'a', text: 'A sailing vessel crossing from starboard' },
			{ id: 'b', text: 'A power-driven vessel coming straight towards you' },
			{ id: 'c', text: 'A vessel at anchor' },
			{ id: 'd', text: 'A power-driven vessel seen from astern' }
		],
		answer: 'b',
		inOther: {
			pt: {
				stem: 'Vê estas luzes pela proa. O que está a ver?',
				texts: {
					a: 'Um navio à vela que cruza por estibordo',
					b: 'Um navio de propulsão mecânica que vem direito a si',
					c: 'Um navio fundeado',
					d: 'Um navio de propulsão mecânica visto pela popa'
				}
			}
		}
	},
	short('What is this vessel doing? One word.', ['trawling', 'trawls', 'trawler'], {
		picture: 'fishing',
		inOther: { pt: { stem: 'O que está este navio a fazer? Responda com uma palavra em inglês.' } }
	}),
	pickAll(
		'Which of these may show the two lights in the picture by night, or two balls by day?',
		['A vessel whose engine has failed', 'A vessel whose rudder has jammed'],
		['A vessel at anchor', 'A vessel that tows'],
		{
			picture: 'not-under-command',
			inOther: {
				pt: { stem: 'Quais destes navios podem mostrar de noite as duas luzes da figura, ou dois balões de dia?' }
			}
		}
	),
	match(
		'What does each sound signal of vessels in sight of one another say?',
		[
			['One short blast', 'I am altering my course to starboard'],
			['Two short blasts', 'I am altering my course to port'],
			['Three short blasts', 'I am operating astern propulsion']
		],
		['I am in distress']
	),
	fill('A sidelight shows over [a] degrees; the one to port is [b].', {
		a: ['112.5', '112,5', '112½'],
		b: ['red']
	}),
	inOrder(
		'Two power-driven vessels cross and there is a risk of collision. You have the other on your starboard side. Put your steps in order.',
		'Take a bearing and see that it does not change',
		'Decide early that you give way',
		'Make one large alteration to starboard',
		'Watch until the other is past and clear'
	)
];

export const WORKED_STABILITY: Draft[] = [
	reckoned('A ship has $KM = 8.4$ m and $KG = 7.9$ m. How large is $GM$?', 0.5, 0.01, 'm'),
	reckoned(
		'At small angles $GZ = GM \\sin\\theta$. A ship has $GM = 0.60$ m and is heeled to $\\theta = 10^\\circ$. How large is $GZ$?',
		0.104,
		0.002,
		'm'
	),
	reckoned(
		'A weight of $w = 20$ t is shifted $d = 6$ m across a ship of $\\Delta = 4000$ t. How far does its centre of gravity move, $GG_1 = \\dfrac{w \\cdot d}{\\Delta}$?',
		0.03,
		0.001,
		'm'
	),
	essay('A half-filled tank makes a ship tender. Say why, and what you would do about it before she sails.', 60, 150, 6)
];
