<!-- @component A text that is one line, as a choice is: words with formulas and, in a stem, gaps to be filled in. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { inlineOf } from '$core/paper';
	import Pieces from './Pieces.svelte';

	let { text, gaps = [], gap }: { text: string; gaps?: string[]; gap?: Snippet<[string]> } = $props();
</script>

<Pieces pieces={inlineOf(text, gaps)} {gap} />
