import { nanoid } from 'nanoid';
import type { RoomChange, RoomPicture } from '$core/room';
import { giveWay } from '../event-loop';
import type { House } from '../house';
import { heldBy, heldByNobody } from '../lines';
import { rosterOf } from '../records';
import { Channel, frameOf, namedAfter, pictureFrame, type Frame, type Watcher } from './channel';
import { drawHead, drawRoom, drawSeats } from './room-picture';
import { SittingPictures } from './sitting-pictures';
import { subscribe } from './subscribe';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'log' | 'presence' | 'lines'>;

/** Changes that come close together are sent together. */
const GATHER_MS = 60;
const BEAT_MS = 5_000;
/** A room that nobody has watched for so many beats is forgotten; whoever comes back later gets a fresh picture. */
const MOST_IDLE_BEATS = 12;
/** After a picture that could not be drawn: first try again after so long, then twice as long, up to a limit. */
const RETRY_MS = 500;
const LONGEST_RETRY_MS = 15_000;

type Room = {
	channel: Channel;
	dirty: Set<string>;
	headDirty: boolean;
	lastHead: string;
	flushing: boolean;
	timer: NodeJS.Timeout | null;
	failures: number;
	/** For how many beats nobody has watched. */
	idleBeats: number;
};

/**
 * Publishes what has been committed to those who subscribe: a room to proctors, their own sitting to candidates. First
 * the picture, then only changes, with ids for catching up, and a beat so that a dead line shows. What nobody watches
 * costs nothing.
 */
export class LiveHub {
	readonly #boot = nanoid(8).replaceAll('-', '_');
	#rooms = new Map<string, Room>();
	/** Each room that is opened has a mark of its own, so that a number from before it was dropped is never mistaken. */
	#opened = 0;
	#candidates = new Map<string, Set<Watcher>>();
	#dirtyCandidates = new Set<string>();
	#drawing = false;
	#pictures: SittingPictures;
	#beat: NodeJS.Timeout;

	constructor(private readonly house: Needs) {
		this.#pictures = new SittingPictures(house);
		this.#beat = setInterval(() => this.#sendBeat(), BEAT_MS);
		this.#beat.unref();
	}

