<!-- @component Which column of a table holds what, and how it is to be read. -->
<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import type { CheckedTable, ColumnKey, DateOrder, NameOrder } from '$core/people';
	import Choose from '$ui/Choose.svelte';

	type Props = {
		table: CheckedTable;
		columns: Record<string, { name: string; needed: boolean }>;
		separators: Record<string, string>;
		dateOrder: DateOrder | null;
		onmap: (key: ColumnKey, column: number | null) => void;
		onseparator: (separator: string) => void;
		ondateorder: (order: DateOrder) => void;
		onnameorder: (order: NameOrder) => void;
		onsheet: (name: string) => void;
	};
	let { table, columns, separators, dateOrder, onmap, onseparator, ondateorder, onnameorder, onsheet }: Props =
		$props();
	/** What stands where no column is chosen. */
	function missingName(key: ColumnKey, isNeeded: boolean): string {
		if (key === 'number') return 'none: make them';
		if (table.mapping.whole !== null && (key === 'given' || key === 'family')) return 'in the whole name';
		return isNeeded ? 'choose' : 'not in the file';
	}
</script>

<section class="bg-sheet border-line mt-5 rounded-2xl border p-4">
	<h2 class="text-[17px]">Columns</h2>
	<div class="mt-2 grid grid-cols-5 gap-3 max-lg:grid-cols-3 max-sm:grid-cols-2">
		{#each Object.entries(columns) as [key, column] (key)}
			{@const at = table.mapping[key as ColumnKey]}
			<div>
				<label for="col-{key}" class="text-ink-2 mb-1 block text-[13px] font-semibold"
					>{column.name}{column.needed ? '' : ' '}</label
				>
				<Select
					id="col-{key}"
					size="sm"
					placeholder=""
					value={at === null ? '' : String(at)}
					items={[
						{ value: '', name: missingName(key as ColumnKey, column.needed) },
						...table.header.map((name, i) => ({ value: String(i), name }))
					]}
					onchange={(event) => {
						const chosen = (event.target as HTMLSelectElement).value;
						onmap(key as ColumnKey, chosen === '' ? null : Number(chosen));
					}}
				/>
				<p class="text-ink-3 mt-0.5 truncate text-[13px]">
					{at === null ? '' : table.sample.flatMap((row) => row[at] || []).join(', ')}
				</p>
			</div>
		{/each}
	</div>
	{#if table.leftOut.length > 0}
		<p class="text-ochre mt-3 text-[14px]" data-testid="left-out">
			<strong>Not read:</strong>
			{table.leftOut.map(({ name, values }) => `${name} (${values.join(', ')})`).join(' · ')}. Choose above what such a
			column holds, or leave it.
		</p>
	{/if}
	<div class="mt-3 flex flex-wrap items-center gap-4 text-[14px]">
		{#if table.sheets.length > 1}
			<label class="flex items-center gap-2"
				>Sheet
				<Select
					size="sm"
					class="w-48"
					value={table.sheet ?? ''}
					items={table.sheets.map((name) => ({ value: name, name }))}
					onchange={(event) => onsheet((event.target as HTMLSelectElement).value)}
				/></label
			>
		{/if}
		{#if table.separator !== null}
			<label class="flex items-center gap-2"
				>Separator
				<Select
					size="sm"
					class="w-32"
					value={table.separator}
					items={Object.entries(separators).map(([value, name]) => ({ value, name }))}
					onchange={(event) => onseparator((event.target as HTMLSelectElement).value)}
				/></label
			>
		{/if}
		{#if table.split}
			<div class="flex flex-wrap items-center gap-3" data-testid="split">
				<span class="text-ink-2 font-semibold">Names come apart as</span>
				{#each table.split as { given, family }, i (i)}
					<span class="bg-mist rounded-lg px-2 py-0.5">{given || '…'} <strong>{family}</strong></span>
				{/each}
				{#if table.nameOrder !== 'comma'}
					<Choose
						name="names"
						label="Which comes first in names"
						value={table.nameOrder}
						options={[
							{ value: 'given_first', text: 'given name first' },
							{ value: 'family_first', text: 'family name first' }
						]}
						onchange={onnameorder}
					/>
				{/if}
			</div>
		{/if}
		{#if table.dateOrderOpen || dateOrder}
			<span class="text-ochre font-semibold">Dates can be read two ways. Which comes first?</span>
			<Choose
				name="dates"
				label="Which comes first in dates"
				value={dateOrder ?? ('' as never)}
				options={[
					{ value: 'day_first', text: 'the day' },
					{ value: 'month_first', text: 'the month' }
				]}
				onchange={ondateorder}
			/>
		{/if}
	</div>
</section>
