import { nanoid } from 'nanoid';
import { SHORTEST_LEAVING_MS, type Lapse, type LapseKind } from '$core/lockdown';
import { ask } from './ask';
import type { ServerClock } from '$ui/server-clock.svelte';
import { keepIn, keptIn } from '$ui/browser-storage';

type Named = Lapse & { id: string };
export type WatchRules = { level: 'open' | 'watched' | 'sealed'; printing: boolean };

const RETRY_MS = 3_000;
/** The same prevented try, told once in this time: a held key is one try. */
const AGAIN_MS = 2_000;

/**
 * Watches the paper's page: asks for the full screen, prevents what a page can prevent, and tells the server what
 * happened and for how long. A page can't keep anybody in; it can see that they went. What could not be told while the
 * line was down is kept on the device and told later.
 */
export class Watch {
	isFull = $state(true);
	/** The last time away, once it is over, for telling the candidate. */
	lastAway = $state.raw<{ ms: number } | null>(null);
	/** What was just prevented. */
	prevented = $state<LapseKind | null>(null);
	#away: Named | null = null;
	#tellAway: ReturnType<typeof setTimeout> | undefined;
	#siteOpened = false;
	/** Something of the page itself is being dragged. */
	#dragging = false;
	#waiting: Named[] = [];
	#sending = false;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#last: Partial<Record<LapseKind, number>> = {};

	constructor(
		private readonly sittingId: string,
		private readonly rules: WatchRules,
		private readonly clock: ServerClock
	) {
		this.#waiting = keptIn('localStorage', this.#key) ?? [];
	}

	get #key() {
		return `otium lapses ${this.sittingId}`;
	}

	/** Whether the page must fill the screen; a sealed client does by itself, and some browsers can't. */
	get asksFullScreen(): boolean {
		return this.rules.level === 'watched' && document.fullscreenEnabled;
	}

	/** Listens until the returned function is called. */
	start(): () => void {
		const look = () => this.#look();
		const prevent = (kind: LapseKind) => (event: Event) => {
			event.preventDefault();
			this.#tried(kind);
		};
		const keys = (event: KeyboardEvent) => {
			if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'p' && !this.rules.printing)
				prevent('print')(event);
		};
		const beforePrint = () => this.rules.printing || this.#tried('print');
		const on: [EventTarget, string, EventListener][] = [
			[document, 'fullscreenchange', look],
			[document, 'visibilitychange', look],
			[window, 'blur', look],
			[window, 'focus', look],
			[document, 'copy', prevent('copy')],
			[document, 'cut', prevent('copy')],
			[document, 'paste', prevent('paste')],
			[document, 'dragstart', () => (this.#dragging = true)],
			[document, 'dragend', () => (this.#dragging = false)],
			// What is dragged in from elsewhere is pasted all the same.
			[document, 'drop', (event) => !this.#dragging && prevent('paste')(event)],
			[document, 'contextmenu', prevent('menu')],
			[document, 'keydown', keys as EventListener],
			[window, 'beforeprint', beforePrint]
		];
		for (const [target, name, listener] of on) target.addEventListener(name, listener);
		if (this.rules.level === 'watched' && !document.fullscreenEnabled) this.#tried('no_full_screen');
		// Told by some browsers only.
		if ((screen as Screen & { isExtended?: boolean }).isExtended) this.#tried('second_screen');
		look();
		void this.#flush();
		return () => {
			for (const [target, name, listener] of on) target.removeEventListener(name, listener);
			clearTimeout(this.#timer);
			clearTimeout(this.#tellAway);
		};
	}

	/** Browsers allow this only on a press. */
	async fill(): Promise<void> {
		await document.documentElement.requestFullscreen?.({ navigationUI: 'hide' }).catch(() => {});
		this.#look();
	}

	/** A site that the rules allow was opened from the page: the time away for it is told apart. */
	siteOpened() {
		this.#siteOpened = true;
	}

	#look() {
		this.isFull = !this.asksFullScreen || document.fullscreenElement !== null;
		const isHere = document.visibilityState === 'visible' && document.hasFocus() && this.isFull;
		const now = Math.round(this.clock.read());
		if (!isHere && !this.#away) {
			this.#away = { id: nanoid(), kind: this.#siteOpened ? 'site' : 'left', from: now, to: null };
			// Told while it lasts, so that the proctor sees it now; but not for a blink.
			this.#tellAway = setTimeout(() => this.#away && this.#tell(this.#away), SHORTEST_LEAVING_MS);
		} else if (isHere && this.#away) {
			clearTimeout(this.#tellAway);
			const over = { ...this.#away, to: now };
			this.#away = null;
			this.#siteOpened = false;
			if (over.to - over.from < SHORTEST_LEAVING_MS) return;
			this.#tell(over);
			if (over.kind === 'left') this.lastAway = { ms: over.to - over.from };
		}
	}

	#tried(kind: LapseKind) {
		const now = Math.round(this.clock.read());
		if (now - (this.#last[kind] ?? -Infinity) < AGAIN_MS) return;
		this.#last[kind] = now;
		if (kind !== 'no_full_screen' && kind !== 'second_screen') this.prevented = kind;
		this.#tell({ id: nanoid(), kind, from: now, to: now });
	}

	#tell(lapse: Named) {
		this.#waiting = [...this.#waiting.filter((one) => one.id !== lapse.id), lapse].slice(-100);
		this.#keep();
		void this.#flush();
	}

	#keep() {
		keepIn('localStorage', this.#key, this.#waiting);
	}

	async #flush() {
		clearTimeout(this.#timer);
		if (this.#sending || this.#waiting.length === 0) return;
		this.#sending = true;
		const lapses = this.#waiting;
		const answer = await ask('POST', '/sit/api/lapses', { lapses });
		this.#sending = false;
		if (answer.ok || (answer.status >= 400 && answer.status < 500)) {
			this.#waiting = this.#waiting.filter((one) => !lapses.includes(one));
			this.#keep();
			if (this.#waiting.length > 0) void this.#flush();
		} else this.#timer = setTimeout(() => void this.#flush(), RETRY_MS);
	}
}
