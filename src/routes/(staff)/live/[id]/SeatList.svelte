<!-- @component The room as a list: columns as chosen, sorted by any of them; only the rows in view are drawn. -->
<script lang="ts">
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { onMount, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { tallyKeyOf, type SeatView } from '$core/room';
	import { timeAndDate } from '$core/time';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { ALWAYS, COLUMNS, sorted } from './list-columns';
	import type { LiveRoom } from './room.svelte';
	import { keepIn, keptIn } from '$ui/browser-storage';

	type Props = {
		room: LiveRoom;
		now: number;
		isMasked: boolean;
		/** The order on screen, for the arrow keys. */
		onorder: (seats: SeatView[]) => void;
		/** It was pressed: it is looked at closely. */
		onopen: (seat: SeatView) => void;
	};
	let { room, now, isMasked, onorder, onopen }: Props = $props();

	const KEPT_AS = 'otium list columns';
	const chosen = new SvelteSet(COLUMNS.filter((column) => column.byDefault).map((column) => column.key));
	onMount(() => {
		const kept = keptIn<string[]>('localStorage', KEPT_AS);
		if (!kept) return;
		chosen.clear();
		for (const key of [...ALWAYS, ...kept]) chosen.add(key);
	});
	function choose(key: string, on: boolean) {
		if (on) chosen.add(key);
		else chosen.delete(key);
		keepIn('localStorage', KEPT_AS, [...chosen]);
	}
	const columns = $derived(COLUMNS.filter((column) => chosen.has(column.key)));

	let by = $state.raw(COLUMNS[0]);
	let down = $state(false);
	const rows = $derived(sorted(room.shown, by, down, now, room.head));
	$effect(() => onorder(rows));
	const sort = (column: (typeof COLUMNS)[number]) => {
		if (by === column) down = !down;
		else [by, down] = [column, false];
	};

	let scroller = $state<HTMLElement>();
	const ROW_PX = 37;
	const virtual = createVirtualizer<HTMLElement, HTMLElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => ROW_PX,
		overscan: 20
	});
	$effect(() => {
		const count = rows.length;
		const element = scroller;
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => element ?? null }));
	});
	const items = $derived($virtual.getVirtualItems());
	const above = $derived(items[0]?.start ?? 0);
	const below = $derived($virtual.getTotalSize() - (items.at(-1)?.end ?? 0));
	// Whoever is reached by the arrows is brought into view, also when their row was not drawn.
	const focused = $derived(rows.findIndex((seat) => seat.id === room.focusId));
	$effect(() => {
		if (focused >= 0) untrack(() => $virtual.scrollToIndex(focused, { align: 'auto' }));
	});
</script>

<div
	class="bg-sheet border-line overflow-auto rounded-xl border"
	style="max-height:calc(100vh - 310px)"
	bind:this={scroller}
>
	<table class="text-ink w-full text-left text-[14px] whitespace-nowrap" aria-rowcount={rows.length + 1}>
		<thead class="bg-paper text-ink-2 sticky top-0 z-10 text-[13px]">
			<tr>
				<th class="w-8 p-2"><span class="sr-only">Selected</span></th>
				{#each columns as column (column.key)}
					<th
						class="p-2 font-semibold"
						scope="col"
						aria-sort={by === column ? (down ? 'descending' : 'ascending') : 'none'}
					>
						<button type="button" data-keyed onclick={() => sort(column)}
							>{column.name} <span aria-hidden="true">{by === column ? (down ? '↓' : '↑') : ''}</span></button
						>
					</th>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#if above > 0}<tr aria-hidden="true" style="height:{above}px"><td></td></tr>{/if}
			{#each items as item (rows[item.index]?.id ?? item.key)}
				{@const seat = rows[item.index]}
				{#if seat}
					{@const key = tallyKeyOf(seat)}
					<tr
						class="border-line cursor-pointer border-t {room.focusId === seat.id ? 'bg-mist' : 'hover:bg-paper'}"
						style="height:{ROW_PX}px"
						aria-rowindex={item.index + 2}
						onclick={() => onopen(seat)}
					>
						<td class="p-2">
							<input
								type="checkbox"
								data-keyed
								class="border-line-strong text-tide h-4 w-4 rounded"
								aria-label="Select {isMasked ? seat.number : seat.name}"
								checked={room.selected.has(seat.id)}
								onclick={(event) => event.stopPropagation()}
								onchange={() =>
									room.selected.has(seat.id) ? room.selected.delete(seat.id) : room.selected.add(seat.id)}
							/>
						</td>
						{#each columns as column (column.key)}
							<td class="p-2 {column.look ?? ''}">
								{#if column.key === 'name'}
									<button
										type="button"
										class="font-semibold"
										data-seat={seat.id}
										onfocus={() => (room.focusId = seat.id)}
										>{isMasked ? '' : seat.name}
										<span class="text-ink-3 font-mono font-normal">{seat.number}</span></button
									>
								{:else if column.key === 'state'}
									<span class="flex items-center gap-2"
										><StateGlyph state={key} />{column.text(
											seat,
											now,
											room.head,
											room.progress.get(seat.id) ?? null
										)}{#if key !== 'expected'}<span class="text-ink-3"
												>{timeAndDate(key === 'line_lost' ? seat.line!.since : seat.since, room.head.zone, now)}</span
											>{/if}</span
									>
								{:else}{column.text(seat, now, room.head, room.progress.get(seat.id) ?? null)}{/if}
							</td>
						{/each}
					</tr>
				{/if}
			{/each}
			{#if below > 0}<tr aria-hidden="true" style="height:{below}px"><td></td></tr>{/if}
		</tbody>
	</table>
</div>
<details class="mt-2 text-[13.5px]">
	<summary class="text-tide cursor-pointer font-semibold">Columns</summary>
	<fieldset class="mt-1.5 flex flex-wrap gap-x-4 gap-y-1.5">
		<legend class="sr-only">Columns to show</legend>
		{#each COLUMNS.filter((column) => !ALWAYS.includes(column.key)) as column (column.key)}
			<label class="flex items-center gap-1.5"
				><input
					type="checkbox"
					class="border-line-strong text-tide h-4 w-4 rounded"
					checked={chosen.has(column.key)}
					onchange={(event) => choose(column.key, event.currentTarget.checked)}
				/>{column.name}</label
			>
		{/each}
	</fieldset>
</details>
