<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import { invalidateAll } from '$app/navigation';
	import { showDoorCode } from '$core/access';
	import { KIND_NAMES } from '$core/session';
	import { clockTime, longDate, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import ReadyLines from '$ui/ReadyLines.svelte';
	import Sentence from '$ui/Sentence.svelte';

	let { data } = $props();
	const clock = getClock();
	const session = $derived(data.session);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let asksRelease = $state(false);
	let asksRenew = $state(false);
	let fields = $state(['number', 'name', 'email']);
	const FIELDS = { number: 'number', name: 'name', email: 'e-mail', address: 'personal address' };
	const inTheWay = $derived(data.lines.filter((line) => line.state === 'blocked').length);
	const open = $derived(data.lines.filter((line) => line.state === 'open').length);

	async function act(kind: 'show_code' | 'hide_code' | 'renew_code') {
		if (busy) return;
		busy = true;
		const answer = await send('POST', `/live/${session.id}/session`, { act: kind });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		asksRelease = asksRenew = false;
		await invalidateAll();
	}
</script>

<svelte:head><title>{session.name} · Otium</title></svelte:head>
<main class="mx-auto grid max-w-6xl grid-cols-[1fr_380px] gap-6 px-6 py-6 max-lg:grid-cols-1">
	<div>
		<div class="flex flex-wrap items-center gap-3">
			<h1 class="text-[26px]">{session.name}</h1>
			{#if session.kind !== 'live'}<span
					class="bg-plum-ground text-plum rounded-full px-3 py-1 text-[14px] font-semibold"
					>{KIND_NAMES[session.kind]}</span
				>{/if}
		</div>
		<p class="bg-tide-deep mt-3 rounded-2xl p-5 font-serif text-[19px] leading-snug text-[#f6f2e8]">
			<Sentence parts={data.sentence} />
		</p>
		<p class="bg-mist mt-2 rounded-xl px-4 py-3 text-[14.5px]" data-testid="protection">
			<strong>Protection in force,</strong> from the settings at {clockTime(clock.now, session.zone, true)}: {data.protection}
		</p>
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}

		<section class="bg-sheet border-line mt-5 rounded-2xl border p-5">
			<h2 class="text-[18px]">Door code</h2>
			{#if session.endedAt !== null}
				<p class="text-ink-2 mt-1">The session has ended; its code no longer works.</p>
			{:else if session.code === null}
				<p class="text-ink-2 mt-1">
					It is created when the door opens, {longDate(session.door, session.zone, clock.now)} at {clockTime(
						session.door,
						session.zone
					)}, and stays hidden until it is shown.
				</p>
				<div class="mt-3"><Act onclick={() => (asksRelease = true)} disabled={!data.mayRun}>Release it now…</Act></div>
			{:else}
				<p class="mt-1">
					{#if session.codeHidden}<span class="text-ink-2">Created, and hidden.</span>
					{:else if session.code === 'turning'}<span class="text-ink-2"
							>It changes: the board shows the current one.</span
						>
					{:else}<strong class="font-mono text-[26px]">{showDoorCode(session.code)}</strong>{/if}
					{#if session.codeDiesAt}<span class="text-ink-3 ml-2 text-[14px]"
							>stops working at {timeAndDate(session.codeDiesAt, session.zone, clock.now)}</span
						>{/if}
				</p>
				<div class="mt-3 flex gap-2">
					<Act onclick={() => act(session.codeHidden ? 'show_code' : 'hide_code')} {busy}
						>{session.codeHidden ? 'Show it' : 'Hide it'}</Act
					>
					<Act onclick={() => (asksRenew = true)}>Renew it…</Act>
					<Act href="/live/{session.id}/board">Door board</Act>
				</div>
			{/if}
		</section>

		<section class="bg-sheet border-line mt-4 rounded-2xl border p-5">
			<h2 class="text-[18px]">On paper</h2>
			<div class="mt-2 flex flex-wrap gap-2">
				{#each data.prints as print (print.key)}
					{#if print.key !== 'slips' || session.slips}<a
							class="border-line-strong bg-sheet hover:bg-paper rounded-lg border px-3.5 py-2 text-[14px] font-semibold"
							href="/prepare/{session.id}/print/{print.key}"
							target="_blank"
							data-sveltekit-reload>{print.name}, PDF</a
						>{/if}
				{/each}
				<a class="px-2 py-2 text-[14px] underline" href="/prepare/{session.id}/calendar.ics" data-sveltekit-reload
					>Calendar file</a
				>
			</div>
			{#if !session.slips}<p class="text-ink-3 mt-1 text-[13px]">
					Slips are off in this session’s rules, so personal addresses open nothing.
				</p>{/if}
			<h2 class="mt-5 text-[18px]">For an outside supervision service</h2>
			<div class="mt-2 flex flex-wrap items-center gap-4">
				{#each Object.entries(FIELDS) as [field, name] (field)}
					<Checkbox
						class="text-[14px]"
						disabled={field === 'address' && !session.slips}
						checked={fields.includes(field)}
						onchange={() =>
							(fields = Object.keys(FIELDS).filter((one) =>
								one === field ? !fields.includes(field) : fields.includes(one)
							))}>{name}</Checkbox
					>
				{/each}
				{#if fields.length > 0}<a
						class="text-[14px] font-semibold underline"
						href="/prepare/{session.id}/supervision.csv?fields={fields.join(',')}"
						data-sveltekit-reload>CSV of these {fields.length}</a
					>{/if}
			</div>
		</section>
	</div>

	<aside>
		<div class="flex flex-wrap gap-2">
			<Act tone="main" href="/live/{session.id}">Open room</Act>
			<Act href="/prepare/{session.id}/seen" testid="seen">As candidates see it</Act>
			<Act href="/prepare/{session.id}">Change</Act>
			<Act href="/prepare/new?from={session.id}">Duplicate</Act>
		</div>
		<section class="bg-sheet border-line mt-4 rounded-2xl border p-5" data-testid="ready">
			<h2 class="text-[18px]">
				{inTheWay > 0 ? `${inTheWay} in the way` : open > 0 ? `Ready, but for ${open}` : 'Ready'}
			</h2>
			<ReadyLines lines={data.lines} />
		</section>
	</aside>
</main>
<Ask
	bind:open={asksRelease}
	title="Release the code now?"
	verb="Release it"
	{busy}
	error={trouble}
	onconfirm={() => act('show_code')}
>
	<p>
		The door opens {longDate(session.door, session.zone, clock.now)} at {clockTime(session.door, session.zone)}. Anyone
		who has the code earlier can wait at the door, but nobody gets in. Once it is released, the session can no longer be
		changed.
	</p>
</Ask>
<Ask
	bind:open={asksRenew}
	title="Renew the code?"
	verb="Renew it"
	tone="danger"
	{busy}
	error={trouble}
	onconfirm={() => act('renew_code')}
>
	<p>The old code stops working at once. People who are already in notice nothing; write the new one on the board.</p>
</Ask>
