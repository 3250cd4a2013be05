<script lang="ts">
	import { counted } from '$core/names';
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { nanoid } from 'nanoid';
	import { invalidateAll } from '$app/navigation';
	import { timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	import KeptFor from './KeptFor.svelte';

	let { data } = $props();
	const clock = getClock();
	const zone = $derived(data.site.zone);
	let text = $state('');
	let number = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	const size = (bytes: number) =>
		bytes < 1_000_000 ? `${Math.ceil(bytes / 1_000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
	const STATES = { waits: 'waits for a second person', stands: 'stands', declined: 'declined' };

	async function post(body: object, words: string) {
		busy = true;
		const answer = await send('POST', '/close-out/archive', body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		told = answer.ok ? words : null;
		await invalidateAll();
		return answer.ok;
	}
	async function propose(event: SubmitEvent) {
		event.preventDefault();
		const body = { act: 'propose', id: nanoid(), administrationId: data.here!.id, number: number.trim() || null, text };
		if (await post(body, 'Proposed. It stands once another person has confirmed it.')) [text, number] = ['', ''];
	}
</script>

<svelte:head><title>Archive · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-5">
	<h1 class="text-[28px]">Archive</h1>
	{#if told}<p role="status" class="bg-mist text-tide my-3 rounded-lg px-3 py-2">{told}</p>{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick my-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if !data.closed}
		<p class="bg-sheet border-line text-ink-2 mt-4 rounded-2xl border p-10 text-center">
			{data.here?.name ?? 'Nothing'} is not closed yet. The archive is written when it is.
		</p>
	{:else}
		<section class="bg-sheet border-line mt-4 rounded-2xl border px-5 py-4" aria-label="The archive">
			<p class="font-serif text-[18px]">
				<strong>{counted(data.closed.counts.results, 'result')}</strong>, {counted(
					data.closed.counts.answers,
					'answer'
				)} and {data.closed.counts.entries} log entries, closed by {data.closed.by}{data.closed.second
					? ` and ${data.closed.second}`
					: ''}, {timeAndDate(data.closed.at, zone, clock.now)}.
			</p>
			<dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-[14px]">
				<dt class="text-ink-2">SHA-256</dt>
				<dd class="font-mono break-all" data-testid="sha256">{data.closed.sha256}</dd>
				<dt class="text-ink-2">Head of the log</dt>
				<dd class="font-mono break-all">{data.closed.head}</dd>
				<dt class="text-ink-2">Key of this house</dt>
				<dd class="font-mono break-all">{data.keyPrint}</dd>
			</dl>
			<div class="mt-3 flex flex-wrap items-center gap-3">
				{#if data.isAll}<Act tone="main" href="/close-out/archive/{data.here!.id}" testid="download"
						>Download, {size(data.closed.bytes)}</Act
					>{/if}
				<p class="text-ink-2 text-[14px]">
					<code class="font-mono">./otium verify FILE</code> proves it anywhere, without this server. With
					<code class="font-mono">--without-names COPY</code> it makes a copy in which nobody is named.
				</p>
			</div>
		</section>
		<section class="mt-6" aria-label="Addenda">
			<h2 class="text-[20px]">Addenda</h2>
			<p class="text-ink-2 text-[14.5px]">
				What was found after the closing. It changes nothing that was sealed, and takes two people.
			</p>
			<ul class="bg-sheet border-line mt-2 rounded-2xl border">
				{#each data.addenda as one (one.id)}
					<li class="border-line border-b px-5 py-3 last:border-b-0" data-testid="addendum">
						<p>
							{#if one.candidate}<strong>{one.candidate}:</strong>{/if}
							{one.text}
						</p>
						<p class="text-ink-2 flex flex-wrap items-center gap-2 text-[14px]">
							{one.proposedBy.name}, {timeAndDate(one.proposedAt, zone, clock.now)} · {STATES[one.state]}{one.decidedBy
								? `, ${one.decidedBy}`
								: ''}
							{#if one.sha256}<span class="font-mono text-[12.5px]">{one.sha256.slice(0, 16)}…</span>{/if}
							{#if one.state === 'waits' && data.may.correct}
								{#if one.proposedBy.id !== data.me}<Act
										size="xs"
										{busy}
										onclick={() => post({ act: 'confirm', id: one.id }, 'Confirmed.')}
										testid="confirm-addendum">Confirm</Act
									>{/if}
								<Act size="xs" {busy} onclick={() => post({ act: 'decline', id: one.id }, 'It does not stand.')}
									>{one.proposedBy.id === data.me ? 'Take it back' : 'Decline'}</Act
								>
							{/if}
						</p>
					</li>
				{:else}<li class="text-ink-2 px-5 py-5">None.</li>{/each}
			</ul>
			{#if data.may.correct && data.isAll}
				<form class="mt-3 space-y-3" onsubmit={propose}>
					<div class="flex flex-wrap gap-3">
						<Field id="number" label="Candidate number, if it is about one" class="w-64"
							><Input id="number" bind:value={number} /></Field
						>
						<Field id="text" label="What was found" class="min-w-72 flex-1"
							><Textarea id="text" rows={2} class="w-full" bind:value={text} /></Field
						>
					</div>
					<Act type="submit" {busy} disabled={text.trim() === ''} testid="propose-addendum">Propose an addendum</Act>
				</form>
			{/if}
		</section>
	{/if}
	<section class="mt-6" aria-label="What is kept">
		<h2 class="text-[20px]">What is kept, and until when</h2>
		<div class="border-line mt-2 overflow-x-auto rounded-2xl border">
			<table class="bg-sheet w-full text-[14px] [&_:is(td,th)]:pr-4" data-testid="retention">
				<thead
					><tr class="text-ink-2 text-left text-[13px]"
						><th scope="col" class="px-4 py-2">What</th><th scope="col">There</th><th scope="col">Next deleted</th><th
							scope="col">Deleted</th
						><th scope="col">How</th></tr
					></thead
				>
				<tbody>
					{#each data.retention as one (one.what)}
						<tr class="border-line border-t"
							><th scope="row" class="px-4 py-2 text-left">{one.what}</th><td class="font-mono">{one.there}</td><td
								>{one.next === null ? '' : timeAndDate(one.next, zone, clock.now)}</td
							><td class="font-mono">{one.gone || ''}</td><td class="text-ink-2 py-1.5 pr-3">{one.how}</td></tr
						>
					{/each}
				</tbody>
			</table>
		</div>
		{#if data.maySetKept}<KeptFor terms={data.terms} />{/if}
		<p class="text-ink-2 mt-2 text-[14px]">
			Backups made before a deletion still hold what was deleted: delete them when their time has come. All that is kept
			about one person can be had on their page under People.
		</p>
	</section>
</main>
