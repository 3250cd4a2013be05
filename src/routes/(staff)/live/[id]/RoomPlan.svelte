<!-- @component The seats as they stand in the room. A card can be dragged to another seat; Alt and an arrow does the same. -->
<script lang="ts">
	import { seatRows } from '$core/seating';
	import type { SeatView } from '$core/room';
	import type { LiveRoom } from './room.svelte';
	import SeatCard from './SeatCard.svelte';
	import SeatDot from './SeatDot.svelte';
	import Shortcuts from '$ui/Shortcuts.svelte';

	type Props = {
		room: LiveRoom;
		now: number;
		isMasked: boolean;
		onselect: (seat: SeatView) => void;
		/** It was pressed: it is looked at closely. */
		onopen: (seat: SeatView) => void;
	};
	let { room, now, isMasked, onselect, onopen }: Props = $props();

	const head = $derived(room.head);
	/** Filtered rooms flow, and those where nobody has a seat. */
	const isPlan = $derived(room.filter === null && room.all.some((seat) => seat.seat !== null));
	/** Who is in the session and not in the room's plan. */
	const beside = $derived(isPlan ? room.all.filter((seat) => seat.seat === null) : []);
	/** More seats a row than cards have room beside each other: a shape for each, so that the whole room is seen. */
	const isDense = $derived(isPlan && head.seatsPerRow > 10);
	const bySeat = $derived(new Map(room.all.map((seat) => [seat.seat, seat])));
	/** The rows up to the last one that anybody sits in, and one more to move into. */
	const plan = $derived.by(() => {
		const rows = seatRows(head.rows, head.seatsPerRow);
		const last = rows.findLastIndex((row) => row.some((name) => bySeat.has(name)));
		return rows.slice(0, last + 2);
	});
	let dragged = $state<SeatView | null>(null);
	let over = $state<string | null>(null);

	function drop(to: string) {
		if (dragged) void room.reseat(dragged, to);
		dragged = over = null;
	}
	/** Moves the one that is chosen to the next seat in that direction. */
	function reseat(down: number, right: number) {
		if (!room.focus?.seat || !isPlan) return;
		const rows = seatRows(head.rows, head.seatsPerRow);
		const row = rows.findIndex((names) => names.includes(room.focus!.seat!));
		const column = rows[row]?.indexOf(room.focus.seat);
		const to = rows[row + down]?.[column + right];
		if (to) void room.reseat(room.focus, to);
	}
</script>

<Shortcuts
	combined={{
		'Alt+ArrowUp': () => reseat(-1, 0),
		'Alt+ArrowDown': () => reseat(1, 0),
		'Alt+ArrowLeft': () => reseat(0, -1),
		'Alt+ArrowRight': () => reseat(0, 1)
	}}
/>
{#snippet card(seat: SeatView)}
	{@const shared = {
		seat,
		questions: head.questions,
		progress: room.progress.get(seat.id) ?? null,
		isMasked,
		isFocus: room.focusId === seat.id,
		isSelected: room.selected.has(seat.id),
		onfocus: () => (room.focusId = seat.id),
		onselect: () => onselect(seat),
		onopen: () => onopen(seat)
	}}
	{#if isDense}<SeatDot {...shared} />{:else}<SeatCard
			{...shared}
			zone={head.zone}
			{now}
			isTight={head.seatsPerRow > 6}
		/>{/if}
{/snippet}

<!-- A thousand seats are a layer of their own: scrolling moves it and redraws none of them (15 frames a second without). -->
<div
	class="grid will-change-transform {isDense ? 'gap-1 overflow-x-auto p-1' : 'gap-2'}"
	style="grid-template-columns: repeat({isPlan ? head.seatsPerRow : Math.min(head.seatsPerRow, 8)}, minmax({isDense
		? '30px'
		: 0}, 1fr))"
	data-testid="seats"
>
	{#if isPlan}
		{#each plan.flat() as name (name)}
			{@const seat = bySeat.get(name)}
			<div
				role="group"
				aria-label="Seat {name}"
				class="grid grid-cols-[minmax(0,1fr)] rounded-xl {over === name
					? 'outline-plum outline-[2.5px] outline-dashed'
					: ''}"
				draggable={seat !== undefined && !seat.movedOn}
				ondragstart={() => (dragged = seat ?? null)}
				ondragend={() => (dragged = over = null)}
				ondragover={(event) => {
					if (!dragged || dragged.seat === name) return;
					event.preventDefault();
					over = name;
				}}
				ondragleave={() => (over = null)}
				ondrop={(event) => {
					event.preventDefault();
					drop(name);
				}}
			>
				{#if seat}{@render card(seat)}{:else}<span
						class="border-line text-ink-3 grid min-h-11 place-items-center rounded-xl border border-dashed font-mono {isDense
							? 'text-[10.5px]'
							: 'text-[12px]'}">{name}</span
					>{/if}
			</div>
		{/each}
	{:else}
		{#each room.shown as seat (seat.id)}{@render card(seat)}{/each}
	{/if}
</div>
{#if beside.length > 0}
	<h2 class="text-ink-2 mt-4 mb-1.5 text-[14px] font-semibold">
		{beside.every((seat) => seat.elsewhere) ? 'Elsewhere' : 'Without a seat'} · {beside.length}
	</h2>
	<div
		class="grid gap-2"
		style="grid-template-columns: repeat({Math.min(head.seatsPerRow, 8)}, minmax({isDense ? '30px' : 0}, 1fr))"
		data-testid="beside-the-plan"
	>
		{#each beside as seat (seat.id)}{@render card(seat)}{/each}
	</div>
{/if}
