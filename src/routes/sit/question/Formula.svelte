<!-- @component A formula in TeX. Loaded only where a paper has one: KaTeX is larger than all the rest of the page. -->
<script lang="ts">
	import { formulaFault } from '$core/paper';
	import katex from 'katex';
	import 'katex/dist/katex.min.css';

	let { tex }: { tex: string } = $props();
	/** What costs too much is shown as it is written: older papers may have such a one. */
	const isDrawn = $derived(formulaFault(tex) === null);
	// KaTeX writes markup of its own making and trusts nothing in the text; what it can't read it shows as it is.
	const html = $derived(
		isDrawn ? katex.renderToString(tex, { throwOnError: false, trust: false, output: 'htmlAndMathml' }) : ''
	);
</script>

{#if isDrawn}
	<!-- eslint-disable-next-line svelte/no-at-html-tags -- see above -->
	<span class="whitespace-nowrap">{@html html}</span>
{:else}<code class="break-all">{tex}</code>{/if}
