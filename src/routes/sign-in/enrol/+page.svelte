<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import SecondSteps from '$ui/SecondSteps.svelte';
	import Card from '../Card.svelte';

	let { data } = $props();
	let trouble = $state<string | null>(null);
	const isReady = $derived(data.has.app || data.has.passkeys > 0);

	async function goOn() {
		const answer = await send<{ next: string }>('POST', '/sign-in/enrol', { to: data.to });
		if (answer.ok) location.assign(answer.data.next);
		else trouble = inWords(answer.problem);
	}
</script>

<svelte:head><title>Second step · Otium</title></svelte:head>
<Card title="Set up a second step" wide>
	<p class="text-ink-2 mt-1 mb-5">
		{data.name}, what you may do here needs more than a password. Choose one of these; you can have both.
	</p>
	<SecondSteps has={data.has} passkeys={data.passkeys} onchange={invalidateAll} />
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-4 rounded-lg px-3 py-2">{trouble}</p>{/if}
	<div class="mt-5"><Act tone="main" disabled={!isReady} onclick={goOn} testid="enrolled">Continue</Act></div>
</Card>
