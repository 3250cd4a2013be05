<script lang="ts">
	import { onMount } from 'svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import { typedIn } from '$ui/typed';
	import Card from '../Card.svelte';

	let { data } = $props();
	let name = $state('');
	let isReady = $state(false);
	onMount(() => (isReady = true));
	let busy = $state(false);
	let isSent = $state(false);
	let trouble = $state<string | null>(null);

	async function ask(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		name = typedIn(event, 'name');
		const answer = await send('POST', '/sign-in/forgot', { name });
		busy = false;
		isSent = answer.ok;
		trouble = answer.ok ? null : inWords(answer.problem);
	}
</script>

<svelte:head><title>New password · Otium</title></svelte:head>
<Card title="A new password">
	{#if isSent}
		<p role="status" class="bg-mist mt-4 rounded-lg px-3 py-2">
			{#if data.mailLeaves}
				If somebody signs in as “{name}” and has an e-mail address here, a mail with a link is on its way. It works
				once, within an hour.
			{:else}
				No mail leaves this server. If somebody signs in as “{name}” and has an e-mail address here, the mail with the
				link lies in its outbox folder.
			{/if}
		</p>
		<p class="text-ink-2 mt-4 text-[14px]">
			{data.mailLeaves ? 'No mail?' : 'Sooner:'} a coordinator can show you a link, under Prepare, Staff.
		</p>
	{:else}
		<form class="mt-4 space-y-4" onsubmit={ask}>
			<Field id="name" label="Name or e-mail">
				<Input id="name" name="name" autocomplete="username" required autofocus />
			</Field>
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
			<Act tone="main" type="submit" {busy} disabled={!isReady} class="w-full"
				>{data.mailLeaves ? 'Mail me a link' : 'Ask for a link'}</Act
			>
		</form>
	{/if}
	<p class="mt-4 text-[14px]"><a class="text-tide underline" href="/sign-in">Back to signing in</a></p>
</Card>
