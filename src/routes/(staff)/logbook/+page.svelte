<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { clockTime, longDate, sameLocalDay, timeAndDate } from '$core/time';
	import type { RecordVerified } from '$core/logbook';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import { entryInWords } from '$core/logbook';
	import { counted, listed } from '$core/names';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	const zone = $derived(data.site.zone);
	let busy = $state(false);
	let verdict = $state.raw<{ ok: boolean; text: string } | null>(null);

	async function verify() {
		busy = true;
		const answer = await send<RecordVerified>('GET', '/logbook/verify');
		busy = false;
		if (!answer.ok) verdict = { ok: false, text: inWords(answer.problem) };
		else if (answer.data.broken) verdict = { ok: false, text: `Something was changed: ${answer.data.broken}.` };
		else {
			const { entries, answers, rows, sealedAnew, head, anchoredAt } = answer.data;
			const until = anchoredAt
				? `Nothing that was there at ${timeAndDate(Date.parse(anchoredAt), zone, clock.now)} is missing.`
				: 'Nothing shows yet whether its end was cut off: no anchor has been kept.';
			const upgrades =
				sealedAnew.length === 0
					? ''
					: ` An upgrade sealed the rows ${listed(sealedAnew.map((at) => timeAndDate(Date.parse(at), zone, clock.now)))}.`;
			verdict = {
				ok: true,
				text: `All ${counted(entries, 'entry', 'entries')}, ${counted(answers, 'answer')} and ${counted(rows, 'row')} that decide results are as they were written. ${until}${upgrades} Numbers that the list leaves out seal those rows. Head ${head.slice(0, 12)}…`
			};
		}
	}
	/** A long record is looked through piece by piece. */
	const since = $derived(data.since === null ? null : longDate(data.since, zone, clock.now));
	const nothing = $derived.by(() => {
		const matches = data.text === '' ? 'is yours' : `matches “${data.text}”`;
		if (data.isEarlier) return `Nothing further back ${matches}${since === null ? '' : `, as far as ${since}`}.`;
		if (since !== null) return `Nothing in the logbook ${matches} since ${since}.`;
		return data.text === '' ? 'Nothing has been done yet.' : `Nothing in the logbook ${matches}.`;
	});
	const link = (before: number) => {
		const query = new URLSearchParams({
			...(data.text ? { text: data.text } : {}),
			...(data.sittingId ? { sitting: data.sittingId } : {}),
			before: String(before)
		});
		return `/logbook?${query}`;
	};
</script>

<svelte:head><title>Logbook · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">Logbook</h1>
		<form class="flex gap-2" role="search">
			<div class="w-80">
				<Input
					name="text"
					value={data.text}
					placeholder="Name, number, receipt, session, act"
					aria-label="Search the logbook"
				/>
			</div>
			{#if data.sittingId}<input type="hidden" name="sitting" value={data.sittingId} />{/if}
			<Act type="submit">Search</Act>
			{#if data.text || data.sittingId}<Act href="/logbook">All entries</Act>{/if}
		</form>
		<Act class="ml-auto" onclick={verify} {busy} testid="verify">Verify the record</Act>
	</div>
	{#if !data.isWhole}<p class="text-ink-3 mb-3 text-[14px]">
			What happened in the sessions of your sites, and what you did yourself.
		</p>{/if}
	{#if verdict}<p
			role="status"
			class="mb-3 rounded-lg px-3 py-2 font-semibold {verdict.ok ? 'bg-mist text-tide' : 'bg-brick-ground text-brick'}"
			data-testid="verdict"
		>
			{verdict.text}
		</p>{/if}
	{#if data.lines.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			{nothing}
		</p>
	{:else}
		<ol class="bg-sheet border-line rounded-2xl border">
			{#each data.lines as line, i (line.seq)}
				{#if i === 0 || !sameLocalDay(line.at, data.lines[i - 1].at, zone)}<li
						class="bg-paper border-line border-b px-4 py-1.5 font-serif font-semibold first:rounded-t-2xl"
					>
						{longDate(line.at, zone, clock.now)}
					</li>{/if}
				<li
					class="border-line grid grid-cols-[60px_72px_1fr_auto] gap-3 border-b px-4 py-2 text-[14.5px] last:border-b-0"
				>
					<span class="text-ink-3 font-mono text-[13px]">{line.seq}</span>
					<span class="text-ink-2 font-mono text-[13.5px]">{clockTime(line.at, zone, true)}</span>
					<span
						>{#if line.candidate}<strong>{line.candidate}:</strong>{/if}
						{entryInWords(line)}<span class="text-ink-3 block text-[13px]"
							>{line.who}{line.session ? ` · ${line.session}` : ''}</span
						></span
					>
					<span class="text-ink-3 font-mono text-[12px]" title={line.hash}>{line.hash.slice(0, 8)}</span>
				</li>
			{/each}
		</ol>
	{/if}
	{#if data.before !== null}<p class="mt-3 flex flex-wrap items-center gap-3">
			<Act href={link(data.before)}>{since ? 'Look further back' : 'Earlier entries'}</Act>
			{#if since && data.lines.length > 0}<span class="text-ink-2 text-[14px]"
					>All since {since} was looked through.</span
				>{/if}
		</p>{/if}
</main>
