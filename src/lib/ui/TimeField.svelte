<!--
@component A time of day in 24 hours, typed in any usual way or picked by the quarter; the same in every browser. The value
is `09:30`, or empty.
-->
<script lang="ts">
	import { Input } from 'flowbite-svelte';
	import { ClockOutline } from 'flowbite-svelte-icons';
	import { tick } from 'svelte';
	import { readTime } from '$core/time';

	type Props = {
		id?: string;
		value: string;
		label?: string;
		disabled?: boolean;
		size?: 'sm' | 'md';
		onchange?: (value: string) => void;
	};
	let { id, value = $bindable(), label, disabled = false, size = 'md', onchange }: Props = $props();

	const QUARTERS = Array.from({ length: 96 }, (_, i) => {
		const [hour, minute] = [Math.floor(i / 4), 15 * (i % 4)];
		return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
	});
	let typed = $state<string | null>(null);
	let isPicking = $state(false);
	let box: HTMLElement;
	const isUnread = $derived(typed !== null && typed.trim() !== '' && readTime(typed) === null);

	function set(next: string) {
		if (next === value) return;
		value = next;
		onchange?.(next);
	}
	function type(text: string) {
		typed = text;
		// What is still being typed may mean another time than what it will be: 9, 93, 930.
		const time = text.trim() === '' ? '' : /^\d{1,3}$/.test(text.trim()) ? null : readTime(text);
		if (time !== null) set(time);
	}
	function rest() {
		if (isUnread) return;
		if (typed !== null && typed.trim() !== '') set(readTime(typed)!);
		typed = null;
	}
	async function open() {
		isPicking = !isPicking;
		await tick();
		const near = QUARTERS.findLast((quarter) => quarter <= (value || '09:00')) ?? QUARTERS[0];
		box.querySelector<HTMLElement>(`[data-time="${near}"]`)?.focus();
	}
	function pick(time: string) {
		typed = null;
		isPicking = false;
		set(time);
		box.querySelector('input')?.focus();
	}
	function leave(event: FocusEvent) {
		if (!box.contains(event.relatedTarget as Node | null)) isPicking = false;
	}
	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Enter' && (event.target as HTMLElement).tagName === 'INPUT') rest();
		if (!isPicking) return;
		const at = event.target as HTMLElement;
		const beside = { ArrowDown: at.nextElementSibling, ArrowUp: at.previousElementSibling }[event.key];
		if (event.key === 'Escape') isPicking = false;
		else if (beside) (beside as HTMLElement).focus();
		else return;
		event.stopPropagation();
		event.preventDefault();
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div bind:this={box} class="relative w-28" onfocusout={leave} {onkeydown}>
	<Input
		{id}
		{size}
		{disabled}
		aria-label={label}
		aria-invalid={isUnread}
		placeholder="09:30"
		autocomplete="off"
		class="pr-9 font-mono"
		value={typed ?? value}
		oninput={(event) => type((event.target as HTMLInputElement).value)}
		onblur={rest}
	/>
	<button
		type="button"
		{disabled}
		class="text-ink-2 hover:text-ink absolute top-0 right-0 grid h-full w-9 place-items-center"
		aria-label="Pick a time{label ? `: ${label}` : ''}"
		aria-expanded={isPicking}
		onclick={open}><ClockOutline class="h-4 w-4" /></button
	>
	{#if isUnread}<p class="text-brick mt-1 text-[13px]" role="alert">Type a time like 09:30.</p>{/if}
	{#if isPicking}
		<div
			class="bg-sheet border-line absolute top-full left-0 z-30 mt-1 flex max-h-56 w-28 flex-col overflow-auto rounded-xl border p-1 shadow-lg"
			role="group"
			aria-label="Times"
		>
			{#each QUARTERS as quarter (quarter)}
				<button
					type="button"
					class="hover:bg-mist rounded-md px-3 py-1 text-left font-mono text-[14px] {quarter === value
						? 'bg-mist'
						: ''}"
					data-time={quarter}
					tabindex="-1"
					onclick={() => pick(quarter)}>{quarter}</button
				>
			{/each}
		</div>
	{/if}
</div>
