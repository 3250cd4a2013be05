<!-- @component A field for a whole number. What can't be read stays there, says so, and is told as `undefined`. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { readWhole } from '$core/quantity';

	/** More than anybody counts here: nobody is told of it. */
	const MANY = 1_000_000;

	type Props = {
		/** Named by a label elsewhere, or else by `label`. */
		id?: string;
		label?: string;
		value: number | null | undefined;
		least?: number;
		most?: number;
		disabled?: boolean;
		size?: 'sm' | 'md';
		class?: string;
		/** null: it is empty; undefined: it can't be read, and must not be saved. */
		onchange: (value: number | null | undefined) => void;
	};
	let {
		id,
		label,
		value,
		least = 0,
		most = MANY,
		disabled,
		size = 'md',
		class: extra = '',
		onchange
	}: Props = $props();
	const own = $props.id();
	/** As it was typed, as long as that can't be read. */
	let typed = $state<string | null>(null);
	const isUnread = $derived(typed !== null);
	// What came from elsewhere, as by undo, takes its place.
	$effect(() => {
		if (value !== undefined) typed = null;
	});

	function read(event: Event) {
		const text = (event.target as HTMLInputElement).value;
		const number = readWhole(text, least, most);
		typed = number === undefined ? text : null;
		onchange(number);
	}
</script>

<span class="block {extra}">
	<Input
		{id}
		{size}
		{disabled}
		class={isUnread ? 'border-brick' : ''}
		inputmode="numeric"
		aria-label={label}
		aria-invalid={isUnread}
		aria-describedby={isUnread ? `${own}-fault` : undefined}
		value={(isUnread ? typed : value) ?? ''}
		oninput={read}
	/>
	{#if isUnread}
		<span id="{own}-fault" class="text-brick mt-1 block text-[13px]" role="alert">
			A whole number{most === MANY ? '' : ` from ${least} to ${most}`}, or nothing.
		</span>
	{/if}
</span>
