<!-- @component Who somebody is, as registered: for a person who is known, and for one who is added by hand. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import DateField from '$ui/DateField.svelte';
	import Field from '$ui/Field.svelte';
	import type { PersonForm } from './person-form';

	let { form = $bindable(), groups }: { form: PersonForm; groups: { id: string; name: string }[] } = $props();
</script>

<div class="mt-3 grid grid-cols-2 gap-3">
	<Field id="given" label="Given name"><Input id="given" bind:value={form.given} /></Field>
	<Field id="family" label="Family name"><Input id="family" bind:value={form.family} /></Field>
	<Field id="number" label="Candidate number"><Input id="number" class="font-mono" bind:value={form.number} /></Field>
	<Field id="email" label="E-mail"><Input id="email" bind:value={form.email} placeholder="none" /></Field>
	<Field id="birth" label="Date of birth"><DateField id="birth" bind:value={form.birth} /></Field>
	<Field id="language" label="Language" hint="a tag: en, pt-PT"
		><Input id="language" bind:value={form.language} placeholder="none asked for" /></Field
	>
	<Field id="grade" label="Grade or year"><Input id="grade" bind:value={form.grade} placeholder="none" /></Field>
	<Field id="user-name" label="User name" hint="what they sign in with elsewhere"
		><Input id="user-name" bind:value={form.userName} placeholder="none" /></Field
	>
</div>
<div class="mt-3 flex flex-wrap gap-x-4 gap-y-2" role="group" aria-label="Groups">
	{#each groups as group (group.id)}
		<Checkbox
			checked={form.groupIds.includes(group.id)}
			onchange={() =>
				(form.groupIds = form.groupIds.includes(group.id)
					? form.groupIds.filter((one) => one !== group.id)
					: [...form.groupIds, group.id])}>{group.name}</Checkbox
		>
	{/each}
</div>
<div class="mt-3">
	<Checkbox class="text-[14px]" bind:checked={form.elsewhere}
		>sits elsewhere, not in the room: needs no seat, and the rules for those elsewhere hold</Checkbox
	>
</div>
