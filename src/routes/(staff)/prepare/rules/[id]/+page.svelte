<script lang="ts">
	import SheetEditor from './SheetEditor.svelte';

	let { data } = $props();
</script>

<!-- A copy is another sheet, entered afresh. -->
{#key data.sheet.id}
	<SheetEditor {data} />
{/key}
