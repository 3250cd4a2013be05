<!-- @component What went wrong, and what helps. -->
<script lang="ts">
	import type { Problem } from '$core/problem';
	let { problem }: { problem: Problem | null } = $props();
</script>

{#if problem}
	<div role="alert" class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[17px]">
		<p class="font-semibold">{problem.message}</p>
		{#if problem.instead}<p>{problem.instead}</p>{/if}
	</div>
{/if}
