<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { goto, invalidateAll } from '$app/navigation';
	import { OWED_WHY, owedFor } from '$core/owed';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import GrantsHead from '../GrantsHead.svelte';
	import Settle from './Settle.svelte';
	import type { PageData } from './$types';
	import { timeInFull } from '$ui/zone-beside';

	type Owed = PageData['owed'][number];
	let { data } = $props();
	const clock = getClock();
	const picked = new SvelteSet<string>();
	let how = $state<'make_up' | 'join' | 'waive' | null>(null);
	let told = $state<string | null>(null);
	let trouble = $state<string | null>(null);

	const keyOf = (one: Owed) => `${one.paper.id} ${one.session.siteId}`;
	const owed = $derived(data.owed.filter((one) => one.state === 'owed'));
	const arranged = $derived(data.owed.filter((one) => one.state === 'arranged'));
	const waived = $derived(data.owed.filter((one) => one.state === 'waived'));
	const chosen = $derived(owed.filter((one) => picked.has(one.sittingId)));
	const papers = $derived(new Set(chosen.map(keyOf)));
	/** Those of one paper at one site: what a make-up is made for. */
	const byPaper = $derived([...new Set(owed.map(keyOf))].map((key) => owed.filter((one) => keyOf(one) === key)));
	const isLong = (one: Owed) => clock.now - one.since > 3 * 86_400_000;

	function toggle(ids: string[], on: boolean) {
		for (const id of ids)
			if (on) picked.add(id);
			else picked.delete(id);
	}
	async function takeBack(one: Owed) {
		const answer = await send('POST', '/grants/owed', { act: 'take_back', sittingId: one.sittingId });
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
	}
	async function settled(words: string) {
		how = null;
		told = words;
		picked.clear();
		await invalidateAll();
	}
</script>

