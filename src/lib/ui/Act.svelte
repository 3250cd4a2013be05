<!--
@component A button that says what it does and which key does the same. The theme dresses it; screens choose a tone.
-->
<script lang="ts">
	import Button from 'flowbite-svelte/Button.svelte';
	import type { Snippet } from 'svelte';

	type Props = {
		children: Snippet;
		/** `main` is the one act a screen is for; `danger` spells out what can't be undone. */
		tone?: 'main' | 'quiet' | 'danger' | 'grant';
		key?: string;
		size?: 'xs' | 'sm';
		href?: string;
		type?: 'button' | 'submit';
		disabled?: boolean;
		busy?: boolean;
		onclick?: (event: MouseEvent) => void;
		class?: string;
		title?: string;
		testid?: string;
	};
	let {
		children,
		tone = 'quiet',
		key,
		size = 'sm',
		href,
		type = 'button',
		disabled = false,
		busy = false,
		onclick,
		class: extra = '',
		title,
		testid
	}: Props = $props();

	const color = $derived(({ main: 'primary', quiet: 'light', danger: 'red', grant: 'purple' } as const)[tone]);
	const spacing = $derived(size === 'xs' ? 'px-2.5 py-1 text-[13px]' : 'px-3.5 py-2 text-[14px]');
</script>

<Button
	{color}
	{size}
	{href}
	{title}
	type={href ? undefined : type}
	disabled={disabled || busy}
	outline={tone === 'danger'}
	onclick={onclick as never}
	data-testid={testid}
	class="gap-2 rounded-lg font-semibold whitespace-nowrap focus-within:ring-0 {spacing} {extra}"
	aria-busy={busy}
>
	{@render children()}
	{#if key}<kbd class="rounded border border-current/35 px-1.5 font-mono text-[11px] leading-4 font-medium">{key}</kbd
		>{/if}
</Button>
