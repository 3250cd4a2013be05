<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { page } from '$app/state';
	import AppBar from '$ui/AppBar.svelte';
	import ConfirmIdentity from '$ui/ConfirmIdentity.svelte';
	import StillHere from '$ui/StillHere.svelte';
	import { setClock } from '$ui/clock-context';
	import { ServerClock } from '$ui/server-clock.svelte';

	let { data, children } = $props();
	const clock = new ServerClock(untrack(() => data.now));
	setClock(clock);
	$effect(() => clock.start());
	$effect(() => clock.set(data.now));
	// Says that keys and buttons are listening; until then a press would be lost.
	let isReady = $state(false);
	onMount(() => (isReady = true));
	const isBoard = $derived(page.url.pathname.endsWith('/board'));
	/** A line is open here: it says that somebody is there. */
	const isWatching = $derived(page.url.pathname.startsWith('/live'));
</script>

{#if isBoard}
	<div class="contents" data-ready={isReady}>{@render children()}</div>
{:else}
	<div class="flex h-dvh flex-col" data-ready={isReady}>
		<AppBar path={page.url.pathname} {clock} site={data.site} person={data.person} places={data.places} />
		<div class="min-h-0 flex-1 overflow-auto">{@render children()}</div>
	</div>
	<ConfirmIdentity />
	<StillHere {clock} zone={data.site.zone} idleUntil={data.idle.until} idleMinutes={data.idle.minutes} {isWatching} />
{/if}
