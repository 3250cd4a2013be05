import { nanoid } from 'nanoid';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import {
	needsYou,
	tallyKeyOf,
	tallyOf,
	type RoomChange,
	type RoomHead,
	type RoomPicture,
	type SeatView,
	type TallyKey
} from '$core/room';
import { inWords, send } from '$ui/post';
import type { ServerClock } from '$ui/server-clock.svelte';

export type StaffAct =
	| 'let_in'
	| 'turn_away'
	| 'hold'
	| 'resume'
	| 'move_device'
	| 'hand_in'
	| 'carry_over'
	| 'mark_absent'
	| 'reopen'
	| 'set_aside'
	| 'restore'
	| 'expect_again';

type Outcome = { sittingId: string } & (
	{ ok: true; changed: boolean } | { ok: false; refusal: { message: string; instead?: string } }
);
export type Notice = {
	id: number;
	tone: 'done' | 'refused';
	text: string;
	undo: (() => Promise<void>) | null;
	until: number;
};

const DONE: Record<StaffAct, string> = {
	let_in: 'Let in',
	turn_away: 'Turned away',
	hold: 'On hold',
	resume: 'Resumed',
	move_device: 'Device freed',
	hand_in: 'Handed in',
	carry_over: 'Carried over',
	mark_absent: 'Marked absent',
	reopen: 'Reopened',
	set_aside: 'Set aside',
	restore: 'Restored',
	expect_again: 'Expected again'
};
/** What takes an act back, where something does. Reopening and the like are a coordinator's. */
const UNDO: Partial<Record<StaffAct, { act: StaffAct; coordinator: boolean }>> = {
	hold: { act: 'resume', coordinator: false },
	resume: { act: 'hold', coordinator: false },
	hand_in: { act: 'reopen', coordinator: true },
	mark_absent: { act: 'expect_again', coordinator: true },
	set_aside: { act: 'restore', coordinator: true }
};
const UNDO_MS = 10_000;
/** The server beats every five seconds; after two missed ones what is on screen may be old. */
const STALE_MS = 12_000;

/** The live room in the browser: the picture, what changed since, and whether it still can be trusted. */
export class LiveRoom {
	head = $state.raw<RoomHead>()!;
	seats = new SvelteMap<string, SeatView>();
	selected = new SvelteSet<string>();
	focusId = $state<string | null>(null);
	filter = $state<TallyKey | null>(null);
	heardAt = $state(0);
	changedAt = $state(0);
	notices = $state<Notice[]>([]);
	/** Acts that are on their way: their buttons wait, so that a double click does nothing twice. */
	busy = $state(false);
	/** Never changes, and is read without being watched: a new head must not open the line anew. */
	readonly sessionId: string;
	#source: EventSource | null = null;
	#noticeId = 0;

	constructor(
		picture: RoomPicture,
		private readonly clock: ServerClock,
		private readonly coordinates: boolean
	) {
		this.sessionId = picture.head.id;
		this.#take(picture);
		this.heardAt = picture.now;
		this.changedAt = picture.now;
	}

	all = $derived.by(() => [...this.seats.values()]);
	shown = $derived.by(() =>
		this.filter === null ? this.all : this.all.filter((seat) => tallyKeyOf(seat) === this.filter)
	);
	tally = $derived.by(() => tallyOf(this.all));
	needs = $derived.by(() => needsYou(this.all, this.head.questions, this.clock.now));
	focus = $derived.by(() => (this.focusId === null ? null : (this.seats.get(this.focusId) ?? null)));
	isStale = $derived.by(() => this.clock.now - this.heardAt > STALE_MS);
	/** Whom an act concerns: the selection, else the one in focus. */
	targets = $derived.by(() =>
		this.selected.size > 0 ? this.all.filter((seat) => this.selected.has(seat.id)) : this.focus ? [this.focus] : []
	);

