<script lang="ts">
	import { shownPoints } from '$core/results';
	import { page } from '$app/state';
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { INCIDENT_KINDS } from '$core/incident';
	import { STATE_NAMES, type SittingState } from '$core/sitting';
	import { minutesInWords, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import FirstOf from '$ui/FirstOf.svelte';
	import { getClock } from '$ui/clock-context';
	import { entryInWords } from '$core/logbook';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { COLUMN_NAMES } from '../columns';

	let { data } = $props();
	const clock = getClock();
	/** Whose work on paper can be typed in. */
	const TYPED_IN: SittingState[] = ['absent', 'handed_in', 'time_up'];
	const TITLES = $derived([
		'Candidate',
		'Seat',
		'Status',
		'Answered',
		...(data.seesResults ? ['Points'] : []),
		'Ended',
		'Receipt'
	]);
	/** The steps before these, for the same column of the ledger. */
	const earlier = (before: number) =>
		`?${new URLSearchParams({ ...(data.column ? { in: data.column } : {}), before: String(before) })}#log`;
	const sum = $derived(COLUMN_NAMES.map((column) => data.ledger.columns[column.key]));
</script>

<svelte:head><title>{data.session.name}: ledger · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<p class="text-[14px]">
		{#if data.seesResults}<a class="text-tide underline" href="/close-out/sessions?of={data.session.administrationId}"
				>Sessions</a
			>{:else}<a class="text-tide underline" href="/">Today</a>{/if}
	</p>
	<div class="flex flex-wrap items-baseline gap-3">
		<h1 class="text-[26px]">{data.session.name}</h1>
		<p class="text-ink-2">
			{data.session.room} · {timeAndDate(data.session.opens, data.session.zone, clock.now)}{data.session.endedAt
				? `, ended ${timeAndDate(data.session.endedAt, data.session.zone, clock.now)}`
				: ', still running'}
		</p>
		{#if data.seesResults}
			<span class="ml-auto flex gap-2">
				{#if data.byHand > 0}<Act href="/close-out/{data.session.id}/by-hand.zip" testid="by-hand"
						>{data.byHand} to mark by hand</Act
					>{/if}
				<Act href="/close-out/alike/{data.session.id}">Similar answers</Act>
				<Act href="/close-out/{data.session.id}/report.pdf">Report, PDF</Act>
				<Act href="/close-out/{data.session.id}/results.csv">Results as CSV</Act>
			</span>
		{/if}
	</div>
	{#if data.session.kind === 'rehearsal'}<p class="bg-plum-ground text-plum mt-2 rounded-lg px-3 py-1.5">
			A rehearsal: it does not count.
		</p>{/if}
	<section class="bg-sheet border-line my-4 rounded-2xl border p-4" aria-label="Ledger" data-testid="ledger">
		<div class="flex flex-wrap items-center gap-2">
			{#each COLUMN_NAMES as column (column.key)}
				<a
					class="flex items-center gap-2 rounded-lg border px-3 py-1.5 {data.column === column.key
						? 'bg-mist border-tide'
						: 'border-line'}"
					aria-current={data.column === column.key}
					href={data.column === column.key ? page.url.pathname : `?in=${column.key}`}
					data-sveltekit-noscroll
				>
					<StateGlyph state={column.glyph} />{column.name}
					<strong class="font-mono">{data.ledger.columns[column.key]}</strong>
				</a>
			{/each}
		</div>
		<p class="mt-3 text-[15px]">
			<span class="font-mono">{sum.join(' + ')} = {data.ledger.accounted}</span>, {data.ledger.expected} expected:
			{#if data.ledger.addsUp}<strong class="text-tide">it adds up.</strong>{:else}<strong class="text-brick"
					>it does not add up: {data.ledger.missing} missing, {data.ledger.surplus} too many.</strong
				>{/if}
		</p>
	</section>
	<div class="border-line overflow-x-auto rounded-2xl border">
		<Table class="text-ink text-[14px]">
			<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
				{#each TITLES as title (title)}<TableHeadCell class="px-3.5 py-2.5 font-semibold">{title}</TableHeadCell>{/each}
			</TableHead>
			<TableBody>
				{#each data.lines as line (line.sittingId)}
					<TableBodyRow class="bg-sheet border-line">
						<TableBodyCell class="px-3.5 py-2"
							>{#if data.seesLogbook}<a
									class="font-semibold underline-offset-2 hover:underline"
									href="/logbook?sitting={line.sittingId}">{line.name}</a
								>{:else}<strong>{line.name}</strong>{/if}
							<span class="text-ink-3 font-mono text-[13px]">{line.number}</span>
							{#if data.typesIn && TYPED_IN.includes(line.state)}<a
									class="block text-[13px] underline {line.state === 'absent' ? 'text-tide' : 'text-ink-3'}"
									href="/close-out/paper/{line.sittingId}">Written on paper</a
								>{/if}</TableBodyCell
						>
						<TableBodyCell class="px-3.5 py-2 font-mono">{line.seat ?? ''}</TableBodyCell>
						<TableBodyCell class="px-3.5 py-2"
							><span class="flex items-center gap-1.5"><StateGlyph state={line.state} />{STATE_NAMES[line.state]}</span
							></TableBodyCell
						>
						<TableBodyCell class="px-3.5 py-2"
							>{line.questions > 0 ? `${line.answered} of ${line.questions}` : ''}{#if line.heldBack > 0}<a
									class="text-ochre block text-[13px] underline"
									href="/live/{data.session.id}?seat={line.sittingId}">{line.heldBack} more came after the end</a
								>{/if}{#if line.late > 0}<span class="text-ochre block text-[13px]">{line.late} late</span
								>{/if}</TableBodyCell
						>
						{#if data.seesResults}<TableBodyCell class="px-3.5 py-2 font-semibold"
								>{line.points === null
									? line.countsNothing
										? 'not scored'
										: ''
									: `${shownPoints(line.points)} of ${line.outOf}`}{#if line.attempt > 1}<span
										class="text-ink-2 block text-[13px] font-normal"
										>attempt {line.attempt}{line.counted
											? `; ${shownPoints(line.counted.points)} of ${line.counted.outOf} counts`
											: ''}</span
									>{/if}</TableBodyCell
							>{/if}
						<TableBodyCell class="px-3.5 py-2 font-mono"
							>{line.endedAt
								? timeAndDate(line.endedAt, data.session.zone, data.session.opens, true)
								: ''}</TableBodyCell
						>
						<TableBodyCell class="px-3.5 py-2 font-mono">{line.receipt ?? ''}</TableBodyCell>
					</TableBodyRow>
				{:else}
					<TableBodyRow class="bg-sheet"
						><TableBodyCell class="text-ink-3 px-3.5 py-6" colspan={TITLES.length}
							>Nobody is in this column.</TableBodyCell
						></TableBodyRow
					>
				{/each}
			</TableBody>
		</Table>
	</div>
	<FirstOf
		shown={data.lines.length}
		of={data.of}
		rest={data.seesResults ? 'The results file has all of them.' : 'Choose a column above to see fewer.'}
	/>
	<section class="mt-6" aria-label="Incidents" data-testid="incidents">
		<h2 class="text-[19px]">Incidents</h2>
		<ul class="bg-sheet border-line mt-2 rounded-2xl border">
			{#each data.incidents as incident (incident.id)}
				<li class="border-line border-b px-4 py-2.5 text-[14.5px] last:border-b-0">
					<strong>{INCIDENT_KINDS[incident.kind]}</strong>, {timeAndDate(
						incident.happenedAt,
						data.session.zone,
						clock.now
					)}{incident.minutes > 0 ? `, ${minutesInWords(incident.minutes)} given back` : ''}, reported by {incident.toldBy}
					<p>{incident.note}{incident.done ? ` ${incident.done}` : ''}</p>
					<p class="text-ink-2">
						{incident.people.length === 0 ? 'Nobody by name' : incident.people.map((person) => person.name).join(', ')}
						{#if incident.attachment}·
							<a class="text-tide underline" href="/live/{data.session.id}/incidents/{incident.id}"
								>{incident.attachment}</a
							>{/if}
					</p>
				</li>
			{:else}
				<li class="text-ink-3 px-4 py-4">No incident was reported in this session.</li>
			{/each}
		</ul>
	</section>
	<details id="log" class="mt-6" data-testid="session-log" open={data.log.isEarlier}>
		<summary class="cursor-pointer text-[19px]">What happened, step by step ({data.log.of})</summary>
		<ol class="bg-sheet border-line mt-2 rounded-2xl border px-4 py-2 text-[14px]">
			{#each data.log.lines as entry (entry.seq)}
				<li class="border-line border-b py-1 last:border-b-0">
					<span class="font-mono">{timeAndDate(entry.at, data.session.zone, data.session.opens, true)}</span>
					{entry.candidate ?? ''}
					{entryInWords(entry)}
				</li>
			{/each}
		</ol>
		{#if data.log.before !== null}<p class="mt-2">
				<Act href={earlier(data.log.before)}>Earlier entries</Act>
			</p>{/if}
	</details>
</main>
