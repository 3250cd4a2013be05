<!-- @component A teacher asks for one of their candidates, by the link that they were sent. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { page } from '$app/state';
	import type { RequestWhat } from '$core/request';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import LinkPage from '$ui/LinkPage.svelte';
	import { inWords, send } from '$ui/post';
	import RequestFields from '$ui/RequestFields.svelte';
	import { shownFrom } from '$ui/shown-from';

	let { data } = $props();
	let number = $state('');
	let family = $state('');
	let what = $state<RequestWhat>('more_time');
	let why = $state('');
	let files = $state<FileList>();
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let asked = $state<string | null>(null);

	async function ask(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const shown = await shownFrom(files?.[0]);
		const answer = await send('POST', page.url.pathname, { number, family, what, why, shown });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		asked = `Asked for ${number} ${family}. You will get a mail when it is decided.`;
		number = family = why = '';
		files = undefined;
	}
</script>

<LinkPage title="Ask for a candidate">
	{#if !data.link}
		<h1 class="mt-4 text-[26px]">This link is not valid any more</h1>
		<p class="text-ink-2 mt-2">
			It works for three weeks. Ask the people who give grants at your college for a new one.
		</p>
	{:else}
		<h1 class="mt-4 text-[26px]">Ask for one of your candidates</h1>
		<p class="text-ink-2 mt-1">
			{data.link.name}, {data.link.site}. You will be told what is decided; so will the candidate.
		</p>
		<form class="mt-5 space-y-4" onsubmit={ask}>
			<div class="grid grid-cols-2 gap-3">
				<Field id="number" label="Candidate number"
					><Input id="number" bind:value={number} maxlength={60} required autocomplete="off" /></Field
				>
				<Field id="family" label="Family name"
					><Input id="family" bind:value={family} maxlength={120} required autocomplete="off" /></Field
				>
			</div>
			<RequestFields bind:what bind:why bind:files />
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
			{#if asked}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2" data-testid="asked">{asked}</p>{/if}
			<Act tone="main" type="submit" {busy} disabled={why.trim() === ''}>Ask</Act>
		</form>
	{/if}
</LinkPage>
