<!-- @component A candidate's button: large, plain, few. The candidate's pages carry no component library, to load fast. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	type Props = {
		children: Snippet;
		main?: boolean;
		type?: 'button' | 'submit';
		disabled?: boolean;
		onclick?: () => void;
		pressed?: boolean;
		class?: string;
		testid?: string;
	};
	let {
		children,
		main = false,
		type = 'button',
		disabled = false,
		onclick,
		pressed,
		class: extra = '',
		testid
	}: Props = $props();

	// Sent by the server it looks like a button before it is one: a press in that moment would be lost without a word.
	let listens = $state(false);
	$effect(() => void (listens = true));
</script>

<button
	{type}
	disabled={disabled || !listens}
	{onclick}
	aria-pressed={pressed}
	data-testid={testid}
	class="rounded-xl border px-5 py-2.5 text-[17px] font-semibold {listens ? 'disabled:opacity-50' : ''} {main
		? 'bg-tide border-tide text-on-tide hover:brightness-95'
		: 'bg-sheet border-line-strong hover:bg-paper aria-pressed:bg-ochre-ground aria-pressed:border-ochre-mark'} {extra}"
>
	{@render children()}
</button>
