<!--
@component A day, typed in any usual way or picked; the same in every browser, with its weekday. The value is `2026-12-08`,
or empty.
-->
<script lang="ts">
	import { Datepicker, Input } from 'flowbite-svelte';
	import { CalendarMonthOutline } from 'flowbite-svelte-icons';
	import { fieldDate, localDate, readDate } from '$core/time';
	import { getClock } from './clock-context';

	type Props = {
		id?: string;
		value: string;
		label?: string;
		disabled?: boolean;
		size?: 'sm' | 'md';
		onchange?: (value: string) => void;
	};
	let { id, value = $bindable(), label, disabled = false, size = 'md', onchange }: Props = $props();

	const clock = getClock();
	const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
	/** What is being typed; null: the field shows its value. */
	let typed = $state<string | null>(null);
	let isPicking = $state(false);
	let box: HTMLElement;
	const shown = $derived(typed ?? (value ? fieldDate(value) : ''));
	const isUnread = $derived(typed !== null && typed.trim() !== '' && read(typed) === null);
	const picked = $derived.by(() => {
		const [year, month, day] = value.split('-').map(Number);
		return value ? new Date(year, month - 1, day, 12) : undefined;
	});

	function read(text: string) {
		return readDate(text, localDate(clock.now, zone));
	}
	function set(next: string) {
		if (next === value) return;
		value = next;
		onchange?.(next);
	}
	function type(text: string) {
		typed = text;
		const date = text.trim() === '' ? '' : read(text);
		if (date !== null) set(date);
	}
	function rest() {
		if (!isUnread) typed = null;
	}
	function pick(date: unknown) {
		if (!(date instanceof Date)) return;
		const pad = (part: number) => String(part).padStart(2, '0');
		typed = null;
		isPicking = false;
		set(`${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`);
		box.querySelector('input')?.focus();
	}
	/** Leaving it altogether closes it. */
	function leave(event: FocusEvent) {
		if (!box.contains(event.relatedTarget as Node | null)) isPicking = false;
	}
	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Enter') rest();
		if (event.key !== 'Escape' || !isPicking) return;
		event.stopPropagation();
		isPicking = false;
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div bind:this={box} class="relative w-44" onfocusout={leave} {onkeydown}>
	<Input
		{id}
		{size}
		{disabled}
		aria-label={label}
		aria-invalid={isUnread}
		placeholder="8 Dec 2026"
		autocomplete="off"
		class="pr-10"
		value={shown}
		oninput={(event) => type((event.target as HTMLInputElement).value)}
		onblur={rest}
	/>
	<button
		type="button"
		{disabled}
		class="text-ink-2 hover:text-ink absolute top-0 right-0 grid h-full w-10 place-items-center"
		aria-label="Pick a day{label ? `: ${label}` : ''}"
		aria-expanded={isPicking}
		onclick={() => (isPicking = !isPicking)}><CalendarMonthOutline class="h-4 w-4" /></button
	>
	{#if isUnread}<p class="text-brick mt-1 text-[13px]" role="alert">Type a date like 8 Dec 2026 or 8/12/2026.</p>{/if}
	{#if isPicking}
		<div class="bg-sheet border-line absolute top-full left-0 z-30 mt-1 rounded-xl border p-1 shadow-lg">
			<Datepicker inline value={picked} locale="en-GB" firstDayOfWeek={1} onselect={pick} />
		</div>
	{/if}
</div>
