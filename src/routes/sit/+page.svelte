<script lang="ts">
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { ServerClock } from '$ui/server-clock.svelte';
	import Door from './Door.svelte';
	import SignedIn from './SignedIn.svelte';

	let { data } = $props();
	const clock = new ServerClock(untrack(() => data.now));
	$effect(() => clock.start());
</script>

<svelte:head><title>Otium: sit a paper</title></svelte:head>

{#if data.device && data.picture}
	{#key `${data.device.sittingId} ${data.device.epoch}`}
		<SignedIn {clock} device={data.device} first={data.picture} onleave={() => invalidateAll()} />
	{/key}
{:else}
	<Door {clock} code={data.code} onarrived={() => invalidateAll()} />
{/if}
