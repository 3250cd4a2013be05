<!--
@component A day, typed in any usual way or picked; the same in every browser, with its weekday. The value is `2026-12-08`,
or empty.
-->
<script lang="ts">
	import Datepicker from 'flowbite-svelte/Datepicker.svelte';
	import CalendarMonthOutline from 'flowbite-svelte-icons/CalendarMonthOutline.svelte';
	import { fieldDate, localDate, readDate } from '$core/time';
	import { getClock } from './clock-context';
	import TypedField from './TypedField.svelte';

	type Props = {
		id?: string;
		value: string;
		label?: string;
		disabled?: boolean;
		size?: 'sm' | 'md';
		onchange?: (value: string) => void;
	};
	let { id, value = $bindable(), label, disabled, size, onchange }: Props = $props();

	const clock = getClock();
	const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
	const picked = $derived.by(() => {
		const [year, month, day] = value.split('-').map(Number);
		return value ? new Date(year, month - 1, day, 12) : undefined;
	});
	const pad = (part: number) => String(part).padStart(2, '0');
	const isoOf = (date: Date) => `${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`;
</script>

<TypedField
	{id}
	{label}
	{value}
	{disabled}
	{size}
	shown={value ? fieldDate(value) : ''}
	read={(text) => readDate(text, localDate(clock.now, zone))}
	hint="Type a date like 8 Dec 2026 or 8/12/2026."
	placeholder="8 Dec 2026"
	what="a day"
	icon={CalendarMonthOutline}
	class="w-44"
	onchange={(next) => {
		value = next;
		onchange?.(next);
	}}
>
	{#snippet picker(pick)}
		<Datepicker
			inline
			value={picked}
			locale="en-GB"
			firstDayOfWeek={1}
			onselect={(date) => date instanceof Date && pick(isoOf(date))}
		/>
	{/snippet}
</TypedField>
