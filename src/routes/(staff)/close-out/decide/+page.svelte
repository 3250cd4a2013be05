<script lang="ts">
	import { minutesInWords } from '$core/time';
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { someNames } from '$core/names';
	import { SvelteSet } from 'svelte/reactivity';
	import { invalidateAll } from '$app/navigation';
	import { INCIDENT_DECISIONS, VALIDITY_NAMES, type IncidentDecision, type Validity } from '$core/validity';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import type { PageData } from './$types';
	import { timeInFull } from '$ui/zone-beside';

	type Incident = PageData['incidents'][number];
	let { data } = $props();
	const clock = getClock();
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	/** The decision that is being made about an incident, for whom. */
	let deciding = $state<{ incident: Incident; sittingIds: (string | null)[] } | null>(null);
	let decision = $state<IncidentDecision>('nothing');
	let note = $state('');
	const picked = new SvelteSet<string>();
	let verdict = $state<Validity | null>(null);
	const undecided = $derived(data.lines.filter((line) => line.decided === null));
	const openIncidents = $derived(data.incidents.filter(({ isDecided }) => !isDecided).length);
	const openAlike = $derived(data.alike.filter(({ isOpen }) => isOpen));
	const CONSEQUENCE: Record<IncidentDecision, string> = {
		nothing: 'Their results stay as they are.',
		time_given: 'The time that was given makes up for it. Their results stay as they are.',
		sit_again: 'What they sat is set aside, and they are owed a sitting from the start.',
		set_aside: 'What they sat is set aside: no result. They are not owed another sitting.',
		mark_result: 'Their results are proposed as doubtful, with this incident as the reason.'
	};
	const PLURAL = (n: number) => `${n} ${n === 1 ? 'person' : 'people'}`;

	async function post(body: object): Promise<boolean> {
		busy = true;
		const answer = await send('POST', '/close-out/decide', body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
		return answer.ok;
	}
	function ask(incident: Incident, sittingIds: (string | null)[]) {
		[decision, note, trouble] = [incident.minutes > 0 ? 'time_given' : 'nothing', '', null];
		deciding = { incident, sittingIds };
	}
	async function decide() {
		const { incident, sittingIds } = deciding!;
		if (await post({ act: 'incident', incidentId: incident.id, sittingIds, decision, note })) deciding = null;
	}
	async function judge() {
		if (await post({ act: 'validity', sittingIds: [...picked], verdict, note })) {
			verdict = null;
			picked.clear();
		}
	}
	const open = (people: Incident['people']) => people.filter((one) => one.decision === null);
	const named = (ids: (string | null)[]) =>
		deciding!.incident.people.filter(({ sittingId }) => ids.includes(sittingId)).map(({ name }) => name);
</script>

<svelte:head><title>Decisions · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-5">
	<h1 class="text-[28px]">Decisions</h1>
	<p class="text-ink-2 mb-4">
		{openIncidents + undecided.length + openAlike.length + data.held.length === 0
			? 'Everything here is decided.'
			: 'What only a person can decide, before a site is signed.'}
	</p>
	{#if trouble && !deciding && !verdict}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">
			{trouble}
		</p>{/if}

	<section aria-label="Incidents" class="mb-6">
		<h2 class="text-[20px]">Incidents</h2>
		<ul class="bg-sheet border-line mt-2 rounded-2xl border">
			{#each data.incidents as incident (incident.id)}
				<li class="border-line border-b px-5 py-3 last:border-b-0" data-testid="incident">
					<div class="flex flex-wrap items-baseline gap-x-3">
						<strong>{incident.what}</strong>
						<span class="text-ink-2 text-[14px]"
							>{incident.session} · {timeInFull(incident.happenedAt, incident.zone, clock.now)}{incident.minutes > 0
								? ` · ${minutesInWords(incident.minutes)} given back`
								: ''}</span
						>
						{#if incident.hasAttachment}<a
								class="text-tide text-[14px] underline"
								href="/live/{incident.sessionId}/incidents/{incident.id}">attachment</a
							>{/if}
						<span class="ml-auto">
							{#if incident.isDecided}<span class="text-tide text-[14px] font-semibold">✓ decided</span>
							{:else if data.may.decide}
								<Act
									size="xs"
									onclick={() =>
										ask(
											incident,
											open(incident.people).map(({ sittingId }) => sittingId)
										)}
									testid="decide"
									>{open(incident.people).length > 1
										? `Decide for all ${open(incident.people).length}…`
										: 'Decide…'}</Act
								>{/if}
						</span>
					</div>
					<p class="text-[14.5px]">{incident.note} {incident.done}</p>
					<ul class="mt-1 gap-x-6 text-[14px] {incident.people.length > 6 ? 'sm:columns-2 lg:columns-3' : ''}">
						{#each incident.people as person (person.sittingId)}
							<li class="flex break-inside-avoid flex-wrap items-baseline gap-2 py-0.5">
								<span>{person.name}</span><span class="text-ink-3 font-mono text-[13px]">{person.number}</span>
								{#if person.decision}
									<span class="text-ink-2"
										>{INCIDENT_DECISIONS[person.decision.decision]}{person.decision.note
											? `: ${person.decision.note}`
											: ''}
										({person.decision.by})</span
									>
								{/if}
								{#if data.may.decide && (incident.people.length > 1 || person.decision)}<button
										class="text-tide underline"
										onclick={() => ask(incident, [person.sittingId])}
										>{person.decision ? 'Change' : 'Only this one'}</button
									>{/if}
							</li>
						{/each}
					</ul>
				</li>
			{:else}
				<li class="text-ink-2 px-5 py-5">No incident was reported.</li>
			{/each}
		</ul>
	</section>

	<section aria-label="Results in doubt" class="mb-6">
		<h2 class="text-[20px]">Results in doubt</h2>
		<p class="text-ink-2 text-[14.5px]">
			{data.valid}
			{data.valid === 1 ? 'result has' : 'results have'} nothing against {data.valid === 1 ? 'it' : 'them'} and {data.valid ===
			1
				? 'is'
				: 'are'} valid without a decision.
		</p>
		<ul class="bg-sheet border-line mt-2 rounded-2xl border">
			{#each data.lines as line (line.sittingId)}
				<li class="border-line flex gap-3 border-b px-5 py-3 last:border-b-0" data-testid="doubt">
					{#if data.may.decide}<Checkbox
							class="mt-1 self-start"
							aria-label={line.name}
							checked={picked.has(line.sittingId)}
							onchange={(event) =>
								(event.currentTarget as HTMLInputElement).checked
									? picked.add(line.sittingId)
									: picked.delete(line.sittingId)}
						/>{/if}
					<div class="min-w-0 flex-1">
						<p>
							<strong>{line.name}</strong> <span class="text-ink-3 font-mono text-[13px]">{line.number}</span>
							<span class="text-ink-2 text-[14px]">{line.session}</span>
						</p>
						<ul class="text-[14px]">
							{#each line.proposed.reasons as reason (reason.words)}<li
									class={reason.weighs === 'valid' ? 'text-ink-2' : 'text-ochre'}
								>
									{reason.words}
								</li>{/each}
						</ul>
					</div>
					<div class="text-right text-[14px]">
						{#if line.decided}
							<strong class={line.decided.verdict === 'valid' ? 'text-tide' : 'text-brick'}
								>{VALIDITY_NAMES[line.decided.verdict]}</strong
							>
							<span class="text-ink-2 block">{line.decided.note} ({line.decided.by})</span>
						{:else}<span class="text-ochre">proposed: {VALIDITY_NAMES[line.proposed.verdict].toLowerCase()}</span>{/if}
					</div>
				</li>
			{:else}
				<li class="text-ink-2 px-5 py-5">No result is in doubt.</li>
			{/each}
		</ul>
		{#if data.may.decide && data.lines.length > 0}
			<div class="bg-paper border-line sticky bottom-0 flex flex-wrap items-center gap-2 border-t py-3">
				<p class="text-ink-2 mr-auto text-[14.5px]">
					{picked.size === 0 ? 'Choose results to decide about them.' : `${picked.size} chosen.`}
				</p>
				{#each ['valid', 'doubtful', 'void'] as const as one (one)}<Act
						disabled={picked.size === 0}
						onclick={() => ((verdict = one), (note = ''), (trouble = null))}
						testid="judge-{one}">{VALIDITY_NAMES[one]}…</Act
					>{/each}
			</div>
		{/if}
	</section>

	<section aria-label="Similar answers" class="mb-6">
		<h2 class="text-[20px]">Similar answers</h2>
		<p class="text-ink-2 text-[14.5px]">
			Each session is compared by itself: pairs whose answers agree more than two people working alone explain.
		</p>
		<ul class="bg-sheet border-line mt-2 rounded-2xl border">
			{#each data.alike as session (session.id)}
				<li class="border-line flex items-center gap-3 border-b px-5 py-2.5 last:border-b-0">
					<a class="text-tide font-semibold underline" href="/close-out/alike/{session.id}">{session.name}</a>
					<span class="ml-auto text-[14px] {session.isOpen ? 'text-ochre font-semibold' : 'text-ink-2'}"
						>{session.isOpen ? 'to look at' : 'nothing open'}</span
					>
				</li>
			{:else}<li class="text-ink-2 px-5 py-5">No session has ended.</li>{/each}
		</ul>
	</section>

	{#if data.held.length > 0}
		<section aria-label="Late answers">
			<h2 class="text-[20px]">Answers that came late</h2>
			<ul class="bg-sheet border-line mt-2 rounded-2xl border">
				{#each data.held as one (one.sittingId)}
					<li class="border-line flex items-center gap-3 border-b px-5 py-2.5 last:border-b-0">
						<strong>{one.name}</strong><span class="text-ink-2 text-[14px]"
							>{one.session}, {one.count} kept, not counted</span
						>
						<a class="text-tide ml-auto underline" href="/live/{one.sessionId}?seat={one.sittingId}">Decide</a>
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	<Ask
		open={deciding !== null}
		title="{deciding?.incident.what ?? ''}: decide for {PLURAL(deciding?.sittingIds.length ?? 0)}"
		verb="Decide"
		tone={decision === 'set_aside' || decision === 'sit_again' ? 'danger' : 'main'}
		{busy}
		error={trouble}
		onconfirm={decide}
	>
		{#if deciding}
			<p class="text-ink-2 mb-3 text-[14px]">{someNames(named(deciding.sittingIds), 12)}</p>
			<Field id="decision" label="What follows">
				<Select
					id="decision"
					bind:value={decision}
					items={Object.entries(INCIDENT_DECISIONS)
						.filter(([value]) => deciding!.sittingIds[0] !== null || value === 'nothing')
						.map(([value, name]) => ({ value, name }))}
				/>
			</Field>
			<p class="mt-2 text-[14px]" data-testid="consequence">{CONSEQUENCE[decision]}</p>
			<Field id="note" label="Why, in a few words" class="mt-3"><Input id="note" bind:value={note} /></Field>
		{/if}
	</Ask>
	<Ask
		open={verdict !== null}
		title="{verdict ? VALIDITY_NAMES[verdict] : ''}: {picked.size} {picked.size === 1 ? 'result' : 'results'}"
		verb="Decide"
		tone={verdict === 'void' ? 'danger' : 'main'}
		{busy}
		disabled={note.trim() === ''}
		error={trouble}
		onconfirm={judge}
	>
		<p>
			{someNames(
				data.lines.filter(({ sittingId }) => picked.has(sittingId)).map(({ name }) => name),
				12
			)}
		</p>
		<p class="text-ink-2 mt-1 text-[14px]">
			{verdict === 'void'
				? 'A void result is kept, and shown and sent without points.'
				: verdict === 'doubtful'
					? 'The result goes out with this note beside it.'
					: 'The result goes out as it is. The reasons stay in the record.'}
		</p>
		<Field id="why" label="Why, in a few words" class="mt-3"><Input id="why" bind:value={note} /></Field>
	</Ask>
</main>
