<script lang="ts">
	import SessionForm from '../form/SessionForm.svelte';
	import CallOff from './CallOff.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{data.input.name} · Otium</title></svelte:head>
{#key data.edit.revision}
	<SessionForm
		title="Change session"
		choices={data.choices}
		initial={data.input}
		edit={data.edit}
		draft={data.draft}
		others={[]}
		locked={data.locked}
	>
		{#if data.mayBeCalledOff}<CallOff id={data.edit.id} name={data.input.name} leaves={data.mailLeaves} />{/if}
	</SessionForm>
{/key}
