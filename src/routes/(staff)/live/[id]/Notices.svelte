<!-- @component What was just done, with its undo, and what was refused. -->
<script lang="ts">
	import type { Notices } from './notices.svelte';
	let { notices }: { notices: Notices } = $props();
</script>

<div
	class="fixed bottom-16 left-1/2 z-40 flex -translate-x-1/2 flex-col items-center gap-2"
	role="status"
	aria-live="polite"
	data-testid="notices"
>
	{#each notices.list as notice (notice.id)}
		<p
			class="flex items-center gap-3 rounded-xl px-4 py-2.5 text-[14.5px] font-semibold shadow-lg {notice.tone ===
			'done'
				? 'bg-tide-deep text-[#f6f2e8]'
				: 'bg-brick text-on-tide'}"
		>
			{notice.text}
			{#if notice.undo}<button
					class="rounded-md border border-current/50 px-2 py-0.5"
					onclick={() => notices.undo(notice)}>Undo <kbd class="font-mono text-[12px]">Z</kbd></button
				>{/if}
			<button aria-label="Dismiss" onclick={() => notices.dismiss(notice.id)}>×</button>
		</p>
	{/each}
</div>