	/** These sittings of a session changed; without any, the session itself did. */
	changed(sessionId: string, sittingIds: Iterable<string> = []) {
		const ids = [...sittingIds];
		this.#mark(sessionId, ids, ids.length === 0);
		for (const id of ids) if (this.#candidates.has(id)) this.#dirtyCandidates.add(id);
		if (this.#dirtyCandidates.size > 0) void this.#drawCandidates();
	}

	/** Answers were saved; the candidates themselves have been told. */
	answered(saved: { sessionId: string; sittingId: string }[]) {
		for (const { sessionId, sittingId } of saved) this.#mark(sessionId, [sittingId], false);
	}

	/** A whole session concerns its candidates: its times changed, or it ended. */
	async sessionChanged(sessionId: string) {
		this.changed(sessionId, await rosterOf(this.house.db, sessionId));
		this.changed(sessionId);
	}

	/** A stream for a proctor's screen. null: there is no such session. */
	async watchRoom(
		sessionId: string,
		lastEventId: string | null,
		hold = heldByNobody()
	): Promise<ReadableStream<Uint8Array> | null> {
		const { channel } = this.#roomOf(sessionId);
		const missed = channel.since(lastEventId);
		if (missed) {
			const stream = await subscribe(channel.watchers, async () => [this.#beatFrame(), ...missed], hold);
			this.#mark(sessionId, [], false);
			return stream;
		}
		const draw = async () => {
			// The position is taken before drawing: a change that comes meanwhile is published after the picture.
			const { position } = channel;
			const picture = await this.#draw(sessionId);
			return picture && [await pictureFrame(picture, position)];
		};
		return subscribe(channel.watchers, draw, hold);
	}

	/**
	 * One line that tells of several rooms: each event is named after its room, and whoever comes back gets fresh pictures.
	 * A browser opens only a few lines to one server at a time.
	 */
	async watchRooms(sessionIds: string[], hold = heldByNobody()): Promise<ReadableStream<Uint8Array>> {
		const wall = new Set<Watcher>();
		const taps = sessionIds.map((id) => {
			const { watchers } = this.#roomOf(id).channel;
			const tap: Watcher = {
				send: (frame) => {
					for (const watcher of wall) watcher.send(namedAfter(id, frame));
				},
				close: () => {
					for (const watcher of wall) watcher.close();
				}
			};
			watchers.add(tap);
			return () => watchers.delete(tap);
		});
		const stream = await subscribe(
			wall,
			async () => {
				const pictures: Frame[] = [];
				for (const id of sessionIds) {
					const picture = await this.#draw(id);
					if (picture) pictures.push(namedAfter(id, await pictureFrame(picture)));
					await giveWay();
				}
				return pictures;
			},
			hold,
			() => taps.forEach((leave) => leave())
		);
		return stream!;
	}

	/** A stream for a candidate's screen: the picture of their sitting whenever it changes. */
	async watchSitting(
		sittingId: string,
		hold = heldByNobody(),
		onClose: () => void = () => {}
	): Promise<ReadableStream<Uint8Array>> {
		const watchers = this.#candidates.get(sittingId) ?? new Set();
		this.#candidates.set(sittingId, watchers);
		const stream = await subscribe(
			watchers,
			async () => [frameOf('picture', await this.#pictures.draw(sittingId))],
			hold,
			() => {
				if (watchers.size === 0) this.#candidates.delete(sittingId);
				onClose();
			}
		);
		return stream!;
	}

	close() {
		clearInterval(this.#beat);
		for (const room of this.#rooms.values()) {
			if (room.timer) clearTimeout(room.timer);
			for (const watcher of room.channel.watchers) watcher.close();
		}
		for (const watchers of this.#candidates.values()) for (const watcher of watchers) watcher.close();
	}

	async #draw(sessionId: string): Promise<RoomPicture | null> {
		const { db, presence } = this.house;
		const now = this.house.now();
		const drawn = await drawRoom(db, sessionId, now, undefined, presence.told);
		return drawn && { now, ...drawn };
	}

	#roomOf(sessionId: string): Room {
		const known = this.#rooms.get(sessionId);
		if (known) return known;
		const room: Room = {
			channel: new Channel(`${this.#boot}_${this.#opened++}`),
			dirty: new Set(),
			headDirty: false,
			lastHead: '',
			flushing: false,
			timer: null,
			failures: 0,
			idleBeats: 0
		};
		this.#rooms.set(sessionId, room);
		return room;
	}

	#mark(sessionId: string, ids: string[], isHead: boolean) {
		const room = this.#rooms.get(sessionId);
		if (!room) return;
		for (const id of ids) room.dirty.add(id);
		room.headDirty ||= isHead;
		// For nobody nothing is drawn; whoever comes back soon gets what has changed by then.
		if (room.channel.watchers.size > 0) this.#schedule(sessionId, room);
	}

	#schedule(sessionId: string, room: Room) {
		if (room.timer || room.flushing || (room.dirty.size === 0 && !room.headDirty)) return;
		const wait = room.failures === 0 ? GATHER_MS : Math.min(RETRY_MS * 2 ** room.failures, LONGEST_RETRY_MS);
		room.timer = setTimeout(() => void this.#flush(sessionId, room), wait);
	}

	async #flush(sessionId: string, room: Room) {
		room.timer = null;
		room.flushing = true;
		const [ids, isHead] = [room.dirty, room.headDirty];
		room.dirty = new Set();
		room.headDirty = false;
		try {
			const change = await this.#drawChange(sessionId, ids, isHead, room);
			if (change) room.channel.publish('change', change);
			room.failures = 0;
		} catch (error) {
			// One line for a row of failures: a full disk would fill the log as well.
			if (room.failures++ === 0)
				this.house.log.error({ err: error, sessionId }, 'the live room could not be drawn; it is tried again');
			for (const id of ids) room.dirty.add(id);
			room.headDirty ||= isHead;
		}
		room.flushing = false;
		this.#schedule(sessionId, room);
	}

	async #drawChange(sessionId: string, ids: Set<string>, isHead: boolean, room: Room): Promise<RoomChange | null> {
		const { db, presence } = this.house;
		const now = this.house.now();
		const seats = ids.size === 0 ? [] : await drawSeats(db, sessionId, now, ids, presence.told);
		const here = new Set(seats.map((seat) => seat.id));
		const change: RoomChange = { now, seats, gone: [...ids].filter((id) => !here.has(id)) };
		if (isHead) {
			const drawn = await drawHead(db, sessionId, now);
			const head = JSON.stringify(drawn);
			if (drawn && head !== room.lastHead) change.head = drawn;
			room.lastHead = head;
		}
		return ids.size > 0 || change.head ? change : null;
	}

	/** Draws each changed candidate once, however often they changed meanwhile, and gives way in between. */
	async #drawCandidates() {
		if (this.#drawing) return;
		this.#drawing = true;
		while (this.#dirtyCandidates.size > 0) {
			const ids = [...this.#dirtyCandidates];
			this.#dirtyCandidates.clear();
			await Promise.all(ids.map((id) => this.#drawCandidate(id)));
		}
		this.#drawing = false;
	}

	async #drawCandidate(sittingId: string) {
		const watchers = this.#candidates.get(sittingId);
		if (!watchers) return;
		try {
			const picture = await this.#pictures.draw(sittingId);
			// What a sitting says from now on is for the device that it is bound to, and for none before it.
			for (let before = 1; before < (picture.epoch ?? 0); before++)
				this.house.lines.end(heldBy.device(sittingId, before));
			const frame = frameOf('picture', picture);
			for (const watcher of watchers) watcher.send(frame);
		} catch (error) {
			this.house.log.error({ err: error, sittingId }, 'a candidate could not be told of a change');
		}
	}

	#beatFrame(): Frame {
		return frameOf('beat', { now: this.house.now() });
	}

	#sendBeat() {
		const frame = this.#beatFrame();
		for (const [id, room] of this.#rooms) {
			for (const watcher of room.channel.watchers) watcher.send(frame);
			room.idleBeats = room.channel.watchers.size > 0 ? 0 : room.idleBeats + 1;
			if (room.idleBeats > MOST_IDLE_BEATS) this.#rooms.delete(id);
		}
		for (const watchers of this.#candidates.values()) for (const watcher of watchers) watcher.send(frame);
	}
}
