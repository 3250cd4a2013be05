import type { GrantedLook } from '$core/grants';
import { readDecimal } from '$core/quantity';
import type { GrantWhat } from '$lib/server/grants';

export type What = GrantWhat;
export type WhatKind = What['kind'];

/** What can be given, in the order in which it is offered. */
export const WHAT_NAMES: Record<WhatKind, string> = {
	factor: 'Extra time, by a factor',
	minutes: 'Extra time, in minutes',
	unlimited_time: 'No time limit',
	own_window: 'A window of their own',
	breaks: 'Breaks, with the clock stopped',
	separate_room: 'A separate room',
	beside: 'Somebody beside them',
	tools: 'A calculator',
	read_aloud: 'Questions read aloud',
	display: 'Display: size, colours, spacing, ruler',
	language: 'A language',
	paper_copy: 'A copy on paper',
	aid: 'Another aid, in your words',
	other_form: 'Questions and choices in an order of their own',
	extra_attempt: 'Another attempt',
	continue_later: 'May stop and go on another day',
	reopen: 'May be reopened on a later day'
};

export function isWhat(text: string): text is WhatKind {
	return Object.hasOwn(WHAT_NAMES, text);
}

/** What the form holds while it is filled in; numbers as they are typed. */
export type Entered = {
	kind: WhatKind;
	factor: string;
	minutes: string;
	date: string;
	opens: string;
	closes: string;
	lastDate: string | null;
	roomId: string;
	proctorId: string;
	breaks: string;
	breakMinutes: string;
	attempts: string;
	calculator: 'basic' | 'scientific';
	tag: string;
	magnification: string;
	contrast: boolean;
	colours: GrantedLook | '';
	wider: '' | '1.8' | '2.2';
	ruler: boolean;
	aid: string;
	as: 'reader' | 'scribe' | 'assistant';
	name: string;
};

export const BLANK: Entered = {
	kind: 'factor',
	factor: '1.5',
	minutes: '10',
	date: '',
	opens: '',
	closes: '',
	lastDate: null,
	roomId: '',
	proctorId: '',
	breaks: '2',
	breakMinutes: '10',
	attempts: '1',
	calculator: 'basic',
	tag: '',
	magnification: '1.5',
	contrast: false,
	colours: '',
	wider: '',
	ruler: false,
	aid: '',
	as: 'reader',
	name: ''
};

/** What is no number becomes NaN and is refused in words. */
const numberOf = (text: string) => readDecimal(text) ?? NaN;

/** What was entered, as it is asked for. */
export function whatOf(entered: Entered): What {
	switch (entered.kind) {
		case 'factor':
			return { kind: 'factor', factor: numberOf(entered.factor) };
		case 'minutes':
			return { kind: 'minutes', minutes: numberOf(entered.minutes) };
		case 'own_window':
			return {
				kind: 'own_window',
				date: entered.date,
				opens: entered.opens,
				closes: entered.closes,
				lastDate: entered.lastDate,
				roomId: entered.roomId || null,
				proctorId: entered.proctorId || null
			};
		case 'breaks':
			return { kind: 'breaks', count: numberOf(entered.breaks), minutes: numberOf(entered.breakMinutes) };
		case 'extra_attempt':
			return { kind: 'extra_attempt', count: numberOf(entered.attempts) };
		case 'tools':
			return { kind: 'tools', calculator: entered.calculator };
		case 'language':
			return { kind: 'language', tag: entered.tag.trim() };
		case 'display':
			return {
				kind: 'display',
				magnification: numberOf(entered.magnification),
				contrast: entered.contrast,
				...(entered.colours ? { colours: entered.colours } : {}),
				...(entered.wider ? { spacing: Number(entered.wider) } : {}),
				...(entered.ruler ? { ruler: true } : {})
			};
		case 'aid':
			return { kind: 'aid', name: entered.aid };
		case 'beside':
			return { kind: 'beside', as: entered.as, name: entered.name };
		default:
			return { kind: entered.kind };
	}
}
