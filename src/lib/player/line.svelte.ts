import type { SittingPicture } from '$core/room';
import { ask, signer } from './ask';
import { noteClock } from './kept';
import type { ServerClock } from '$ui/server-clock.svelte';

/** Until the server has said how often. */
const BEAT_MS = 5_000;
/** The shortest wait before a cut line is reopened. The longest is twice that, so that a whole room does not reconnect at once. */
const TRY_AGAIN_MS = 1_500;

type Battery = { level: number; charging: boolean };

/** From 0 to 1 in steps of a twentieth while it is not charging; null: it is, or the browser does not tell. */
async function batteryLeft(): Promise<number | null> {
	const ask = (navigator as Navigator & { getBattery?: () => Promise<Battery> }).getBattery;
	const battery = await ask?.call(navigator).catch(() => undefined);
	return battery && !battery.charging ? Math.round(battery.level * 20) / 20 : null;
}

/** The line to the server: hears what changes in the sitting, says that this device is there, knows when it is down. */
export class Line {
	picture = $state.raw<SittingPicture>()!;
	/** Since when the server has not been heard, by its own clock; null: the line is up. */
	downSince = $state<number | null>(null);
	/** The server no longer knows this device. */
	isSignedOut = $state(false);
	/** The sitting is bound to another device now. */
	isFreed = $state(false);
	/** The question on screen, told with every beat; null: none. */
	#at: number | null = null;
	#source: EventSource | null = null;
	#beatMs = BEAT_MS;
	#nextBeat: ReturnType<typeof setTimeout> | undefined;

	constructor(
		picture: SittingPicture,
		private readonly clock: ServerClock
	) {
		this.picture = picture;
	}

	/** Opens the line until the returned function is called. */
	open(): () => void {
		let stopped = false;
		let retry: ReturnType<typeof setTimeout> | undefined;
		const listen = async () => {
			const path = '/sit/api/stream';
			const address = (await (await signer())?.address(path)) ?? path;
			if (stopped) return;
			const source = new EventSource(address);
			this.#source = source;
			let wasOpen = false;
			source.onopen = () => {
				wasOpen = true;
				this.#beatLater();
			};
			source.addEventListener('picture', (event) => this.#take(JSON.parse(event.data)));
			source.addEventListener('beat', (event) => this.#heard(JSON.parse(event.data).now));
			source.onerror = () => {
				if (stopped) return;
				// A browser asks again under the same signature, which holds once.
				source.close();
				// If it never opened, the server refused it or is away: a beat shows which, and returns the mark to sign with.
				if (!wasOpen) void this.#beat();
				retry = setTimeout(() => stopped || this.isFreed || void listen(), TRY_AGAIN_MS * (1 + Math.random()));
			};
		};
		void listen();
		this.#beatLater();
		return () => {
			stopped = true;
			clearTimeout(this.#nextBeat);
			clearTimeout(retry);
			this.#source?.close();
		};
	}

	/** Restarts the wait for the next beat. Opening the line has just shown the server that this device is there. */
	#beatLater() {
		clearTimeout(this.#nextBeat);
		this.#nextBeat = setTimeout(() => {
			this.#beatLater();
			void this.#beat();
		}, this.#beatMs);
	}

	/** The question that is on screen now; null: none. The first one is told at once, because the clock starts with it. */
	show(at: number | null) {
		const isFirst = this.#at === null && at !== null;
		this.#at = at;
		if (isFirst) void this.#beat();
	}

	/** Looks again now, after something that should have changed it. */
	async refresh(): Promise<void> {
		const answer = await ask<{ picture: SittingPicture }>('GET', '/sit/api/picture');
		if (answer.ok) this.#take(answer.data.picture);
		else this.#missed(answer.status, answer.problem.code);
	}

	async #beat() {
		const answer = await ask<{ now: number; next: number }>('POST', '/sit/api/beat', {
			at: this.#at,
			shows: this.picture.state,
			battery: await batteryLeft()
		});
		if (answer.ok) {
			this.#beatMs = answer.data.next;
			this.#heard(answer.data.now);
		} else this.#missed(answer.status, answer.problem.code);
	}

	#take(picture: SittingPicture) {
		// Two ways lead here, and the one that was asked first may come last.
		if (picture.now < this.picture.now) return;
		const isNews = picture.state !== this.picture.state;
		this.picture = picture;
		this.#heard(picture.now);
		// Said back at once: the proctor sees that it has arrived.
		if (isNews) void this.#beat();
	}

	#heard(now: number) {
		this.clock.set(now);
		noteClock(now);
		this.downSince = null;
	}

	#missed(status: number, code = '') {
		if (code === 'second_device') this.isFreed = true;
		// Signed out, or no longer in the sealed client that this paper is sat in.
		if (status === 401 || code === 'client_unproven' || code === 'client_outdated') this.isSignedOut = true;
		if (status === 0 || status >= 500) this.downSince ??= this.clock.read();
	}
}
