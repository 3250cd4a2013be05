<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { invalidateAll } from '$app/navigation';
	import DateField from '$ui/DateField.svelte';
	import NumberField from '$ui/NumberField.svelte';
	import TimeField from '$ui/TimeField.svelte';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import type { PageData } from './$types';

	let {
		administration,
		mayChange
	}: {
		administration: NonNullable<PageData['administration']>;
		mayChange: boolean;
	} = $props();
	const copy = () => structuredClone(administration);
	let form = $state(untrack(copy));
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let saved = $state(false);
	const isChanged = $derived(JSON.stringify(form) !== JSON.stringify(administration));
	const allotted = $derived(form.sites.reduce((sum, site) => sum + (site.allotted ?? 0), 0));
	const used = $derived(form.sites.reduce((sum, site) => sum + site.used, 0));
	/** Fields whose number can't be read, by their names here: as long as there is one, nothing is saved. */
	const unread = new SvelteSet<string>();
	function take(name: string, value: number | null | undefined, put: (value: number | null) => void) {
		if (value === undefined) unread.add(name);
		else {
			unread.delete(name);
			put(value);
		}
	}
	function undo() {
		unread.clear();
		form = copy();
	}
	const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((one) => one !== id) : [...list, id]);

	async function save() {
		if (busy) return;
		busy = true;
		const answer = await send('POST', '/prepare/administration', {
			id: form.id,
			name: form.name,
			opensOn: form.opensOn,
			closesOn: form.closesOn,
			bought: form.bought,
			sites: form.sites.map(({ id, opens, closes, allotted }) => ({ id, opens, closes, allotted })),
			papers: form.papers.map(({ id, everywhere, siteIds, groupIds }) => ({ id, everywhere, siteIds, groupIds }))
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		await invalidateAll();
		form = copy();
		saved = true;
	}
</script>

<main class="mx-auto max-w-5xl px-6 py-6" oninput={() => (saved = false)}>
	<div class="mb-3 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">{administration.name}</h1>
		<span class="text-tide text-[14px] font-semibold" role="status">{saved ? 'saved' : ''}</span>
		{#if mayChange}
			<Act
				tone="main"
				class="ml-auto"
				onclick={save}
				{busy}
				disabled={!isChanged || unread.size > 0}
				testid="save-administration">Save</Act
			>
			{#if isChanged || unread.size > 0}<Act onclick={undo}>Undo the changes</Act>{/if}
		{/if}
	</div>
	{#if !mayChange}<p class="bg-slate-ground text-slate-sea mb-3 rounded-lg px-3 py-2">
			Only a coordinator of all sites can change this.
		</p>{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	<fieldset disabled={!mayChange} class="space-y-5">
		<section class="bg-sheet border-line flex flex-wrap gap-4 rounded-2xl border p-5">
			<Field id="adm-name" label="Name" class="min-w-72 flex-1"><Input id="adm-name" bind:value={form.name} /></Field>
			<Field id="adm-from" label="First day"
				><DateField
					id="adm-from"
					disabled={!mayChange}
					value={form.opensOn ?? ''}
					onchange={(date) => (form.opensOn = date || null)}
				/></Field
			>
			<Field id="adm-to" label="Last day"
				><DateField
					id="adm-to"
					disabled={!mayChange}
					value={form.closesOn ?? ''}
					onchange={(date) => (form.closesOn = date || null)}
				/></Field
			>
			<Field id="adm-bought" label="Sittings bought" hint="empty: not counted" class="w-36"
				><NumberField
					id="adm-bought"
					value={unread.has('bought') ? undefined : form.bought}
					onchange={(value) => take('bought', value, (bought) => (form.bought = bought))}
				/></Field
			>
		</section>
		<section class="bg-sheet border-line rounded-2xl border p-5">
			<h2 class="text-[18px]">Sites</h2>
			<table class="mt-2 w-full text-left text-[14.5px]">
				<thead class="text-ink-2 text-[13px]"
					><tr
						>{#each ['Site', 'Zone', 'Open from', 'to', 'Allotted', 'Used', 'Left'] as title (title)}<th
								class="px-2 py-1 font-semibold">{title}</th
							>{/each}</tr
					></thead
				>
				<tbody>
					{#each form.sites as site (site.id)}
						<tr class="border-line border-t">
							<td class="px-2 py-2 font-semibold">{site.name}</td>
							<td class="text-ink-2 px-2">{site.zone}</td>
							<td class="w-32 px-2 py-1.5"
								><TimeField
									label="{site.name} opens"
									disabled={!mayChange}
									value={site.opens ?? ''}
									onchange={(time) => (site.opens = time || null)}
								/></td
							>
							<td class="w-32 px-2 py-1.5"
								><TimeField
									label="{site.name} closes"
									disabled={!mayChange}
									value={site.closes ?? ''}
									onchange={(time) => (site.closes = time || null)}
								/></td
							>
							<td class="w-28 px-2 py-1.5"
								><NumberField
									label="Allotted to {site.name}"
									value={unread.has(site.id) ? undefined : site.allotted}
									onchange={(value) => take(site.id, value, (allotted) => (site.allotted = allotted))}
								/></td
							>
							<td class="px-2 font-mono">{site.used}</td>
							<td
								class="px-2 font-mono {site.allotted !== null && site.allotted < site.used
									? 'text-brick font-semibold'
									: ''}">{site.allotted === null ? 'not counted' : site.allotted - site.used}</td
							>
						</tr>
					{/each}
					<tr class="border-line border-t font-semibold">
						<td class="px-2 py-2" colspan="4">Together</td>
						<td class="px-2 font-mono">{allotted}</td>
						<td class="px-2 font-mono">{used}</td>
						<td class="px-2 {form.bought !== null && allotted > form.bought ? 'text-brick' : ''}"
							>{form.bought === null ? '' : `${form.bought - allotted} bought and not allotted`}</td
						>
					</tr>
				</tbody>
			</table>
		</section>
		<section class="bg-sheet border-line rounded-2xl border p-5">
			<h2 class="text-[18px]">Which papers may be sat where</h2>
			<p class="text-ink-3 text-[13px]">
				Only these are offered when a session is made. A paper without a place is offered nowhere.
			</p>
			<ul class="mt-2">
				{#each form.papers as paper (paper.id)}
					<li class="border-line flex flex-wrap items-center gap-x-4 gap-y-2 border-t py-2.5 first:border-t-0">
						<span class="w-64"
							><strong>{paper.title}</strong> <span class="text-ink-2">version {paper.version}</span></span
						>
						<Checkbox bind:checked={paper.everywhere} class="text-[14px]">everywhere</Checkbox>
						{#if !paper.everywhere}
							{#each form.sites as site (site.id)}
								<Checkbox
									class="text-[14px]"
									checked={paper.siteIds.includes(site.id)}
									onchange={() => (paper.siteIds = toggle(paper.siteIds, site.id))}>{site.name}</Checkbox
								>
							{/each}
							<details class="text-[14px]">
								<summary class="font-semibold"
									>groups{paper.groupIds.length > 0 ? ` (${paper.groupIds.length})` : ''}</summary
								>
								<div class="flex flex-wrap gap-3 py-1">
									{#each form.groups as group (group.id)}
										<Checkbox
											class="text-[14px]"
											checked={paper.groupIds.includes(group.id)}
											onchange={() => (paper.groupIds = toggle(paper.groupIds, group.id))}>{group.name}</Checkbox
										>
									{/each}
								</div>
							</details>
							{#if paper.siteIds.length + paper.groupIds.length === 0}<span class="text-ochre text-[14px] font-semibold"
									>offered nowhere</span
								>{/if}
						{/if}
					</li>
				{/each}
			</ul>
		</section>
	</fieldset>
</main>
