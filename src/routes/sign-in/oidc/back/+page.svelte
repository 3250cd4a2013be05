<script lang="ts">
	import { onMount } from 'svelte';
	import Card from '../../Card.svelte';
	let { data } = $props();
	onMount(() => location.replace(data.next));
</script>

<svelte:head><title>Signed in · Otium</title></svelte:head>
<Card title="Signed in"><p class="mt-3"><a class="text-tide underline" href={data.next}>Continue</a></p></Card>
