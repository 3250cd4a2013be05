<!-- @component The seats as they stand in the room. A card can be dragged to another seat; Alt and an arrow does the same. -->
<script lang="ts">
	import { seatRows } from '$core/seating';
	import type { SeatView } from '$core/room';
	import type { LiveRoom } from './room.svelte';
	import SeatCard from './SeatCard.svelte';

	type Props = { room: LiveRoom; now: number; isMasked: boolean; onselect: (seat: SeatView) => void };
	let { room, now, isMasked, onselect }: Props = $props();

	const head = $derived(room.head);
	/** Wider rooms than a screen can show seat by seat, and filtered ones, flow. */
	const isPlan = $derived(
		room.filter === null && head.seatsPerRow <= 10 && room.all.every((seat) => seat.seat !== null)
	);
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
	function onkeydown(event: KeyboardEvent) {
		if (!event.altKey || !event.key.startsWith('Arrow') || !room.focus?.seat || !isPlan) return;
		event.preventDefault();
		const rows = seatRows(head.rows, head.seatsPerRow);
		const row = rows.findIndex((names) => names.includes(room.focus!.seat!));
		const column = rows[row]?.indexOf(room.focus.seat);
		const [down, right] = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key]!;
		const to = rows[row + down]?.[column + right];
		if (to) void room.reseat(room.focus, to);
	}
</script>

<svelte:window {onkeydown} />
{#snippet card(seat: SeatView)}
	<SeatCard
		{seat}
		questions={head.questions}
		zone={head.zone}
		{now}
		{isMasked}
		isTight={head.seatsPerRow > 6}
		isFocus={room.focusId === seat.id}
		isSelected={room.selected.has(seat.id)}
		onfocus={() => (room.focusId = seat.id)}
		onselect={() => onselect(seat)}
	/>
{/snippet}

<div
	class="grid gap-2"
	style="grid-template-columns: repeat({isPlan ? head.seatsPerRow : Math.min(head.seatsPerRow, 8)}, minmax(0, 1fr))"
	data-testid="seats"
>
	{#if isPlan}
		{#each plan.flat() as name (name)}
			{@const seat = bySeat.get(name)}
			<div
				role="group"
				aria-label="Seat {name}"
				class="grid rounded-xl {over === name ? 'outline-plum outline-[2.5px] outline-dashed' : ''}"
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
						class="border-line text-ink-3 grid min-h-11 place-items-center rounded-xl border border-dashed font-mono text-[12px]"
						>{name}</span
					>{/if}
			</div>
		{/each}
	{:else}
		{#each room.shown as seat (seat.id)}{@render card(seat)}{/each}
	{/if}
</div>
