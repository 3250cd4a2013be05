<!-- @component Everyone whose time does not fit on a day, and a plan for all of them at once. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Spinner from 'flowbite-svelte/Spinner.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import type { Place } from '$core/optimal';
	import { clockTime, HOUR, MINUTE } from '$core/time';
	import type { Proposed } from '$lib/server/grants';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import DateField from '$ui/DateField.svelte';
	import Field from '$ui/Field.svelte';
	import { mailsTold } from '$ui/mails-told';
	import { inWords, send } from '$ui/post';
	import GrantsHead from '../GrantsHead.svelte';
	import PlanRow from './PlanRow.svelte';

	let { data } = $props();
	const fit = $derived(data.fit);
	const siteId = $derived(data.here.id);
	const typed = (event: Event) => (event.currentTarget as HTMLSelectElement).value;
	let day = $state(untrack(() => data.fit.day));
	let plan = $state.raw<Proposed | null>(null);
	let wrong = $state.raw<Record<string, string[]>>({});
	let isPlanning = $state(false);
	let seconds = $state(0);
	let trouble = $state<string | null>(null);
	let isAsking = $state(false);
	let busy = $state(false);
	let reason = $state('');
	let tell = $state(true);
	let applied = $state.raw<{ id: string; words: string } | null>(null);
	let id = $state(nanoid());
	let stop: AbortController | null = null;

	const placeOf = (sittingId: string) => plan?.places.find((place) => place.id === sittingId);
	const span = $derived.by(() => {
		const edges = [
			...fit.people.flatMap((person) => [person.base.opens, person.base.closes ?? person.base.opens + HOUR]),
			...(plan?.places.flatMap((place) => [place.opens, place.closes]) ?? [])
		];
		const [from, to] = [Math.min(...edges), Math.max(...edges)];
		return { from: Math.floor(from / HOUR) * HOUR - HOUR, to: Math.ceil(to / HOUR) * HOUR + HOUR };
	});
	const hours = $derived(Array.from({ length: (span.to - span.from) / HOUR }, (_, i) => span.from + i * HOUR));
	const quality = $derived.by(() => {
		const places = plan?.places ?? [];
		const moved = places.map((place) => {
			const person = fit.people.find((one) => one.sittingId === place.id);
			return person ? Math.abs(place.opens - person.base.opens) / MINUTE : 0;
		});
		return {
			moved: moved.length > 0 ? Math.round(moved.reduce((sum, one) => sum + one, 0) / moved.length) : 0,
			most: Math.round(Math.max(0, ...moved)),
			rooms: new Set(places.map((place) => place.roomId)).size,
			proctors: new Set(places.map((place) => place.proctorId).filter(Boolean)).size
		};
	});
	const isWrong = $derived(Object.values(wrong).some((misfits) => misfits.length > 0));

	async function propose() {
		isPlanning = true;
		trouble = null;
		seconds = 0;
		stop = new AbortController();
		const timer = setInterval(() => seconds++, 1_000);
		const answer = await send<Proposed>(
			'POST',
			'/grants/fit',
			{ act: 'propose', siteId, day: fit.day },
			{ signal: stop.signal }
		);
		clearInterval(timer);
		isPlanning = false;
		if (stop.signal.aborted) return;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		plan = answer.data;
		wrong = {};
		applied = null;
		id = nanoid();
	}
	async function check() {
		if (!plan || plan.places.length === 0) return void (wrong = {});
		const asked = plan;
		const answer = await send<Record<string, string[]>>('POST', '/grants/fit', {
			act: 'check',
			siteId,
			day: fit.day,
			places: plan.places
		});
		if (asked !== plan) return;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		wrong = answer.data;
	}
	function change(sittingId: string, to: Partial<Place>) {
		if (!plan) return;
		plan = { ...plan, places: plan.places.map((place) => (place.id === sittingId ? { ...place, ...to } : place)) };
		void check();
	}
	function leaveOut(sittingId: string) {
		if (!plan) return;
		plan = {
			...plan,
			places: plan.places.filter((place) => place.id !== sittingId),
			left: [...plan.left, sittingId]
		};
		void check();
	}
	async function apply() {
		if (!plan || busy) return;
		busy = true;
		const answer = await send<{ given: number; mails: number }>('POST', '/grants/fit', {
			act: 'apply',
			siteId,
			day: fit.day,
			id,
			places: plan.places,
			reason,
			tell
		});
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		isAsking = false;
		trouble = null;
		const { given, mails } = answer.data;
		applied = {
			id,
			words: `${given === 1 ? 'One person has' : `${given} people have`} a window of their own now. ${mailsTold(mails)}`
		};
		plan = null;
		await invalidateAll();
	}
	async function undo() {
		if (!applied || busy) return;
		busy = true;
		const answer = await send<{ withdrawn: number }>('POST', '/grants/fit', { act: 'undo', siteId, id: applied.id });
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		applied = null;
		trouble = null;
		await invalidateAll();
	}
</script>

