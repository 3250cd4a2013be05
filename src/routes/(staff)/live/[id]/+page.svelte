<script lang="ts">
	import { onMount, tick, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { FINDER_ACTS } from '$core/finder';
	import { reach, SETTLED_AT_ONCE, type Need, type NeedAct, type SeatView } from '$core/room';
	import { clockTime } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import { singleKeys } from '$ui/shortcuts.svelte';
	import AnswersGrid from './AnswersGrid.svelte';
	import Asks from './Asks.svelte';
	import type { AskKind } from './asks';
	import Beside from './Beside.svelte';
	import Incidents from './Incidents.svelte';
	import Keys from './Keys.svelte';
	import NeedsYou from './NeedsYou.svelte';
	import Notices from './Notices.svelte';
	import OneCandidate from './OneCandidate.svelte';
	import { LiveRoom } from './room.svelte';
	import RoomChart from './RoomChart.svelte';
	import RoomHead from './RoomHead.svelte';
	import RoomPlan from './RoomPlan.svelte';
	import SeatList from './SeatList.svelte';
	import Tally from './Tally.svelte';

	let { data } = $props();
	const clock = getClock();
	const room = untrack(() => new LiveRoom(data, clock, data.coordinates, data.isMasked));
	$effect(() => room.listen());
	// A link may name somebody, and what is to be asked about them; both are done with once they have been read.
	$effect(() => {
		const { searchParams } = page.url;
		const seat = searchParams.get('seat');
		if (seat === null || room.isComing) return;
		untrack(() => {
			room.selected.clear();
			room.focusId = seat || null;
			if (seat) pane = 'one';
			askFor(searchParams.get('ask'));
		});
		if (searchParams.has('ask'))
			void goto(`/live/${room.sessionId}?seat=${seat}`, { replaceState: true, keepFocus: true });
	});
	function askFor(act: string | null) {
		if (act === null || !room.focus || !(FINDER_ACTS as readonly string[]).includes(act)) return;
		if (act === 'let_in') letIn([room.focus]);
		else if (act === 'resume') void room.act('resume', reach('resume', [room.focus]).touched);
		else open(act as AskKind);
	}

	const head = $derived(room.head);
	const now = $derived(clock.now);
	let view = $state<'seats' | 'list' | 'answers' | 'chart' | 'incidents'>('seats');
	let listed = $state.raw<SeatView[]>([]);
	const isMasked = $derived(room.isMasked);
	let keysOpen = $state(false);
	let ask = $state.raw<{ kind: AskKind; seats: SeatView[] } | null>(null);

	const PANES = [
		{ key: 'needs', name: 'Needs you' },
		{ key: 'room', name: 'Room' },
		{ key: 'one', name: 'Candidate' }
	] as const;
	/** What a phone shows; a wide screen shows all three. */
	let pane = $state<(typeof PANES)[number]['key']>('needs');
	onMount(() => {
		if (matchMedia('(max-width: 1023px)').matches) view = 'list';
	});

	const atDoor = $derived(room.all.filter((seat) => seat.state === 'at_door' && seat.device));
	function open(kind: AskKind, seats = room.targets) {
		if (
			seats.length === 0 &&
			!['end', 'start', 'call_time', 'release', 'find', 'minutes_all', 'incident', 'hand_over'].includes(kind)
		)
			return;
		ask = { kind, seats };
	}
	function letIn(seats: SeatView[]) {
		const waiting = reach('let_in', seats).touched;
		if (waiting.length === 1) void room.act('let_in', waiting);
		else if (waiting.length > 1) ask = { kind: 'let_in_all', seats: waiting };
	}
	function settle(act: NeedAct, need: Need) {
		const { seat, seats } = need;
		if (SETTLED_AT_ONCE.includes(act) || seats.length === 0) return void room.settle(act as 'seen', need);
		room.selected.clear();
		if (seat) look(seat);
		if (act === 'let_in' || act === 'resume') void room.act(act, seats);
		else open(act === 'free_device' ? 'move_device' : (act as AskKind), seats);
	}
	/** The first need that is settled by being dealt with, for its key. */
	function settleFirst() {
		const need = room.needs.find((one) => SETTLED_AT_ONCE.includes(one.acts[0]));
		if (need) settle(need.acts[0], need);
	}

	function look(seat: SeatView) {
		room.focusId = seat.id;
		pane = 'one';
	}
	function toggle(seat: SeatView) {
		if (room.selected.has(seat.id)) room.selected.delete(seat.id);
		else room.selected.add(seat.id);
	}
	function move(step: number) {
		const list = view === 'list' ? listed : room.shown;
		if (list.length === 0) return;
		const at = list.findIndex((seat) => seat.id === room.focusId);
		const next = list[Math.min(list.length - 1, Math.max(0, at < 0 ? 0 : at + step))];
		room.focusId = next.id;
		document.querySelector<HTMLElement>(`[data-seat="${next.id}"]`)?.focus();
	}
	/** Without anybody chosen, a key acts on whoever stands first under "Needs you" and needs just that. */
	function targetsFor(act: NeedAct): SeatView[] {
		if (room.targets.length > 0) return room.targets;
		return room.needs
			.filter((need) => need.acts.includes(act))
			.slice(0, 1)
			.flatMap(({ seats }) => seats);
	}

	/** On whose seat or line the focus is. */
	const seatOn = (target: Element) => {
		const id = target.closest<HTMLElement>('[data-seat]')?.dataset.seat;
		return id === undefined ? null : (room.seats.get(id) ?? null);
	};
	/** Enter lets in whoever it is on, if they wait; else it presses what it is on. */
	function enter(target: Element) {
		const on = seatOn(target);
		if (room.selected.size > 0) letIn(room.targets);
		else if (on === null) letIn(targetsFor('let_in'));
		else if (reach('let_in', [on]).touched.length > 0) letIn([on]);
		else look(on);
	}
	// Whoever comes to the head of "Needs you" while nobody is chosen was not meant by the key that is just being pressed.
	let headOfNeeds: string | null = null;
	let known = new Set<string>();
	$effect(() => {
		const keys = room.needs.map((need) => need.key);
		const isNew = keys.length > 0 && keys[0] !== headOfNeeds && !known.has(keys[0]);
		if (isNew && headOfNeeds !== null && untrack(() => room.targets.length) === 0) singleKeys.viewChanged();
		headOfNeeds = keys[0] ?? null;
		known = new Set(keys);
	});
	/** The focus goes back to whom the keys act on. */
	async function answered() {
		if (ask?.kind === 'find' && room.focusId !== null) pane = 'one';
		ask = null;
		await tick();
		if (room.focusId === null || document.activeElement?.closest('[data-seat], input, textarea, select')) return;
		document.querySelector<HTMLElement>(`[data-seat="${room.focusId}"]`)?.focus({ preventScroll: true });
	}

	const keys: Record<string, (target: Element) => void> = {
		ArrowRight: () => move(1),
		ArrowLeft: () => move(-1),
		ArrowDown: () => move(view === 'seats' ? head.seatsPerRow : 1),
		ArrowUp: () => move(view === 'seats' ? -head.seatsPerRow : -1),
		' ': (target) => {
			const seat = seatOn(target) ?? room.focus;
			if (seat) toggle(seat);
		},
		Escape: () => {
			room.selected.clear();
			room.filter = null;
		},
		Enter: enter,
		l: () => letIn(atDoor),
		r: () => void room.act('resume', reach('resume', targetsFor('resume')).touched),
		h: () => open('hold', targetsFor('hold')),
		u: () => open('turn_away', targetsFor('turn_away')),
		m: () => open('minutes', targetsFor('minutes')),
		d: () => open('move_device', targetsFor('free_device')),
		f: () => open('hand_in'),
		a: () => open('mark_absent'),
		o: () => data.coordinates && open('reopen'),
		e: () => head.endedAt === null && open('end', []),
		b: () => void window.open(`/live/${head.id}/board`, '_self'),
		z: () => void room.notices.undoLast(),
		n: () => room.mask(!isMasked),
		w: () => open('message', targetsFor('message')),
		k: () => settleFirst(),
		s: () => room.needs[0] && room.putOff.put(room.needs[0]),
		i: () =>
			open(
				'incident',
				[...room.selected].flatMap((id) => room.seats.get(id) ?? [])
			),
		'1': () => (view = 'seats'),
		'2': () => (view = 'list'),
		'3': () => (view = 'answers'),
		'4': () => (view = 'chart'),
		'5': () => (view = 'incidents'),
		'/': () => open('find', []),
		'?': () => (keysOpen = true)
	};
</script>

<svelte:head><title>{head.paper} in the {head.room} · Otium</title></svelte:head>
{#if !room.isComing}<Shortcuts {keys} />{/if}

<div class="flex h-full min-h-0 flex-col">
	{#if room.isComing}
		<main class="px-6 py-6" data-testid="coming">
			<h1 class="text-[22px]">{head.paper}</h1>
			<p class="text-ink-2" role="status">
				The {head.expected.toLocaleString('en-GB')} seats of the {head.room} appear in a moment.
			</p>
		</main>
	{:else}
		<RoomHead {room} {now} onask={open} onletin={() => letIn(atDoor)} {atDoor} />

		{#if room.isStale}
			<p
				role="alert"
				class="bg-brick text-on-tide fixed inset-x-0 bottom-0 z-30 px-5 py-3 text-[14px] font-semibold"
				data-testid="stale"
			>
				The connection to the server is lost. This is how the room was at {clockTime(room.heardAt, head.zone, true)}; it
				comes back automatically.
			</p>
		{/if}

		<div class="grid min-h-0 flex-1 grid-cols-[250px_1fr_290px] max-lg:grid-cols-1">
			<aside
				class="border-line overflow-auto border-r px-3.5 py-3.5 {pane === 'needs' ? '' : 'max-lg:hidden'}"
				aria-label="Needs you"
			>
				<NeedsYou {room} {now} {isMasked} onsettle={settle} onlook={look} />
			</aside>

			<main class="min-h-0 overflow-auto px-3.5 py-3.5 {pane === 'room' ? '' : 'max-lg:hidden'}">
				<div class="mb-3 flex min-h-9 flex-wrap items-center gap-3">
					<h2 class="sr-only">Room</h2>
					<span data-keyed
						><Choose
							name="view"
							label="How the room is shown"
							bind:value={view}
							options={[
								{ value: 'seats', text: 'Seats' },
								{ value: 'list', text: 'List' },
								{ value: 'answers', text: 'Answers' },
								{ value: 'chart', text: 'Over time' },
								{ value: 'incidents', text: head.incidents > 0 ? `Incidents ${head.incidents}` : 'Incidents' }
							]}
						/></span
					>
					<label class="text-ink-2 flex items-center gap-1.5 text-[13.5px]"
						><input
							type="checkbox"
							class="border-line-strong text-tide rounded"
							checked={isMasked}
							onchange={(event) => room.mask(event.currentTarget.checked)}
						/>Numbers, no names</label
					>
					<Act size="xs" key="/" onclick={() => open('find', [])} testid="find">Find</Act>
					{#if room.selected.size > 0}
						<span class="ml-auto flex items-center gap-2 text-[14px] font-semibold">
							{room.selected.size} selected
							<Act size="xs" onclick={() => room.selected.clear()} key="Esc">Clear</Act>
						</span>
					{:else}<button class="text-ink-3 ml-auto text-[13px] max-lg:hidden" onclick={() => (keysOpen = true)}
							><kbd class="border-line-strong rounded border px-1.5 font-mono text-[12px]">?</kbd> keys</button
						>{/if}
				</div>
				{#if room.all.length === 0}
					<p class="text-ink-3">Nobody is expected here. Add a group under Prepare.</p>
				{:else if view === 'seats'}
					<RoomPlan {room} {now} {isMasked} onselect={toggle} onopen={look} />
				{:else if view === 'answers'}
					<AnswersGrid {room} {isMasked} onopen={look} />
				{:else if view === 'chart'}
					<RoomChart {room} />
				{:else if view === 'incidents'}
					<Incidents {room} {now} coordinates={data.coordinates} onnew={() => open('incident', [])} />
				{:else}
					<SeatList {room} {now} {isMasked} onorder={(seats) => (listed = seats)} onopen={look} />
				{/if}
			</main>

			<aside class="bg-sheet border-line overflow-auto border-l px-4 py-3.5 {pane === 'one' ? '' : 'max-lg:hidden'}">
				{#if room.focus}
					<OneCandidate
						{room}
						seat={room.focus}
						{now}
						{isMasked}
						coordinates={data.coordinates}
						onask={(kind) => open(kind)}
						ondo={(kind) =>
							kind === 'let_in' ? letIn(room.targets) : void room.act(kind, reach(kind, room.targets).touched)}
					/>
				{:else}
					<Beside {head} contacts={data.contacts} help={data.help} onhandover={() => open('hand_over', [])} />
				{/if}
			</aside>
		</div>

		<div class="max-lg:hidden"><Tally {room} {now} /></div>
		<!-- On a phone one of the three at a time, changed with the thumb. -->
		<nav class="bg-sheet border-line grid grid-cols-3 border-t lg:hidden" aria-label="Parts of the room">
			{#each PANES as { key, name } (key)}
				<button
					class="aria-pressed:text-tide aria-pressed:bg-mist text-ink-2 py-3.5 text-[15px] font-semibold"
					aria-pressed={pane === key}
					onclick={() => (pane = key)}
					>{name}{#if key === 'needs' && room.needs.length > 0}&nbsp;{room.needs.length}{/if}</button
				>
			{/each}
		</nav>
	{/if}
</div>

<Notices notices={room.notices} />
<Keys bind:open={keysOpen} coordinates={data.coordinates} />
{#if ask}<Asks {room} {now} coordinates={data.coordinates} {ask} onclose={() => void answered()} />{/if}
