<!-- @component What went wrong, what helps, and what else belongs to it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Problem } from '$core/problem';
	let { problem, children }: { problem: Problem | null; children?: Snippet } = $props();
</script>

{#if problem}
	<div role="alert" class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[17px]" data-testid="problem">
		<p class="font-semibold">{problem.message}</p>
		{#if problem.instead}<p>{problem.instead}</p>{/if}
		{@render children?.()}
	</div>
{/if}
