<!-- @component A number that is typed: what is no number yet, as "4.", stays as it is and changes nothing. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { untrack } from 'svelte';
	import { readDecimal } from '$core/quantity';
	import Field from '$ui/Field.svelte';

	type Props = {
		id: string;
		label: string;
		value: number | null;
		class?: string;
		onchange: (value: number) => void;
		/** Nothing stands there any more. */
		onempty?: () => void;
	};
	let { id, label, value, class: extra = 'w-32', onchange, onempty }: Props = $props();

	const numberIn = (text: string) => readDecimal(text) ?? null;
	const inWords = (value: number | null) => (value === null ? '' : String(value));
	let text = $state(untrack(() => inWords(value)));
	// What came from elsewhere, as by undo.
	$effect(() => {
		if (value !== untrack(() => numberIn(text))) text = inWords(value);
	});
</script>

<Field {id} {label} class={extra} error={readDecimal(text) === undefined ? 'A number, like 2.5.' : undefined}>
	<Input
		{id}
		inputmode="decimal"
		autocomplete="off"
		bind:value={
			() => text,
			(typed: string) => {
				text = typed;
				const read = numberIn(typed);
				if (read !== null && read !== value) onchange(read);
				else if (typed.trim() === '' && value !== null) onempty?.();
			}
		}
	/>
</Field>
