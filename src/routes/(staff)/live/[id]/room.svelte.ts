import { minutesInWords } from '$core/time';
import { counted } from '$core/names';
import { SvelteSet } from 'svelte/reactivity';
import {
	changedSeats,
	needsYou,
	progressOf,
	seatsOf,
	type Seats,
	type Need,
	tallyKeyOf,
	tallyOf,
	type RoomChange,
	type RoomHead,
	type RoomPicture,
	type SeatView,
	type StaffAct,
	type TallyKey
} from '$core/room';
import type { Outcome } from '$core/sitting';
import { sendCommand } from '$ui/command-keys';
import { inWords, send } from '$ui/post';
import type { ServerClock } from '$ui/server-clock.svelte';
import { DONE, UNDO } from './done';
import { MASK_S, maskCookie, masked, maskedHead } from './mask';
import { Notices, type Notice } from './notices.svelte';
import { PutOff } from './put-off.svelte';

/** Seen is seen until there is more of it. */
const SEEN_MS = 24 * 3_600_000;
/** The server beats every five seconds; after two missed ones what is on screen may be old. */
const STALE_MS = 12_000;

/** The live room in the browser: the picture, what changed since, and whether it still can be trusted. */
export class LiveRoom {
	#head = $state.raw<RoomHead>()!;
	/** By sitting. Replaced as a whole with every change: what a thousand seats each told of themselves would cost seconds. */
	#seats = $state.raw<Seats>(seatsOf([]));
	/** Numbers in the place of names, everywhere, until this person takes it off again for this room. */
	isMasked = $state(false);
	head = $derived.by(() => (this.isMasked ? maskedHead(this.#head) : this.#head));
	seats = $derived.by(() => (this.isMasked ? seatsOf([...this.#seats.values()].map(masked)) : this.#seats));
	selected = new SvelteSet<string>();
	focusId = $state<string | null>(null);
	filter = $state<TallyKey | null>(null);
	/** A large room: its seats come by the line. */
	isComing = $state(false);
	heardAt = $state(0);
	changedAt = $state(0);
	readonly notices = new Notices();
	/** Acts that are on their way: their buttons wait, so that a double click does nothing twice. */
	busy = $state(false);
	/** Never changes, and is read without being watched: a new head must not open the line anew. */
	readonly sessionId: string;
	/** Needs that come back later. */
	readonly putOff: PutOff;
	#source: EventSource | null = null;

	constructor(
		{ picture, isComing }: { picture: RoomPicture; isComing: boolean },
		private readonly clock: ServerClock,
		private readonly coordinates: boolean,
		isMasked = false
	) {
		this.sessionId = picture.head.id;
		this.putOff = new PutOff(clock);
		this.isMasked = isMasked;
		this.#take(picture);
		this.isComing = isComing;
		this.heardAt = picture.now;
		this.changedAt = picture.now;
	}

	all = $derived.by(() => [...this.seats.values()]);
	shown = $derived.by(() =>
		this.filter === null ? this.all : this.all.filter((seat) => tallyKeyOf(seat) === this.filter)
	);
	tally = $derived.by(() => tallyOf(this.all));
	#allNeeds = $derived.by(() => needsYou(this.all, this.head.refusals, this.head, this.clock.now, this.progress));
	/** What stands out about how somebody comes on. */
	progress = $derived.by(() => progressOf(this.all, this.head, this.clock.now));
	needs = $derived.by(() => this.#allNeeds.filter((need) => !this.putOff.has(need)));
	putOffCount = $derived.by(() => this.#allNeeds.length - this.needs.length);
	focus = $derived.by(() => (this.focusId === null ? null : (this.seats.get(this.focusId) ?? null)));
	isStale = $derived.by(() => this.clock.now - this.heardAt > STALE_MS);
	/** Hides or shows names; kept for this person and room, and known to the server before it sends the page. */
	mask(isMasked: boolean) {
		this.isMasked = isMasked;
		document.cookie = `${maskCookie(this.sessionId)}=${isMasked ? 1 : 0}; path=/live; max-age=${MASK_S}; samesite=strict`;
	}

	/** What is shown of somebody of whom the server tells by name. */
	shownName(sittingId: string, name: string): string {
		return this.isMasked ? (this.#seats.get(sittingId)?.number ?? 'somebody') : name;
	}

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
			this.attach(source);
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

	/** Hears of this room on a line; one that tells of several rooms names each event after its room. */
	attach(source: EventSource, suffix = '') {
		source.addEventListener(`picture${suffix}`, (event) => {
			const picture: RoomPicture = JSON.parse(event.data);
			this.#take(picture);
			this.isComing = false;
			this.#heard(picture.now, true);
		});
		source.addEventListener(`change${suffix}`, (event) => {
			const change: RoomChange = JSON.parse(event.data);
			if (change.head) this.#head = change.head;
			this.#seats = changedSeats(this.#seats, change);
			this.#heard(change.now, true);
		});
		source.addEventListener('beat', (event) => this.#heard(JSON.parse(event.data).now, false));
	}

	/** Does one act to some, and tells what became of it. */
	async act(
		kind: StaffAct | 'take_back',
		seats: SeatView[],
		more: { reason?: string; stopsClock?: boolean } = {},
		undoable = true
	) {
		if (this.busy || seats.length === 0) return false;
		this.busy = true;
		const sittingIds = seats.map((seat) => seat.id);
		const answer = await sendCommand<{ outcomes: Outcome[]; elsewhere: number }>(
			'POST',
			`/live/${this.sessionId}/act`,
			{ kind, sittingIds, ...more }
		);
		this.busy = false;
		if (!answer.ok) {
			this.tell('refused', inWords(answer.problem));
			return false;
		}
		this.#deselect(seats);
		this.#report(kind, seats, answer.data.outcomes, more, undoable);
		return true;
	}

	/** Those who were acted on are no longer chosen; whoever was chosen while it was on its way stays so. */
	#deselect(seats: SeatView[]) {
		for (const seat of seats) this.selected.delete(seat.id);
	}

	#report(
		kind: StaffAct | 'take_back',
		seats: SeatView[],
		outcomes: Outcome[],
		more: { reason?: string },
		undoable: boolean
	) {
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
			this.tell('refused', `${nameOf(outcome.sittingId)}: ${inWords(outcome.refusal)}`);
		}
		if (refused.length > 3)
			this.tell('refused', `Not done for ${refused.length - 3} more: they are in another state now.`);
	}

	/** Gives minutes back; null gives them to everyone in the room. */
	async giveMinutes(seats: SeatView[] | null, minutes: number, reason: string): Promise<string | null> {
		const answer = await sendCommand<{ grantIds: string[] }>(
			'POST',
			`/live/${this.sessionId}/minutes`,
			{ sittingIds: seats?.map((seat) => seat.id) ?? null, minutes, reason },
			{ field: 'id' }
		);
		if (!answer.ok) return inWords(answer.problem);
		const who =
			seats === null
				? `everyone (${this.all.length})`
				: seats.length === 1
					? seats[0].name
					: counted(seats.length, 'candidate');
		const { grantIds } = answer.data;
		this.#deselect(seats ?? []);
		this.tell('done', `${minutesInWords(minutes)} more for ${who}.`, async () => {
			const undone = await send('DELETE', `/live/${this.sessionId}/minutes`, { grantIds });
			this.tell(undone.ok ? 'done' : 'refused', undone.ok ? 'The minutes were withdrawn.' : inWords(undone.problem));
		});
		return null;
	}

	/** Sends words to some; returns what went wrong. */
	async message(seats: SeatView[], text: string): Promise<string | null> {
		const sittingIds = seats.map((seat) => seat.id);
		const answer = await sendCommand('POST', `/live/${this.sessionId}/message`, { sittingIds, text });
		if (!answer.ok) return inWords(answer.problem);
		this.#deselect(seats);
		this.tell('done', `Sent to ${seats.length === 1 ? seats[0].name : `${seats.length} candidates`}.`);
		return null;
	}

	/** Lets answers count that were held back; returns what went wrong. */
	async countHeldBack(seat: SeatView, reason: string): Promise<string | null> {
		const answer = await send<{ counted: number }>('POST', `/live/${this.sessionId}/sitting/${seat.id}/count`, {
			reason
		});
		if (!answer.ok) return inWords(answer.problem);
		const { counted } = answer.data;
		this.tell('done', `${counted === 1 ? 'One answer counts' : `${counted} answers count`} now for ${seat.name}.`);
		return null;
	}

	/** Settles a need that wants no more than having been dealt with. */
	async settle(act: 'seen' | 'lower_hand' | 'admit' | 'add' | 'resume' | 'forgive', need: Need) {
		if (this.busy) return;
		if (need.refusal) {
			const who = need.refusal.candidate?.name ?? need.refusal.device;
			const done = {
				seen: '',
				lower_hand: '',
				admit: ' may come in now',
				add: ' is on the list now',
				resume: ' is resumed',
				forgive: ' may try again'
			};
			this.busy = true;
			const answer = await send('POST', `/live/${this.sessionId}/door`, { refusalId: need.refusal.id, act });
			this.busy = false;
			if (!answer.ok) this.tell('refused', inWords(answer.problem));
			else if (done[act]) this.tell('done', `${who}${done[act]}.`);
			return;
		}
		if (act === 'seen') return this.putOff.put(need, SEEN_MS);
		const answer = await send('POST', `/live/${this.sessionId}/hand`, { sittingIds: [need.seat!.id] });
		if (!answer.ok) this.tell('refused', inWords(answer.problem));
	}

	/** Seats somebody elsewhere; whoever sits there changes places. */
	async reseat(seat: SeatView, to: string) {
		if (seat.seat === to) return;
		const from = seat.seat;
		const answer = await send<{ exchangedWith: string | null }>('POST', `/live/${this.sessionId}/seat`, {
			sittingId: seat.id,
			seat: to
		});
		if (!answer.ok) return this.tell('refused', inWords(answer.problem));
		const other = answer.data.exchangedWith && this.seats.get(answer.data.exchangedWith);
		const undo = from ? async () => void (await this.reseat({ ...seat, seat: to }, from)) : null;
		this.tell('done', `${seat.name} sits at ${to} now${other ? `, ${other.name} at ${from ?? 'no seat'}` : ''}.`, undo);
	}

	/** Tells an incident; returns what went wrong. */
	async tellIncident(
		incident: Record<string, unknown> & { id: string; minutes: number; sittingIds: string[] }
	): Promise<string | null> {
		const answer = await send('POST', `/live/${this.sessionId}/incidents`, incident);
		if (!answer.ok) return inWords(answer.problem);
		this.selected.clear();
		const { minutes, sittingIds } = incident;
		const given = minutes > 0 ? ` ${minutesInWords(minutes)} given back to ${sittingIds.length}.` : '';
		this.tell('done', `The incident is reported.${given}`, () => this.withdrawIncident(incident));
		return null;
	}

	async withdrawIncident({ id }: { id: string }) {
		const answer = await send('DELETE', `/live/${this.sessionId}/incidents`, { id });
		this.tell(
			answer.ok ? 'done' : 'refused',
			answer.ok ? 'The report is withdrawn, with the minutes it gave.' : inWords(answer.problem)
		);
	}

	/** Acts on the session itself; returns what went wrong. */
	async session(
		act: 'start_room' | 'call_time' | 'open_early' | 'renew_code' | 'show_code' | 'hide_code' | 'end',
		more: { collects?: boolean } = {}
	): Promise<string | null> {
		const answer = await send('POST', `/live/${this.sessionId}/session`, { act, ...more });
		if (answer.ok) return null;
		const text = inWords(answer.problem);
		this.tell('refused', text);
		return text;
	}

	tell(tone: Notice['tone'], text: string, undo: Notice['undo'] = null) {
		this.notices.tell(tone, text, undo);
	}

	#take(picture: RoomPicture) {
		this.#head = picture.head;
		this.#seats = seatsOf(picture.seats);
	}

	#heard(now: number, changed: boolean) {
		this.clock.set(now);
		this.heardAt = now;
		if (changed) this.changedAt = now;
	}
}
