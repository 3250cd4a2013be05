<!-- @component A page with one thing on it, for whoever waits. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	type Props = { title: string; children: Snippet; glyph?: Snippet; paper?: string; person?: string };
	let { title, children, glyph, paper, person }: Props = $props();
</script>

<main class="mx-auto flex min-h-dvh max-w-xl flex-col justify-center px-5 py-10">
	{#if paper}<p class="text-ink-2 mb-6">
			<strong class="text-ink font-serif text-[18px]">{paper}</strong>{person ? ` · ${person}` : ''}
		</p>{/if}
	{#if glyph}<div class="mb-4">{@render glyph()}</div>{/if}
	<h1 class="text-[30px] leading-tight">{title}</h1>
	<div class="mt-3 space-y-4 text-[18px]">{@render children()}</div>
</main>
