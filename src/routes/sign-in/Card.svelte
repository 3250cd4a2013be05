<!-- @component The card in the middle of a page on which somebody signs in. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	type Props = { title: string; wide?: boolean; children: Snippet };
	let { title, wide = false, children }: Props = $props();
</script>

<main class="grid min-h-dvh place-items-center px-4 py-8">
	<section class="bg-sheet border-line w-full rounded-2xl border p-8 {wide ? 'max-w-xl' : 'max-w-sm'}">
		<p class="text-ink-3 font-serif text-[17px]">Otium</p>
		<h1 class="mt-0.5 text-[28px] leading-tight">{title}</h1>
		{@render children()}
	</section>
</main>
