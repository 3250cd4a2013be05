<script lang="ts">
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { hasEnded, STATE_NAMES } from '$core/sitting';
	import { clockTime, localDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import DateField from '$ui/DateField.svelte';
	import { inWords, send } from '$ui/post';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import DayLine from './DayLine.svelte';
	import GrantsHead from './GrantsHead.svelte';
	import NewGrant from './NewGrant.svelte';
	import { isWhat } from './what';
	import type { PageData } from './$types';
	import { timeInFull, zoneBeside } from '$ui/zone-beside';

	type Line = PageData['lines'][number];
	let { data } = $props();

	let filter = $state<'all' | 'misfit' | 'standing' | 'own' | 'make_up'>('all');
	let chosen = $state.raw<Line | null>(untrack(() => data.chosen));
	let panel = $state<'none' | 'new'>(untrack(() => (data.chosen ? 'new' : 'none')));
	/** Raised when the panel is opened for somebody else; what was given does not open it anew. */
	let opened = $state(0);
	let withdrawing = $state.raw<{ line: Line; grant: Line['grants'][number] } | null>(null);
	let isAsking = $state(false);
	let trouble = $state<string | null>(null);
	/** Withdrawing would end somebody's work at once, and this was said. */
	let endsWork = $state(false);
	const filters = $derived([
		{ key: 'all' as const, text: 'Everyone with a grant', of: data.lines },
		{ key: 'misfit' as const, text: 'Does not fit', of: data.lines.filter((line) => line.misfits.length > 0) },
		{
			key: 'standing' as const,
			text: 'Accommodations',
			of: data.lines.filter((line) => line.grants.some((grant) => grant.scope === 'standing'))
		},
		{ key: 'own' as const, text: 'Own window', of: data.lines.filter((line) => line.own) },
		{ key: 'make_up' as const, text: 'Make-up', of: data.lines.filter((line) => line.session.kind === 'make_up') }
	]);
	let day = $state(untrack(() => data.day));
	const shown = $derived(filters.find((one) => one.key === filter)!.of);
	const span = $derived.by(() => {
		const hour = 3_600_000;
		const edges = data.lines
			.flatMap((line) => [
				line.base.opens,
				line.own?.opens ?? line.base.opens,
				line.base.closes ?? 0,
				line.own?.closes ?? 0,
				line.works.to ?? 0
			])
			// What is on another day is told in words.
			.filter((edge) => edge > 0 && localDate(edge, data.site.zone) === data.day);
		if (edges.length === 0) return { from: 0, to: 1, hours: [] as number[] };
		const [from, to] = [Math.floor(Math.min(...edges) / hour) * hour, Math.ceil(Math.max(...edges) / hour) * hour];
		return { from, to, hours: Array.from({ length: (to - from) / hour }, (_, i) => from + i * hour) };
	});
	function outcomeOf(line: Line): { text: string; tone: string } {
		if (hasEnded(line.state)) return { text: STATE_NAMES[line.state], tone: 'text-tide' };
		if (line.misfit !== null) return { text: line.misfit, tone: 'text-brick' };
		if (line.own && localDate(line.own.opens, line.session.zone) !== data.day)
			return {
				text: timeInFull(line.own.opens, line.session.zone, line.base.opens),
				tone: 'text-plum'
			};
		if (line.finished) return { text: STATE_NAMES[line.state], tone: 'text-ink-2' };
		return { text: 'fits', tone: 'text-tide' };
	}

	function open(line: Line | null) {
		chosen = line;
		panel = 'new';
		opened++;
	}
	async function withdraw() {
		if (!withdrawing) return;
		const answer = await send('POST', '/grants/withdraw', {
			id: withdrawing.grant.id,
			sittingId: withdrawing.line.sittingId,
			even: endsWork
		});
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok && answer.problem.code === 'ends_work') return void (endsWork = true);
		if (answer.ok) isAsking = false;
		await invalidateAll();
		chosen = data.lines.find((line) => line.sittingId === chosen?.sittingId) ?? chosen;
	}
	async function given(now: Line | null) {
		await invalidateAll();
		// Whoever is in the list of this day is read anew with it.
		chosen = data.lines.find((line) => line.sittingId === now?.sittingId) ?? now;
	}
</script>

