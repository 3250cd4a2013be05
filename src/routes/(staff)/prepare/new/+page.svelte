<script lang="ts">
	import SessionForm from '../SessionForm.svelte';
	let { data } = $props();
</script>

<svelte:head><title>New session · Otium</title></svelte:head>
<SessionForm title="New session" choices={data.choices} initial={data.input} edit={null} locked={null} />
