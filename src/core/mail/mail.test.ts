import { describe, expect, it } from 'vitest';
import {
	changedSince,
	changesInWords,
	fillIn,
	MAIL_WORDS,
	TEMPLATES,
	tellsInSubject,
	toldIn,
	unknownWords,
	type MailFacts
} from '.';

const facts = Object.fromEntries(Object.keys(MAIL_WORDS).map((word) => [word, `<${word}>`])) as MailFacts;

describe('templates', () => {
	it('as shipped speak only of what is known, and fill in whole', () => {
		for (const template of Object.values(TEMPLATES)) {
			expect(unknownWords(template)).toEqual([]);
			const { subject, body } = fillIn(template, facts);
			expect(`${subject}${body}`).not.toMatch(/[{}]/);
		}
	});

	it('a mistyped word is named', () => {
		expect(unknownWords({ subject: '{paper}', body: '{nmae}, {time} {nmae}' })).toEqual(['nmae']);
		expect(unknownWords({ subject: '{constructor}', body: '' })).toEqual(['constructor']);
		expect(tellsInSubject({ subject: 'Your exam, {code}', body: '{link}' })).toBe('code');
		expect(tellsInSubject({ subject: 'Your exam', body: '{code} {link}' })).toBeNull();
	});

	it('nothing that is filled in breaks out of the subject line', () => {
		expect(fillIn({ subject: '{paper}', body: '' }, { ...facts, paper: 'Tides\r\nBcc: all@sea.example' }).subject).toBe(
			'Tides Bcc: all@sea.example'
		);
	});
});

describe('what has changed since a mail', () => {
	const rules = (...lines: string[]) => ({ ...facts, rules: lines.map((line) => `- ${line}`).join('\n') });
	it('tells of the rules only the lines that are new and those that are gone', () => {
		const told = toldIn(rules('You see one question at a time.', 'You have a page for notes.'), '0.16.0');
		const now = rules('You see one question at a time.', 'You have a basic calculator.');
		const changes = changedSince(told, now, '0.16.0');
		expect(changes).toEqual([
			{ what: 'what applies', was: 'You have a page for notes.', is: 'You have a basic calculator.' }
		]);
		expect(changesInWords(changes)).toContain('what applies: You have a basic calculator. (before: You have a page');
		expect(changedSince(told, rules('You see one question at a time.'), '0.16.0')[0].is).toBe('this applies no more');
	});

	it('takes other words of a later version for no change, and a mail of before there were any for none either', () => {
		const told = toldIn(rules('You can go back.'), '0.16.0');
		expect(changedSince(told, rules('You may go back.'), '0.17.0')).toEqual([]);
		const { rules: _, version: __, ...old } = told;
		expect(changedSince(old, rules('You may go back.'), '0.16.0')).toEqual([]);
		expect(changedSince(told, { ...rules('x'), time: '10:00 GMT' }, '0.17.0')).toEqual([
			{ what: MAIL_WORDS.time, was: '<time>', is: '10:00 GMT' }
		]);
	});
});
