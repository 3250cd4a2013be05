<!-- @component One of several that can be chosen together. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';

	type Props = { label: string; checked: boolean; onchange: () => void; count?: number; note?: string };
	let { label, checked, onchange, count, note }: Props = $props();
</script>

<label
	class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet flex cursor-pointer items-center gap-2 rounded-lg border px-3 py-2 text-[14px]"
>
	<Checkbox {checked} {onchange} />{label}
	{#if count !== undefined}<strong>{count}</strong>{/if}
	{#if note}<span class="text-ink-2">{note}</span>{/if}
</label>
