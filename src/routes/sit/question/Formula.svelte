<!-- @component A formula in TeX. Loaded only where a paper has one: KaTeX is larger than all the rest of the page. -->
<script lang="ts">
	import katex from 'katex';
	import 'katex/dist/katex.min.css';

	let { tex }: { tex: string } = $props();
	// KaTeX writes markup of its own making and trusts nothing in the text; what it can't read it shows as it is.
	const html = $derived(katex.renderToString(tex, { throwOnError: false, trust: false, output: 'htmlAndMathml' }));
</script>

<!-- eslint-disable-next-line svelte/no-at-html-tags -- see above -->
<span class="whitespace-nowrap">{@html html}</span>
