<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { invalidateAll } from '$app/navigation';
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import { zoneBeside } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const chosen = new SvelteSet<string>();
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let result = $state.raw<{ done: string[]; refused: { name: string; why: string }[] } | null>(null);
	const possible = $derived(data.sessions.filter((session) => session.refused === null && session.changes.length > 0));
	const changes = $derived(
		data.sessions.filter((session) => chosen.has(session.id)).reduce((sum, session) => sum + session.changes.length, 0)
	);

	async function apply() {
		if (busy) return;
		busy = true;
		const sessions = possible.filter((session) => chosen.has(session.id)).map(({ id, revision }) => ({ id, revision }));
		const answer = await send<NonNullable<typeof result>>('POST', '/prepare/rules/apply', {
			sheet: data.sheet.id,
			sessions
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		result = answer.data;
		chosen.clear();
		await invalidateAll();
	}
</script>

<svelte:head><title>Apply {data.sheet.name} · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-2 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Apply {data.sheet.name}</h1>
		<Act class="ml-auto" href="/prepare/rules">All sheets</Act>
	</div>
	<p class="text-ink-2 mb-4">
		Choose the sessions; each shows what would change. Start and finish words and networks stay each session’s own.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if result}
		<div role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2" data-testid="applied">
			<p class="font-semibold">Applied to {result.done.length} {result.done.length === 1 ? 'session' : 'sessions'}.</p>
			{#each result.refused as one (one.name)}<p class="text-brick">{one.name} keeps its rules: {one.why}</p>{/each}
		</div>
	{/if}
	<ul class="space-y-2">
		{#each data.sessions as session (session.id)}
			{@const stays = session.refused !== null || session.changes.length === 0}
			<li
				class="bg-sheet border-line grid grid-cols-[auto_1fr] gap-3 rounded-xl border p-3 {stays
					? 'border-dashed'
					: ''}"
			>
				<Checkbox
					class="mt-1"
					aria-label={session.name}
					disabled={stays}
					checked={chosen.has(session.id)}
					onchange={() => (chosen.has(session.id) ? chosen.delete(session.id) : chosen.add(session.id))}
				/>
				<div>
					<p>
						<strong>{session.name}</strong>
						<span class="text-ink-2"
							>{session.room}, {longDate(session.opens, session.zone, clock.now)}
							{clockTime(session.opens, session.zone)}{zoneBeside(session.opens, session.zone)}</span
						>
					</p>
					<p class="text-[14px]">
						{#if session.refused}<span class="text-ochre">It {session.refused}: it keeps its rules.</span>
						{:else if session.changes.length === 0}<span class="text-ink-3">Has these rules already.</span>
						{:else}{session.changes.join(' · ')}{/if}
					</p>
				</div>
			</li>
		{:else}<li class="text-ink-2 py-6 text-center">No session is open.</li>{/each}
	</ul>
	<div class="mt-4 flex items-center gap-3">
		<Act tone="main" onclick={apply} {busy} disabled={chosen.size === 0} testid="apply"
			>{chosen.size === 0
				? 'Choose sessions'
				: `Apply to ${chosen.size}: ${changes} ${changes === 1 ? 'setting changes' : 'settings change'}`}</Act
		>
		{#if possible.length > 1}<Act onclick={() => possible.forEach((session) => chosen.add(session.id))}
				>Choose all {possible.length}</Act
			>{/if}
	</div>
</main>
