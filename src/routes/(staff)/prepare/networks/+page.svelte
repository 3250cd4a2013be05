<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { isInside, readRanges } from '$core/access';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	type Network = (typeof data.networks)[number];
	let id = $state<string | null>(null);
	let siteId = $state(untrack(() => data.sites[0]?.id ?? ''));
	let name = $state('');
	let ranges = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let removing = $state.raw<Network | null>(null);
	let asks = $state(false);
	const read = $derived(readRanges(ranges));
	const isHereIn = $derived(isInside(data.address, read.ranges));

	function edit(network: Network | null) {
		id = network?.id ?? null;
		siteId = network?.siteId ?? siteId;
		name = network?.name ?? '';
		ranges = network?.ranges.join('\n') ?? '';
		trouble = null;
	}
	async function save() {
		if (busy) return;
		busy = true;
		const answer = await send('POST', '/prepare/networks', { id, siteId, name, ranges });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		edit(null);
		await invalidateAll();
	}
	async function remove() {
		const answer = await send('DELETE', `/prepare/networks?id=${removing!.id}`);
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) {
			asks = false;
			await invalidateAll();
		}
	}
</script>

<svelte:head><title>Networks · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="text-[28px]">Networks</h1>
	<p class="bg-slate-ground text-slate-sea mt-3 rounded-xl px-4 py-3" data-testid="here">
		You are at <strong class="font-mono">{data.address}</strong>:
		{data.here.length === 0 ? 'in none of these networks.' : `in ${data.here.join(' and ')}.`}
	</p>
	<ul class="mt-4 space-y-2">
		{#each data.networks as network (network.id)}
			<li class="bg-sheet border-line grid grid-cols-[1fr_auto] gap-4 rounded-xl border p-4">
				<div>
					<p>
						<strong class="text-[16px]">{network.name}</strong> <span class="text-ink-2">{network.site}</span>
						{#if network.sessions > 0}<span class="text-ink-3 text-[13px]"
								>· {network.sessions} open {network.sessions === 1 ? 'session' : 'sessions'}</span
							>{/if}
					</p>
					<p class="font-mono text-[14px]">{network.ranges.join('  ')}</p>
				</div>
				<div class="flex gap-2">
					<Act size="xs" onclick={() => edit(network)}>Change</Act>
					<Act
						size="xs"
						onclick={() => {
							removing = network;
							asks = true;
						}}>Remove</Act
					>
				</div>
			</li>
		{:else}<li class="text-ink-2 py-6 text-center">No network is named yet: people can enter from anywhere.</li>{/each}
	</ul>
	<section class="bg-sheet border-line mt-5 rounded-2xl border p-5">
		<h2 class="text-[18px]">{id === null ? 'New network' : 'Change network'}</h2>
		<div class="mt-3 grid grid-cols-[240px_1fr] gap-4 max-sm:grid-cols-1">
			<div class="space-y-3">
				<Field id="net-name" label="Name"><Input id="net-name" bind:value={name} /></Field>
				<Field id="net-site" label="Site"
					><Select
						id="net-site"
						bind:value={siteId}
						disabled={id !== null}
						items={data.sites.map((site) => ({ value: site.id, name: site.name }))}
					/></Field
				>
			</div>
			<Field
				id="net-ranges"
				label="Ranges, CIDR"
				error={read.problems[0]}
				hint="one or several: 10.20.0.0/16, 2001:db8:20::/48, or a single address"
				><Textarea id="net-ranges" rows={4} class="w-full font-mono" bind:value={ranges} /></Field
			>
		</div>
		{#if read.ranges.length > 0}<p class="text-ink-2 mt-2 text-[14px]">
				Read as <span class="font-mono">{read.ranges.join('  ')}</span>. You are {isHereIn ? 'inside.' : 'outside.'}
			</p>{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
		<div class="mt-3 flex gap-2">
			<Act
				tone="main"
				onclick={save}
				{busy}
				disabled={name.trim() === '' || read.ranges.length === 0 || read.problems.length > 0}
				testid="save-network">{id === null ? 'Add it' : 'Save it'}</Act
			>
			{#if id !== null}<Act onclick={() => edit(null)}>Cancel</Act>{/if}
		</div>
	</section>
</main>
{#if removing}
	<Ask
		bind:open={asks}
		title="Remove {removing.name}?"
		verb="Remove it"
		tone="danger"
		error={trouble}
		onconfirm={remove}
	>
		<p>
			{removing.sessions === 0
				? 'No open session is limited to it.'
				: `${removing.sessions} open ${removing.sessions === 1 ? 'session is' : 'sessions are'} limited to it and would let nobody in from it: change ${removing.sessions === 1 ? 'that one' : 'those'} afterwards.`}
		</p>
	</Ask>
{/if}
