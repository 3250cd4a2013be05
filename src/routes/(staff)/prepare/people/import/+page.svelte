<script lang="ts">
	import { counted } from '$core/names';
	import Fileupload from 'flowbite-svelte/Fileupload.svelte';
	import Progressbar from 'flowbite-svelte/Progressbar.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { untrack } from 'svelte';
	import type { CheckedFile, CheckedTable, ColumnKey, DateOrder, Mapping, NameOrder } from '$core/people';
	import Act from '$ui/Act.svelte';
	import Columns from './Columns.svelte';
	import Plan from './Plan.svelte';

	let { data } = $props();

	let file = $state.raw<File | null>(null);
	let siteId = $state(untrack(() => data.sites[0]?.id ?? ''));
	let groupId = $state('');
	let mapping = $state.raw<Mapping | null>(null);
	let separator = $state<string | null>(null);
	let dateOrder = $state<DateOrder | null>(null);
	let nameOrder = $state<NameOrder | null>(null);
	/** null: as the file needs it. */
	let makeGroups = $state<boolean | null>(null);
	let sameNames = $state<'ask' | 'two'>('ask');
	let sheet = $state<string | null>(null);
	let missing = $state<'keep' | 'leave'>('keep');
	let schoolId = $state<string | null>(null);
	let checked = $state.raw<CheckedFile | null>(null);
	let table = $state.raw<CheckedTable | null>(null);
	let schools = $state.raw<{ id: string; name: string }[]>([]);
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	let progress = $state.raw<{ done: number; total: number } | null>(null);
	let done = $state<string | null>(null);

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
				nameOrder,
				makeGroups,
				makeNumbers: null,
				sameNames,
				sheet,
				isPasted,
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
			trouble = 'The server can’t be reached. Check the connection; the file is still chosen.';
		}
		busy = false;
	}
	const EXAMPLE = 'Lee, Ann\nAdaeze Obi';
	let pasted = $state('');
	let isPasted = $state(false);
	function take(chosen: File | null, fromPaste = false) {
		file = chosen;
		isPasted = fromPaste;
		mapping = separator = dateOrder = nameOrder = schoolId = checked = table = trouble = done = null;
		sheet = null;
		sameNames = 'ask';
		schools = [];
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
			trouble = 'The connection broke during the import. Check the file again to see whether it was imported.';
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
			done = `${counted(entries, 'commitment')} for each of ${counted(candidates, 'candidate')}.${skipped.length > 0 ? ` Left out: ${skipped.join(', ')}.` : ''}`;
		}
	}
	const groupsHere = $derived(data.groups.filter((group) => group.siteId === siteId));
</script>

<svelte:head><title>Import people · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="text-[28px]">Import people</h1>
	<p class="text-ink-2 mt-1 max-w-3xl">
		A spreadsheet (.xlsx, .ods, .csv), a OneRoster folder as a zip, needs profiles (AfA PNP, each file named after a
		candidate number), or a timetable (.ics). It is checked first; nothing changes until you say so, and importing a
		file twice changes nothing.
	</p>
	{#if data.sites.length === 0}
		<p class="bg-ochre-ground mt-4 flex items-center gap-3 rounded-lg px-4 py-3">
			<span>People belong to a site, and there is none yet.</span><Act size="xs" href="/set-up">Make the first site</Act
			>
		</p>
	{/if}
	<div class="mt-4 flex flex-wrap items-end gap-3" inert={data.sites.length === 0}>
		<div class="w-96">
			<label for="file" class="text-ink-2 mb-1 block text-[13px] font-semibold">File, up to 10 MB</label>
			<Fileupload
				id="file"
				accept=".csv,.txt,.tsv,.xlsx,.ods,.xls,.zip,.xml,.ics"
				onchange={(event) => take((event.target as HTMLInputElement).files?.[0] ?? null)}
			/>
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
				>Import for {groupsHere.find((group) => group.id === groupId)?.count ?? 0}</Act
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

	<details class="mt-3 max-w-3xl">
		<summary class="text-tide font-semibold">Or paste from a spreadsheet, or names one a line</summary>
		<Textarea rows={6} class="mt-2 w-full" aria-label="Names, one a line" placeholder={EXAMPLE} bind:value={pasted} />
		<Act
			class="mt-2"
			disabled={pasted.trim() === ''}
			onclick={() => take(new File([pasted], 'pasted.txt', { type: 'text/plain' }), true)}
			testid="read-pasted">Read them</Act
		>
	</details>

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
		<Columns
			{table}
			columns={data.columns}
			separators={data.separators}
			{dateOrder}
			onmap={map}
			onseparator={(chosen) => ((separator = chosen), (mapping = null), void check())}
			ondateorder={(order) => ((dateOrder = order), void check())}
			onsheet={(name) => ((sheet = name), (mapping = null), void check())}
			onnameorder={(order) => ((nameOrder = order), void check())}
		/>
	{/if}
	{#if checked}
		<Plan
			{checked}
			{sameNames}
			{missing}
			{sum}
			{busy}
			onmakegroups={(make) => ((makeGroups = make), void check())}
			onsamenames={(what) => ((sameNames = what), void check())}
			onmissing={(what) => ((missing = what), void check())}
			onapply={apply}
		/>
	{/if}
</main>
