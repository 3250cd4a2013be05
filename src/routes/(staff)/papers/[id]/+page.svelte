<script lang="ts">
	import PaperPage from './PaperPage.svelte';

	let { data } = $props();
</script>

<!-- Another paper is another page: nothing of the one before is kept in it. -->
{#key data.draft.id}<PaperPage {data} />{/key}
