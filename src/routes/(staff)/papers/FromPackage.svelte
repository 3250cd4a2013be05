<!-- @component A paper from a QTI package: what it would bring is shown with what is told of its files, then it is made. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto } from '$app/navigation';
	import { partLetter } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import type { Problem } from '$core/problem';
	import { inWords } from '$ui/post';
	import PackageTold from './PackageTold.svelte';

	type Props = { open: boolean; sites: { value: string; name: string }[] };
	let { open = $bindable(), sites }: Props = $props();

	type Incoming = {
		title: string;
		parts: { title: string; draw: number | null; questions: number }[];
		told: { where: string; message: string }[];
	};
	let file = $state.raw<File | null>(null);
	let incoming = $state.raw<Incoming | null>(null);
	let title = $state('');
	let site = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const count = $derived(incoming?.parts.reduce((sum, { questions }) => sum + questions, 0) ?? 0);
	$effect(() => {
		if (!sites.some(({ value }) => value === site)) site = sites[0]?.value ?? '';
	});

	/** Sends the package; null: it did not come through, and that is told. */
	async function sent<T>(query: string): Promise<T | null> {
		busy = true;
		trouble = null;
		try {
			const answer = await fetch(`/papers/package${query}`, { method: 'POST', body: file });
			const data = await answer.json();
			if (answer.ok) return data as T;
			trouble = inWords(data as Problem);
		} catch {
			trouble = 'The server can’t be reached, or the file has changed since. Choose it again.';
		} finally {
			busy = false;
		}
		return null;
	}
	async function look(chosen: File | undefined) {
		if (!chosen) return;
		[file, incoming] = [chosen, null];
		incoming = await sent<Incoming>('');
		if (incoming) title = incoming.title || chosen.name.replace(/\.zip$/i, '');
	}
	async function make() {
		if (busy || title.trim() === '' || count === 0) return;
		const made = await sent<{ id: string }>(`?${new URLSearchParams({ title, site })}`);
		if (made) await goto(`/papers/${made.id}`);
	}
</script>

<Modal aria-label="A paper from a QTI package" bind:open title="A paper from a QTI package" size="md" class="bg-sheet">
	<form
		class="text-ink space-y-3"
		data-testid="package"
		onsubmit={(event) => {
			event.preventDefault();
			void make();
		}}
	>
		<p class="text-ink-2 text-[14px]">
			QTI 3.0, 2.2 or 2.1, zipped, up to 10 MB. You see what comes in before anything is kept.
		</p>
		<input
			type="file"
			accept=".zip,application/zip"
			aria-label="QTI package"
			class="block w-full text-[14px]"
			onchange={(event) => void look(event.currentTarget.files?.[0])}
		/>
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if busy && !incoming}<p class="text-ink-2 text-[14px]" role="status">Reading the package…</p>{/if}
		{#if incoming}
			<ul class="text-[14.5px]" data-testid="incoming">
				{#each incoming.parts as part, i (i)}
					<li>
						<strong>{partLetter(i)} · {part.title || 'Untitled part'}</strong>
						{part.draw === null ? '' : `${part.draw} of `}{part.questions}
						{part.questions === 1 ? 'question' : 'questions'}
					</li>
				{/each}
			</ul>
			<PackageTold told={incoming.told} />
			<Field id="package-title" label="Title"><Input id="package-title" bind:value={title} maxlength={200} /></Field>
			<Field id="package-site" label="Who may use it"
				><Select id="package-site" bind:value={site} items={sites} placeholder="" /></Field
			>
			<Act tone="main" type="submit" {busy} disabled={title.trim() === '' || count === 0} testid="make-from-package"
				>Create it with {count} {count === 1 ? 'question' : 'questions'}</Act
			>
		{/if}
	</form>
</Modal>
