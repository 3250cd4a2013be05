<!--
@component A state as a shape: a tide rising in a circle. What is out of the ordinary breaks the circle.
-->
<script lang="ts">
	import type { TallyKey } from '$core/room';
	let { state, size = 16 }: { state: TallyKey; size?: number } = $props();
</script>

<svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" class="shrink-0">
	{#if state === 'expected'}
		<circle cx="8" cy="8" r="6" fill="none" stroke="var(--ink-3)" stroke-width="1.6" stroke-dasharray="2.4 2" />
	{:else if state === 'at_door'}
		<circle cx="8" cy="8" r="6" fill="none" stroke="var(--slate)" stroke-width="1.6" />
		<path d="M2.6 10.6A6 6 0 0 0 13.4 10.6Z" fill="var(--slate)" />
	{:else if state === 'let_in'}
		<circle cx="8" cy="8" r="6" fill="none" stroke="var(--tide)" stroke-width="1.6" />
		<path d="M2 8A6 6 0 0 0 14 8Z" fill="var(--tide)" />
	{:else if state === 'working'}
		<circle cx="8" cy="8" r="6.6" fill="var(--tide)" />
	{:else if state === 'on_hold'}
		<rect x="1.6" y="1.6" width="12.8" height="12.8" rx="3" fill="var(--ochre)" />
		<path d="M6 4.6v6.8M10 4.6v6.8" stroke="var(--sheet)" stroke-width="2" />
	{:else if state === 'line_lost'}
		<path d="M8 1.2 15 14H1Z" fill="var(--brick)" />
		<path d="M8 5.6v4M8 11v1.4" stroke="var(--sheet)" stroke-width="1.7" />
	{:else if state === 'handed_in'}
		<circle cx="8" cy="8" r="6.6" fill="none" stroke="var(--tide)" stroke-width="1.6" />
		<path d="m4.8 8.2 2.3 2.3 4.2-4.6" fill="none" stroke="var(--tide)" stroke-width="1.8" />
	{:else if state === 'time_up'}
		<circle cx="8" cy="8" r="6.6" fill="none" stroke="var(--tide)" stroke-width="1.6" />
		<path d="M8 4v4.3l2.8 1.8" fill="none" stroke="var(--tide)" stroke-width="1.8" />
	{:else if state === 'carried_over'}
		<path
			d="M2 11.5C2 6.5 6 4.6 10.5 5.4M8 2l3.6 3.5L7.6 8.6"
			fill="none"
			stroke="var(--plum)"
			stroke-width="1.8"
			stroke-linecap="round"
			stroke-linejoin="round"
		/>
	{:else if state === 'absent'}
		<circle cx="8" cy="8" r="6" fill="none" stroke="var(--ink-3)" stroke-width="1.6" />
		<path d="M4 12 12 4" stroke="var(--ink-3)" stroke-width="1.6" />
	{:else}
		<rect x="2" y="2" width="12" height="12" rx="3" fill="none" stroke="var(--brick)" stroke-width="1.6" />
		<path d="m5.2 5.2 5.6 5.6M10.8 5.2l-5.6 5.6" stroke="var(--brick)" stroke-width="1.6" />
	{/if}
</svg>
