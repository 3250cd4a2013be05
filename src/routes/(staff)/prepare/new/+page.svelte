<script lang="ts">
	import SessionForm from '../form/SessionForm.svelte';
	let { data } = $props();
</script>

<svelte:head><title>New session · Otium</title></svelte:head>
{#if data.lostDraft}<p class="bg-ochre-ground text-ochre px-7 py-2">
		This draft is gone: it was planned or deleted. This is a new one.
	</p>{/if}
{#key data.key}
	<SessionForm
		title="New session"
		choices={data.choices}
		initial={data.input}
		edit={null}
		draft={data.draft}
		others={data.others}
		copied={data.copied}
		locked={null}
		missing={data.missing}
	/>
{/key}
