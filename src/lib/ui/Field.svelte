<!-- @component A labelled field with its refusal beneath it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	type Props = { id: string; label: string; error?: string; hint?: string; children: Snippet; class?: string };
	let { id, label, error, hint, children, class: extra = '' }: Props = $props();
</script>

<div class={extra}>
	<label for={id} class="text-ink-2 mb-1 block text-[13px] font-semibold">{label}</label>
	{@render children()}
	{#if error}
		<p class="text-brick mt-1 text-[13px]" role="alert">{error}</p>
	{:else if hint}
		<p class="text-ink-3 mt-1 text-[13px]">{hint}</p>
	{/if}
</div>
