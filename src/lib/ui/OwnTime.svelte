<!-- @component The same instant on the reader's own clock, where that says something else than the session's. It
	brings the space before it, so that nothing stands before a full stop where it says nothing. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { timeElsewhere } from '$core/time';

	type Props = { at: number; zone: string };
	let { at, zone }: Props = $props();

	// The server does not know it: it appears with the page.
	let own = $state<string | null>(null);
	onMount(() => {
		own = Intl.DateTimeFormat().resolvedOptions().timeZone;
	});
	const text = $derived(own && timeElsewhere(at, zone, own));
</script>

{#if text}<span class="text-ink-2" data-testid="own-time">{` (${text} on your own clock)`}</span>{/if}
