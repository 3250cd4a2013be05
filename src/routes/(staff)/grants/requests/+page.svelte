<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { ASKED_AS, REQUEST_STATES, REQUEST_WHAT } from '$core/request';
	import { timeAndDate } from '$core/time';
	import type { GrantLine } from '$lib/server/grants';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { mailsTold } from '$ui/mails-told';
	import { inWords, send } from '$ui/post';
	import GrantsHead from '../GrantsHead.svelte';
	import NewGrant from '../NewGrant.svelte';
	import type { PageData } from './$types';
	import { timeInFull } from '$ui/zone-beside';

	type Request = PageData['open'][number];
	let { data } = $props();
	const clock = getClock();
	let chosen = $state.raw<Request | null>(null);
	let lines = $state.raw<GrantLine[]>([]);
	let line = $state.raw<GrantLine | null>(null);
	let note = $state('');
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let isLinking = $state(false);
	let busy = $state(false);
	let name = $state('');
	let email = $state('');
	let siteId = $state(untrack(() => data.sites[0]?.id ?? ''));
	const zone = (one: Request) => one.session?.zone ?? data.site.zone;

	async function open(one: Request) {
		chosen = one;
		note = '';
		trouble = null;
		told = null;
		lines = [];
		line = null;
		const answer = await send<GrantLine[]>('POST', '/grants/requests', {
			act: 'sittings',
			candidateId: one.candidate.id
		});
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		lines = answer.data;
		line =
			lines.find((each) => each.session.id === one.session?.id) ??
			lines.find((each) => !each.finished) ??
			lines[0] ??
			null;
	}
	async function decide(state: 'given' | 'declined', words: string) {
		if (!chosen || busy) return;
		busy = true;
		const answer = await send<{ mails: number }>('POST', '/grants/requests', {
			act: 'decide',
			id: chosen.id,
			state,
			note: words
		});
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		const { mails } = answer.data;
		told = `${REQUEST_STATES[state]}: ${chosen.candidate.name}. ${mails === 0 ? 'Nobody could be told by mail: tell them yourself.' : mailsTold(mails)}`;
		if (state === 'declined') chosen = null;
		await invalidateAll();
	}
	async function given(now: GrantLine | null, effect: string) {
		if (now) line = now;
		if (chosen && data.open.some((one) => one.id === chosen!.id))
			await decide('given', [note.trim(), effect ? `It comes to: ${effect}.` : ''].filter(Boolean).join(' '));
		else await invalidateAll();
	}
	async function sendLink() {
		busy = true;
		const answer = await send('POST', '/grants/requests', { act: 'link', name, email, siteId });
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		trouble = null;
		told = `A link for ${name}. ${mailsTold(1)}`;
		isLinking = false;
		name = email = '';
	}
</script>

