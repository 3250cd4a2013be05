<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { differingRules, protectionInWords, protectionOf, SECTIONS, SETTINGS, valueAt, withValue } from '$core/rules';
	import { DEFAULT_RULES } from '$core/session';
	import { clockTime } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { Keeper, type Outcome } from '$ui/keeper.svelte';
	import type { Problem } from '$core/problem';
	import { inWords, send } from '$ui/post';
	import RuleField from '$ui/RuleField.svelte';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();
	let rules = $state.raw(untrack(() => data.sheet.rules));
	let name = $state(untrack(() => data.sheet.name));
	let note = $state(untrack(() => data.sheet.note));
	let revision = untrack(() => data.sheet.revision);
	let faults = $state.raw<Record<string, string>>({});
	let trouble = $state<string | null>(null);
	let savedAt = $state<number | null>(null);
	let asksWithdraw = $state(false);
	// Saved as you go; what can't be read yet is said at its field and not saved.
	const keeper = new Keeper(save);
	$effect(() => keeper.start());

	const isRefused = $derived(trouble !== null || Object.keys(faults).length > 0);
	const changed = $derived(differingRules(DEFAULT_RULES, rules));
	const protection = $derived(
		protectionInWords(
			protectionOf({ rules, networks: [], lostNetworks: 0, ownQuestions: false, elsewhere: 0, siteHasClients: true })
		)
	);

	function touched() {
		if (data.mayChange) keeper.touched();
	}
	async function save(leaving: boolean): Promise<Outcome> {
		const answer = await send<{ revision: number; savedAt: number }>(
			'POST',
			`/prepare/rules/${data.sheet.id}`,
			{ name, note, revision, rules },
			{ leaving }
		);
		if (answer.ok) {
			revision = answer.data.revision;
			savedAt = answer.data.savedAt;
			trouble = null;
			faults = {};
			return 'kept';
		}
		faults = (answer.problem as Problem & { faults?: Record<string, string> }).faults ?? {};
		trouble = Object.keys(faults).length > 0 ? null : inWords(answer.problem);
		return answer.status === 0 ? 'line_down' : 'refused';
	}
	async function copy() {
		const answer = await send<{ id: string }>('POST', '/prepare/rules/copy', { from: data.sheet.id });
		if (answer.ok) await goto(`/prepare/rules/${answer.data.id}`, { invalidateAll: true });
		else trouble = inWords(answer.problem);
	}
	async function withdraw() {
		const answer = await send('DELETE', `/prepare/rules/${data.sheet.id}`);
		if (answer.ok) await goto('/prepare/rules');
		else trouble = inWords(answer.problem);
	}
</script>

<svelte:head><title>{data.sheet.name} · Otium</title></svelte:head>
<div class="grid grid-cols-[1fr_340px] max-lg:grid-cols-1">
	<main class="px-7 py-5">
		<div class="flex flex-wrap items-center gap-3">
			<h1 class="text-[28px]">{name}</h1>
			{#if !data.mayChange}
				<span class="bg-slate-ground text-slate-sea rounded-full px-3 py-1 text-[13px] font-semibold"
					>{data.sheet.shipped ? 'comes with Otium and stays as it is' : 'belongs to another site, or to all'}</span
				>
				<Act tone="main" onclick={copy} class="ml-auto">Copy, and change the copy</Act>
			{:else}
				<span class="bg-mist text-tide rounded-full px-3 py-1 text-[13px] font-semibold" role="status"
					>{keeper.isKeeping || (keeper.isUnkept && !isRefused)
						? 'saving…'
						: isRefused
							? 'not saved: see below'
							: savedAt === null
								? 'saved as you go'
								: `saved · ${clockTime(savedAt, page.data.site.zone, true)}`}</span
				>
				<Act class="ml-auto" href="/prepare/rules/apply?sheet={data.sheet.id}">Apply to sessions…</Act>
				<Act onclick={() => (asksWithdraw = true)}>Withdraw</Act>
			{/if}
		</div>
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
		{#if data.mayChange}
			<div class="mt-3 grid grid-cols-[280px_1fr] gap-3 max-sm:grid-cols-1">
				<Field id="name" label="Name"><Input id="name" bind:value={name} oninput={touched} /></Field>
				<Field id="note" label="What it is for"><Input id="note" bind:value={note} oninput={touched} /></Field>
			</div>
		{:else}<p class="text-ink-2 mt-1">{note}</p>{/if}
		{#each SECTIONS as section (section)}
			<section class="border-line mt-5 border-t pt-4">
				<h2 class="mb-3 text-[19px]">{section}</h2>
				<div class="grid grid-cols-2 gap-x-8 gap-y-5 max-md:grid-cols-1">
					{#each SETTINGS.filter((setting) => setting.section === section) as setting (setting.path)}
						<RuleField
							{setting}
							value={valueAt(rules, setting.path)}
							base={valueAt(DEFAULT_RULES, setting.path)}
							networks={data.networks}
							disabled={!data.mayChange}
							explain
							error={faults[setting.path]}
							onchange={(value) => ((rules = withValue(rules, setting.path, value)), touched())}
						/>
					{/each}
				</div>
			</section>
		{/each}
	</main>
	<aside class="bg-tide-deep px-6 py-6 text-[#f6f2e8]">
		<div class="sticky top-6">
			<p class="mb-2 text-[14px] text-[#b9d6cd]">Protection, from this sheet alone</p>
			<p class="font-serif text-[19px] leading-snug">{protection}</p>
			<p class="mt-6 mb-2 text-[14px] text-[#b9d6cd]">Changed from the default: {changed.length}</p>
			<ul class="space-y-1.5 text-[14.5px]">
				{#each changed as difference (difference.setting.path)}
					<li>{difference.setting.name}</li>
				{:else}<li>Nothing.</li>{/each}
			</ul>
		</div>
	</aside>
</div>
<Ask
	bind:open={asksWithdraw}
	title="Withdraw {data.sheet.name}?"
	verb="Withdraw it"
	tone="danger"
	error={trouble}
	onconfirm={withdraw}
>
	<p>It is no longer offered. Sessions that copied it keep their rules.</p>
</Ask>
