<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { untrack } from 'svelte';
	import Act from '$ui/Act.svelte';
	import { invalidateAll } from '$app/navigation';
	import { inWords, send } from '$ui/post';
	import RenameGroup from './RenameGroup.svelte';

	let { data } = $props();
	let text = $state('');
	let groupId = $state(untrack(() => data.groupId));
	let withLeft = $state(false);
	let at = $state(0);
	let shown = $state.raw(untrack(() => data.first));
	let trouble = $state<string | null>(null);
	/** Each new name of a group is a reason to look again. */
	let renamed = $state(0);
	let asked = 0;
	let isFirst = true;

	$effect(() => {
		const query = new URLSearchParams({ text, group: groupId, page: String(at), left: withLeft ? 'yes' : 'no' });
		void renamed;
		if (isFirst) {
			isFirst = false;
			return;
		}
		const mine = ++asked;
		const timer = setTimeout(async () => {
			const answer = await send<typeof shown>('GET', `/prepare/people/find?${query}`);
			if (mine !== asked) return;
			trouble = answer.ok ? null : inWords(answer.problem);
			if (answer.ok) shown = answer.data;
		}, 120);
		return () => clearTimeout(timer);
	});
	const group = $derived(data.groups.find((one) => one.id === groupId));
	const from = $derived(at * data.pageSize);
	const last = $derived(Math.max(0, Math.ceil(shown.total / data.pageSize) - 1));
</script>

<svelte:head><title>People · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">People</h1>
		<div class="w-64">
			<Input
				placeholder="Name, number, group or e-mail"
				aria-label="Find people"
				value={text}
				oninput={(event) => ((text = (event.target as HTMLInputElement).value), (at = 0))}
			/>
		</div>
		<div class="w-52">
			<Select
				aria-label="Group"
				placeholder=""
				value={groupId}
				onchange={(event) => ((groupId = (event.target as HTMLSelectElement).value), (at = 0))}
				items={[
					{ value: '', name: 'every group' },
					...data.groups.map((group) => ({ value: group.id, name: `${group.name}, ${group.count} · ${group.site}` }))
				]}
			/>
		</div>
		{#if group}{#key group.id}<RenameGroup {group} onrenamed={() => (renamed++, invalidateAll())} />{/key}{/if}
		<Checkbox checked={withLeft} onchange={() => ((withLeft = !withLeft), (at = 0))} class="text-[14px]"
			>Include people who have left</Checkbox
		>
		<Act href="/prepare/people/new" class="ml-auto" testid="add">Add</Act>
		<Act tone="main" href="/prepare/people/import">Import</Act>
	</div>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if shown.total === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			{text || groupId
				? `Nobody here matches${text ? ` “${text}”` : ''}.`
				: 'No people yet. Import the list that your office has.'}
		</p>
	{:else}
		<div class="border-line overflow-x-auto rounded-2xl border">
			<Table class="text-ink text-[14.5px]">
				<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
					{#each ['Name', 'Number', 'Groups', 'Site', 'E-mail', 'Granted'] as title (title)}<TableHeadCell
							class="px-4 py-2.5 font-semibold">{title}</TableHeadCell
						>{/each}
				</TableHead>
				<TableBody>
					{#each shown.people as person (person.id)}
						<TableBodyRow class="bg-sheet border-line">
							<TableBodyCell class="px-4 py-2 font-semibold"
								><a class="underline decoration-1 underline-offset-2" href="/prepare/people/{person.id}"
									>{person.name}</a
								>{#if person.left}<span class="text-ink-3 ml-2 font-normal">has left</span>{/if}</TableBodyCell
							>
							<TableBodyCell class="px-4 py-2 font-mono">{person.number}</TableBodyCell>
							<TableBodyCell class="px-4 py-2 whitespace-normal">{person.groups}</TableBodyCell>
							<TableBodyCell class="text-ink-2 px-4 py-2">{person.site}</TableBodyCell>
							<TableBodyCell class="text-ink-2 px-4 py-2">{person.email ?? ''}</TableBodyCell>
							<TableBodyCell class="px-4 py-2"
								>{#if person.standing > 0}<span class="bg-plum-ground text-plum rounded-full px-2 py-0.5 text-[13px]"
										>{person.standing} {person.standing === 1 ? 'grant' : 'grants'}</span
									>{/if}{#if person.language}<span class="text-ink-2 ml-2">{person.language}</span>{/if}</TableBodyCell
							>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		</div>
	{/if}
	<div class="text-ink-2 mt-3 flex flex-wrap items-center gap-3 text-[14px]">
		{#if shown.total > 0}<span data-testid="count"
				>{from + 1} to {Math.min(from + data.pageSize, shown.total)} of {shown.total}</span
			>{/if}
		{#if last > 0}
			<Act size="xs" disabled={at === 0} onclick={() => (at -= 1)}>Earlier</Act>
			<Act size="xs" disabled={at >= last} onclick={() => (at += 1)}>Later</Act>
		{/if}
		<span class="ml-auto">Export</span>
		{#each data.sites as site (site.id)}
			<span class="flex gap-1.5"
				>{site.name}:
				{#each [['csv', 'CSV'], ['oneroster', 'OneRoster'], ['needs', 'needs']] as [format, name] (format)}
					<a class="underline" href="/prepare/people/export?site={site.id}&format={format}" data-sveltekit-reload
						>{name}</a
					>
				{/each}</span
			>
		{/each}
	</div>
</main>
