<!-- @component What a file would do, in numbers and names, before it does. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import type { CheckedFile, ImportAsked } from '$core/people';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';

	type Missing = ImportAsked['missing'];
	type Props = {
		checked: CheckedFile;
		sameNames: ImportAsked['sameNames'];
		missing: Missing;
		/** How many would be written. */
		sum: number;
		busy: boolean;
		onmakegroups: (makeGroups: boolean) => void;
		onsamenames: (sameNames: ImportAsked['sameNames']) => void;
		onmissing: (missing: Missing) => void;
		onapply: () => void;
	};
	let { checked, sameNames, missing, sum, busy, onmakegroups, onsamenames, onmissing, onapply }: Props = $props();

	const FORMATS = { csv: 'A table', one_roster: 'A OneRoster folder', needs: 'Needs profiles' };
</script>

<section class="bg-sheet border-line mt-5 rounded-2xl border p-4" data-testid="plan">
	<h2 class="text-[17px]">
		{FORMATS[checked.format]}{checked.isDelta && checked.format === 'one_roster' ? ' of changes' : ''}: what would
		happen
	</h2>
	{#if checked.note}<p class="bg-ochre-ground text-ochre mt-2 rounded-lg px-3 py-2 text-[14px]">
			{checked.note}
		</p>{/if}
	{#each checked.told as line (line)}<p class="text-ochre mt-2 text-[14px]">{line}</p>{/each}
	{#if checked.makesNumbers && checked.counts.add > 0}
		<p class="bg-mist mt-2 rounded-lg px-3 py-2 text-[14px]" data-testid="made-numbers">
			<strong>The file has no candidate numbers, so they are made</strong>, each with a digit that shows a typing
			mistake:
			{checked.add.slice(0, 3).join(' · ')}{checked.counts.add > 3 ? ' · …' : ''}. They stand on slips and lists. Who is
			here already keeps theirs, and is known by name and date of birth.
		</p>
	{/if}
	<p class="mt-2 flex flex-wrap gap-x-6 gap-y-1" data-testid="counts">
		<span><strong class="font-mono text-[20px]">{checked.counts.add}</strong> added</span>
		<span><strong class="font-mono text-[20px]">{checked.counts.change}</strong> changed</span>
		<span><strong class="font-mono text-[20px]">{checked.counts.same}</strong> as they are</span>
		<span class={checked.counts.missing > 0 ? 'text-ochre' : ''}
			><strong class="font-mono text-[20px]">{checked.counts.missing}</strong> not in the file</span
		>
		<span class={checked.counts.problems > 0 ? 'text-brick' : ''}
			><strong class="font-mono text-[20px]">{checked.counts.problems}</strong>
			{checked.counts.problems === 1 ? 'row' : 'rows'} with something wrong</span
		>
	</p>
	<div class="mt-3 flex flex-wrap items-center gap-4 text-[14px]">
		<Checkbox checked={checked.makesGroups} onchange={() => onmakegroups(!checked.makesGroups)}
			>make new groups</Checkbox
		>
		{#if checked.makesNumbers}
			<Checkbox
				checked={sameNames === 'two'}
				onchange={() => onsamenames(sameNames === 'two' ? 'ask' : 'two')}
				data-testid="same-names">the same name twice is two people</Checkbox
			>
		{/if}
		{#if checked.newGroups.length > 0}<span class="text-plum font-semibold">New: {checked.newGroups.join(', ')}</span
			>{/if}
		{#if checked.counts.missing > 0}
			<span>Those not in the file</span>
			<Choose
				name="missing"
				label="Those not in the file"
				value={missing}
				options={[
					{ value: 'keep', text: 'stay as they are' },
					{ value: 'leave', text: `${checked.counts.missing} are no longer listed` }
				]}
				onchange={onmissing}
			/>
		{/if}
	</div>
	{#if checked.problems.length > 0}
		<h3 class="text-brick mt-4 text-[15px]">To correct in the file first</h3>
		<ul class="mt-1 max-h-64 overflow-auto text-[14px]" data-testid="problems">
			{#each checked.problems as problem, i (i)}
				<li class="border-line border-b py-1">
					<span class="font-mono">{problem.line > 0 ? `line ${problem.line}` : ''}</span>
					{#if problem.field}<strong>{problem.field}:</strong>{/if}
					{problem.message}
				</li>
			{/each}
		</ul>
		{#if checked.counts.problems > checked.problems.length}<p class="text-ink-3 text-[13px]">
				… and {checked.counts.problems - checked.problems.length} more
			</p>{/if}
	{/if}
	{#each [['Added', checked.add, checked.counts.add], ['Not in the file', checked.missing, checked.counts.missing]] as const as [title, names, count] (title)}
		{#if names.length > 0}
			<details class="mt-3 text-[14px]">
				<summary class="font-semibold">{title}: {count}</summary>
				<p class="text-ink-2 mt-1">
					{names.join(' · ')}{count > names.length ? ` … and ${count - names.length} more` : ''}
				</p>
			</details>
		{/if}
	{/each}
	{#if checked.change.length > 0}
		<details class="mt-3 text-[14px]" open>
			<summary class="font-semibold">Changed: {checked.counts.change}</summary>
			<ul class="mt-1 max-h-64 overflow-auto">
				{#each checked.change as change (change.who)}
					<li class="border-line border-b py-1">
						<strong>{change.who}</strong>: {change.differences.join(' · ')}
					</li>
				{/each}
			</ul>
		</details>
	{/if}
	<div class="mt-4 flex items-center gap-3">
		<Act tone="main" onclick={onapply} {busy} disabled={checked.counts.problems > 0 || sum === 0} testid="apply"
			>{sum === 0 ? 'Nothing to import' : `Import: ${checked.counts.add} new, ${checked.counts.change} changed`}</Act
		>
		{#if checked.counts.problems > 0}<span class="text-brick text-[14px]"
				>All or nothing: correct the rows above and choose the file again.</span
			>{/if}
	</div>
</section>
