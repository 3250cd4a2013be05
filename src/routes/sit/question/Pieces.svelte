<!-- @component A line: words as they look, formulas and, in a stem, gaps to be filled in. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Inline, Mark } from '$core/paper';

	let { pieces, gap }: { pieces: Inline[]; gap?: Snippet<[string]> } = $props();
</script>

{#snippet marked(text: string, [mark, ...others]: Mark[])}{#if mark === 'strong'}<strong
			>{@render marked(text, others)}</strong
		>{:else if mark === 'emphasis'}<em>{@render marked(text, others)}</em>{:else if mark === 'sub'}<sub
			>{@render marked(text, others)}</sub
		>{:else if mark === 'sup'}<sup>{@render marked(text, others)}</sup>{:else if mark === 'code'}<code
			class="font-mono text-[0.9em]">{@render marked(text, others)}</code
		>{:else}{text}{/if}{/snippet}

{#each pieces as piece, i (i)}{#if piece.kind === 'words'}{@render marked(
			piece.text,
			piece.marks
		)}{:else if piece.kind === 'gap'}{@render gap?.(piece.id)}{:else}{#await import('./Formula.svelte')}<code
				class="font-mono text-[0.85em]">{piece.tex}</code
			>{:then { default: Formula }}<Formula tex={piece.tex} />{:catch}<code class="font-mono text-[0.85em]"
				>{piece.tex}</code
			>{/await}{/if}{/each}
