<script lang="ts">
	import {
		Input,
		Select,
		Table,
		TableBody,
		TableBodyCell,
		TableBodyRow,
		TableHead,
		TableHeadCell
	} from 'flowbite-svelte';
	import { invalidateAll } from '$app/navigation';
	import { KIND_NAMES } from '$core/session';
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	let part = $state<'today' | 'later' | 'past'>('today');
	let text = $state('');
	let site = $state('');
	let kind = $state('');
	const sites = $derived([...new Set(data.sessions.map((session) => session.site))]);
	const shown = $derived(
		data.sessions
			.filter(
				(session) =>
					session.part === part &&
					(site === '' || session.site === site) &&
					(kind === '' || session.kind === kind) &&
					`${session.name} ${session.room} ${session.site}`.toLowerCase().includes(text.trim().toLowerCase())
			)
			.sort((a, b) => (part === 'past' ? b.opens - a.opens : a.opens - b.opens))
	);
	let trouble = $state<string | null>(null);
	async function throwAway(id: string) {
		const answer = await send('DELETE', `/prepare/draft?id=${id}`);
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
	}
	const count = (which: typeof part) => data.sessions.filter((session) => session.part === which).length;
</script>

<svelte:head><title>Sessions · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">Sessions</h1>
		<Choose
			name="part"
			label="Which sessions"
			bind:value={part}
			options={[
				{ value: 'today', text: `Today ${count('today')}` },
				{ value: 'later', text: `Later ${count('later')}` },
				{ value: 'past', text: `Past ${count('past')}` }
			]}
		/>
		<div class="w-44"><Input placeholder="Name, room or site" aria-label="Find a session" bind:value={text} /></div>
		<div class="w-36">
			<Select
				aria-label="Site"
				placeholder=""
				bind:value={site}
				items={[{ value: '', name: 'every site' }, ...sites.map((name) => ({ value: name, name }))]}
			/>
		</div>
		<div class="w-32">
			<Select
				aria-label="Kind"
				placeholder=""
				bind:value={kind}
				items={[
					{ value: '', name: 'every kind' },
					...Object.entries(KIND_NAMES).map(([value, name]) => ({ value, name }))
				]}
			/>
		</div>
		<Act href="/prepare/ready" class="ml-auto">Ready?</Act>
		<Act tone="main" href="/prepare/new">New session</Act>
	</div>
	{#if data.planned > 0}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold">
			{data.planned === 1 ? 'Planned.' : `${data.planned} sessions planned, each with a code of its own.`}
		</p>{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if data.drafts.length > 0}
		<ul class="border-line-strong mb-4 rounded-2xl border border-dashed" data-testid="drafts">
			{#each data.drafts as draft (draft.id)}
				<li class="border-line flex flex-wrap items-center gap-3 border-b px-4 py-2 text-[14.5px] last:border-b-0">
					<span class="bg-slate-ground text-slate-sea rounded-full px-2 py-0.5 text-[12.5px] font-semibold">draft</span>
					<a class="font-semibold underline decoration-1 underline-offset-2" href="/prepare/new?draft={draft.id}"
						>{draft.title}</a
					>
					<span class="text-ink-3 text-[13px]"
						>kept {longDate(draft.savedAt, data.site.zone, clock.now)}, {clockTime(draft.savedAt, data.site.zone)}</span
					>
					<Act size="xs" class="ml-auto" onclick={() => throwAway(draft.id)}>Delete draft</Act>
				</li>
			{/each}
		</ul>
	{/if}
	{#if shown.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			{text || site || kind
				? `No session here matches${text ? ` “${text}”` : ' these filters'}.`
				: part === 'today'
					? 'Nothing is planned for today.'
					: 'No sessions here.'}
		</p>
	{:else}
		<div class="border-line overflow-x-auto rounded-2xl border">
			<Table class="text-ink text-[14.5px]">
				<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
					{#each ['When', 'Session', 'Where', 'Expected', 'Stands', ''] as title (title)}<TableHeadCell
							class="px-4 py-2.5 font-semibold">{title}</TableHeadCell
						>{/each}
				</TableHead>
				<TableBody>
					{#each shown as session (session.id)}
						<TableBodyRow class="bg-sheet border-line">
							<TableBodyCell class="px-4 py-2.5"
								><span class="font-mono font-semibold">{clockTime(session.opens, session.zone)}</span>
								<span class="text-ink-3 block text-[13px]">{longDate(session.opens, session.zone, clock.now)}</span
								></TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5 font-semibold whitespace-normal"
								><a class="underline decoration-1 underline-offset-2" href="/prepare/{session.id}/ready"
									>{session.name}</a
								>{#if session.kind !== 'live'}<span
										class="bg-plum-ground text-plum ml-2 rounded-full px-2 py-0.5 text-[12.5px] whitespace-nowrap"
										>{KIND_NAMES[session.kind]}</span
									>{/if}</TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5"
								>{session.room}<span class="text-ink-3 block text-[13px]">{session.site}</span></TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5">{session.expected}</TableBodyCell>
							<TableBodyCell class="px-4 py-2.5"
								>{session.stage}{#if !session.hasProctor && session.stage !== 'ended'}<span
										class="text-ochre block text-[13px]">no proctor yet</span
									>{/if}</TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5">
								{#if session.stage === 'planned'}<Act size="xs" href="/prepare/{session.id}">Change</Act>
								{:else if session.stage === 'ended'}<Act size="xs" href="/close-out/{session.id}">Ledger</Act>
								{:else}<Act size="xs" href="/live/{session.id}">Room</Act>{/if}
								<Act size="xs" href="/prepare/new?from={session.id}">Duplicate</Act>
							</TableBodyCell>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		</div>
	{/if}
</main>
