<!-- @component A sentence in which what must be right stands out. -->
<script lang="ts">
	import type { SentencePart } from '$core/session';
	let { parts }: { parts: SentencePart[] } = $props();
</script>

{#each parts as part, i (i)}{#if part.strong}<strong class="font-semibold">{part.text}</strong
		>{:else}{part.text}{/if}{/each}
