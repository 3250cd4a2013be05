<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Table from 'flowbite-svelte/Table.svelte';
	import TableBody from 'flowbite-svelte/TableBody.svelte';
	import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
	import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
	import TableHead from 'flowbite-svelte/TableHead.svelte';
	import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { counted } from '$core/names';
	import { KIND_NAMES } from '$core/session';
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import { zoneBeside } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const asked = $derived(data.asked);
	let text = $state(untrack(() => data.asked.text));
	let sent = untrack(() => data.asked.text);
	$effect(() => {
		// Another list than the one asked for here: somebody followed a link to it.
		if (asked.text !== sent) text = sent = asked.text;
	});
	let resting: ReturnType<typeof setTimeout> | undefined;
	/** Asks for another part of the list; the page is the first again, unless it is what changes. */
	function show(change: Partial<typeof asked>) {
		clearTimeout(resting);
		const { part, siteId, kind, page } = { ...asked, page: 0, ...change };
		sent = text.trim();
		const wanted = { part, text: sent, site: siteId, kind, page: page > 0 ? String(page) : null };
		const query = new URLSearchParams(Object.entries(wanted).flatMap(([key, value]) => (value ? [[key, value]] : [])));
		void goto(`/prepare?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
	}
	const typed = () => {
		clearTimeout(resting);
		resting = setTimeout(() => show({}), 150);
	};
	$effect(() => () => clearTimeout(resting));
	const isNarrowed = $derived(asked.text !== '' || asked.siteId !== null || asked.kind !== null);
	const from = $derived(asked.page * data.pageSize);
	const pages = $derived(asked.part === 'past' ? ['Newer', 'Older'] : ['Sooner', 'Later']);
	let trouble = $state<string | null>(null);
	async function throwAway(id: string) {
		const answer = await send('DELETE', `/prepare/draft?id=${id}`);
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
	}
</script>

<svelte:head><title>Sessions · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">Sessions</h1>
		<Choose
			name="part"
			label="Which sessions"
			value={asked.part}
			onchange={(part) => show({ part })}
			options={[
				{ value: 'today', text: `Today ${data.counts.today}` },
				{ value: 'later', text: `Later ${data.counts.later}` },
				{ value: 'past', text: `Past ${data.counts.past}` }
			]}
		/>
		<div class="w-44">
			<Input placeholder="Name, room or site" aria-label="Find a session" bind:value={text} oninput={typed} />
		</div>
		<div class="w-36">
			<Select
				aria-label="Site"
				placeholder=""
				value={asked.siteId ?? ''}
				onchange={(event) => show({ siteId: event.currentTarget.value || null })}
				items={[{ value: '', name: 'every site' }, ...data.sites.map(({ id, name }) => ({ value: id, name }))]}
			/>
		</div>
		<div class="w-32">
			<Select
				aria-label="Kind"
				placeholder=""
				value={asked.kind ?? ''}
				onchange={(event) => show({ kind: (event.currentTarget.value || null) as typeof asked.kind })}
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
			{#if data.landed}
				{@const { id, name, opens, zone, slips } = data.landed}
				Planned: {name}, {longDate(opens, zone)}, {clockTime(opens, zone)}{zoneBeside(opens, zone)}. Next:
				<a class="underline" href="/prepare/{id}/ready">what is left to do for it</a>
				{#if slips}·
					<a class="underline" href="/prepare/{id}/print/slips" data-sveltekit-reload>print slips</a>
				{/if}
				· <a class="underline" href="/prepare/mail?session={id}">tell candidates</a>
			{:else}{data.planned === 1 ? 'Planned.' : `${data.planned} sessions planned, each with a code of its own.`}{/if}
		</p>{/if}
	{#if data.calledOff}<p
			role="status"
			class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold"
			data-testid="off"
		>
			Called off{data.calledOff.told > 0 ? `; ${counted(data.calledOff.told, 'letter')} written` : ''}. It is
			<a class="underline" href="/prepare/new?draft={data.calledOff.draftId}">a draft of yours</a> now, so that it can be
			planned again.
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
	{#if data.sessions.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			{isNarrowed
				? `No session here matches${asked.text ? ` “${asked.text}”` : ' these filters'}.`
				: asked.part === 'today'
					? `Nothing is planned for today.${data.counts.later > 0 ? ` ${counted(data.counts.later, 'session')} ${data.counts.later === 1 ? 'comes' : 'come'} later.` : ''}`
					: 'No sessions here.'}
		</p>
	{:else}
		<div class="border-line overflow-x-auto rounded-2xl border">
			<Table class="text-ink text-[14.5px]">
				<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
					{#each ['When', 'Session', 'Where', 'Expected', 'Status', ''] as title (title)}<TableHeadCell
							class="px-4 py-2.5 font-semibold">{title}</TableHeadCell
						>{/each}
				</TableHead>
				<TableBody>
					{#each data.sessions as session (session.id)}
						<TableBodyRow class="bg-sheet border-line">
							<TableBodyCell class="px-4 py-2.5"
								><span class="font-mono font-semibold"
									>{clockTime(session.opens, session.zone)}{zoneBeside(session.opens, session.zone)}</span
								>
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
		{#if data.total > data.pageSize}<p class="text-ink-2 mt-3 flex flex-wrap items-center gap-3 text-[14px]">
				<span data-testid="count">{from + 1} to {from + data.sessions.length} of {data.total}</span>
				<Act size="xs" disabled={asked.page === 0} onclick={() => show({ page: asked.page - 1 })}>{pages[0]}</Act>
				<Act size="xs" disabled={from + data.pageSize >= data.total} onclick={() => show({ page: asked.page + 1 })}
					>{pages[1]}</Act
				>
			</p>{/if}
	{/if}
</main>
