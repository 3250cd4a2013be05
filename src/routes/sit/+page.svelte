<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { clockFromNote, findKept } from '$player/kept';
	import { Leftovers } from '$player/leftovers.svelte';
	import { keepPage } from '$player/offline';
	import { send } from '$ui/post';
	import { ServerClock } from '$ui/server-clock.svelte';
	import Door from './Door.svelte';
	import SignedIn from './SignedIn.svelte';

	let { data } = $props();
	const clock = new ServerClock(untrack(() => data.now));
	$effect(() => clock.start());

	// This page may have come from the device itself, because the server could not be reached: then it is old, and what
	// the tab has kept is newer.
	let kept = $state.raw<Awaited<ReturnType<typeof findKept>>>(null);
	onMount(async () => {
		void keepPage();
		const found = await findKept();
		if (!found) return;
		const answer = await send('GET', '/sit/api/picture');
		const isReachable = answer.ok || (answer.status > 0 && answer.status < 500);
		if (isReachable) {
			if (!data.device) await invalidateAll();
			return;
		}
		clock.set(clockFromNote() ?? clock.read());
		kept = found;
	});
	const here = $derived(kept ?? (data.device && data.picture ? { device: data.device, picture: data.picture } : null));
	// What earlier lives of this device had kept goes to the server in any state; the paper at work has an outbox of its own.
	let live = $state.raw<{ sittingId: string; epoch: number } | null>(null);
	const leftovers = new Leftovers(() => live);
	onMount(() => leftovers.start());
	function leave() {
		live = null;
		kept = null;
		void invalidateAll();
	}
</script>

<svelte:head><title>Otium: sit a paper</title></svelte:head>

{#if here}
	{#key `${here.device.sittingId} ${here.device.epoch} ${kept !== null}`}
		<SignedIn
			{clock}
			device={here.device}
			first={here.picture}
			{leftovers}
			onpaper={(place) => (live = place)}
			onleave={leave}
		/>
	{/key}
{:else}
	<Door {clock} code={data.code} onarrived={() => invalidateAll()} />
{/if}