<svelte:head><title>Owed · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-5">
	<GrantsHead counts={data.counts} />
	<p class="text-ink-2 mb-4">
		Everyone who was absent, was carried over, or is to sit again, until they have sat, or somebody decides that they
		need not. Nothing here is entered by hand.
	</p>
	{#if told}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2" data-testid="settled">{told}</p>{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if owed.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">Nobody is owed a sitting.</p>
	{/if}
	{#each byPaper as group (keyOf(group[0]))}
		{@const ids = group.map((one) => one.sittingId)}
		<section class="border-line mb-4 overflow-x-auto rounded-2xl border">
			<!-- The same columns in each, one under the other. -->
			<Table class="text-ink min-w-[820px] table-fixed text-[14.5px]">
				<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
					<TableHeadCell class="w-12 px-3.5 py-2.5"
						><Checkbox
							aria-label="All who are owed {group[0].paper.title}"
							checked={ids.every((id) => picked.has(id))}
							onchange={(event) => toggle(ids, (event.currentTarget as HTMLInputElement).checked)}
						/></TableHeadCell
					>
					<TableHeadCell class="w-[24%] px-2 py-2.5 font-semibold">{group[0].paper.title}, {group.length}</TableHeadCell
					>
					<TableHeadCell class="w-[15%] px-3 py-2.5 font-semibold">Why</TableHeadCell>
					<TableHeadCell class="px-3 py-2.5 font-semibold">Missed</TableHeadCell>
					<TableHeadCell class="w-[13%] px-3 py-2.5 font-semibold">Owed</TableHeadCell>
					<TableHeadCell class="w-40 px-3 py-2.5"><span class="sr-only">For one</span></TableHeadCell>
				</TableHead>
				<TableBody>
					{#each group as one (one.sittingId)}
						<TableBodyRow class="border-line {picked.has(one.sittingId) ? 'bg-plum-ground' : 'bg-sheet'}">
							<TableBodyCell class="px-3.5 py-2"
								><Checkbox
									aria-label={one.name}
									checked={picked.has(one.sittingId)}
									onchange={(event) => toggle([one.sittingId], (event.currentTarget as HTMLInputElement).checked)}
								/></TableBodyCell
							>
							<TableBodyCell class="px-2 py-2"
								><strong>{one.name}</strong><span class="text-ink-3 block font-mono text-[13px]">{one.number}</span
								></TableBodyCell
							>
							<TableBodyCell class="px-3 py-2 whitespace-normal"
								>{OWED_WHY[one.why]}{#if one.why === 'carried_over'}<span class="text-ink-3 block text-[13px]"
										>{one.answered} answered{one.minutesLeft === null ? '' : `, ${one.minutesLeft} min left`}</span
									>{/if}</TableBodyCell
							>
							<TableBodyCell class="px-3 py-2 whitespace-normal"
								>{one.session.name}<span class="text-ink-3 block text-[13px]"
									>{timeInFull(one.session.opens, one.session.zone, clock.now)}</span
								></TableBodyCell
							>
							<TableBodyCell class="px-3 py-2 {isLong(one) ? 'text-brick font-semibold' : ''}"
								>{owedFor(one.since, clock.now)}</TableBodyCell
							>
							<TableBodyCell class="px-3 py-2 text-right"
								><Act size="xs" onclick={() => goto(`/grants?for=${one.sittingId}&give=own_window`)}>Own window…</Act
								></TableBodyCell
							>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		</section>
	{/each}
	{#if owed.length > 0}
		<div class="bg-paper border-line sticky bottom-0 flex flex-wrap items-center gap-2 border-t py-3">
			<p class="text-ink-2 mr-auto text-[14.5px]">
				{#if chosen.length === 0}Choose people to arrange something for them.
				{:else if papers.size > 1}{chosen.length} chosen, of {papers.size} papers: choose those of one paper.
				{:else}{chosen.length === 1 ? chosen[0].name : `${chosen.length} people`}, {chosen[0].paper.title}{/if}
			</p>
			<Act
				tone="main"
				disabled={chosen.length === 0 || papers.size > 1 || !data.plans}
				title={data.plans ? undefined : 'A coordinator can plan sessions'}
				onclick={() => (how = 'make_up')}>Make-up session…</Act
			>
			<Act disabled={chosen.length === 0 || papers.size > 1 || !data.plans} onclick={() => (how = 'join')}
				>Into a planned session…</Act
			>
			<Act disabled={chosen.length === 0 || papers.size > 1} onclick={() => (how = 'waive')}>Need not sit…</Act>
		</div>
	{/if}
	{#if arranged.length > 0}
		<h2 class="mt-6 mb-2 text-[19px]">Arranged, {arranged.length}</h2>
		<ul class="border-line bg-sheet rounded-2xl border">
			{#each arranged as one (one.sittingId)}
				<li class="border-line flex flex-wrap gap-x-3 border-b px-4 py-2 text-[14.5px] last:border-b-0">
					<strong>{one.name}</strong><span class="text-ink-2">{one.paper.title}, {OWED_WHY[one.why]}</span
					>{#if one.arranged}<span class="text-tide ml-auto"
							>{one.arranged.what}, {timeInFull(one.arranged.opens, one.session.zone, clock.now)}, {one.arranged
								.room}</span
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
	{#if waived.length > 0}
		<h2 class="mt-6 mb-2 text-[19px]">Need not sit, {waived.length}</h2>
		<ul class="border-line bg-sheet rounded-2xl border">
			{#each waived as one (one.sittingId)}
				<li class="border-line flex flex-wrap items-center gap-x-3 border-b px-4 py-2 text-[14.5px] last:border-b-0">
					<strong>{one.name}</strong><span class="text-ink-2"
						>{one.paper.title}: {one.waiver?.reason} ({one.waiver?.by})</span
					>
					<Act size="xs" class="ml-auto" onclick={() => takeBack(one)}>Owed after all</Act>
				</li>
			{/each}
		</ul>
	{/if}
</main>
{#if how}
	<Settle {how} owed={chosen} onclose={() => (how = null)} onsettled={settled} />
{/if}
