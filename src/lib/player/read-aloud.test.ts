import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ReadAloud } from './read-aloud.svelte';

/** What a browser gives a page to speak with, driven by hand. */
class Utterance {
	voice: { lang: string } | null = null;
	lang = '';
	rate = 1;
	onend = () => {};
	onerror = () => {};
	constructor(readonly text: string) {}
}
let spoken: Utterance[] = [];
const voice = (lang: string, localService = true) => ({ lang, localService });
let voices = [voice('en-GB'), voice('pt-BR'), voice('de-DE', false)];
const QUESTION = [
	{ text: 'Qual é a derivada?', language: 'pt' },
	{ text: ' ', language: 'pt' },
	{ text: 'x squared', language: 'pt' }
];
const last = () => spoken.at(-1)!;

beforeEach(() => {
	vi.useFakeTimers();
	spoken = [];
	vi.stubGlobal('SpeechSynthesisUtterance', Utterance);
	vi.stubGlobal('speechSynthesis', {
		getVoices: () => voices,
		addEventListener: () => {},
		removeEventListener: () => {},
		cancel: () => {},
		speak: (one: Utterance) => spoken.push(one)
	});
});
afterEach(() => {
	vi.unstubAllGlobals();
	vi.useRealTimers();
});

it('reads piece after piece in a voice of their language, and nothing of an empty one', () => {
	const aloud = new ReadAloud();
	aloud.listen();
	aloud.start(QUESTION);
	expect(last()).toMatchObject({ text: 'Qual é a derivada?', lang: 'pt', voice: { lang: 'pt-BR' } });
	last().onend();
	expect(last().text).toBe('x squared');
	last().onend();
	expect(aloud.state).toBe('silent');
	expect(spoken).toHaveLength(2);
});

it('pauses, goes on with the piece that was interrupted, reads one again, and stops', () => {
	const aloud = new ReadAloud();
	aloud.listen();
	aloud.start(QUESTION);
	last().onend();
	const interrupted = last();
	aloud.pause();
	// A browser tells the end of what was cut off as well.
	interrupted.onend();
	expect(aloud.state).toBe('paused');
	aloud.goOn();
	expect(last().text).toBe('x squared');
	aloud.again();
	expect(last().text).toBe('Qual é a derivada?');
	const speed = last().rate;
	aloud.changeSpeed();
	expect(last().text).toBe('Qual é a derivada?');
	expect(last().rate).not.toBe(speed);
	aloud.stop();
	last().onend();
	expect(aloud.state).toBe('silent');
});

it('knows when the device has no voice of its own for a language, also when it has none at all', () => {
	const aloud = new ReadAloud();
	aloud.listen();
	expect(aloud.speaks('pt')).toBe(true);
	expect(aloud.speaks('en-US')).toBe(true);
	// A voice that sends the text elsewhere is none.
	expect(aloud.speaks('de')).toBe(false);
	voices = [];
	const silent = new ReadAloud();
	silent.listen();
	expect(silent.speaks('en')).toBeNull();
	vi.advanceTimersByTime(5_000);
	expect(silent.speaks('en')).toBe(false);
});
