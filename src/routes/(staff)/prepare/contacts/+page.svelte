<!-- @component Whom to turn to in an administration, by problem, with telephone. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import OfAdministration from '../OfAdministration.svelte';

	let { data } = $props();
	type Contact = (typeof data.contacts)[number];
	const copied = () => data.contacts.map((one) => ({ ...one }));
	let contacts = $state<Contact[]>(untrack(copied));
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let isSaved = $state(false);
	const isChanged = $derived(JSON.stringify(contacts) !== JSON.stringify(data.contacts));
	const add = (problem = '') =>
		(contacts = [...contacts, { problem, name: '', telephone: '', email: '', hours: '', forCandidates: false }]);
	/** What goes wrong most often, to begin with. */
	const USUAL = ['Signing in', 'Network and devices', 'Illness or alarm', 'Questions about the paper'];

	async function save() {
		if (busy) return;
		busy = true;
		const answer = await send('PUT', '/prepare/contacts', {
			administrationId: data.administration!.id,
			was: data.contacts,
			contacts
		});
		busy = false;
		isSaved = answer.ok;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		await invalidateAll();
		contacts = copied();
	}
	const FIELDS = [
		['problem', 'Problem', 'w-40'],
		['name', 'Name', 'w-48'],
		['telephone', 'Telephone', 'w-40'],
		['email', 'E-mail', 'w-48'],
		['hours', 'When', 'w-32']
	] as const;
</script>

<svelte:head><title>Contacts · Otium</title></svelte:head>
<OfAdministration title="Contacts" path="/prepare/contacts" {data}>
	<p class="text-ink-2">
		Shown beside every room, on the help sheet that is printed for the door, and, where you say so, to candidates who
		are refused.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if isSaved && !isChanged}<p role="status" class="bg-mist text-tide mt-3 rounded-lg px-3 py-2">Saved.</p>{/if}
	<fieldset disabled={!data.mayChange} class="mt-4 space-y-2">
		{#each contacts as contact, i (i)}
			<div class="bg-sheet border-line flex flex-wrap items-center gap-2 rounded-xl border p-3" data-testid="contact">
				{#each FIELDS as [key, label, width] (key)}
					<div class={width}>
						<Input aria-label="{label}, {i + 1}" placeholder={label} bind:value={contact[key]} />
					</div>
				{/each}
				<Checkbox class="text-[14px]" bind:checked={contact.forCandidates}>for candidates</Checkbox>
				<Act size="xs" class="ml-auto" onclick={() => (contacts = contacts.filter((_, j) => j !== i))}>Remove</Act>
			</div>
		{:else}
			<p class="text-ink-2 bg-sheet border-line rounded-xl border p-6 text-center">Nobody is named yet.</p>
		{/each}
		<div class="flex flex-wrap items-center gap-2">
			<Act onclick={() => add()} testid="add-contact">Add a contact</Act>
			{#each USUAL.filter((one) => !contacts.some(({ problem }) => problem === one)) as problem (problem)}
				<Act size="xs" onclick={() => add(problem)}>{problem}</Act>
			{/each}
			<Act tone="main" class="ml-auto" {busy} disabled={!isChanged} onclick={save} testid="save-contacts">Save</Act>
		</div>
	</fieldset>
</OfAdministration>
