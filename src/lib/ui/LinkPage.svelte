<!-- @component The frame of a page that somebody without an account opens by a link of their own. -->
<script lang="ts">
	import { onMount, type Snippet } from 'svelte';

	type Props = { title: string; children: Snippet };
	let { title, children }: Props = $props();
	/** Fields and buttons are listening. */
	let isReady = $state(false);
	onMount(() => (isReady = true));
</script>

<svelte:head><title>{title} · Otium</title></svelte:head>
<div class="bg-paper text-ink min-h-dvh" data-ready={isReady}>
	<main class="mx-auto max-w-2xl px-6 py-10 text-[16.5px]">
		<p class="text-tide font-serif text-[22px] font-semibold">Otium</p>
		{@render children()}
	</main>
</div>
