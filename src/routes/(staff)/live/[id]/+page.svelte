<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { page } from '$app/state';
	import { showDoorCode } from '$core/access';
	import {
		reach,
		roomReady,
		SETTLED_AT_ONCE,
		TALLY_ORDER,
		tallyKeyOf,
		type Need,
		type NeedAct,
		type SeatView,
		type TallyKey
	} from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import { localTime, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import { clockLength } from '$ui/durations';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import AnswersGrid from './AnswersGrid.svelte';
	import AskCount from './AskCount.svelte';
	import AskEnd from './AskEnd.svelte';
	import AskHandOver from './AskHandOver.svelte';
	import AskIncident from './AskIncident.svelte';
	import AskMessage from './AskMessage.svelte';
	import AskMinutes from './AskMinutes.svelte';
	import AskReason from './AskReason.svelte';
	import AskStart from './AskStart.svelte';
	import { ASKS, type AskKind } from './asks';
	import Beside from './Beside.svelte';
	import FindSomebody from './FindSomebody.svelte';
	import Incidents from './Incidents.svelte';
	import Keys from './Keys.svelte';
	import NeedsYou from './NeedsYou.svelte';
	import OneCandidate from './OneCandidate.svelte';
	import { readyInWords } from './ready-words';
	import { LiveRoom } from './room.svelte';
	import RoomChart from './RoomChart.svelte';
	import RoomPlan from './RoomPlan.svelte';
	import SeatList from './SeatList.svelte';

	let { data } = $props();
	const clock = getClock();
	const room = untrack(() => new LiveRoom(data.picture, clock, data.coordinates, data.isMasked));
	$effect(() => room.listen());
	onMount(() => (room.focusId = page.url.searchParams.get('seat') || null));

	const head = $derived(room.head);
	const now = $derived(clock.now);
	let view = $state<'seats' | 'list' | 'answers' | 'chart' | 'incidents'>('seats');
	let listed = $state.raw<SeatView[]>([]);
	const isMasked = $derived(room.isMasked);
	let keysOpen = $state(false);
	let ask = $state.raw<{ kind: AskKind; seats: SeatView[] } | null>(null);

	const atDoor = $derived(room.all.filter((seat) => seat.state === 'at_door' && seat.device));
	const tallyShown = $derived(TALLY_ORDER.filter((key) => room.tally[key] > 0));
	const accounted = $derived(Object.values(room.tally).reduce((sum, count) => sum + count, 0));
	const nameOf = (key: TallyKey) => (key === 'line_lost' ? 'Line lost' : STATE_NAMES[key]);
	const ends = $derived.by(() => {
		const deadlines = room.all
			.filter((seat) => ['working', 'on_hold'].includes(seat.state) && seat.deadline !== null)
			.map((seat) => seat.deadline!);
		return deadlines.length > 0 ? { first: Math.min(...deadlines), last: Math.max(...deadlines) } : null;
	});
	const stage = $derived(
		head.endedAt !== null
			? 'Ended'
			: now < head.doorOpens
				? 'Planned'
				: head.clockStarts === 'room' && head.roomStartedAt === null
					? 'Door open'
					: now < head.opens
						? 'Door open'
						: 'Running'
	);
	const ready = $derived(head.endedAt === null ? readyInWords(roomReady(room.all), head.lastEntry, now) : '');
	const when = $derived.by(() => {
		if (head.endedAt !== null) return `ended ${timeAndDate(head.endedAt, head.zone, now)}`;
		if (now < head.doorOpens)
			return `starts ${timeAndDate(head.opens, head.zone, now)}, the door opens ${localTime(head.doorOpens, head.zone)}`;
		if (now < head.opens) return `starts in ${clockLength(head.opens - now)}`;
		const last =
			head.lastEntry !== null && now <= head.lastEntry ? ` · last entry in ${clockLength(head.lastEntry - now)}` : '';
		if (!ends) return `opened ${localTime(head.opens, head.zone)}${last}`;
		const both = localTime(ends.first, head.zone) === localTime(ends.last, head.zone);
		return `opened ${localTime(head.opens, head.zone)} · first ends ${localTime(ends.first, head.zone)}${both ? '' : `, last ${localTime(ends.last, head.zone)}`}${last}`;
	});

	function open(kind: AskKind, seats = room.targets) {
		if (seats.length === 0 && !['end', 'start', 'find', 'minutes_all', 'incident', 'hand_over'].includes(kind)) return;
		ask = { kind, seats };
	}
	function letIn(seats: SeatView[]) {
		const waiting = reach('let_in', seats).touched;
		if (waiting.length === 1) void room.act('let_in', waiting);
		else if (waiting.length > 1) ask = { kind: 'let_in_all', seats: waiting };
	}
	function settle(act: NeedAct, need: Need) {
		if (SETTLED_AT_ONCE.includes(act) || !need.seat) return void room.settle(act as 'seen', need);
		room.selected.clear();
		room.focusId = need.seat.id;
		if (act === 'let_in') void room.act('let_in', [need.seat]);
		else if (act === 'resume') void room.act('resume', [need.seat]);
		else open(act === 'free_device' ? 'move_device' : (act as AskKind), [need.seat]);
	}
	/** The first need that is settled by being dealt with, for its key. */
	function settleFirst() {
		const need = room.needs.find((one) => SETTLED_AT_ONCE.includes(one.acts[0]));
		if (need) settle(need.acts[0], need);
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
			.flatMap((need) => need.seat ?? []);
	}

	/** A field has its keys for itself; a box that was just ticked keeps only those that move or tick it. */
	function isTyped(target: HTMLElement, key: string): boolean {
		const input = target.closest('input');
		if (!input) return false;
		return (
			!['checkbox', 'radio'].includes(input.type) || key === ' ' || (input.type === 'radio' && key.startsWith('Arrow'))
		);
	}

	function onkeydown(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (
			ask ||
			keysOpen ||
			event.ctrlKey ||
			event.metaKey ||
			event.altKey ||
			target.closest('textarea, select, dialog') ||
			isTyped(target, event.key)
		)
			return;
		const onSeat = target.closest('[data-seat]') !== null;
		if (event.key === 'Enter' && !onSeat && target.closest('button, a, summary')) return;
		const keys: Record<string, () => void> = {
			ArrowRight: () => move(1),
			ArrowLeft: () => move(-1),
			ArrowDown: () => move(view === 'seats' ? head.seatsPerRow : 1),
			ArrowUp: () => move(view === 'seats' ? -head.seatsPerRow : -1),
			' ': () => room.focus && toggle(room.focus),
			Escape: () => {
				room.selected.clear();
				room.filter = null;
			},
			Enter: () => letIn(targetsFor('let_in')),
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
			b: () => window.open(`/live/${head.id}/board`, '_self'),
			z: () => void room.undoLast(),
			n: () => room.mask(!isMasked),
			w: () => open('message', targetsFor('message')),
			k: () => settleFirst(),
			s: () => room.needs[0] && room.snooze(room.needs[0]),
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
		const run = keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
		if (!run) return;
		event.preventDefault();
		run();
	}
</script>

<svelte:head><title>{head.paper} in the {head.room} · Otium</title></svelte:head>
<svelte:window {onkeydown} />

<div class="flex h-full min-h-0 flex-col">
	<header class="bg-sheet border-line flex flex-wrap items-center gap-x-4 gap-y-2 border-b px-5 py-3">
		<div class="min-w-0">
			<h1 class="text-[21px] leading-tight">
				{head.paper} <span class="text-ink-2 font-normal">in</span>
				{head.room}{#if head.kind !== 'live'}<span
						class="bg-plum-ground text-plum ml-2 rounded-full px-2.5 py-0.5 align-middle font-sans text-[13px] font-semibold"
						>{head.kind === 'make_up' ? 'Make-up' : 'Rehearsal: counts for nothing'}</span
					>{/if}
			</h1>
			<p class="text-ink-2 text-[14px]">{room.all.length} candidates · {when}</p>
			{#if ready}<p class="text-tide text-[14px] font-semibold" data-testid="ready">{ready}</p>{/if}
		</div>
		<span class="bg-mist text-tide rounded-full px-3 py-0.5 text-[13px] font-semibold">{stage}</span>
		<div class="ml-auto flex flex-wrap items-center gap-2">
			{#if head.endedAt !== null && head.doorCode}
				<span class="text-ink-2 text-[14px]">own windows go on</span>
			{/if}
			{#if head.endedAt === null || head.doorCode}
				{#if head.doorCode && !head.codeHidden}
					<button
						class="bg-mist text-tide rounded-xl px-3.5 py-1.5 font-mono text-[21px] font-semibold"
						title="Hide the code"
						onclick={() => room.session('hide_code')}
						data-testid="door-code">{showDoorCode(head.doorCode)}</button
					>
				{:else}
					<Act onclick={() => room.session('show_code')} testid="show-code"
						>{head.doorCode ? 'Show code' : 'Release code early'}</Act
					>
				{/if}
			{/if}
			{#if head.endedAt === null}
				<Act key="B" href="/live/{head.id}/board">Board</Act>
				{#if head.clockStarts === 'candidate' && head.openedEarlyAt === null && now < head.opens && now >= head.doorOpens}<Act
						onclick={() => room.session('open_early')}
						testid="open-early">Let work begin now</Act
					>{/if}
				{#if head.clockStarts === 'room' && head.roomStartedAt === null}<Act
						tone="main"
						onclick={() => open('start', [])}
						testid="start">Start the room…</Act
					>{/if}
				{#if atDoor.length > 1}<Act tone="main" key="L" onclick={() => letIn(atDoor)}
						>Let in all {atDoor.length} at the door</Act
					>{/if}
				<Act onclick={() => open('minutes_all', [])}>Add time</Act>
				<Act key="I" onclick={() => open('incident', [])}>Incident</Act>
				<Act
					onclick={() =>
						open(
							'hold',
							room.all.filter((seat) => seat.state === 'working')
						)}
					disabled={room.tally.working + room.tally.line_lost === 0}>Hold all</Act
				>
				<Act tone="danger" key="E" onclick={() => open('end', [])} testid="end">End…</Act>
			{:else}
				<Act tone="main" href="/close-out/{head.id}">Open its ledger</Act>
			{/if}
		</div>
	</header>

	{#if room.isStale}
		<p role="alert" class="bg-brick px-5 py-1.5 text-[14px] font-semibold text-on-tide" data-testid="stale">
			The line to the server is down. This is how the room stood at {localTime(room.heardAt, head.zone, true)}; it comes
			back by itself.
		</p>
	{/if}

	<div class="grid min-h-0 flex-1 grid-cols-[250px_1fr_290px] max-lg:grid-cols-1 max-lg:overflow-auto">
		<aside class="border-line overflow-auto border-r px-3.5 py-3.5" aria-label="Needs you">
			<NeedsYou {room} {now} {isMasked} onsettle={settle} />
		</aside>

		<main class="min-h-0 overflow-auto px-3.5 py-3.5">
			<div class="mb-3 flex flex-wrap items-center gap-3">
				<h2 class="text-[17px]">Room</h2>
				<Choose
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
				/>
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
				{:else}<button class="text-ink-3 ml-auto text-[13px]" onclick={() => (keysOpen = true)}
						>arrows move · <kbd class="border-line-strong rounded border px-1.5 font-mono text-[12px]">Space</kbd>
						select · <kbd class="border-line-strong rounded border px-1.5 font-mono text-[12px]">?</kbd> keys</button
					>{/if}
			</div>
			{#if room.all.length === 0}
				<p class="text-ink-3">Nobody is expected here. Add a group under Prepare.</p>
			{:else if view === 'seats'}
				<RoomPlan {room} {now} {isMasked} onselect={toggle} />
			{:else if view === 'answers'}
				<AnswersGrid {room} {isMasked} />
			{:else if view === 'chart'}
				<RoomChart {room} />
			{:else if view === 'incidents'}
				<Incidents {room} {now} onnew={() => open('incident', [])} />
			{:else}
				<SeatList {room} {now} {isMasked} onorder={(seats) => (listed = seats)} />
			{/if}
		</main>

		<aside class="bg-sheet border-line overflow-auto border-l px-4 py-3.5">
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
				<Beside {head} contacts={data.contacts} onhandover={() => open('hand_over', [])} />
			{/if}
		</aside>
	</div>

	<footer
		class="bg-sheet border-line flex flex-wrap items-center gap-x-4 gap-y-1 border-t px-5 py-2.5 text-[14px]"
		data-testid="tally"
	>
		<strong class={accounted === head.expected ? '' : 'text-brick'}>{accounted} of {head.expected} accounted for</strong
		>
		{#each tallyShown as key (key)}
			<button
				class="flex items-center gap-1.5 rounded-full px-2 py-0.5 {room.filter === key
					? 'bg-mist ring-tide ring-1'
					: 'hover:bg-paper'}"
				aria-pressed={room.filter === key}
				onclick={() => (room.filter = room.filter === key ? null : key)}
				ondblclick={() =>
					room.all.filter((seat) => tallyKeyOf(seat) === key).forEach((seat) => room.selected.add(seat.id))}
			>
				<StateGlyph state={key} />{nameOf(key)} <strong>{room.tally[key]}</strong>
			</button>
		{/each}
		{#if room.filter}<Act size="xs" onclick={() => room.shown.forEach((seat) => room.selected.add(seat.id))}
				>Select these {room.shown.length}</Act
			>{/if}
		<span class="text-ink-3 ml-auto"
			>{room.isStale ? 'not live' : 'live'} · last change {clockLength(now - room.changedAt)} ago</span
		>
	</footer>
</div>

<div
	class="fixed bottom-16 left-1/2 z-40 flex -translate-x-1/2 flex-col items-center gap-2"
	role="status"
	aria-live="polite"
	data-testid="notices"
>
	{#each room.notices as notice (notice.id)}
		<p
			class="flex items-center gap-3 rounded-xl px-4 py-2.5 text-[14.5px] font-semibold shadow-lg {notice.tone ===
			'done'
				? 'bg-tide-deep text-[#f6f2e8]'
				: 'bg-brick text-on-tide'}"
		>
			{notice.text}
			{#if notice.undo}<button
					class="rounded-md border border-current/50 px-2 py-0.5"
					onclick={() => {
						room.dismiss(notice.id);
						void notice.undo!();
					}}>Undo <kbd class="font-mono text-[12px]">Z</kbd></button
				>{/if}
			<button aria-label="Dismiss" onclick={() => room.dismiss(notice.id)}>×</button>
		</p>
	{/each}
</div>

<Keys bind:open={keysOpen} coordinates={data.coordinates} />
{#if ask?.kind === 'end'}
	<AskEnd {room} onclose={() => (ask = null)} />
{:else if ask?.kind === 'count_answers'}
	<AskCount {room} seat={ask.seats[0]} onclose={() => (ask = null)} />
{:else if ask?.kind === 'find'}
	<FindSomebody {room} onclose={() => (ask = null)} />
{:else if ask?.kind === 'start'}
	<AskStart {room} {now} onclose={() => (ask = null)} />
{:else if ask?.kind === 'minutes' || ask?.kind === 'minutes_all'}
	<AskMinutes {room} seats={ask.kind === 'minutes_all' ? null : ask.seats} {now} onclose={() => (ask = null)} />
{:else if ask?.kind === 'message'}
	<AskMessage {room} seats={ask.seats} onclose={() => (ask = null)} />
{:else if ask?.kind === 'incident'}
	<AskIncident {room} seats={ask.seats} {now} onclose={() => (ask = null)} />
{:else if ask?.kind === 'hand_over'}
	<AskHandOver {room} onclose={() => (ask = null)} />
{:else if ask}
	<AskReason
		{room}
		kind={(ask.kind === 'let_in_all' ? 'let_in' : ask.kind) as keyof typeof ASKS}
		seats={ask.seats}
		onclose={() => (ask = null)}
	/>
{/if}
