<script lang="ts">
	import { onMount } from 'svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { LEAST_PASSWORD } from '$core/access';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import { typedIn } from '$ui/typed';
	import Card from '../Card.svelte';

	let { data } = $props();
	let isReady = $state(false);
	onMount(() => (isReady = true));
	let busy = $state(false);
	let trouble = $state<string | null>(null);

	async function save(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		const password = typedIn(event, 'password');
		if (password !== typedIn(event, 'again'))
			return void (trouble = 'The two are not the same. Enter it the same way twice.');
		busy = true;
		const { link, to } = data;
		const answer = await send<{ next: string }>('POST', '/sign-in/new-password', { link, password, to });
		busy = false;
		if (answer.ok) location.assign(answer.data.next);
		else trouble = inWords(answer.problem);
	}
</script>

<svelte:head><title>Your password · Otium</title></svelte:head>
{#if data.isGone}
	<Card title="This link no longer works">
		<p class="mt-3">
			It was used, or is too old. <a class="text-tide underline" href="/sign-in/forgot">Ask for a new one</a>.
		</p>
	</Card>
{:else}
	<Card title="Choose your password">
		<p class="text-ink-2 mt-1 mb-5">
			{data.name}, {data.link === null
				? 'the one that you were given is known to somebody else.'
				: 'it replaces the old one.'}
			A few words that have nothing to do with each other are easy to remember and hard to guess.
		</p>
		<form class="space-y-4" onsubmit={save}>
			<Field id="new-password" label="Password" hint="at least {LEAST_PASSWORD} letters">
				<Input id="new-password" type="password" autocomplete="new-password" name="password" required autofocus />
			</Field>
			<Field id="again" label="Once more">
				<Input id="again" type="password" autocomplete="new-password" name="again" required />
			</Field>
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
			<Act tone="main" type="submit" {busy} disabled={!isReady} class="w-full">Save</Act>
		</form>
	</Card>
{/if}
