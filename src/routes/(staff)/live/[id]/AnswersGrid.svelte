<!-- @component Who is on which question and which are open: a row a candidate, a cell a question as they see it. -->
<script lang="ts">
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { untrack } from 'svelte';
	import { SvelteMap } from 'svelte/reactivity';
	import { tallyKeyOf, type GridRow, type SeatView } from '$core/room';
	import { send } from '$ui/post';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import type { LiveRoom } from './room.svelte';

	/** `onopen`: it was pressed, and is looked at closely. */
	type Props = { room: LiveRoom; isMasked: boolean; onopen: (seat: SeatView) => void };
	let { room, isMasked, onopen }: Props = $props();

	const rows = new SvelteMap<string, GridRow['cells']>();
	let trouble = $state<string | null>(null);
	let isLoaded = $state(false);
	/** How each stood when its row was read: whoever has moved since is read again. */
	let read = new Map<string, string>();
	const standing = (id: string) => {
		const seat = room.seats.get(id);
		return seat ? `${seat.answered} ${seat.marked} ${seat.begun}` : '';
	};
	const GATHER_MS = 1_200;
	const AT_ONCE = 400;

	async function load(only?: string[]) {
		const ids = only ?? [...room.seats.keys()];
		const seen = new Map(ids.map((id) => [id, standing(id)]));
		const query = only ? `?only=${only.join(',')}` : '';
		const answer = await send<{ rows: GridRow[] }>('GET', `/live/${room.sessionId}/answers${query}`);
		trouble = answer.ok ? null : answer.problem.message;
		if (!answer.ok) return;
		for (const row of answer.data.rows) rows.set(row.sittingId, row.cells);
		read = new Map([...read, ...seen]);
		isLoaded = true;
	}
	$effect(() => {
		untrack(() => void load());
		const timer = setInterval(() => {
			const changed = [...room.seats.keys()].filter((id) => read.get(id) !== standing(id)).slice(0, AT_ONCE);
			if (isLoaded && changed.length > 0) void load(changed);
		}, GATHER_MS);
		return () => clearInterval(timer);
	});

	const seats = $derived(room.shown);
	let scroller = $state<HTMLElement>();
	const ROW_PX = 34;
	const virtual = createVirtualizer<HTMLElement, HTMLElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => ROW_PX,
		overscan: 12
	});
	$effect(() => {
		const count = seats.length;
		const element = scroller;
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => element ?? null }));
	});
	const blanksAt = $derived(
		Array.from({ length: room.head.questions }, (_, i) => {
			let open = 0;
			for (const seat of seats) if (seat.begun && !rows.get(seat.id)?.[i]?.answered) open++;
			return open;
		})
	);
	const most = $derived(Math.max(1, ...blanksAt));
</script>

{#if trouble}<p class="text-brick mb-2 text-[14px]">{trouble}</p>{/if}
<p class="text-ink-2 mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]" aria-hidden="true">
	<span class="flex items-center gap-1.5"><i class="cell answered"></i>answered</span>
	<span class="flex items-center gap-1.5"><i class="cell"></i>blank</span>
	<span class="flex items-center gap-1.5"><i class="cell answered changed"></i>changed</span>
	<span class="flex items-center gap-1.5"><i class="cell marked"></i>marked for later</span>
	<span class="flex items-center gap-1.5"><i class="cell here"></i>on screen now</span>
	<span class="text-ink-3 ml-auto">Columns are each candidate’s own order.</span>
</p>
{#if !isLoaded && !trouble}
	<p class="text-ink-3">One moment…</p>
{:else}
	<div
		class="bg-sheet border-line overflow-auto rounded-xl border"
		style="max-height:calc(100vh - 365px)"
		bind:this={scroller}
		data-testid="grid"
		role="table"
		aria-label="Answers"
		aria-rowcount={seats.length}
	>
		<div class="relative" style="height:{$virtual.getTotalSize()}px; min-width:{190 + 22 * room.head.questions}px">
			{#each $virtual.getVirtualItems() as item (item.key)}
				{@const seat = seats[item.index]}
				{#if seat}
					{@const cells = rows.get(seat.id)}
					<div
						class="absolute inset-x-0 flex items-center border-b {room.focusId === seat.id ? 'bg-mist' : ''}"
						style="height:{ROW_PX}px; transform:translateY({item.start}px); border-color:var(--line)"
						role="row"
					>
						<button
							class="bg-inherit sticky left-0 flex w-[180px] shrink-0 items-center gap-2 truncate px-3 text-left text-[13.5px]"
							role="rowheader"
							data-seat={seat.id}
							onfocus={() => (room.focusId = seat.id)}
							onclick={() => onopen(seat)}
						>
							<StateGlyph state={tallyKeyOf(seat)} size={13} />
							<span class="truncate font-semibold">{isMasked ? seat.number : seat.name}</span>
						</button>
						{#if cells}
							{#each cells as cell, i (i)}
								<i
									class="cell"
									class:answered={cell.answered}
									class:marked={cell.marked}
									class:changed={cell.changed}
									class:here={seat.at === i && seat.state === 'working'}
									role="cell"
									title="Question {i + 1}: {cell.answered ? 'answered' : 'blank'}{cell.changed
										? ', changed'
										: ''}{cell.marked ? ', marked' : ''}{seat.at === i ? ', on screen' : ''}"
									aria-label="Question {i + 1} {cell.answered ? 'answered' : 'blank'}"
								></i>
							{/each}
						{:else}<span class="text-ink-3 text-[13px]">not begun</span>{/if}
					</div>
				{/if}
			{/each}
		</div>
	</div>
	<div
		class="text-ink-3 mt-2 flex items-end pl-[180px] text-[11px]"
		aria-label="How many still have each place of the paper open"
	>
		{#each blanksAt as open, i (i)}
			<span class="flex w-[22px] flex-col items-center" title="{open} have place {i + 1} open">
				<span class="bg-ochre-mark/70 w-2.5 rounded-t" style="height:{Math.round((22 * open) / most)}px"></span>{i + 1}
			</span>
		{/each}
	</div>
{/if}

<style>
	.cell {
		position: relative;
		display: inline-block;
		flex: none;
		width: 18px;
		height: 18px;
		margin: 0 2px;
		border: 1px solid var(--line-strong);
		border-radius: 4px;
		background: var(--paper);
	}
	.answered {
		background: var(--tide);
		border-color: var(--tide);
	}
	/* Shape tells as well as colour: a notch for changed, a foot for marked, a ring for where they are. */
	.changed::after {
		content: '';
		position: absolute;
		inset: 0 0 auto auto;
		border: 4.5px solid transparent;
		border-top-color: var(--sheet);
		border-right-color: var(--sheet);
	}
	.marked {
		box-shadow: inset 0 -5px 0 var(--ochre-mark);
	}
	.here {
		outline: 2.5px solid var(--plum);
		outline-offset: 1px;
	}
</style>
