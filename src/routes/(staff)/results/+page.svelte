<!-- @component Results that were released to somebody's role: by name for those who were with the candidates, else in sum. -->
<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { median } from '$core/figures';
	import { byTenths } from '$core/results';
	import { timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';

	let { data } = $props();
	const clock = getClock();
	let chosen = $state('');
	const one = $derived(data.released.find(({ id }) => id === chosen) ?? data.released[0]);
	/** How many reached each tenth of the points. */
	const tenths = $derived(byTenths(one?.shares ?? []));
	const most = $derived(Math.max(1, ...tenths));
	const middle = $derived(median(one?.shares ?? []) ?? 0);
</script>

<svelte:head><title>Results · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Results</h1>
		{#if data.released.length > 1}<div class="ml-auto w-96">
				<Select
					aria-label="Paper"
					placeholder=""
					value={one?.id}
					onchange={(event) => (chosen = (event.target as HTMLSelectElement).value)}
					items={data.released.map(({ id, paper, administration }) => ({
						value: id,
						name: `${paper}, ${administration}`
					}))}
				/>
			</div>{/if}
	</div>
	{#if !one}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			No results have been released to you. Whoever releases them says to whom.
		</p>
	{:else}
		<p class="text-ink-2" data-testid="released-to-me">
			<strong>{one.paper}</strong>, {one.administration}: {one.of === 1 ? 'one result' : `${one.of} results`}, out since
			{timeAndDate(one.since, data.site.zone, clock.now)}. The middle one reached {Math.round(middle * 100)} %.
		</p>
		<section class="bg-sheet border-line mt-4 rounded-2xl border p-5">
			<h2 class="text-[17px]">How many reached how much</h2>
			<ol class="mt-3 flex h-28 items-end gap-1.5" aria-label="Results by tenths of the points">
				{#each tenths as count, i (i)}
					<li class="flex h-full flex-1 flex-col justify-end text-center text-[12.5px]">
						<span class="text-ink-2">{count || ''}</span>
						<span class="bg-tide block rounded-t" style="height:{(count / most) * 70}%"></span>
						<span class="text-ink-2 border-line border-t"
							>{i * 10}<span class="sr-only"> to {i * 10 + 10} %: {count}</span></span
						>
					</li>
				{/each}
			</ol>
		</section>
		{#if one.lines}
			<!-- Who reads by keys scrolls it by keys. -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<div
				class="border-line mt-4 overflow-x-auto rounded-2xl border"
				role="region"
				aria-label="All results"
				tabindex="0"
			>
				<Table class="text-ink text-[14.5px]">
					<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
						{#each ['Candidate', 'Session', 'Points', ''] as title (title)}<TableHeadCell
								class="px-4 py-2.5 font-semibold">{title}</TableHeadCell
							>{/each}
					</TableHead>
					<TableBody>
						{#each one.lines as line (line.number + line.session)}
							<TableBodyRow class="bg-sheet border-line">
								<TableBodyCell class="px-4 py-2"
									><strong>{line.name}</strong>
									<span class="text-ink-3 font-mono text-[13px]">{line.number}</span></TableBodyCell
								>
								<TableBodyCell class="text-ink-2 px-4 py-2 whitespace-normal">{line.session}</TableBodyCell>
								<TableBodyCell class="px-4 py-2">{line.points}, {line.percent}</TableBodyCell>
								<TableBodyCell class="px-4 py-2">{line.outcome}</TableBodyCell>
							</TableBodyRow>
						{/each}
					</TableBody>
				</Table>
			</div>
		{:else}
			<p class="text-ink-2 mt-3 text-[14.5px]">Names are read by those who were with the candidates.</p>
		{/if}
	{/if}
</main>
