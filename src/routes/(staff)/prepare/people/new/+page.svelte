<!-- @component Somebody is added by hand, and a group is made for whoever has none yet. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import { NOBODY } from '../person-form';
	import Registered from '../Registered.svelte';

	let { data } = $props();
	let siteId = $state(untrack(() => data.sites[0]?.id ?? ''));
	let form = $state({ ...NOBODY });
	let groupName = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let added = $state.raw<{ id: string; name: string }[]>([]);
	const groups = $derived(data.groups.filter((group) => group.siteId === siteId));

	async function add(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const answer = await send<{ id: string }>('POST', '/prepare/people', { act: 'add', siteId, person: form });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		added = [{ id: answer.data.id, name: `${form.given} ${form.family}`.trim() }, ...added];
		// Whoever adds several adds them to the same groups.
		form = { ...NOBODY, groupIds: form.groupIds, grade: form.grade };
		document.getElementById('given')?.focus();
	}
	async function makeGroup() {
		if (busy || groupName.trim() === '') return;
		busy = true;
		const answer = await send<{ id: string }>('POST', '/prepare/people', {
			act: 'make_group',
			siteId,
			name: groupName.trim()
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		groupName = '';
		await invalidateAll();
		form.groupIds = [...form.groupIds, answer.data.id];
	}
</script>

<svelte:head><title>Add somebody · Otium</title></svelte:head>
<main class="mx-auto max-w-3xl px-6 py-6">
	<div class="flex items-center gap-3">
		<h1 class="text-[28px]">Add somebody</h1>
		<Act class="ml-auto" onclick={() => goto('/prepare/people')}>All people</Act>
	</div>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if added.length > 0}
		<p role="status" class="bg-mist text-tide mt-3 rounded-lg px-3 py-2" data-testid="added">
			Added:
			{#each added as { id, name }, i (id)}{#if i > 0},
				{/if}<a class="font-semibold underline" href="/prepare/people/{id}">{name}</a>{/each}
		</p>
	{/if}
	<form class="bg-sheet border-line mt-4 rounded-2xl border p-5" onsubmit={add}>
		{#if data.sites.length > 1}
			<Field id="site" label="Site" class="w-64"
				><Select
					id="site"
					placeholder=""
					items={data.sites.map(({ id, name }) => ({ value: id, name }))}
					bind:value={siteId}
					onchange={() => (form.groupIds = [])}
				/></Field
			>
		{/if}
		<Registered bind:form {groups} />
		<div class="mt-3 flex flex-wrap items-end gap-2">
			<Field id="group-name" label="Another group"
				><Input id="group-name" maxlength={80} bind:value={groupName} autocomplete="off" /></Field
			>
			<Act {busy} disabled={groupName.trim() === ''} onclick={makeGroup} testid="make-group">Make it</Act>
		</div>
		<Act
			tone="main"
			type="submit"
			class="mt-5"
			{busy}
			disabled={form.number.trim() === '' || form.family.trim() === '' || form.groupIds.length === 0}
			testid="add-person">Add</Act
		>
	</form>
</main>
