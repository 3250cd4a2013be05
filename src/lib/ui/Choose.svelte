<!-- @component A row of choices of which one holds: a radio group that looks like a segmented bar. -->
<script lang="ts" generics="T extends string">
	type Props = {
		name: string;
		label: string;
		options: { value: T; text: string }[];
		value: T;
		onchange?: (value: T) => void;
		disabled?: boolean;
	};
	let { name, label, options, value = $bindable(), onchange, disabled = false }: Props = $props();
</script>

<div
	role="radiogroup"
	aria-label={label}
	class="border-line-strong bg-sheet inline-flex flex-wrap overflow-hidden rounded-lg border"
>
	{#each options as option (option.value)}
		<label
			class="border-line has-checked:bg-mist has-checked:text-tide has-focus-visible:outline-ochre-mark cursor-pointer border-l px-3 py-1.5 text-[14px] first:border-l-0 has-checked:font-semibold has-focus-visible:outline-3 has-focus-visible:-outline-offset-2"
		>
			<input
				type="radio"
				class="sr-only"
				{name}
				{disabled}
				value={option.value}
				checked={value === option.value}
				onchange={() => {
					value = option.value;
					onchange?.(option.value);
				}}
			/>
			{option.text}
		</label>
	{/each}
</div>
