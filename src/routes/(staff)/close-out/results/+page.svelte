<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { nanoid } from 'nanoid';
	import { goto, invalidateAll } from '$app/navigation';
	import { shownPercent, shownPoints } from '$core/results';
	import { instantFromLocal, localDate, timeAndDate } from '$core/time';
	import { VALIDITY_NAMES } from '$core/validity';
	import Act from '$ui/Act.svelte';
	import FirstOf from '$ui/FirstOf.svelte';
	import Ask from '$ui/Ask.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import DateField from '$ui/DateField.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import TimeField from '$ui/TimeField.svelte';

	let { data } = $props();
	const clock = getClock();
	const zone = $derived(data.site.zone);
	let releasing = $state<string | null>(null);
	let shows = $state<string>('points');
	/** Roles of the staff that read them too. */
	let staff = $state<string[]>([]);
	let when = $state<'now' | 'then'>('now');
	let date = $state('');
	let time = $state('09:00');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	const paper = $derived(data.papers.find(({ id }) => id === releasing));
	const standing = (paperId: string) =>
		data.releases.find((release) => release.paperId === paperId && release.calledBackAt === null);
	const FILES = [
		{ as: 'csv', name: 'CSV', about: 'a table for spreadsheets, points exact' },
		{ as: 'slips', name: 'Slips, PDF', about: 'a page for each candidate' },
		{ as: 'oneroster', name: 'OneRoster 1.1', about: 'results and line items for a gradebook' },
		{ as: 'qti', name: 'QTI results', about: 'every response and score, a file for each sitting' },
		{ as: 'jsonl', name: 'JSON Lines', about: 'a line for each result, with every mark' }
	];

	async function post(body: object, words: string) {
		busy = true;
		const answer = await send('POST', '/close-out/results', body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		told = answer.ok ? words : null;
		await invalidateAll();
		return answer.ok;
	}
	async function release() {
		const instant = when === 'now' ? null : instantFromLocal(date, time, zone);
		if (instant && !instant.ok) {
			trouble = 'Give a day and a time, such as 30 November and 09:00.';
			return;
		}
		const done = await post(
			{
				act: 'release',
				id: nanoid(),
				administrationId: data.here!.id,
				paperId: releasing,
				shows,
				staff,
				fromAt: instant ? instant.at : null
			},
			when === 'now' ? 'Released. Those with an address are sent a link.' : 'Released for that time.'
		);
		if (done) releasing = null;
	}
	function open(paperId: string) {
		[releasing, shows, when, date, trouble] = [paperId, 'points', 'now', localDate(clock.now + 86_400_000, zone), null];
		staff = [];
	}
</script>

<svelte:head><title>Results · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-5">
	<div class="flex flex-wrap items-baseline gap-3">
		<h1 class="text-[28px]">Results</h1>
		<p class="text-ink-2">
			{data.isFinal
				? 'Final: the administration is closed.'
				: 'Preliminary: they can change until the administration is closed.'}
		</p>
	</div>
	{#if told}<p role="status" class="bg-mist text-tide my-3 rounded-lg px-3 py-2" data-testid="told">{told}</p>{/if}
	{#if trouble && !releasing}<p role="alert" class="bg-brick-ground text-brick my-3 rounded-lg px-3 py-2">
			{trouble}
		</p>{/if}
	{#if data.papers.length === 0}
		<p class="bg-sheet border-line text-ink-2 mt-4 rounded-2xl border p-10 text-center">Nobody has a result yet.</p>
	{:else}
		<section class="mt-4" aria-label="Release">
			<h2 class="text-[20px]">To candidates</h2>
			<ul class="bg-sheet border-line mt-2 rounded-2xl border">
				{#each data.papers as one (one.id)}
					{@const release = standing(one.id)}
					<li
						class="border-line flex flex-wrap items-center gap-3 border-b px-5 py-3 last:border-b-0"
						data-testid="paper"
					>
						<strong>{one.title}</strong>
						<span class="text-ink-2 text-[14px]"
							>{one.results}
							{one.results === 1 ? 'result' : 'results'}{one.toMark > 0
								? `, ${one.toMark} not marked to the end`
								: ''}</span
						>
						<span class="ml-auto flex items-center gap-3 text-[14px]">
							{#if release}
								<span data-testid="released"
									>{release.fromAt <= clock.now ? 'Out since' : 'Comes out'}
									{timeAndDate(release.fromAt, zone, clock.now)}: {data.shows[release.rule.shows].toLowerCase()}{release
										.rule.staff?.length
										? `, to ${data.roles
												.filter(({ role }) => release.rule.staff!.includes(role))
												.map(({ name }) => name.toLowerCase())
												.join(' and ')} too`
										: ''}; read by {release.read} of {release.of}</span
								>
								{#if data.mayRelease}<Act
										size="xs"
										{busy}
										onclick={() => post({ act: 'call_back', id: release.id }, 'Called back: nobody had read it.')}
										testid="call-back">Call back</Act
									>{/if}
							{:else if data.mayRelease}<Act size="xs" onclick={() => open(one.id)} testid="release">Release…</Act>
							{:else}<span class="text-ink-2">not released</span>{/if}
						</span>
					</li>
				{/each}
			</ul>
		</section>
		{#if data.mayRelease}
			<section class="mt-6" aria-label="Files">
				<h2 class="text-[20px]">As files</h2>
				<div class="mt-2 grid grid-cols-5 gap-2 max-lg:grid-cols-2">
					{#each FILES as file (file.as)}
						<a
							class="bg-sheet border-line hover:border-tide rounded-xl border px-4 py-2.5"
							href="/close-out/results/{data.here!.id}?{new URLSearchParams({
								as: file.as,
								...(data.chosen ? { paper: data.chosen } : {})
							})}"
							data-sveltekit-reload
							download
							data-testid="file-{file.as}"
							><strong>{file.name}</strong><span class="text-ink-2 block text-[13.5px]">{file.about}</span></a
						>
					{/each}
				</div>
			</section>
		{/if}
		<section class="mt-6" aria-label="All results">
			<div class="mb-2 flex items-baseline gap-3">
				<h2 class="text-[20px]">All results</h2>
				<Select
					class="ml-auto w-72"
					size="sm"
					aria-label="Paper"
					value={data.chosen ?? 'all'}
					onchange={(event) => goto(`?paper=${(event.currentTarget as HTMLSelectElement).value}`, { noScroll: true })}
					items={[
						{ value: 'all', name: 'Every paper' },
						...data.papers.map(({ id, title }) => ({ value: id, name: title }))
					]}
				/>
			</div>
			<div class="border-line overflow-x-auto rounded-2xl border">
				<Table class="text-ink text-[14px]">
					<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
						{#each ['Candidate', 'Paper', 'Points', 'Band', 'Worth', ''] as title (title)}<TableHeadCell
								class="px-3.5 py-2.5 font-semibold">{title}</TableHeadCell
							>{/each}
					</TableHead>
					<TableBody>
						{#each data.lines as line (line.sittingId)}
							<TableBodyRow class="bg-sheet border-line">
								<TableBodyCell class="px-3.5 py-2"
									><strong>{line.name}</strong>
									<span class="text-ink-3 font-mono text-[13px]">{line.number}</span></TableBodyCell
								>
								<TableBodyCell class="px-3.5 py-2 whitespace-normal">{line.paper}</TableBodyCell>
								<TableBodyCell class="px-3.5 py-2"
									><strong>{shownPoints(line.points)}</strong> of {shownPoints(line.outOf)}, {shownPercent(
										line
									)}{line.toMark > 0 ? `, ${line.toMark} to mark` : ''}{#if line.attempt > 1}<span
											class="text-ink-2 block text-[13px]"
											>attempt {line.attempt}{line.counted ? `; ${shownPoints(line.counted.points)} counts` : ''}</span
										>{/if}</TableBodyCell
								>
								<TableBodyCell class="px-3.5 py-2"
									>{line.band ?? ''}{line.passed === null ? '' : line.passed ? ' passed' : ' not passed'}</TableBodyCell
								>
								<TableBodyCell class="px-3.5 py-2"
									>{#if line.validity && line.validity.verdict !== 'valid'}<span class="text-brick font-semibold"
											>{VALIDITY_NAMES[line.validity.verdict]}</span
										>{:else}<span class="text-ink-2">valid</span>{/if}</TableBodyCell
								>
								<TableBodyCell class="px-3.5 py-2 text-right"
									><a class="text-tide underline" href="/close-out/sitting/{line.sittingId}">Paper</a></TableBodyCell
								>
							</TableBodyRow>
						{/each}
					</TableBody>
				</Table>
			</div>
			<FirstOf shown={data.lines.length} of={data.of} rest="Files have them all." />
		</section>
	{/if}
	<Ask
		open={releasing !== null}
		title="Release {paper?.title ?? ''}"
		verb={when === 'now' ? `Release ${paper?.results ?? 0} results now` : `Release ${paper?.results ?? 0} results then`}
		{busy}
		error={trouble}
		onconfirm={release}
	>
		<Field id="shows" label="What candidates read">
			<Select
				id="shows"
				bind:value={shows}
				items={Object.entries(data.shows).map(([value, name]) => ({ value, name }))}
			/>
		</Field>
		<fieldset class="mt-3">
			<legend class="text-ink-2 mb-1 text-[14px] font-semibold">Also to staff</legend>
			<div class="flex flex-wrap gap-x-4 gap-y-1.5">
				{#each data.roles as { role, name } (role)}
					<Checkbox value={role} bind:group={staff} class="text-[14px]">{name}</Checkbox>
				{/each}
			</div>
			<p class="text-ink-3 mt-1 text-[13px]">
				Proctors read those of their sessions. Authors and markers read no names.
			</p>
		</fieldset>
		<div class="mt-3">
			<Choose
				name="when"
				label="When"
				options={[
					{ value: 'now', text: 'Now' },
					{ value: 'then', text: 'At a time' }
				]}
				bind:value={when}
			/>
		</div>
		{#if when === 'then'}
			<div class="mt-3 flex gap-3">
				<DateField id="on" label="Day" bind:value={date} /><TimeField id="at" label="Time" bind:value={time} />
			</div>
		{/if}
		<ul class="mt-3 list-disc space-y-1 pl-5 text-[14px]">
			{#if !data.isFinal}<li class="text-ochre">They are preliminary: the administration is not closed.</li>{/if}
			{#if paper && paper.toMark > 0}<li class="text-ochre">
					{paper.toMark}
					{paper.toMark === 1 ? 'is' : 'are'} not marked to the end; these read that marking goes on.
				</li>{/if}
			<li>Questions, answers and keys are not part of it.</li>
			<li>It can be called back until the first of them has read theirs.</li>
		</ul>
	</Ask>
</main>
