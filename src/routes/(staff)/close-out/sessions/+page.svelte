<script lang="ts">
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import type { LedgerColumn } from '$core/closing';
	import { getClock } from '$ui/clock-context';
	import { COLUMN_NAMES } from '../columns';
	import { timeInFull } from '$ui/zone-beside';
	let { data } = $props();
	const clock = getClock();
	const total = (key: LedgerColumn) => data.rows.reduce((sum, row) => sum + row.columns[key], 0);
	const expected = $derived(data.rows.reduce((sum, row) => sum + row.expected, 0));
	const addsUp = $derived(data.rows.every((row) => row.addsUp));
</script>

<svelte:head><title>Sessions · Close-out · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<h1 class="text-[28px]">Sessions</h1>
	<p class="text-ink-2 mb-4">
		Every expected candidate is in exactly one column. {addsUp
			? 'The sums agree with the rosters.'
			: 'Some sums do not agree with the roster: see the marked rows.'}
	</p>
	{#if data.rows.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			{data.here ? `No session of ${data.here.name} has begun yet.` : 'No session has begun yet.'}
		</p>
	{:else}
		<div class="border-line overflow-x-auto rounded-2xl border">
			<Table class="text-ink text-[14.5px]">
				<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
					<TableHeadCell class="px-4 py-2.5 font-semibold">Session</TableHeadCell>
					<TableHeadCell class="px-3 py-2.5 text-right font-semibold">Expected</TableHeadCell>
					{#each COLUMN_NAMES as column (column.key)}<TableHeadCell class="px-3 py-2.5 text-right font-semibold"
							>{column.name}</TableHeadCell
						>{/each}
					<TableHeadCell class="px-3 py-2.5 font-semibold">Sum</TableHeadCell>
				</TableHead>
				<TableBody>
					{#each data.rows as row (row.id)}
						<TableBodyRow class="bg-sheet border-line">
							<TableBodyCell class="px-4 py-2.5 whitespace-normal"
								><a class="text-tide font-semibold underline" href="/close-out/{row.id}">{row.name}</a><span
									class="text-ink-3 block text-[13px]"
									>{row.room}, {row.site} · {timeInFull(row.opens, row.zone, clock.now)}{row.ended
										? ''
										: ' · still running'}</span
								></TableBodyCell
							>
							<TableBodyCell class="px-3 py-2.5 text-right font-mono font-semibold">{row.expected}</TableBodyCell>
							{#each COLUMN_NAMES as column (column.key)}<TableBodyCell
									class="px-3 py-2.5 text-right font-mono {row.columns[column.key] === 0
										? 'text-ink-3'
										: column.key === 'still_open'
											? 'text-ochre font-semibold'
											: ''}">{row.columns[column.key] || '·'}</TableBodyCell
								>{/each}
							<TableBodyCell class="px-3 py-2.5"
								>{#if row.addsUp}<span class="text-tide font-semibold">✓ adds up</span>{:else}<span
										class="text-brick font-semibold">! does not</span
									>{/if}</TableBodyCell
							>
						</TableBodyRow>
					{/each}
					<TableBodyRow class="bg-paper border-line font-semibold">
						<TableBodyCell class="px-4 py-2.5">All of these</TableBodyCell>
						<TableBodyCell class="px-3 py-2.5 text-right font-mono">{expected}</TableBodyCell>
						{#each COLUMN_NAMES as column (column.key)}<TableBodyCell class="px-3 py-2.5 text-right font-mono"
								>{total(column.key)}</TableBodyCell
							>{/each}
						<TableBodyCell class="px-3 py-2.5"></TableBodyCell>
					</TableBodyRow>
				</TableBody>
			</Table>
		</div>
	{/if}
</main>