<svelte:head><title>Requests · Otium</title></svelte:head>
<div class="grid min-h-full grid-cols-[1fr_400px] max-lg:grid-cols-1">
	<main class="px-6 py-5">
		<GrantsHead counts={data.counts}>
			<Act class="ml-auto" onclick={() => ((trouble = null), (isLinking = true))}>Send a teacher a link…</Act>
		</GrantsHead>
		{#if told}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2" data-testid="decided">{told}</p>{/if}
		{#if data.open.length === 0}
			<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
				Nothing waits for a decision. Proctors ask from the room, candidates from their own page, teachers by a link
				that you send them.
			</p>
		{:else}
			<ul class="space-y-2">
				{#each data.open as one (one.id)}
					<li>
						<button
							class="w-full rounded-2xl border px-4 py-3 text-left {chosen?.id === one.id
								? 'border-plum bg-plum-ground'
								: 'border-line bg-sheet hover:border-plum'}"
							onclick={() => open(one)}
							><span class="flex flex-wrap gap-x-2"
								><strong>{one.candidate.name}</strong><span class="text-ink-3 font-mono text-[13.5px]"
									>{one.candidate.number}</span
								><span
									class="ml-auto text-[13.5px] {one.neededBy !== null && one.neededBy < clock.now + 86_400_000
										? 'text-brick font-semibold'
										: 'text-ink-2'}"
									>{one.neededBy === null
										? 'no date'
										: one.neededBy < clock.now
											? 'the session has begun'
											: `before ${timeInFull(one.neededBy, zone(one), clock.now)}`}</span
								></span
							><span class="block">{REQUEST_WHAT[one.what]}{one.session ? `, for ${one.session.name}` : ''}</span><span
								class="text-ink-2 block text-[14.5px] whitespace-pre-line">{one.why}</span
							><span class="text-ink-3 block text-[13px]"
								>{one.as === 'candidate' ? 'The candidate' : `${one.by}, ${ASKED_AS[one.as]}`}, {timeAndDate(
									one.at,
									data.site.zone,
									clock.now
								)}</span
							></button
						>
					</li>
				{/each}
			</ul>
		{/if}
		{#if data.decided.length > 0}
			<h2 class="mt-6 mb-2 text-[19px]">Decided</h2>
			<ul class="border-line bg-sheet rounded-2xl border text-[14.5px]">
				{#each data.decided as one (one.id)}
					<li class="border-line border-b px-4 py-2 last:border-b-0">
						<strong>{one.candidate.name}</strong>, {REQUEST_WHAT[one.what].toLowerCase()}:
						<span class={one.state === 'given' ? 'text-tide' : 'text-ink-2'}
							>{REQUEST_STATES[one.state].toLowerCase()}</span
						>{one.decidedBy ? ` by ${one.decidedBy}` : ''}{one.decidedAt
							? `, ${timeAndDate(one.decidedAt, data.site.zone, clock.now)}`
							: ''}{#if one.note}<span class="text-ink-2 block text-[13.5px]">{one.note}</span>{/if}
					</li>
				{/each}
			</ul>
		{/if}
	</main>
	<aside class="bg-sheet border-line border-l px-5 py-5">
		{#if !chosen}
			<p class="text-ink-3 text-[14.5px]">
				Choose a request to decide it. The candidate and the person who asked are told.
			</p>
		{:else}
			{#if data.open.some((one) => one.id === chosen?.id)}
				<div class="border-line mb-4 border-b pb-4">
					<h2 class="text-[19px]">{chosen.candidate.name} asks</h2>
					<p class="text-[15px]">{REQUEST_WHAT[chosen.what]}: {chosen.why}</p>
					{#if chosen.evidence}<p class="mt-1 text-[14px]">
							<a class="text-tide underline" href="/grants/evidence/{chosen.evidence}" download>What was shown for it</a
							>
						</p>{/if}
					<Field id="note" label="What they are told" class="mt-3" hint="Needed when it is not given."
						><Textarea id="note" rows={2} class="w-full" maxlength={600} bind:value={note} /></Field
					>
					<div class="mt-2 flex gap-2">
						<Act
							tone="danger"
							size="xs"
							{busy}
							disabled={note.trim() === ''}
							onclick={() => decide('declined', note.trim())}>Not given</Act
						>
						<p class="text-ink-2 text-[13.5px]">or give a grant below: that decides it.</p>
					</div>
				</div>
			{/if}
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2 text-[14px]">
					{trouble}
				</p>{/if}
			{#if lines.length > 1}
				<Field id="which" label="Which sitting" class="mb-3"
					><Select
						id="which"
						placeholder=""
						value={line?.sittingId}
						onchange={(event) =>
							(line =
								lines.find((each) => each.sittingId === (event.currentTarget as HTMLSelectElement).value) ?? null)}
						items={lines.map((each) => ({
							value: each.sittingId,
							name: each.session.name
						}))}
					/></Field
				>
			{/if}
			{#if line}
				{#key line.sittingId}
					<NewGrant {line} shown={[]} ongiven={given} onwithdraw={() => {}} />
				{/key}
			{:else if lines.length === 0 && !trouble}
				<p class="text-ink-3 text-[14.5px]">
					No sitting of theirs is planned yet. Standing grants can be given on their own page under Prepare.
				</p>
			{/if}
		{/if}
	</aside>
</div>
<Ask
	bind:open={isLinking}
	title="A link by which a teacher can ask"
	verb="Send it"
	{busy}
	error={trouble}
	disabled={name.trim() === '' || email.trim() === ''}
	onconfirm={sendLink}
>
	<p class="mb-3">
		The teacher gets a mail with a link of their own, for three weeks. No account is needed; they name a candidate by
		number and family name, and see nothing but what was decided.
	</p>
	<Field id="teacher-name" label="Name"
		><Input id="teacher-name" bind:value={name} maxlength={120} autocomplete="off" /></Field
	>
	<Field id="teacher-email" label="E-mail" class="mt-2"
		><Input id="teacher-email" type="email" bind:value={email} maxlength={200} autocomplete="off" /></Field
	>
	{#if data.sites.length > 1}
		<Field id="teacher-site" label="For candidates of" class="mt-2"
			><Select
				id="teacher-site"
				placeholder=""
				bind:value={siteId}
				items={data.sites.map((one) => ({ value: one.id, name: one.name }))}
			/></Field
		>
	{/if}
</Ask>
