import { isSameLanguage } from '$core/session';
import { keepIn, keptIn } from '$ui/browser-storage';

/** A piece that is read in one go: a stem, a choice. `language`: BCP 47. */
export type SpokenPart = { text: string; language: string };

/** How fast, as a share of the voice's own speed. */
export const SPEEDS = [0.6, 0.8, 1, 1.25, 1.5];
const SPEED_KEY = 'otium speech';
/** Browsers find their voices after the page has been loaded, some of them never. */
const VOICES_MS = 2_000;

/**
 * Reads a question aloud, piece by piece, in a voice of the device for the language of each piece. Nothing of a paper is
 * sent elsewhere to be read.
 */
export class ReadAloud {
	state = $state<'silent' | 'reading' | 'paused'>('silent');
	speed = $state(SPEEDS.find((speed) => speed === keptIn('localStorage', SPEED_KEY)) ?? 1);
	/** null: the browser has not told its voices yet. */
	#voices = $state.raw<SpeechSynthesisVoice[] | null>(null);
	#parts: SpokenPart[] = [];
	#at = 0;
	/** What is spoken now; the end of any other says nothing. */
	#now: SpeechSynthesisUtterance | null = null;

	/** Looks for voices. Returns a stop. */
	listen(): () => void {
		if (typeof speechSynthesis === 'undefined') {
			this.#voices = [];
			return () => {};
		}
		const find = () => {
			const own = speechSynthesis.getVoices().filter((voice) => voice.localService);
			if (own.length > 0) this.#voices = own;
		};
		find();
		speechSynthesis.addEventListener('voiceschanged', find);
		const timer = setTimeout(() => (this.#voices ??= []), VOICES_MS);
		return () => {
			clearTimeout(timer);
			speechSynthesis.removeEventListener('voiceschanged', find);
			this.stop();
		};
	}

	/** Whether the device has a voice of its own for a language; null: it is not known yet. */
	speaks(language: string): boolean | null {
		return this.#voices && this.#voiceFor(language) !== undefined;
	}

	/** Some devices write `en_GB`. */
	#voiceFor(language: string): SpeechSynthesisVoice | undefined {
		const fits = this.#voices?.filter((voice) => isSameLanguage(voice.lang.replace('_', '-'), language)) ?? [];
		return fits.find((voice) => voice.lang.toLowerCase() === language.toLowerCase()) ?? fits[0];
	}

	start(parts: SpokenPart[]): void {
		this.#parts = parts.filter(({ text }) => text.trim() !== '');
		this.#at = 0;
		this.#say();
	}
	/** Some browsers can't go on in the middle of a piece: it is begun again. */
	pause(): void {
		this.#hush();
		this.state = 'paused';
	}
	goOn(): void {
		this.#say();
	}
	/** Reads the piece again that is being read, or the one before where it has only begun. */
	again(): void {
		this.#at = Math.max(0, this.#at - 1);
		this.#say();
	}
	stop(): void {
		this.#hush();
		this.state = 'silent';
	}
	/** The next speed; after the fastest comes the slowest. */
	changeSpeed(): void {
		this.speed = SPEEDS[(SPEEDS.indexOf(this.speed) + 1) % SPEEDS.length];
		keepIn('localStorage', SPEED_KEY, this.speed);
		if (this.state === 'reading') this.#say();
	}

	#hush(): void {
		this.#now = null;
		if (typeof speechSynthesis !== 'undefined') speechSynthesis.cancel();
	}
	#say(): void {
		this.#hush();
		const part = this.#parts[this.#at];
		if (!part) return void (this.state = 'silent');
		const utterance = new SpeechSynthesisUtterance(part.text);
		utterance.voice = this.#voiceFor(part.language) ?? null;
		utterance.lang = part.language;
		utterance.rate = this.speed;
		utterance.onend = () => {
			if (this.#now !== utterance) return;
			this.#at++;
			this.#say();
		};
		utterance.onerror = () => {
			if (this.#now === utterance) this.stop();
		};
		this.#now = utterance;
		this.state = 'reading';
		speechSynthesis.speak(utterance);
	}
}
