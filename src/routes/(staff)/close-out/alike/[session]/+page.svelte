<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { invalidateAll } from '$app/navigation';
	import { seatName } from '$core/seating';
	import { timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	let note = $state('');
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	let shown = $state(0);
	const pair = $derived(data.pairs[shown]);
	const seats = $derived(new Map(data.sat.map((one) => [one.seat, one])));
	const inPairs = $derived(new Set(data.pairs.flatMap(({ a, b }) => [a.sittingId, b.sittingId])));
	const rows = $derived(
		Array.from({ length: data.session.rows }, (_, row) =>
			Array.from({ length: data.session.seatsPerRow }, (_, place) =>
				seatName(row * data.session.seatsPerRow + place, data.session.seatsPerRow)
			)
		).filter((row) => row.some((seat) => seats.has(seat)))
	);
	const chance = (p: number) =>
		p < 0.0001 ? 'less than 1 in 10,000' : `about 1 in ${Math.round(1 / p).toLocaleString('en-GB')}`;

	async function decide(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const answer = await send('POST', '/close-out/decide', { act: 'alike', sessionId: data.session.id, note });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) note = '';
		await invalidateAll();
	}
</script>

<svelte:head><title>Similar answers · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-5">
	<p class="text-[14px]"><a class="text-tide underline" href="/close-out/decide">Decisions</a></p>
	<h1 class="text-[26px]">Similar answers: {data.session.name}</h1>
	<p class="text-ink-2 mb-4">
		{data.pairs.length === 0
			? `${data.compared.toLocaleString('en-GB')} pairs were compared. No two people answered more alike than people who work alone.`
			: `${data.compared.toLocaleString('en-GB')} pairs were compared; ${data.pairs.length === 1 ? 'one pair' : `${data.pairs.length} pairs`} answered more alike than people who work alone. There can be good reasons: the same teacher, the same notes. This is a hint to look closer and nothing more.`}
	</p>
	{#if data.pairs.length > 0}
		<div class="grid gap-5 lg:grid-cols-[1fr_420px]">
			<ul class="space-y-3">
				{#each data.pairs as one, i (one.a.sittingId + one.b.sittingId)}
					<li>
						<button
							class="bg-sheet w-full rounded-2xl border px-5 py-3.5 text-left {i === shown
								? 'border-tide'
								: 'border-line'}"
							aria-pressed={i === shown}
							onclick={() => (shown = i)}
							data-testid="pair"
						>
							<p class="text-[17px]">
								<strong>{one.a.name}</strong> <span class="text-ink-2 font-mono text-[14px]">{one.a.seat ?? ''}</span>
								<span class="text-ink-3">and</span>
								<strong>{one.b.name}</strong> <span class="text-ink-2 font-mono text-[14px]">{one.b.seat ?? ''}</span>
								{#if one.isNear}<span
										class="bg-ochre-ground text-ochre ml-2 rounded-full px-2 py-px text-[13px] font-semibold"
										>sat next to each other</span
									>{/if}
							</p>
							<p class="mt-1 text-[14.5px]">
								The same answer to <strong>{one.same} of {one.shared}</strong> questions that both had; {Math.round(
									one.expected
								)} would be expected. <strong>{one.sameWrong}</strong> of these are the same wrong answer.
							</p>
							<p class="text-ink-2 text-[13.5px]">
								Chance of that in any pair of this session: {chance(one.chance)} (z = {one.z.toFixed(1)}).
							</p>
						</button>
					</li>
				{/each}
			</ul>
			<aside>
				<section class="bg-sheet border-line rounded-2xl border p-4" aria-label="Seats of {data.session.room}">
					<h2 class="mb-2 text-[17px]">{data.session.room}</h2>
					<div class="space-y-1">
						{#each rows as row (row[0])}
							<div class="flex gap-1">
								{#each row as seat (seat)}
									{@const sits = seats.get(seat)}
									{@const isShown =
										sits && (sits.sittingId === pair.a.sittingId || sits.sittingId === pair.b.sittingId)}
									<span
										title={sits?.name ?? 'empty'}
										class="flex h-7 min-w-0 flex-1 items-center justify-center rounded font-mono text-[11px] {isShown
											? 'bg-ochre-mark font-bold text-[#1c2a2b]'
											: sits && inPairs.has(sits.sittingId)
												? 'bg-ochre-ground text-ochre'
												: sits
													? 'bg-mist text-tide'
													: 'text-ink-3'}">{seat}</span
									>
								{/each}
							</div>
						{/each}
					</div>
				</section>
				{#if pair.wrongQuestions.length > 0}
					<section class="mt-4">
						<h2 class="text-[17px]">The same wrong answer to</h2>
						<ul class="mt-1 list-disc pl-5 text-[14px]">
							{#each pair.wrongQuestions as id (id)}<li>{data.stems[id] ?? id}</li>{/each}
						</ul>
					</section>
				{/if}
			</aside>
		</div>
	{/if}
	<section class="border-line mt-5 border-t pt-4" aria-label="What was found">
		{#if data.decision}
			<p data-testid="decided">
				<strong>{data.decision.by}</strong>, {timeAndDate(data.decision.at, data.session.zone, clock.now)}: {data
					.decision.note}
				{#if !data.decision.holds}<span class="text-ochre font-semibold">Another pair has come since.</span>{/if}
			</p>
		{/if}
		{#if data.mayDecide && data.pairs.length > 0}
			<form onsubmit={decide} class="mt-3 flex max-w-2xl items-end gap-2">
				<Field id="found" label="What you found, for all pairs of this session" class="flex-1"
					><Input id="found" bind:value={note} /></Field
				>
				<Act tone="main" type="submit" {busy} disabled={note.trim() === ''} testid="decide-alike">Decide</Act>
			</form>
			<p class="text-ink-2 mt-1 text-[13.5px]">
				It changes no result. To put a note on a result, or to set a sitting aside, use the lists under Decisions or the
				room.
			</p>
			{#if trouble}<p role="alert" class="text-brick mt-1">{trouble}</p>{/if}
		{/if}
	</section>
</main>