	/** Listens until the returned function is called; comes back by itself, also when the server was away. */
	listen(): () => void {
		let stopped = false;
		let retry: ReturnType<typeof setTimeout> | undefined;
		const open = () => {
			const source = new EventSource(`/live/${this.sessionId}/stream`);
			this.#source = source;
			source.addEventListener('picture', (event) => {
				const picture: RoomPicture = JSON.parse(event.data);
				this.seats.clear();
				this.#take(picture);
				this.#heard(picture.now, true);
			});
			source.addEventListener('change', (event) => {
				const change: RoomChange = JSON.parse(event.data);
				if (change.head) this.head = change.head;
				for (const seat of change.seats) this.seats.set(seat.id, seat);
				this.#heard(change.now, true);
			});
			source.addEventListener('beat', (event) => this.#heard(JSON.parse(event.data).now, false));
			source.onerror = () => {
				// The browser reconnects with the last id; only a refusal closes the line for good, and then we ask again.
				if (source.readyState === EventSource.CLOSED && !stopped) retry = setTimeout(open, 2_000);
			};
		};
		open();
		return () => {
			stopped = true;
			clearTimeout(retry);
			this.#source?.close();
		};
	}

	/** Does one act to some, and tells what became of it. */
	async act(kind: StaffAct, seats: SeatView[], more: { reason?: string; stopsClock?: boolean } = {}, undoable = true) {
		if (this.busy || seats.length === 0) return false;
		this.busy = true;
		const sittingIds = seats.map((seat) => seat.id);
		const answer = await send<{ outcomes: Outcome[]; elsewhere: number }>('POST', `/live/${this.sessionId}/act`, {
			commandId: nanoid(),
			kind,
			sittingIds,
			...more
		});
		this.busy = false;
		if (!answer.ok) {
			this.tell('refused', inWords(answer.problem));
			return false;
		}
		this.selected.clear();
		this.#report(kind, seats, answer.data.outcomes, more, undoable);
		return true;
	}

	#report(kind: StaffAct, seats: SeatView[], outcomes: Outcome[], more: { reason?: string }, undoable: boolean) {
		const nameOf = (id: string) => seats.find((seat) => seat.id === id)?.name;
		const done = outcomes.filter((outcome) => outcome.ok);
		const refused = outcomes.filter((outcome) => !outcome.ok);
		if (done.length > 0) {
			const who = done.length === 1 ? nameOf(done[0].sittingId) : `${done.length} candidates`;
			const back = UNDO[kind];
			const mayUndo = undoable && back && (!back.coordinator || this.coordinates);
			const touched = seats.filter((seat) => done.some((outcome) => outcome.sittingId === seat.id));
			const undo = mayUndo
				? async () => void (await this.act(back.act, touched, { reason: more.reason || 'taken back' }, false))
				: null;
			this.tell('done', `${DONE[kind]}: ${who}.`, undo);
		}
		for (const outcome of refused.slice(0, 3)) {
			this.tell('refused', `${nameOf(outcome.sittingId)}: ${inWords({ code: '', ...outcome.refusal })}`);
		}
		if (refused.length > 3) this.tell('refused', `Not done for ${refused.length - 3} more: they stand elsewhere now.`);
	}

	/** Gives minutes back; null gives them to everyone in the room. */
	async giveMinutes(seats: SeatView[] | null, minutes: number, reason: string): Promise<string | null> {
		const answer = await send<{ grantIds: string[] }>('POST', `/live/${this.sessionId}/minutes`, {
			id: nanoid(),
			sittingIds: seats?.map((seat) => seat.id) ?? null,
			minutes,
			reason
		});
		if (!answer.ok) return inWords(answer.problem);
		const who =
			seats === null
				? `everyone (${this.all.length})`
				: seats.length === 1
					? seats[0].name
					: `${seats.length} candidates`;
		const { grantIds } = answer.data;
		this.selected.clear();
		this.tell('done', `${minutes} minutes more for ${who}.`, async () => {
			const undone = await send('DELETE', `/live/${this.sessionId}/minutes`, { grantIds });
			this.tell(undone.ok ? 'done' : 'refused', undone.ok ? 'The minutes are taken back.' : inWords(undone.problem));
		});
		return null;
	}

	/** Acts on the session itself; returns what went wrong. */
	async session(act: 'start_room' | 'renew_code' | 'show_code' | 'hide_code' | 'end'): Promise<string | null> {
		const answer = await send('POST', `/live/${this.sessionId}/session`, { act });
		if (answer.ok) return null;
		const text = inWords(answer.problem);
		this.tell('refused', text);
		return text;
	}

	tell(tone: Notice['tone'], text: string, undo: Notice['undo'] = null) {
		const notice: Notice = { id: ++this.#noticeId, tone, text, undo, until: this.clock.read() + UNDO_MS };
		this.notices = [...this.notices.slice(-3), notice];
		setTimeout(() => this.dismiss(notice.id), UNDO_MS);
	}

	dismiss(id: number) {
		this.notices = this.notices.filter((notice) => notice.id !== id);
	}

	/** Takes back the last act that can be. */
	async undoLast() {
		const last = this.notices.findLast((notice) => notice.undo);
		if (!last) return;
		this.dismiss(last.id);
		await last.undo!();
	}

	#take(picture: RoomPicture) {
		this.head = picture.head;
		for (const seat of picture.seats) this.seats.set(seat.id, seat);
	}

	#heard(now: number, changed: boolean) {
		this.clock.set(now);
		this.heardAt = now;
		if (changed) this.changedAt = now;
	}
}
