import { describe, expect, it } from 'vitest';
import { fillIn, MAIL_WORDS, TEMPLATES, tellsInSubject, unknownWords, type MailFacts } from '.';

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
