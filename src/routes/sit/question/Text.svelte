<!-- @component Words with formulas and, in a stem, gaps to be filled in. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { stemPieces } from '$core/paper';

	let { text, gaps = [], gap }: { text: string; gaps?: string[]; gap?: Snippet<[string]> } = $props();
	const pieces = $derived(stemPieces(text, gaps));
</script>

{#each pieces as piece, i (i)}{#if piece.kind === 'words'}{piece.text}{:else if piece.kind === 'gap'}{@render gap?.(
			piece.id
		)}{:else}{#await import('./Formula.svelte')}<code class="font-mono text-[0.85em]">{piece.tex}</code
			>{:then { default: Formula }}<Formula tex={piece.tex} />{:catch}<code class="font-mono text-[0.85em]"
				>{piece.tex}</code
			>{/await}{/if}{/each}
