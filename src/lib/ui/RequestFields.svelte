<!-- @component What somebody asks for, why, and what they show for it. -->
<script lang="ts">
	import Fileupload from 'flowbite-svelte/Fileupload.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { REQUEST_WHAT, type RequestWhat } from '$core/request';
	import Field from './Field.svelte';

	type Props = { what: RequestWhat; why: string; files: FileList | undefined };
	let { what = $bindable(), why = $bindable(), files = $bindable() }: Props = $props();
	const items = Object.entries(REQUEST_WHAT).map(([value, name]) => ({ value, name }));
</script>

<Field id="ask-what" label="What is asked for"><Select id="ask-what" placeholder="" {items} bind:value={what} /></Field>
<Field id="ask-why" label="Why, and what would help"
	><Textarea id="ask-why" rows={4} class="w-full" maxlength={2000} bind:value={why} /></Field
>
<Field
	id="ask-shown"
	label="A letter or certificate, if there is one"
	hint="PDF, picture or text, at most 2 MB. Only those who decide can open it."
	><Fileupload id="ask-shown" size="sm" accept=".pdf,.png,.jpg,.jpeg,.txt" bind:files /></Field
>
