import { nanoid } from 'nanoid';
import { NOTHING_TOLD, type Told } from '$core/room';
import { IN_THE_ROOM, type Sitting } from '$core/sitting';
import type { House } from '../house';
import { act, ofOpenAdministrations, type Request } from '../sitting';
import { latest } from '../latest';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'log' | 'hub'>;

/** A device says that it is there so often, in a house that is not full. */
const BEAT_MS = 5_000;
/** A full house beats more slowly, so that all beats together are never more than so many a second. */
const BEATS_A_SECOND = 200;
/** So many missed beats are a lost line. */
const MISSED_BEATS = 3;
/** A closed stream is a reload or a lost line: a reload is back within this. */
const RECONNECT_MS = 5_000;
/** Looked for once a second; a pause longer than this is the server's own. */
const STALL_MS = 2_500;
/** Time for every device to be heard again: two beats and something. */
const EXCUSE_BEATS = 2.2;
/** Lines that come back within this are written together. */
const GATHER_MS = 40;
/** How often the lines of all who are in a room are gone through. */
const WATCH_ALL_MS = 30_000;
/** After a write that failed. */
const AGAIN_MS = 1_000;

/** `streams`: how many are open; a page that is loaded anew opens the next before the last one closes. */
type Line = { seen: number; up: boolean; closedAt: number | null; streams: number };

const sittingsOf = (rows: { fold: string }[]) => rows.map((one) => JSON.parse(one.fold) as Sitting);

/** Knows whose line is up. What changes goes through the sitting like everything else, so that time can count it. */
export class Presence {
	#lines = new Map<string, Line>();
	/** Lines that are back and have not been written yet: when a whole room comes back, they go together. */
	#regained = new Set<string>();
	#timer: NodeJS.Timeout | null = null;
	#sweptAt = Infinity;
	#stalledAt = -Infinity;
	#failing = false;
	#watchedAt = -Infinity;
	/** What devices tell of themselves; forgotten by a restart until they tell it again. */
	#told = latest<Told>(20_000);

	constructor(private readonly otium: Needs) {}

