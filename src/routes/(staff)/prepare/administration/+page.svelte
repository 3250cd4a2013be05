<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import AdministrationForm from './AdministrationForm.svelte';

	let { data } = $props();
	let name = $state('');
	let site = $state('');
	let zone = $state('Europe/London');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const zones = typeof Intl.supportedValuesOf === 'function' ? Intl.supportedValuesOf('timeZone') : [];
	const sites = $derived(data.administration?.sites.length ?? 0);

	async function make(asked: Record<string, string>) {
		if (busy) return;
		busy = true;
		const answer = await send<{ id: string | null }>('PUT', '/prepare/administration', asked);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		name = site = '';
		if (answer.data.id) await goto(`/prepare/administration?id=${answer.data.id}`);
		await invalidateAll();
	}
</script>

<svelte:head><title>Administration · Otium</title></svelte:head>
{#if data.administration}
	{#if data.all.length > 1}
		<nav class="mx-auto max-w-5xl px-6 pt-5" aria-label="Administrations">
			<ul class="flex flex-wrap gap-2">
				{#each data.all as one (one.id)}
					<li>
						<a
							href="/prepare/administration?id={one.id}"
							aria-current={one.id === data.administration.id ? 'page' : undefined}
							class="block rounded-full border px-3.5 py-1 text-[14px] {one.id === data.administration.id
								? 'bg-mist border-tide text-tide font-semibold'
								: 'border-line-strong text-ink-2'}">{one.name}</a
						>
					</li>
				{/each}
			</ul>
		</nav>
	{/if}
	{#key `${data.administration.id} ${sites}`}<AdministrationForm
			administration={data.administration}
			mayChange={data.mayChange}
		/>{/key}
{:else}
	<main class="mx-auto max-w-xl px-6 py-10">
		<h1 class="text-[28px]">A first administration</h1>
		<p class="text-ink-2 mt-1">
			The testing event: its days, its sites, what may be sat where. Sessions are planned in it.
		</p>
		<div class="mt-4 flex items-end gap-3">
			<Field id="new-name" label="Name" class="flex-1"
				><Input id="new-name" bind:value={name} placeholder="Winter examinations" /></Field
			>
			<Act tone="main" {busy} disabled={name.trim() === ''} onclick={() => make({ make: 'administration', name })}
				>Create</Act
			>
		</div>
	</main>
{/if}
{#if data.mayChange}
	<section class="mx-auto max-w-5xl px-6 pb-8">
		<div class="border-line-strong flex flex-wrap items-end gap-3 rounded-2xl border border-dashed p-5">
			<Field id="site-name" label="New site" class="w-56"><Input id="site-name" bind:value={site} /></Field>
			<Field id="site-zone" label="Time zone" hint="it can’t be changed later" class="w-56">
				<Input id="site-zone" bind:value={zone} list="zones" />
				<datalist id="zones"
					>{#each zones as one (one)}<option value={one}></option>{/each}</datalist
				>
			</Field>
			<Act
				{busy}
				disabled={site.trim() === ''}
				onclick={() => make({ make: 'site', name: site, zone })}
				testid="make-site">Add the site</Act
			>
		</div>
		{#if data.administration}
			<div class="border-line-strong mt-3 flex flex-wrap items-end gap-3 rounded-2xl border border-dashed p-5">
				<Field id="new-name" label="New administration" hint="as many as the latest session allows" class="w-72"
					><Input id="new-name" bind:value={name} placeholder="Spring examinations" /></Field
				>
				<Act
					{busy}
					disabled={name.trim() === ''}
					onclick={() => make({ make: 'administration', name })}
					testid="make-administration">Create</Act
				>
			</div>
		{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	</section>
{/if}