<svelte:head><title>Does not fit · Otium</title></svelte:head>
<main class="mx-auto max-w-7xl px-6 py-5">
	<GrantsHead counts={data.counts}>
		{#if data.sites.length > 1}
			<Select
				size="sm"
				class="ml-auto w-44"
				placeholder=""
				aria-label="Site"
				items={data.sites.map((one) => ({ value: one.id, name: one.name }))}
				value={data.here.id}
				onchange={(event) => ((plan = null), goto(`/grants/fit?site=${typed(event)}&day=${day}`))}
			/>
		{/if}
		<span class={data.sites.length > 1 ? '' : 'ml-auto'}
			><DateField
				label="Day"
				size="sm"
				bind:value={day}
				onchange={(value) =>
					value && ((plan = null), goto(`/grants/fit?site=${siteId}&day=${value}`, { keepFocus: true }))}
			/></span
		>
	</GrantsHead>
	<p class="text-ink-2 mb-3">
		Everyone at {data.here.name} on that day whose time does not fit: what is in the way, and a plan for all of them at once.
		Nothing changes before you have read it and given it.
	</p>
	{#if applied}
		<p role="status" class="bg-mist text-tide mb-3 flex items-center gap-3 rounded-lg px-3 py-2" data-testid="applied">
			{applied.words}
			<Act size="xs" {busy} onclick={undo}>Take the whole plan back</Act>
		</p>
	{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if fit.people.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			Everybody’s time fits on this day.
		</p>
	{:else}
		<div class="mb-3 flex flex-wrap items-center gap-3">
			{#if isPlanning}
				<Spinner size="5" />
				<p aria-live="polite">Looking for windows, rooms and proctors for {fit.people.length}… {seconds} s</p>
				<Act size="xs" onclick={() => (stop?.abort(), (isPlanning = false))}>Stop</Act>
			{:else}
				<Act tone={plan ? 'quiet' : 'main'} onclick={propose}
					>{plan ? 'Propose again' : `Find windows for all ${fit.people.length}`}</Act
				>
				{#if plan && plan.places.length > 0}
					<Act tone="grant" disabled={isWrong} onclick={() => ((trouble = null), (isAsking = true))}
						>Give {plan.places.length === 1 ? 'this window' : `these ${plan.places.length} windows`}…</Act
					>
				{/if}
			{/if}
			{#if plan}
				<p class="text-ink-2 text-[14.5px]" data-testid="quality">
					{plan.places.length} of {fit.people.length} fit{plan.places.length > 0
						? `, moved by ${quality.moved} min on average, ${quality.most} at most; ${quality.rooms} ${quality.rooms === 1 ? 'room' : 'rooms'}, ${quality.proctors === 0 ? 'nobody has' : quality.proctors === 1 ? 'one proctor has' : `${quality.proctors} proctors have`} to come for it`
						: ''}. Doing nothing: 0 of {fit.people.length}.
				</p>
			{/if}
		</div>
		<div class="border-line overflow-x-auto rounded-2xl border">
			<table class="bg-sheet w-full text-[14.5px]">
				<thead class="text-ink-2 text-left text-[13px]">
					<tr class="border-line border-b">
						<th class="px-3.5 py-2.5 font-semibold">Candidate</th>
						<th class="w-64 px-3 py-2.5 font-semibold">In the way</th>
						<th class="min-w-72 px-0 py-2.5 font-semibold"
							><div class="flex font-mono">
								{#each hours as hour (hour)}<span class="flex-1">{clockTime(hour, fit.zone).replace(':00', '')}</span
									>{/each}
							</div></th
						>
						<th class="w-72 px-3 py-2.5 font-semibold">Where</th>
					</tr>
				</thead>
				<tbody>
					{#each fit.people as person (person.sittingId)}
						{@const place = placeOf(person.sittingId)}
						{@const misfits = wrong[person.sittingId] ?? []}
						<PlanRow
							{person}
							{place}
							{misfits}
							isPlanned={plan !== null}
							{fit}
							{span}
							onchange={(to) => change(person.sittingId, to)}
							onleave={() => leaveOut(person.sittingId)}
						/>
					{/each}
				</tbody>
			</table>
		</div>
	{/if}
</main>
{#if plan}
	<Ask
		bind:open={isAsking}
		title="Windows for {plan.places.length} people"
		verb="Give {plan.places.length} windows"
		tone="grant"
		{busy}
		error={trouble}
		disabled={reason.trim() === ''}
		onconfirm={apply}
	>
		<p class="mb-3">
			Each gets the window, room and proctor of the plan; everyone else stays as they are. Until the first of these
			doors opens, all of it can be taken back in one step.
		</p>
		<Field id="plan-reason" label="Why"
			><Input
				id="plan-reason"
				bind:value={reason}
				maxlength={300}
				placeholder="Time granted does not fit"
				autocomplete="off"
			/></Field
		>
		<Checkbox class="mt-3" bind:checked={tell}>Tell them and the proctors by mail at once</Checkbox>
	</Ask>
{/if}