	/** Ends what is still to come. */
	close() {
		if (this.#timer) clearTimeout(this.#timer);
	}

	/**
	 * After a start: whoever was there before is lost since the server last lived, until they are heard of again. What it was
	 * away is nobody's time, whatever the rules say of lines that are lost.
	 */
	async recover() {
		const now = this.otium.now();
		const since = (await this.#aliveAt()) ?? now;
		const here = sittingsOf(await this.#inTheRoom().select('fold'));
		const lost = here.filter((sitting) => sitting.line?.up);
		// The house may have been brought here from another machine: nothing is known of a time that is still to come.
		const away = since < now ? here : [];
		await act(this.otium, [
			...lost.map((sitting) =>
				this.#request(sitting.id, { kind: 'lose_line', since: Math.max(since, sitting.line!.since) })
			),
			...away.map((sitting) => this.#request(sitting.id, { kind: 'note_away', from: since }))
		]);
		await this.noteAlive();
	}

	/** When the server last said that it lives; null: it never has. */
	async #aliveAt(): Promise<number | null> {
		const row: { value: string } | undefined = await this.otium.db('meta').where({ key: 'alive_at' }).first('value');
		return row ? Number(row.value) : null;
	}

	#inTheRoom() {
		const { db } = this.otium;
		return db('sitting').whereIn('state', IN_THE_ROOM).modify(ofOpenAdministrations(db));
	}

	/**
	 * A line that is up without anything having been heard of it here, as after an undo, is watched like the others: who is
	 * silent is found.
	 */
	async #watchAll(now: number) {
		this.#watchedAt = now;
		// Most are known: only those that are not are read.
		const unknown = ((await this.#inTheRoom().pluck('id')) as string[]).filter((id) => !this.#lines.has(id));
		if (unknown.length === 0) return;
		for (const { id, line } of sittingsOf(await this.#inTheRoom().whereIn('id', unknown).select('fold')))
			if (line?.up && !this.#lines.has(id)) this.#lines.set(id, { seen: now, up: true, closedAt: null, streams: 0 });
	}

	/** When a device that has just been heard should say again that it is there, ms from now. */
	get beatMs(): number {
		return Math.max(BEAT_MS, Math.ceil((this.#lines.size / BEATS_A_SECOND) * 1_000));
	}

	/** A device has just been bound, and its sitting says already that the line is up. */
	bound(sittingId: string) {
		const streams = this.#lines.get(sittingId)?.streams ?? 0;
		this.#lines.set(sittingId, { seen: this.otium.now(), up: true, closedAt: null, streams });
	}

	/** Something was heard from this sitting's device. */
	seen(sittingId: string) {
		const now = this.otium.now();
		const line = this.#lines.get(sittingId);
		if (line?.up) {
			line.seen = now;
			line.closedAt = null;
			return;
		}
		this.#lines.set(sittingId, { seen: now, up: true, closedAt: null, streams: line?.streams ?? 0 });
		this.#regained.add(sittingId);
		if (this.#timer === null) this.#timer = setTimeout(() => void this.#publishRegained(), GATHER_MS);
	}

	/** The device tells of itself. Returns whether that is news. */
	tells(sittingId: string, told: Told): boolean {
		const known = this.#told.get(sittingId);
		if (known && known.at === told.at && known.battery === told.battery && known.shows === told.shows) return false;
		this.#told.set(sittingId, told);
		return true;
	}

	told = (sittingId: string): Told => this.#told.get(sittingId) ?? NOTHING_TOLD;

	async #publishRegained() {
		this.#timer = null;
		const ids = [...this.#regained];
		this.#regained.clear();
		if (await this.#write(ids.map((id) => this.#request(id, { kind: 'regain_line' })))) return;
		for (const id of ids) this.#regained.add(id);
		this.#timer ??= setTimeout(() => void this.#publishRegained(), AGAIN_MS);
	}

	streamOpened(sittingId: string) {
		this.seen(sittingId);
		this.#lines.get(sittingId)!.streams++;
	}

	streamClosed(sittingId: string) {
		const line = this.#lines.get(sittingId);
		if (!line) return;
		line.streams = Math.max(0, line.streams - 1);
		if (line.streams === 0) line.closedAt = this.otium.now();
	}

	/** Finds the lines that have gone silent. */
	async sweep() {
		const now = this.otium.now();
		// When this server was held up itself, what it did not hear says nothing about the lines: they are given time to be
		// heard again. Otherwise a moment's load would take a whole room for lost, and writing that would be the next load.
		const running = performance.now();
		if (running - this.#sweptAt > STALL_MS) this.#stalledAt = running;
		this.#sweptAt = running;
		if (running - this.#stalledAt < EXCUSE_BEATS * this.beatMs) return;
		if (now - this.#watchedAt >= WATCH_ALL_MS) await this.#watchAll(now);
		const silence = MISSED_BEATS * this.beatMs;
		// In a full house the next beat of a page that was loaded anew may be as far away as a beat is.
		const reconnect = Math.max(RECONNECT_MS, 1.2 * this.beatMs);
		const silent = [...this.#lines].filter(
			([, line]) =>
				line.up && (now - line.seen > silence || (line.closedAt !== null && now - line.closedAt > reconnect))
		);
		const written = await this.#write(
			silent.map(([id, line]) => this.#request(id, { kind: 'lose_line', since: line.seen }))
		);
		// What could not be written is found again by the next sweep.
		if (!written) return;
		for (const [id, line] of silent) {
			this.#lines.delete(id);
			this.#regained.delete(id);
			// Heard while it was being written: it is back.
			if (line.seen > now) this.seen(id);
		}
	}

	/** Remembers that the server lives, so that after a power cut it is known since when lines were lost. */
	async noteAlive() {
		const value = String(this.otium.now());
		await this.otium.db('meta').insert({ key: 'alive_at', value }).onConflict('key').merge();
	}

	/** Whether it is on the disk; a failure is logged once until something can be written again. */
	async #write(requests: Request[]): Promise<boolean> {
		if (requests.length === 0) return true;
		try {
			await act(this.otium, requests);
			this.#failing = false;
			return true;
		} catch (error) {
			if (!this.#failing)
				this.otium.log.error({ err: error }, 'a change of line could not be written; it is tried again');
			this.#failing = true;
			return false;
		}
	}

	#request(sittingId: string, body: Request['body']): Request {
		return { id: nanoid(), sittingId, by: { role: 'system', id: 'line' }, body };
	}
}
