import { nanoid } from 'nanoid';
import type { RoomChange, RoomPicture } from '$core/room';
import type { Otium } from '../otium';
import { drawSitting } from './sitting-picture';
import { Channel, frameOf, type Watcher } from './channel';
import { drawRoom } from './room-picture';

/** Changes that come close together are sent together. */
const GATHER_MS = 60;
const BEAT_MS = 5_000;
/** Frames a watcher may fall behind before its line is cut; it comes back and catches up. */
const MAX_BEHIND = 300;

type Room = {
	channel: Channel;
	dirty: Set<string>;
	headDirty: boolean;
	lastHead: string;
	flushing: boolean;
	timer: NodeJS.Timeout | null;
};

/**
 * Tells watchers what has been committed: proctors a room, candidates their own sitting. First the picture, then only
 * changes, with ids for catching up, and a beat so that a dead line shows.
 */
export class LiveHub {
	readonly #boot = nanoid(8).replaceAll('-', '_');
	#rooms = new Map<string, Room>();
	#candidates = new Map<string, Set<Watcher>>();
	#beat: NodeJS.Timeout;

	constructor(private readonly otium: Otium) {
		this.#beat = setInterval(() => this.#sendBeat(), BEAT_MS);
		this.#beat.unref();
	}

	/** These sittings of a session changed; without any, the session itself did. */
	changed(sessionId: string, sittingIds: Iterable<string> = []) {
		const room = this.#rooms.get(sessionId);
		const ids = [...sittingIds];
		if (room) {
			for (const id of ids) room.dirty.add(id);
			room.headDirty = true;
			this.#schedule(sessionId, room);
		}
		for (const id of ids) void this.#drawForCandidate(id);
	}

	/** Answers were saved; the candidates themselves have been told. */
	answered(saved: { sessionId: string; sittingId: string }[]) {
		for (const { sessionId, sittingId } of saved) {
			const room = this.#rooms.get(sessionId);
			if (!room) continue;
			room.dirty.add(sittingId);
			this.#schedule(sessionId, room);
		}
	}

	/** A whole session concerns its candidates: its times changed, or it ended. */
	async sessionChanged(sessionId: string) {
		const rows: { sitting_id: string }[] = await this.otium
			.db('roster')
			.where({ session_id: sessionId })
			.select('sitting_id');
		this.changed(
			sessionId,
			rows.map((row) => row.sitting_id)
		);
	}

	/** A stream for a proctor's screen. null: there is no such session. */
	async watchRoom(sessionId: string, lastEventId: string | null): Promise<ReadableStream<Uint8Array> | null> {
		const room = this.#roomOf(sessionId);
		const missed = room.channel.since(lastEventId);
		if (missed) return this.#open(room.channel.watchers, [frameOf('beat', { now: this.otium.now() }), ...missed]);

		// The position is taken before drawing: a change that comes meanwhile is told again rather than not at all.
		const { position } = room.channel;
		const drawn = await drawRoom(this.otium.db, sessionId, this.otium.now(), undefined, this.otium.presence.told);
		if (!drawn) return null;
		const picture: RoomPicture = { now: this.otium.now(), ...drawn };
		const since = room.channel.since(position) ?? [];
		return this.#open(room.channel.watchers, [frameOf('picture', picture, position), ...since]);
	}

