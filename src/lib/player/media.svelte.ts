import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import { playsLeft, type Medium, type Played } from '$core/paper';
import { ask } from './ask';
import type { LocalStore, Place } from './local-store';

/** A file that did not come is asked for again, each time later. */
const AGAIN_MS = 3_000;
const LATEST_AGAIN_MS = 30_000;

/** Pictures, sound and film of a paper on this device: fetched once, kept for a reload without a line, and counted. */
export class Media {
	/** Addresses inside this page, by file. */
	#addresses = new SvelteMap<string, string>();
	#played = new SvelteMap<string, number>();
	/** Files that the server does not have. */
	#missing = new SvelteSet<string>();
	#wanted: string[] = [];
	#isFetching = false;
	#isStopped = false;

	constructor(
		private readonly place: Place,
		private readonly store: LocalStore
	) {}

	/** Where the page finds a file; null: it has not come yet. */
	addressOf(file: string): string | null {
		return this.#addresses.get(file) ?? null;
	}

	/** Whether a file can’t be had at all. */
	isMissing(file: string): boolean {
		return this.#missing.has(file);
	}

	/** Fetches these, in their order, until they are there. */
	want(media: Medium[]) {
		for (const { file } of media)
			if (!this.#addresses.has(file) && !this.#missing.has(file) && !this.#wanted.includes(file))
				this.#wanted.push(file);
		void this.#fetch();
	}

	async #fetch() {
		if (this.#isFetching) return;
		this.#isFetching = true;
		let wait = AGAIN_MS;
		while (this.#wanted.length > 0 && !this.#isStopped) {
			const file = this.#wanted[0];
			const kept = await this.store.keptMedium(this.place, file);
			const answer = kept ? null : await ask<Blob>('GET', `/sit/api/media/${file}`, undefined, { file: true });
			const blob = kept ?? (answer?.ok ? answer.data : null);
			if (this.#isStopped) break;
			if (!blob && answer?.ok === false && answer.status === 404) {
				// It is not there, whoever asks: a room that asks again and again would only be in everybody’s way.
				this.#missing.add(file);
				this.#wanted.shift();
			} else if (blob) {
				wait = AGAIN_MS;
				this.#addresses.set(file, URL.createObjectURL(blob));
				this.#wanted.shift();
				if (!kept) await this.store.keepMedium(this.place, file, blob);
			} else {
				// What does not come holds nothing else up.
				this.#wanted.push(this.#wanted.shift()!);
				await new Promise((done) => setTimeout(done, wait * (0.75 + Math.random() / 2)));
				wait = Math.min(LATEST_AGAIN_MS, wait * 2);
			}
		}
		this.#isFetching = false;
	}

	/** How often something may still be played; null: as often as one likes. */
	leftOf(medium: Medium, of: string, place: number): number | null {
		return playsLeft(medium, this.#played.get(keyOf(of, place)) ?? 0);
	}

	/** What is known of how often it was played; the larger number stands. */
	know(played: Played[]) {
		for (const { of, place, times } of played)
			this.#played.set(keyOf(of, place), Math.max(times, this.#played.get(keyOf(of, place)) ?? 0));
	}

	/** It is being played: counted here at once, and told to the server as soon as it can be reached. */
	async countPlay(of: string, place: number): Promise<void> {
		const times = (this.#played.get(keyOf(of, place)) ?? 0) + 1;
		this.#played.set(keyOf(of, place), times);
		for (;;) {
			const answer = await ask('POST', '/sit/api/played', { of, place, times });
			if (answer.ok || (answer.status !== 0 && answer.status < 500) || this.#isStopped) return;
			await new Promise((done) => setTimeout(done, AGAIN_MS));
		}
	}

	get played(): Played[] {
		return [...this.#played].map(([key, times]) => {
			const [of, place] = JSON.parse(key) as [string, number];
			return { of, place, times };
		});
	}

	/** The paper is off this device: nothing of it stays in the page. */
	stop() {
		this.#isStopped = true;
		for (const address of this.#addresses.values()) URL.revokeObjectURL(address);
		this.#addresses.clear();
	}
}

const keyOf = (of: string, place: number) => JSON.stringify([of, place]);
