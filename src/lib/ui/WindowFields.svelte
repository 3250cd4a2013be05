<!--
@component A window as it is entered: its day, when it opens and closes, and the day on which it closes where that is another.
A time of closing that is not after the opening is asked about: another day is never guessed. For a grid of two columns, or a row.
-->
<script lang="ts">
	import { minutesBetween, minutesFrom } from '$core/session';
	import { addDays, shownTime } from '$core/time';
	import DateField from './DateField.svelte';
	import Field from './Field.svelte';
	import TimeField from './TimeField.svelte';

	type Props = {
		/** What the fields' ids begin with, `w-` for `w-date`. */
		prefix?: string;
		/** Other ids than the fields' own names. */
		names?: { opens?: string; closes?: string; lastDate?: string };
		date: string;
		opens: string;
		closes: string;
		lastDate: string | null;
		errors?: { date?: string; opens?: string; closes?: string };
		/** In a row with other fields. */
		inline?: boolean;
		onchange?: () => void;
	};
	let {
		prefix = '',
		names = {},
		date = $bindable(),
		opens = $bindable(),
		closes = $bindable(),
		lastDate = $bindable(),
		errors = {},
		inline = false,
		onchange
	}: Props = $props();

	const whole = $derived(inline ? '' : 'col-span-2');
	const ids = $derived({
		opens: prefix + (names.opens ?? 'opens'),
		closes: prefix + (names.closes ?? 'closes'),
		lastDate: prefix + (names.lastDate ?? 'last-date')
	});

	const isBefore = $derived(lastDate === null && closes !== '' && opens !== '' && closes <= opens);
	/** Back on one day where the opening has moved past the day of closing. */
	function timesChanged() {
		if (lastDate !== null && lastDate <= date) lastDate = null;
		onchange?.();
	}
	/** A later opening takes the closing with it, as long as that stays on the day: nobody means to close before. */
	function opensAt(time: string) {
		const before = opens;
		opens = time;
		if (lastDate === null && closes !== '' && before !== '' && time !== '' && closes <= time)
			closes = laterBy(closes, before, time) ?? closes;
		timesChanged();
	}
	/** A time as much later as `to` is after `from`; null: that is past midnight. */
	function laterBy(time: string, from: string, to: string): string | null {
		const moved = minutesFrom(time, minutesBetween(from, to));
		return moved > to ? moved : null;
	}
	function setLastDate(day: string | null) {
		lastDate = day;
		onchange?.();
	}
</script>

<Field id="{prefix}date" label="Date" class={whole} error={errors.date}
	><DateField id="{prefix}date" bind:value={date} onchange={timesChanged} /></Field
>
<Field id={ids.opens} label="Opens" error={errors.opens}
	><TimeField id={ids.opens} value={opens} onchange={opensAt} /></Field
>
<Field
	id={ids.closes}
	label="Closes"
	error={isBefore ? `${shownTime(closes)} is not after ${shownTime(opens)}.` : errors.closes}
	><TimeField id={ids.closes} bind:value={closes} onchange={timesChanged} /></Field
>
{#if lastDate !== null}
	<Field id={ids.lastDate} label="Closes on" class={whole}
		><DateField id={ids.lastDate} value={lastDate} onchange={(day) => setLastDate(day || null)} /></Field
	>
{:else}
	<button
		type="button"
		class="text-tide text-[13px] underline {inline ? 'pt-8' : 'col-span-2 justify-self-start'}"
		onclick={() => setLastDate(addDays(date, 1))}>{isBefore ? 'It closes on the next day' : 'on another day'}</button
	>
{/if}
