<script lang="ts">
	import { Checkbox, Fileupload, Progressbar, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { ColumnKey, Mapping } from '$core/people';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';

	let { data } = $props();

	type Table = { header: string[]; mapping: Mapping; separator: string; sample: string[][]; dateOrderOpen: boolean };
	type Checked = {
		format: 'csv' | 'one_roster' | 'needs';
		note: string | null;
		table: Table | null;
		schools: { id: string; name: string }[];
		isDelta: boolean;
		seal: string;
		counts: { add: number; change: number; same: number; missing: number; problems: number };
		newGroups: string[];
		add: string[];
		change: { who: string; differences: string[] }[];
		missing: string[];
		problems: { line: number; field: string | null; message: string }[];
	};

	let file = $state.raw<File | null>(null);
	let siteId = $state(untrack(() => data.sites[0]?.id ?? ''));
	let groupId = $state('');
	let mapping = $state.raw<Mapping | null>(null);
	let separator = $state<string | null>(null);
	let dateOrder = $state<'day_first' | 'month_first' | null>(null);
	let makeGroups = $state(false);
	let missing = $state<'keep' | 'leave'>('keep');
	let schoolId = $state<string | null>(null);
	let checked = $state.raw<Checked | null>(null);
	let table = $state.raw<Table | null>(null);
	let schools = $state.raw<{ id: string; name: string }[]>([]);
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	let progress = $state.raw<{ done: number; total: number } | null>(null);
	let done = $state<string | null>(null);

	const FORMATS = { csv: 'A table', one_roster: 'A OneRoster folder', needs: 'Needs profiles' };
	const isTimetable = $derived(file !== null && /\.ics$/i.test(file.name));
	const sum = $derived(
		checked ? checked.counts.add + checked.counts.change + (missing === 'leave' ? checked.counts.missing : 0) : 0
	);

	function body(seal: string | null): FormData {
		const form = new FormData();
		form.set('file', file!);
		form.set(
			'asked',
			JSON.stringify({
				siteId,
				mapping,
				separator,
				dateOrder,
				makeGroups,
				missing,
				schoolId,
				seal,
				groupId: isTimetable ? groupId : null
			})
		);
		return form;
	}

	let asked = 0;
	/** Checking again after every wish: what would happen is always what is shown. */
	async function check() {
		if (!file || isTimetable) return;
		const mine = ++asked;
		busy = true;
		done = null;
		try {
			const response = await fetch('/prepare/people/import', { method: 'POST', body: body(null) });
			const answer = await response.json();
			if (mine !== asked) return;
			table = answer.table ?? null;
			schools = answer.schools ?? [];
			checked = response.ok ? answer : null;
			trouble = response.ok ? null : [answer.message, answer.instead].filter(Boolean).join(' ');
		} catch {
			trouble = 'The server can’t be reached. Check the line; the file is still chosen.';
		}
		busy = false;
	}
	function choose(event: Event) {
		file = (event.target as HTMLInputElement).files?.[0] ?? null;
		[mapping, separator, dateOrder, schoolId, checked, table, schools, trouble, done] = [
			null,
			null,
			null,
			null,
			null,
			null,
			[],
			null,
			null
		];
		void check();
	}
	function map(key: ColumnKey, column: number | null) {
		mapping = { ...(mapping ?? table!.mapping), [key]: column };
		void check();
	}

	async function apply() {
		if (!file || busy) return;
		busy = true;
		trouble = null;
		progress = { done: 0, total: sum };
		try {
			const response = await fetch('/prepare/people/import', { method: 'POST', body: body(checked!.seal) });
			if (!response.ok) {
				const answer = await response.json();
				trouble = [answer.message, answer.instead].filter(Boolean).join(' ');
			} else await follow(response);
		} catch {
			trouble = 'The line broke while importing. Check the file again: it tells whether it was imported.';
		}
		progress = null;
		busy = false;
	}
	async function follow(response: Response) {
		const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
		let rest = '';
		for (;;) {
			const { value, done: isDone } = await reader.read();
			if (isDone) return;
			const lines = (rest + value).split('\n');
			rest = lines.pop()!;
			for (const line of lines) {
				const told = JSON.parse(line);
				if (told.refused) trouble = told.refused;
				else if (told.applied) {
					const { added, changed, left } = told.applied;
					done = `${added} added, ${changed} changed${left > 0 ? `, ${left} no longer listed` : ''}.`;
					checked = null;
				} else progress = told;
			}
		}
	}
	async function importTimetable() {
		busy = true;
		trouble = null;
		const response = await fetch('/prepare/people/import', { method: 'POST', body: body(null) });
		const answer = await response.json();
		busy = false;
		if (!response.ok) trouble = [answer.message, answer.instead].filter(Boolean).join(' ');
		else {
			const { candidates, entries, skipped } = answer.timetable;
			done = `${entries} commitments for each of ${candidates} candidates.${skipped.length > 0 ? ` Left out: ${skipped.join(', ')}.` : ''}`;
		}
	}
	const groupsHere = $derived(data.groups.filter((group) => group.siteId === siteId));
</script>

<svelte:head><title>Import people · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="text-[28px]">Import people</h1>
	<p class="text-ink-2 mt-1 max-w-3xl">
		A table (CSV), a OneRoster folder as a zip, needs profiles (AfA PNP, each file named after a candidate number), or a
		timetable (.ics). It is checked first; nothing changes until you say so, and importing a file twice changes nothing.
	</p>
	<div class="mt-4 flex flex-wrap items-end gap-3">
		<div class="w-96">
			<label for="file" class="text-ink-2 mb-1 block text-[13px] font-semibold">File, up to 10 MB</label>
			<Fileupload id="file" accept=".csv,.txt,.tsv,.zip,.xml,.ics" onchange={choose} />
		</div>
		<div class="w-52">
			<label for="site" class="text-ink-2 mb-1 block text-[13px] font-semibold">Site</label>
			<Select
				id="site"
				bind:value={siteId}
				onchange={() => void check()}
				items={data.sites.map((site) => ({ value: site.id, name: site.name }))}
			/>
		</div>
		{#if isTimetable}
			<div class="w-56">
				<label for="group" class="text-ink-2 mb-1 block text-[13px] font-semibold">For everyone in</label>
				<Select
					id="group"
					bind:value={groupId}
					placeholder="Choose a group"
					items={groupsHere.map((group) => ({ value: group.id, name: `${group.name}, ${group.count}` }))}
				/>
			</div>
			<Act tone="main" onclick={importTimetable} {busy} disabled={!groupId}
				>Take over for {groupsHere.find((group) => group.id === groupId)?.count ?? 0}</Act
			>
		{/if}
		{#if schools.length > 1}
			<div class="w-56">
				<label for="school" class="text-ink-2 mb-1 block text-[13px] font-semibold">School in the file</label>
				<Select
					id="school"
					value={schoolId ?? ''}
					placeholder="Choose a school"
					onchange={(event) => ((schoolId = (event.target as HTMLSelectElement).value), void check())}
					items={schools.map((school) => ({ value: school.id, name: school.name }))}
				/>
			</div>
		{/if}
	</div>

	{#if busy && !progress}<p class="text-ink-2 mt-4" role="status">Checking…</p>{/if}
	{#if progress}
		<div class="mt-4" role="status">
			<Progressbar progress={progress.total === 0 ? 100 : Math.round((100 * progress.done) / progress.total)} />
			<p class="text-ink-2 mt-1 text-[14px]">{progress.done} of {progress.total}</p>
		</div>
	{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-4 rounded-lg px-3 py-2" data-testid="trouble">
			{trouble}
		</p>{/if}
	{#if done}<p role="status" class="bg-mist text-tide mt-4 rounded-lg px-3 py-2 font-semibold" data-testid="done">
			{done} <a class="underline" href="/prepare/people">Look at the people</a>
		</p>{/if}

	{#if table}
		<section class="bg-sheet border-line mt-5 rounded-2xl border p-4">
			<h2 class="text-[17px]">Columns</h2>
			<div class="mt-2 grid grid-cols-5 gap-3 max-lg:grid-cols-3 max-sm:grid-cols-2">
				{#each Object.entries(data.columns) as [key, column] (key)}
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
								{ value: '', name: column.needed ? 'choose' : 'not in the file' },
								...table.header.map((name, i) => ({ value: String(i), name }))
							]}
							onchange={(event) => {
								const chosen = (event.target as HTMLSelectElement).value;
								map(key as ColumnKey, chosen === '' ? null : Number(chosen));
							}}
						/>
						<p class="text-ink-3 mt-0.5 truncate text-[13px]">
							{at === null ? '' : table.sample.map((row) => row[at]).join(', ')}
						</p>
					</div>
				{/each}
			</div>
			<div class="mt-3 flex flex-wrap items-center gap-4 text-[14px]">
				<label class="flex items-center gap-2"
					>Separator
					<Select
						size="sm"
						class="w-32"
						value={table.separator}
						items={Object.entries(data.separators).map(([value, name]) => ({ value, name }))}
						onchange={(event) => (
							(separator = (event.target as HTMLSelectElement).value),
							(mapping = null),
							void check()
						)}
					/></label
				>
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
						onchange={(order) => ((dateOrder = order), void check())}
					/>
				{/if}
			</div>
		</section>
	{/if}

	{#if checked}
		<section class="bg-sheet border-line mt-5 rounded-2xl border p-4" data-testid="plan">
			<h2 class="text-[17px]">
				{FORMATS[checked.format]}{checked.isDelta && checked.format === 'one_roster' ? ' of changes' : ''}: what would
				happen
			</h2>
			{#if checked.note}<p class="bg-ochre-ground text-ochre mt-2 rounded-lg px-3 py-2 text-[14px]">
					{checked.note}
				</p>{/if}
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
				<Checkbox checked={makeGroups} onchange={() => ((makeGroups = !makeGroups), void check())}
					>make new groups</Checkbox
				>
				{#if checked.newGroups.length > 0}<span class="text-plum font-semibold"
						>New: {checked.newGroups.join(', ')}</span
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
						onchange={(value) => ((missing = value), void check())}
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
				<Act tone="main" onclick={apply} {busy} disabled={checked.counts.problems > 0 || sum === 0} testid="apply"
					>{sum === 0
						? 'Nothing to import'
						: `Import: ${checked.counts.add} new, ${checked.counts.change} changed`}</Act
				>
				{#if checked.counts.problems > 0}<span class="text-brick text-[14px]"
						>All or nothing: correct the rows above and choose the file again.</span
					>{/if}
			</div>
		</section>
	{/if}
</main>
