<!-- @component A formula in TeX, as the server drew it; where it did not, as on an author's page, it is drawn here. -->
<script lang="ts">
	import { AS_DRAWN, formulaFault, type DrawnFormula } from '$core/paper';
	import { drawnFormulas } from '$player/drawn-formulas';
	import 'katex/dist/katex.min.css';

	let { tex }: { tex: string } = $props();

	/** KaTeX is larger than all the rest of the page. */
	async function drawHere(): Promise<Pick<DrawnFormula, 'html'>> {
		if (formulaFault(tex) !== null) return { html: null };
		const { default: katex } = await import('katex');
		return { html: katex.renderToString(tex, AS_DRAWN) };
	}
	const drawn = $derived(drawnFormulas.get(tex) ?? drawHere());
</script>

<!-- KaTeX writes markup of its own making and trusts nothing in the text; what it can't read it shows as it is. -->
{#snippet shown({ html }: Pick<DrawnFormula, 'html'>)}
	<!-- eslint-disable-next-line svelte/no-at-html-tags -- see above -->
	{#if html}<span class="whitespace-nowrap">{@html html}</span>{:else}<code class="break-all">{tex}</code>{/if}
{/snippet}

{#if drawn instanceof Promise}{#await drawn}<code class="font-mono text-[0.85em]">{tex}</code>{:then one}{@render shown(
			one
		)}{:catch}<code class="font-mono text-[0.85em]">{tex}</code>{/await}{:else}{@render shown(drawn)}{/if}
