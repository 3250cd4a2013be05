<script lang="ts">
	import { counted } from '$core/names';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto } from '$app/navigation';
	import { clockTime, longDate } from '$core/time';
	import type { PaperCard } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import Reach from './Reach.svelte';
	import FromPackage from './FromPackage.svelte';

	let { data } = $props();
	let isAsking = $state(false);
	let isTaking = $state(false);
	const sites = $derived([
		...(data.forAll ? [{ value: '', name: 'All sites' }] : []),
		...data.sites.map(({ id, name }) => ({ value: id, name }))
	]);
	let title = $state('');
	// svelte-ignore state_referenced_locally
	let siteId = $state(data.forAll ? '' : (data.sites[0]?.id ?? ''));
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let search = $state('');
	const cardOf = ({ subject, level, programme, year }: PaperCard) =>
		[subject, level, programme, year].filter(Boolean).join(' · ');
	const found = $derived(
		data.papers.filter(({ title, card }) => {
			const said = `${title} ${cardOf(card)} ${card.description ?? ''}`.toLowerCase();
			return search
				.toLowerCase()
				.split(/\s+/)
				.every((word) => said.includes(word));
		})
	);
	/** The version whose withdrawal, or of which a copy, is asked about. */
	let copied = $state.raw<{ title: string; id: string; version: number; questions: number } | null>(null);
	let withdrawn = $state<string | null>(null);

	async function write(asked: { title: string; from: string | null; isCopy?: boolean }) {
		if (busy || asked.title.trim() === '') return;
		busy = true;
		const answer = await send<{ id: string }>('POST', '/papers', { ...asked, siteId: siteId || null });
		busy = false;
		if (answer.ok) await goto(`/papers/${answer.data.id}`);
		else trouble = inWords(answer.problem);
	}
	const when = (at: number) => `${longDate(at, data.site.zone)}, ${clockTime(at, data.site.zone)}`;
</script>

<Shortcuts keys={{ n: () => (isAsking = true) }} />
<svelte:head><title>Papers · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">Papers</h1>
		<div class="ml-auto w-56">
			<Input bind:value={search} type="search" aria-label="Find a paper" placeholder="Find a paper" maxlength={200} />
		</div>
		<Act onclick={() => (isTaking = true)} testid="from-package">From a package…</Act>
		<Act tone="main" key="N" onclick={() => (isAsking = true)} testid="new-paper">New paper</Act>
	</div>
	{#if trouble && !isAsking && !copied}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">
			{trouble}
		</p>{/if}
	<ul class="space-y-3" data-testid="papers">
		{#each found as paper (paper.title)}
			{@const latest = paper.versions[0]}
			<li class="bg-sheet border-line flex flex-wrap items-center gap-x-4 gap-y-2 rounded-2xl border p-4">
				<div class="min-w-0 flex-1">
					<h2 class="text-[19px]">{paper.title}</h2>
					{#if cardOf(paper.card)}<p class="text-[14px]">{cardOf(paper.card)}</p>{/if}
					{#if paper.card.description}<p class="text-ink-2 text-[14px]">{paper.card.description}</p>{/if}
					<p class="text-ink-2 text-[14px]">
						{#if latest}Version {latest.version}{latest.frozenAt ? `, frozen ${when(latest.frozenAt)}` : ''}: {latest.questions}
							questions, {latest.sessions === 0
								? 'in no session yet'
								: `in ${latest.sessions} ${latest.sessions === 1 ? 'session' : 'sessions'}`}{paper.versions.length > 1
								? `; ${paper.versions.length - 1} earlier`
								: ''}.{#if latest.withdrawnAt !== null}
								<strong class="text-brick">Withdrawn {when(latest.withdrawnAt)}.</strong>{/if}
						{:else}Not frozen yet, so nobody can sit it.{/if}
					</p>
					{#if paper.draft}<p class="text-ink-2 text-[14px]">
							Being written: {counted(paper.draft.questions, 'question')}, last changed by {paper.draft.changedBy ||
								'somebody'}, {when(paper.draft.changedAt)}{paper.draft.site ? `, ${paper.draft.site}` : ''}.
						</p>{/if}
				</div>
				{#if latest}
					<Act
						onclick={() => {
							title = `${paper.title}, copy`;
							copied = { title: paper.title, ...latest };
						}}
						testid="copy-paper">Copy…</Act
					>
					<Act onclick={() => (withdrawn = latest.id)} testid="reach">Who uses it…</Act>
				{/if}
				{#if paper.draft}<Act href="/papers/{paper.draft.id}" testid="open-paper">Open</Act>
				{:else}<Act {busy} onclick={() => write({ title: paper.title, from: latest.id })} testid="open-paper"
						>Write version {latest.version + 1}</Act
					>{/if}
			</li>
		{:else}
			<li class="text-ink-2">
				{data.papers.length === 0
					? 'There is no paper yet. Press N to write one.'
					: 'No paper has these words in its title.'}
			</li>
		{/each}
	</ul>
</main>

<Ask
	bind:open={isAsking}
	title="New paper"
	verb="Create"
	{busy}
	disabled={title.trim() === ''}
	error={trouble}
	onconfirm={() => write({ title, from: null })}
>
	<form
		class="space-y-3"
		onsubmit={(event) => {
			event.preventDefault();
			void write({ title, from: null });
		}}
	>
		<Field id="title" label="Title">
			<Input id="title" bind:value={title} maxlength={200} autofocus autocomplete="off" />
		</Field>
		<Field id="site" label="Who may use it" hint="Authors of other sites see neither its questions nor its answers.">
			<Select id="site" bind:value={siteId} items={sites} placeholder="" />
		</Field>
	</form>
</Ask>
<Ask
	bind:open={() => copied !== null, (open) => open || (copied = null)}
	title="Copy {copied?.title ?? ''}"
	verb="Copy"
	{busy}
	disabled={title.trim() === ''}
	error={copied ? trouble : null}
	onconfirm={() => write({ title, from: copied!.id, isCopy: true })}
>
	<div class="space-y-3 text-[15px]">
		<Field id="copy-title" label="Title of the copy">
			<Input id="copy-title" bind:value={title} maxlength={200} autofocus autocomplete="off" />
		</Field>
		<Field id="copy-site" label="Who may use it">
			<Select id="copy-site" bind:value={siteId} items={sites} placeholder="" />
		</Field>
		<p>
			<strong>Comes along:</strong>
			{copied?.questions} questions of version {copied?.version} with their keys, the same as in the bank; parts, pools, plan,
			pictures, forms, instructions, script, formula sheet, material.
		</p>
		<p><strong>Does not:</strong> versions, sessions, who may sit it, answers and results.</p>
	</div>
</Ask>
{#if withdrawn}<Reach id={withdrawn} zone={data.site.zone} onclose={() => (withdrawn = null)} />{/if}
<FromPackage bind:open={isTaking} {sites} />
