<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto } from '$app/navigation';
	import { SECTIONS } from '$core/rules';
	import Act from '$ui/Act.svelte';

	let { data } = $props();
	let onlyDiffering = $state(true);
	const rows = $derived(data.rows.filter((row) => !onlyDiffering || row.differs));
	const differing = $derived(data.rows.filter((row) => row.differs).length);
	function put(at: number, id: string) {
		const ids = data.sheets.map((sheet) => sheet.id);
		ids[at] = id;
		void goto(
			`/prepare/rules/compare?${ids
				.filter(Boolean)
				.map((one) => `sheet=${one}`)
				.join('&')}`
		);
	}
	/** One more column may be filled. */
	const columns = $derived(data.sheets.length < 3 ? [...data.sheets, null] : data.sheets);
</script>

<svelte:head><title>Compare rule sheets · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-4">
		<h1 class="text-[28px]">Compare rule sheets</h1>
		<span class="text-ink-2">{differing} of {data.rows.length} settings differ</span>
		<Checkbox bind:checked={onlyDiffering} class="text-[14px]">only those that differ</Checkbox>
		<Act class="ml-auto" href="/prepare/rules">All sheets</Act>
	</div>
	<div class="bg-sheet border-line overflow-x-auto rounded-2xl border">
		<table class="w-full table-fixed text-left text-[14.5px]">
			<thead>
				<tr class="border-line border-b align-bottom">
					<th class="w-56 px-4 py-3 font-semibold">Setting</th>
					{#each columns as sheet, i (i)}
						<th class="px-3 py-3">
							<Select
								aria-label="Sheet {i + 1}"
								value={sheet?.id ?? ''}
								placeholder="Choose a sheet"
								items={data.all.map((one) => ({ value: one.id, name: one.name }))}
								onchange={(event) => put(i, (event.target as HTMLSelectElement).value)}
							/>
						</th>
					{/each}
				</tr>
			</thead>
			<tbody>
				{#each SECTIONS as section (section)}
					{@const inside = rows.filter((row) => row.section === section)}
					{#if inside.length > 0}
						<tr class="bg-paper"
							><th colspan={columns.length + 1} class="px-4 py-1.5 font-serif text-[15px] font-semibold">{section}</th
							></tr
						>
						{#each inside as row (row.path)}
							<tr class="border-line border-b last:border-b-0">
								<th class="px-4 py-2 font-semibold" title={row.says}>{row.name}</th>
								{#each row.values as value, i (i)}
									<td class="px-3 py-2 {row.differs && value !== row.values[0] ? 'bg-ochre-ground font-semibold' : ''}"
										>{value}</td
									>
								{/each}
								{#if columns.length > row.values.length}<td></td>{/if}
							</tr>
						{/each}
					{/if}
				{/each}
			</tbody>
		</table>
		{#if rows.length === 0}<p class="text-ink-2 p-8 text-center">
				{data.sheets.length < 2 ? 'Choose two sheets.' : 'They are alike in everything.'}
			</p>{/if}
	</div>
</main>
