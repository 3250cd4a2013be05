<!-- @component Below a list that is cut: how many of all are shown, and where the others are. -->
<script lang="ts">
	let { shown, of, rest = '' }: { shown: number; of: number; rest?: string } = $props();
</script>

{#if of > shown}<p class="text-ink-2 mt-2 text-[14px]">The first {shown} of {of}. {rest}</p>{/if}