<svelte:head><title>Grants · Otium</title></svelte:head>
<Shortcuts keys={{ g: () => open(null), Escape: () => (panel = 'none') }} />
<div class="grid min-h-full grid-cols-[1fr_400px] max-lg:grid-cols-1">
	<main class="px-6 py-5">
		<GrantsHead counts={data.counts}>
			<Act tone="grant" key="G" class="ml-auto" onclick={() => open(null)}>New grant</Act>
		</GrantsHead>
		<div class="mb-3 flex flex-wrap items-center gap-2">
			{#each filters as one (one.key)}
				<button
					class="rounded-full border px-3 py-0.5 text-[13.5px] font-semibold {filter === one.key
						? 'bg-plum-ground border-plum text-plum'
						: 'border-line-strong bg-sheet'}"
					aria-pressed={filter === one.key}
					onclick={() => (filter = one.key)}>{one.text} {one.of.length}</button
				>
			{/each}
			<span class="ml-auto"
				><DateField
					label="Day"
					size="sm"
					bind:value={day}
					onchange={(value) => value && goto(`/grants?day=${value}`, { keepFocus: true })}
				/></span
			>
		</div>
		{#if shown.length === 0}
			<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
				{filter === 'all' ? 'Nobody has a grant on this day. Press G to give one.' : 'Nobody here.'}
			</p>
		{:else}
			<div class="border-line overflow-x-auto rounded-2xl border">
				<Table class="text-ink text-[14px]">
					<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
						<TableHeadCell class="px-3.5 py-2.5 font-semibold">Candidate</TableHeadCell>
						<TableHeadCell class="px-3.5 py-2.5 font-semibold">Grant</TableHeadCell>
						<TableHeadCell class="w-[38%] min-w-56 px-0 py-2.5 font-semibold"
							><div class="relative flex font-mono">
								{#each span.hours as hour (hour)}<span class="flex-1"
										>{clockTime(hour, data.site.zone).replace(':00', '')}</span
									>{/each}
							</div></TableHeadCell
						>
						<TableHeadCell class="px-3.5 py-2.5 font-semibold">Outcome</TableHeadCell>
					</TableHead>
					<TableBody>
						{#each shown as line (line.sittingId)}
							<TableBodyRow
								class="border-line cursor-pointer {chosen?.sittingId === line.sittingId
									? 'bg-plum-ground'
									: 'bg-sheet'}"
								onclick={() => open(line)}
							>
								<TableBodyCell class="px-3.5 py-2"
									><button class="font-semibold">{line.name}</button><span
										class="text-ink-3 block font-mono text-[13px]">{line.number}</span
									></TableBodyCell
								>
								<TableBodyCell class="px-3.5 py-2 whitespace-normal"
									>{line.grants.map((grant) => grant.what).join('; ')}<span class="text-ink-3 block text-[13px]"
										>{line.session.name}</span
									></TableBodyCell
								>
								<TableBodyCell class="relative px-0 py-2">
									<DayLine
										{span}
										zone={line.session.zone}
										base={line.base}
										own={line.own}
										work={line.works}
										commitments={line.commitments}
										isShort={line.misfits.length > 0}
									/>
								</TableBodyCell>
								<TableBodyCell class="max-w-52 px-3.5 py-2 whitespace-normal"
									><span class="font-semibold {outcomeOf(line).tone}">{outcomeOf(line).text}</span><span
										class="text-ink-3 block text-[13px]"
										>{line.works.to
											? `${line.finished ? 'at' : 'ends'} ${clockTime(line.works.to, line.session.zone)}${zoneBeside(line.works.to, line.session.zone)}`
											: 'no end'}</span
									></TableBodyCell
								>
							</TableBodyRow>
						{/each}
					</TableBody>
				</Table>
			</div>
			<ul class="text-ink-2 mt-2.5 flex flex-wrap gap-4 text-[13px]">
				<li class="flex items-center gap-1.5">
					<span class="border-ink-3 h-3 w-7 rounded border border-dashed"></span>everyone’s window
				</li>
				<li class="flex items-center gap-1.5">
					<span class="bg-plum/25 border-plum h-3 w-7 rounded border"></span>own window
				</li>
				<li class="flex items-center gap-1.5"><span class="bg-plum h-1.5 w-7 rounded-full"></span>at work</li>
				<li class="flex items-center gap-1.5">
					<span class="bg-brick-ground border-brick/50 h-3 w-7 rounded-sm border"></span>has to be elsewhere
				</li>
			</ul>
		{/if}
	</main>
	<aside class="bg-sheet border-line border-l px-5 py-5">
		{#if panel === 'none'}
			<p class="text-ink-3 text-[14.5px]">
				Choose somebody to see what they have, or press <kbd
					class="border-line-strong rounded border px-1.5 font-mono text-[12px]">G</kbd
				> to give a grant. A grant concerns one person: nobody else’s window moves.
			</p>
		{:else}
			{#key opened}
				<NewGrant
					line={chosen}
					kind={isWhat(data.give) ? data.give : undefined}
					{shown}
					ongiven={given}
					onchanged={() => void given(chosen)}
					onwithdraw={(line, grant) => (
						(withdrawing = { line, grant }),
						(endsWork = false),
						(trouble = null),
						(isAsking = true)
					)}
				/>
			{/key}
		{/if}
	</aside>
</div>
{#if withdrawing}
	<Ask
		bind:open={isAsking}
		title="Withdraw: {withdrawing.line.name}"
		verb={endsWork ? 'Withdraw all the same' : 'Withdraw'}
		tone="danger"
		error={trouble}
		onconfirm={withdraw}
	>
		<p>
			{withdrawing.grant.what}, {withdrawing.grant.scope === 'standing'
				? 'which applies to every session'
				: withdrawing.grant.scope}. It stays in the record. No answer is touched.
		</p>
	</Ask>
{/if}
