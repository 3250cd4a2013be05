<!--
@component A field that takes what people type, reads it, and says so where it can't; beside it a button that opens
something to pick from. What is shown at rest is the value in its usual form.
-->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { tick, type Component, type Snippet } from 'svelte';

	type Props = {
		id?: string;
		label?: string;
		/** As it is kept; empty: none. */
		value: string;
		/** The value in its usual form. */
		shown: string;
		/** What a text means; null: nothing. `isResting`: it is not being typed any more. */
		read: (text: string, isResting: boolean) => string | null;
		/** What is said of a text that means nothing. */
		hint: string;
		placeholder: string;
		/** What is picked: "a day". */
		what: string;
		icon: Component;
		disabled?: boolean;
		size?: 'sm' | 'md';
		class?: string;
		onchange: (value: string) => void;
		/** Told when it has been opened, with where it stands. */
		onopen?: (box: HTMLElement) => void;
		picker: Snippet<[pick: (value: string) => void]>;
	};
	let {
		id,
		label,
		value,
		shown,
		read,
		hint,
		placeholder,
		what,
		icon: Icon,
		disabled = false,
		size = 'md',
		class: extra = '',
		onchange,
		onopen,
		picker
	}: Props = $props();

	/** What is being typed; null: the field shows its value. */
	let typed = $state<string | null>(null);
	let isPicking = $state(false);
	let box: HTMLElement;
	const isUnread = $derived(typed !== null && typed.trim() !== '' && read(typed, true) === null);

	function set(next: string) {
		if (next !== value) onchange(next);
	}
	function type(text: string) {
		typed = text;
		const meant = text.trim() === '' ? '' : read(text, false);
		if (meant !== null) set(meant);
	}
	function rest() {
		if (isUnread) return;
		if (typed !== null && typed.trim() !== '') set(read(typed, true)!);
		typed = null;
	}
	async function open() {
		isPicking = !isPicking;
		await tick();
		if (isPicking) onopen?.(box);
	}
	function pick(next: string) {
		typed = null;
		isPicking = false;
		set(next);
		box.querySelector('input')?.focus();
	}
	/** Leaving it altogether closes it. */
	function leave(event: FocusEvent) {
		if (!box.contains(event.relatedTarget as Node | null)) isPicking = false;
	}
	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Enter' && (event.target as HTMLElement).tagName === 'INPUT') rest();
		if (event.key !== 'Escape' || !isPicking) return;
		event.stopPropagation();
		isPicking = false;
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div bind:this={box} class="relative {extra}" onfocusout={leave} {onkeydown}>
	<Input
		{id}
		{size}
		{disabled}
		aria-label={label}
		aria-invalid={isUnread}
		{placeholder}
		autocomplete="off"
		class="pr-10"
		value={typed ?? shown}
		oninput={(event) => type((event.target as HTMLInputElement).value)}
		onblur={rest}
	/>
	<button
		type="button"
		{disabled}
		class="text-ink-2 hover:text-ink absolute top-0 right-0 grid h-full w-10 place-items-center"
		aria-label="Pick {what}{label ? `: ${label}` : ''}"
		aria-expanded={isPicking}
		onclick={open}><Icon class="h-4 w-4" /></button
	>
	{#if isUnread}<p class="text-brick mt-1 text-[13px]" role="alert">{hint}</p>{/if}
	{#if isPicking}
		<div class="bg-sheet border-line absolute top-full left-0 z-30 mt-1 rounded-xl border p-1 shadow-lg">
			{@render picker(pick)}
		</div>
	{/if}
</div>
