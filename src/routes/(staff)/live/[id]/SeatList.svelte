<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { remainingNow, tallyKeyOf, type SeatView } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import { localTime } from '$core/time';
	import { clockLength } from '$ui/durations';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, now, isMasked }: { room: LiveRoom; now: number; isMasked: boolean } = $props();

	type Column = 'name' | 'seat' | 'state' | 'answered' | 'remaining';
	let by = $state<Column>('seat');
	let down = $state(false);
	const value: Record<Column, (seat: SeatView) => string | number> = {
		name: (seat) => seat.name,
		seat: (seat) => (seat.seat ? `${seat.seat[0]}${seat.seat.slice(1).padStart(3, '0')}` : 'zz'),
		state: (seat) => tallyKeyOf(seat),
		answered: (seat) => seat.answered,
		remaining: (seat) => remainingNow(seat, now) ?? Infinity
	};
	const rows = $derived(
		[...room.shown].sort((a, b) => {
			const [x, y] = [value[by](a), value[by](b)];
			const order = typeof x === 'number' ? x - (y as number) : x.localeCompare(y as string);
			return (down ? -order : order) || a.number.localeCompare(b.number);
		})
	);
	const columns: { key: Column; name: string }[] = [
		{ key: 'seat', name: 'Seat' },
		{ key: 'name', name: 'Candidate' },
		{ key: 'state', name: 'State' },
		{ key: 'answered', name: 'Answered' },
		{ key: 'remaining', name: 'Left' }
	];
	const sort = (key: Column) => {
		if (by === key) down = !down;
		else [by, down] = [key, false];
	};
	const isAtWork = (seat: SeatView) => ['working', 'line_lost', 'on_hold'].includes(tallyKeyOf(seat));
</script>

<Table class="text-ink text-[14px]" hoverable>
	<TableHead class="bg-paper text-ink-2 text-[13px] normal-case">
		<TableHeadCell class="w-8 p-2"><span class="sr-only">Selected</span></TableHeadCell>
		{#each columns as column (column.key)}
			<TableHeadCell
				class="p-2 font-semibold"
				aria-sort={by === column.key ? (down ? 'descending' : 'ascending') : 'none'}
			>
				<button type="button" onclick={() => sort(column.key)}
					>{column.name} <span aria-hidden="true">{by === column.key ? (down ? '↓' : '↑') : ''}</span></button
				>
			</TableHeadCell>
		{/each}
		<TableHeadCell class="p-2 font-semibold">Given</TableHeadCell>
	</TableHead>
	<TableBody>
		{#each rows as seat (seat.id)}
			{@const key = tallyKeyOf(seat)}
			<TableBodyRow
				class="border-line cursor-pointer {room.focusId === seat.id ? 'bg-mist' : 'bg-sheet'}"
				onclick={() => (room.focusId = seat.id)}
			>
				<TableBodyCell class="p-2">
					<input
						type="checkbox"
						class="border-line-strong text-tide h-4 w-4 rounded"
						aria-label="Select {isMasked ? seat.number : seat.name}"
						checked={room.selected.has(seat.id)}
						onclick={(event) => event.stopPropagation()}
						onchange={() => (room.selected.has(seat.id) ? room.selected.delete(seat.id) : room.selected.add(seat.id))}
					/>
				</TableBodyCell>
				<TableBodyCell class="text-ink-2 p-2 font-mono">{seat.seat ?? '–'}</TableBodyCell>
				<TableBodyCell class="p-2 font-semibold"
					>{isMasked ? '' : seat.name}
					<span class="text-ink-3 font-mono font-normal">{seat.number}</span></TableBodyCell
				>
				<TableBodyCell class="p-2"
					><span class="flex items-center gap-2"
						><StateGlyph state={key} />{key === 'line_lost' ? 'Line lost' : STATE_NAMES[seat.state]}<span
							class="text-ink-3">{localTime(key === 'line_lost' ? seat.line!.since : seat.since, room.head.zone)}</span
						></span
					></TableBodyCell
				>
				<TableBodyCell class="p-2 tabular-nums"
					>{seat.answered} of {room.head.questions}{seat.marked > 0 ? `, ${seat.marked} marked` : ''}</TableBodyCell
				>
				<TableBodyCell class="p-2 font-mono"
					>{isAtWork(seat) && seat.remaining !== null ? clockLength(remainingNow(seat, now)!) : ''}</TableBodyCell
				>
				<TableBodyCell class="text-plum p-2 font-semibold"
					>{seat.extra ?? ''}{seat.ownWindow ? ' own window' : ''}</TableBodyCell
				>
			</TableBodyRow>
		{/each}
	</TableBody>
</Table>
