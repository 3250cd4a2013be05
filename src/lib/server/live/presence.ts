import { nanoid } from 'nanoid';
import type { Sitting, SittingState } from '$core/sitting';
import type { Otium } from '../otium';
import { act, type Request } from '../sitting';

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

/** The question on screen, from 0, the battery from 0 to 1 while it is not charging, and what the screen shows. */
export type Told = { at: number | null; battery: number | null; shows: SittingState | null };
export const NOTHING_TOLD: Told = { at: null, battery: null, shows: null };

type Line = { seen: number; up: boolean; closedAt: number | null };

/** Knows whose line is up. What changes goes through the sitting like everything else, so that time can count it. */
export class Presence {
	#lines = new Map<string, Line>();
	/** Lines that are back and have not been written yet: when a whole room comes back, they go together. */
	#regained = new Set<string>();
	#timer: NodeJS.Timeout | null = null;
	#sweptAt = Infinity;
	#stalledAt = -Infinity;
	/** What devices tell of themselves; forgotten by a restart until they tell it again. */
	#told = new Map<string, Told>();

	constructor(private readonly otium: Otium) {}

	/** After a start: whoever was there before is lost since the server last lived, until they are heard of again. */
	async recover() {
		const { db } = this.otium;
		const row = (await db('meta').where({ key: 'alive_at' }).first('value')) as { value: string } | undefined;
		const rows: { fold: string }[] = await db('sitting')
			.whereIn('state', ['at_door', 'let_in', 'working', 'on_hold'])
			.select('fold');
		const since = Number(row?.value ?? this.otium.now());
		const lost = rows.map((one) => JSON.parse(one.fold) as Sitting).filter((sitting) => sitting.line?.up);
		await act(
			this.otium,
			lost.map((sitting) =>
				this.#request(sitting.id, { kind: 'lose_line', since: Math.max(since, sitting.line!.since) })
			)
		);
	}

	/** When a device that has just been heard should say again that it is there, ms from now. */
	get beatMs(): number {
		return Math.max(BEAT_MS, Math.ceil((this.#lines.size / BEATS_A_SECOND) * 1_000));
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
		this.#lines.set(sittingId, { seen: now, up: true, closedAt: null });
		this.#regained.add(sittingId);
		if (this.#timer === null) this.#timer = setTimeout(() => this.#tellRegained(), GATHER_MS);
	}

	/** The device tells of itself. Returns whether that is news. */
	tells(sittingId: string, told: Told): boolean {
		const known = this.#told.get(sittingId);
		if (known && known.at === told.at && known.battery === told.battery && known.shows === told.shows) return false;
		this.#told.set(sittingId, told);
		return true;
	}

	told = (sittingId: string): Told => this.#told.get(sittingId) ?? NOTHING_TOLD;

	#tellRegained() {
		this.#timer = null;
		const requests = [...this.#regained].map((id) => this.#request(id, { kind: 'regain_line' }));
		this.#regained.clear();
		void this.#tell(requests);
	}

	streamClosed(sittingId: string) {
		const line = this.#lines.get(sittingId);
		if (line) line.closedAt = this.otium.now();
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
		const silence = MISSED_BEATS * this.beatMs;
		const requests: Request[] = [];
		for (const [sittingId, line] of this.#lines) {
			const silent = now - line.seen > silence || (line.closedAt !== null && now - line.closedAt > RECONNECT_MS);
			if (!line.up || !silent) continue;
			this.#lines.delete(sittingId);
			this.#regained.delete(sittingId);
			requests.push(this.#request(sittingId, { kind: 'lose_line', since: line.seen }));
		}
		await this.#tell(requests);
	}

	/** Remembers that the server lives, so that after a power cut it is known since when lines were lost. */
	async noteAlive() {
		const value = String(this.otium.now());
		await this.otium.db('meta').insert({ key: 'alive_at', value }).onConflict('key').merge();
	}

	async #tell(requests: Request[]) {
		if (requests.length === 0) return;
		try {
			await act(this.otium, requests);
		} catch (error) {
			// The next beat or the next sweep says it again.
			for (const request of requests) this.#lines.delete(request.sittingId);
			this.otium.log.error({ err: error }, 'a change of line could not be written');
		}
	}

	#request(sittingId: string, body: Request['body']): Request {
		return { id: nanoid(), sittingId, by: { role: 'system', id: 'line' }, body };
	}
}
