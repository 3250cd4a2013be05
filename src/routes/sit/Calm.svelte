<!-- @component A page with one thing on it, for whoever waits. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { newView } from '$player/new-view';
	type Props = {
		title: string;
		children: Snippet;
		glyph?: Snippet;
		paper?: string;
		person?: string;
		/** Stands beside it where there is room, and below it where there is none. */
		beside?: Snippet;
	};
	let { title, children, glyph, paper, person, beside }: Props = $props();
</script>

<svelte:head><title>{title}{paper ? ` · ${paper}` : ''} · Otium</title></svelte:head>

<main
	class="mx-auto flex min-h-dvh flex-col justify-center px-5 py-10 {beside
		? 'max-w-5xl gap-10 lg:grid lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] lg:content-center lg:items-center'
		: 'max-w-xl'}"
>
	<div>
		{#if paper}<p class="text-ink-2 mb-6">
				<strong class="text-ink font-serif text-[18px]">{paper}</strong>{person ? ` · ${person}` : ''}
			</p>{/if}
		{#if glyph}<div class="mb-4">{@render glyph()}</div>{/if}
		{#key title}<h1 class="text-[30px] leading-tight outline-none" {@attach newView}>{title}</h1>{/key}
		<div class="mt-3 space-y-4 text-[18px]">{@render children()}</div>
	</div>
	{#if beside}<div class="border-line lg:border-l lg:pl-10">{@render beside()}</div>{/if}
</main>
