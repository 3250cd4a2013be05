<!-- @component A part of the form: its name on the left, its fields on the right. -->
<script lang="ts">
	import type { Snippet } from 'svelte';

	let { name, children }: { name: string; children: Snippet } = $props();
</script>

<section class="grid grid-cols-[110px_1fr] gap-4 py-4 max-sm:grid-cols-1">
	<h2 class="pt-1 text-[17px]">{name}</h2>
	{@render children()}
</section>
