<!--
@component A time of day, typed in any usual way or picked by the quarter; the same in every browser, shown in the house's
style. The value is `09:30`, or empty.
-->
<script lang="ts">
	import ClockOutline from 'flowbite-svelte-icons/ClockOutline.svelte';
	import { readTime, shownTime } from '$core/time';
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

	const QUARTERS = Array.from({ length: 96 }, (_, i) => {
		const [hour, minute] = [Math.floor(i / 4), 15 * (i % 4)];
		return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
	});
	/** What is still being typed may mean another time than what it will be: 9, 93, 930. */
	const read = (text: string, isResting: boolean) =>
		!isResting && /^\d{1,3}$/.test(text.trim()) ? null : readTime(text);

	function showNearest(box: HTMLElement) {
		const near = QUARTERS.findLast((quarter) => quarter <= (value || '09:00')) ?? QUARTERS[0];
		box.querySelector<HTMLElement>(`[data-time="${near}"]`)?.focus();
	}
	function move(event: KeyboardEvent) {
		const at = event.target as HTMLElement;
		const beside = { ArrowDown: at.nextElementSibling, ArrowUp: at.previousElementSibling }[event.key];
		if (!beside) return;
		(beside as HTMLElement).focus();
		event.stopPropagation();
		event.preventDefault();
	}
</script>

<TypedField
	{id}
	{label}
	{value}
	{disabled}
	{size}
	shown={value && shownTime(value)}
	{read}
	hint="Type a time like {shownTime('09:30')}."
	placeholder={shownTime('09:30')}
	what="a time"
	icon={ClockOutline}
	class="w-28 font-mono"
	onchange={(next) => {
		value = next;
		onchange?.(next);
	}}
	onopen={showNearest}
>
	{#snippet picker(pick)}
		<div
			class="flex max-h-56 w-26 flex-col overflow-auto"
			role="menu"
			aria-label="Times"
			tabindex="-1"
			onkeydown={move}
		>
			{#each QUARTERS as quarter (quarter)}
				<button
					type="button"
					role="menuitem"
					class="hover:bg-mist rounded-md px-3 py-1 text-left font-mono text-[14px] {quarter === value
						? 'bg-mist'
						: ''}"
					data-time={quarter}
					tabindex="-1"
					onclick={() => pick(quarter)}>{shownTime(quarter)}</button
				>
			{/each}
		</div>
	{/snippet}
</TypedField>