	/**
	 * One line that tells of several rooms: each event is named after its room, and whoever comes back gets fresh pictures.
	 * A browser opens only a few lines to one server at a time.
	 */
	async watchRooms(sessionIds: string[]): Promise<ReadableStream<Uint8Array>> {
		const rooms = sessionIds.map((id) => ({ id, channel: this.#roomOf(id).channel }));
		const pictures: string[] = [];
		for (const { id } of rooms) {
			const drawn = await drawRoom(this.otium.db, id, this.otium.now(), undefined, this.otium.presence.told);
			if (drawn) pictures.push(frameOf(`picture:${id}`, { now: this.otium.now(), ...drawn }));
		}
		const wall = new Set<Watcher>();
		const taps = rooms.map(({ id, channel }) => {
			const tap: Watcher = {
				send: (frame) => {
					for (const watcher of wall) watcher.send(namedAfter(id, frame));
				},
				close: () => {
					for (const watcher of wall) watcher.close();
				}
			};
			channel.watchers.add(tap);
			return () => channel.watchers.delete(tap);
		});
		return this.#open(wall, pictures, () => taps.forEach((leave) => leave()));
	}

	/** A stream for a candidate's screen: the picture of their sitting whenever it changes. */
	async watchSitting(sittingId: string, onClose: () => void): Promise<ReadableStream<Uint8Array>> {
		const picture = await drawSitting(this.otium.db, sittingId, this.otium.now());
		const watchers = this.#candidates.get(sittingId) ?? new Set();
		this.#candidates.set(sittingId, watchers);
		return this.#open(watchers, [frameOf('picture', picture)], () => {
			if (watchers.size === 0) this.#candidates.delete(sittingId);
			onClose();
		});
	}

	close() {
		clearInterval(this.#beat);
		for (const room of this.#rooms.values()) for (const watcher of room.channel.watchers) watcher.close();
		for (const watchers of this.#candidates.values()) for (const watcher of watchers) watcher.close();
	}

	#roomOf(sessionId: string): Room {
		const known = this.#rooms.get(sessionId);
		if (known) return known;
		const room: Room = {
			channel: new Channel(this.#boot),
			dirty: new Set(),
			headDirty: false,
			lastHead: '',
			flushing: false,
			timer: null
		};
		this.#rooms.set(sessionId, room);
		return room;
	}

	#open(watchers: Set<Watcher>, first: string[], onClose: () => void = () => {}): ReadableStream<Uint8Array> {
		const encoder = new TextEncoder();
		let watcher: Watcher;
		const leave = () => {
			if (watchers.delete(watcher)) onClose();
		};
		return new ReadableStream<Uint8Array>(
			{
				start(controller) {
					const close = () => {
						leave();
						try {
							controller.close();
						} catch {
							// Closed from the other side already.
						}
					};
					const send = (frame: string) => {
						if ((controller.desiredSize ?? 0) < -MAX_BEHIND) return close();
						controller.enqueue(encoder.encode(frame));
					};
					watcher = { send, close };
					watchers.add(watcher);
					for (const frame of first) controller.enqueue(encoder.encode(frame));
				},
				cancel: leave
			},
			{ highWaterMark: 1 }
		);
	}

	#schedule(sessionId: string, room: Room) {
		if (room.timer || room.flushing) return;
		room.timer = setTimeout(() => void this.#flush(sessionId, room), GATHER_MS);
	}

	async #flush(sessionId: string, room: Room) {
		room.timer = null;
		if (room.channel.watchers.size === 0 && room.dirty.size === 0 && !room.headDirty) return;
		room.flushing = true;
		const ids = room.dirty;
		room.dirty = new Set();
		room.headDirty = false;
		try {
			const drawn = await drawRoom(this.otium.db, sessionId, this.otium.now(), ids, this.otium.presence.told);
			if (drawn) {
				const head = JSON.stringify(drawn.head);
				const here = new Set(drawn.seats.map((seat) => seat.id));
				const gone = [...ids].filter((id) => !here.has(id));
				const change: RoomChange = { now: this.otium.now(), seats: drawn.seats, gone };
				if (head !== room.lastHead) change.head = drawn.head;
				room.lastHead = head;
				room.channel.publish('change', change);
			}
		} catch (error) {
			this.otium.log.error({ err: error, sessionId }, 'the live room could not be drawn');
			for (const id of ids) room.dirty.add(id);
		}
		room.flushing = false;
		if (room.dirty.size > 0 || room.headDirty) this.#schedule(sessionId, room);
	}

	async #drawForCandidate(sittingId: string) {
		const watchers = this.#candidates.get(sittingId);
		if (!watchers) return;
		try {
			const picture = await drawSitting(this.otium.db, sittingId, this.otium.now());
			for (const watcher of watchers) watcher.send(frameOf('picture', picture));
		} catch (error) {
			this.otium.log.error({ err: error, sittingId }, 'a candidate could not be told of a change');
		}
	}

	#sendBeat() {
		const frame = frameOf('beat', { now: this.otium.now() });
		for (const room of this.#rooms.values()) for (const watcher of room.channel.watchers) watcher.send(frame);
		for (const watchers of this.#candidates.values()) for (const watcher of watchers) watcher.send(frame);
	}
}

/** The same frame as one of several rooms'; a beat is everybody's. */
function namedAfter(sessionId: string, frame: string): string {
	if (frame.startsWith('event: beat')) return frame;
	return frame.replace(/^id: .*\n/, '').replace(/^event: (.*)$/m, `event: $1:${sessionId}`);
}
