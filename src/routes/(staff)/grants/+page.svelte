<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { invalidateAll } from '$app/navigation';
	import { STATE_NAMES } from '$core/sitting';
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import { isTypedInto } from '$ui/typed-into';
	import NewGrant from './NewGrant.svelte';
	import type { PageData } from './$types';

	type Line = PageData['lines'][number];
	let { data } = $props();
	const clock = getClock();

	let filter = $state<'all' | 'misfit' | 'standing' | 'own'>('all');
	let chosen = $state.raw<Line | null>(null);
	let panel = $state<'none' | 'new'>('none');
	/** Raised when the panel is opened for somebody else; what was given does not open it anew. */
	let opened = $state(0);
	let withdrawing = $state.raw<{ line: Line; grant: Line['grants'][number] } | null>(null);
	let isAsking = $state(false);
	let trouble = $state<string | null>(null);
	const filters = $derived([
		{ key: 'all' as const, text: 'Everyone with a grant', of: data.lines },
		{ key: 'misfit' as const, text: 'Does not fit', of: data.lines.filter((line) => line.misfit) },
		{
			key: 'standing' as const,
			text: 'Standing',
			of: data.lines.filter((line) => line.grants.some((grant) => grant.scope === 'standing'))
		},
		{ key: 'own' as const, text: 'Own window', of: data.lines.filter((line) => line.own) }
	]);
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
			.filter((edge) => edge > 0);
		if (edges.length === 0) return { from: 0, to: 1, hours: [] as number[] };
		const [from, to] = [Math.floor(Math.min(...edges) / hour) * hour, Math.ceil(Math.max(...edges) / hour) * hour];
		return { from, to, hours: Array.from({ length: (to - from) / hour }, (_, i) => from + i * hour) };
	});
	const place = (from: number, to: number) =>
		`left:${(100 * (from - span.from)) / (span.to - span.from)}%;width:${(100 * Math.max(0, to - from)) / (span.to - span.from)}%`;

	function open(line: Line | null) {
		chosen = line;
		panel = 'new';
		opened++;
	}
	async function withdraw() {
		if (!withdrawing) return;
		const answer = await send('POST', '/grants/withdraw', {
			id: withdrawing.grant.id,
			sittingId: withdrawing.line.sittingId
		});
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) isAsking = false;
		await invalidateAll();
		chosen = data.lines.find((line) => line.sittingId === chosen?.sittingId) ?? chosen;
	}
	async function given(sittingId: string) {
		await invalidateAll();
		chosen = data.lines.find((line) => line.sittingId === sittingId) ?? null;
	}
	function onkeydown(event: KeyboardEvent) {
		if (
			isTypedInto(event.target) ||
			(event.target as HTMLElement).closest('dialog') ||
			event.ctrlKey ||
			event.metaKey ||
			event.altKey
		)
			return;
		if (event.key === 'g') {
			open(null);
			event.preventDefault();
		}
		if (event.key === 'Escape') panel = 'none';
	}
</script>

<svelte:head><title>Grants · Otium</title></svelte:head>
<svelte:window {onkeydown} />
<div class="grid min-h-full grid-cols-[1fr_400px] max-lg:grid-cols-1">
	<main class="px-6 py-5">
		<div class="mb-3 flex items-baseline gap-3">
			<h1 class="text-[28px]">Grants</h1>
			<p class="text-ink-2">{longDate(clock.now, data.site.zone)}</p>
			<Act tone="grant" key="G" class="ml-auto" onclick={() => open(null)}>New grant</Act>
		</div>
		<div class="mb-3 flex flex-wrap gap-2">
			{#each filters as one (one.key)}
				<button
					class="rounded-full border px-3 py-0.5 text-[13.5px] font-semibold {filter === one.key
						? 'bg-plum-ground border-plum text-plum'
						: 'border-line-strong bg-sheet'}"
					aria-pressed={filter === one.key}
					onclick={() => (filter = one.key)}>{one.text} {one.of.length}</button
				>
			{/each}
		</div>
		{#if shown.length === 0}
			<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
				{filter === 'all' ? 'Nobody has a grant today. Press G to give one.' : 'Nobody here.'}
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
									<div
										class="relative h-6"
										role="img"
										aria-label="Everyone {clockTime(line.base.opens, line.session.zone)}{line.base.closes
											? ` to ${clockTime(line.base.closes, line.session.zone)}`
											: ''}; works {clockTime(line.works.from, line.session.zone)}{line.works.to
											? ` to ${clockTime(line.works.to, line.session.zone)}`
											: ''}"
									>
										<span
											class="border-ink-3 absolute top-1 h-4 rounded border border-dashed"
											style={place(line.base.opens, line.base.closes ?? line.works.to ?? span.to)}
										></span>
										{#if line.own}<span
												class="bg-plum/25 border-plum absolute top-0.5 h-5 rounded border"
												style={place(line.own.opens, line.own.closes ?? span.to)}
											></span>{/if}
										<span
											class="bg-plum absolute top-[10px] h-1.5 rounded-full"
											style={place(line.works.from, line.works.to ?? span.to)}
										></span>
									</div>
								</TableBodyCell>
								<TableBodyCell class="px-3.5 py-2"
									><span class="font-semibold {line.misfit ? 'text-brick' : 'text-tide'}"
										>{line.finished ? STATE_NAMES[line.state] : line.misfit ? 'cut by the close' : 'fits'}</span
									><span class="text-ink-3 block text-[13px]"
										>{line.works.to
											? `${line.finished ? 'at' : 'ends'} ${clockTime(line.works.to, line.session.zone)}`
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
					ongiven={given}
					onwithdraw={(line, grant) => ((withdrawing = { line, grant }), (isAsking = true))}
				/>
			{/key}
		{/if}
	</aside>
</div>
{#if withdrawing}
	<Ask
		bind:open={isAsking}
		title="Withdraw: {withdrawing.line.name}"
		verb="Withdraw"
		tone="danger"
		error={trouble}
		onconfirm={withdraw}
	>
		<p>
			{withdrawing.grant.what}, {withdrawing.grant.scope === 'standing'
				? 'which applies to every session'
				: 'for this session'}. It stays in the record. No answer is touched.
		</p>
	</Ask>
{/if}
