<!-- @component The incidents of this session, told so far. -->
<script lang="ts">
	import { page } from '$app/state';
	import { counted } from '$core/names';
	import { INCIDENT_KINDS, type Incident } from '$core/incident';
	import { minutesInWords, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { send } from '$ui/post';
	import type { LiveRoom } from './room.svelte';

	type Props = { room: LiveRoom; now: number; coordinates: boolean; onnew: () => void };
	let { room, now, coordinates, onnew }: Props = $props();
	let incidents = $state.raw<Incident[] | null>(null);
	let trouble = $state<string | null>(null);
	let asked = $state<string | null>(null);

	$effect(() => {
		void room.head.incidents;
		void load();
	});
	async function load() {
		const answer = await send<{ incidents: Incident[] }>('GET', `/live/${room.sessionId}/incidents`);
		if (answer.ok) incidents = answer.data.incidents;
		trouble = answer.ok ? null : answer.problem.message;
	}
	async function takeBack(incident: Incident) {
		if (asked !== incident.id) return void (asked = incident.id);
		asked = null;
		await room.withdrawIncident(incident);
		await load();
	}
	const whom = (incident: Incident) =>
		incident.people.length === 0
			? 'nobody by name'
			: incident.people.length <= 4
				? incident.people.map((person) => room.shownName(person.sittingId, person.name)).join(', ')
				: counted(incident.people.length, 'candidate');
</script>

<div class="mb-3 flex items-center gap-3">
	<Act tone="main" key="I" onclick={onnew}>Report an incident</Act>
	<p class="text-ink-3 text-[14px]">Reported incidents go into the close-out. No report is ever deleted.</p>
</div>
{#if trouble}<p class="text-brick">{trouble}</p>{/if}
{#if incidents === null && !trouble}
	<p class="text-ink-3">One moment…</p>
{:else}
	<ul class="space-y-2.5" data-testid="incidents">
		{#each incidents ?? [] as incident (incident.id)}
			<li class="bg-sheet border-line rounded-xl border px-4 py-3">
				<p class="flex flex-wrap items-baseline gap-x-3">
					<strong>{INCIDENT_KINDS[incident.kind]}</strong>
					<span class="text-ink-2 text-[14px]"
						>{timeAndDate(incident.happenedAt, room.head.zone, now)} · {whom(incident)}</span
					>
					{#if incident.minutes > 0}<span class="bg-plum-ground text-plum rounded-full px-2.5 text-[13px] font-semibold"
							>{incident.minutes} min given back</span
						>{/if}
				</p>
				<p class="mt-1">{incident.note}</p>
				{#if incident.done}<p class="text-ink-2 text-[14px]">Done: {incident.done}</p>{/if}
				<p class="text-ink-3 mt-1 flex flex-wrap items-center gap-3 text-[13px]">
					Reported by {incident.toldBy}
					{#if incident.attachment}<a
							class="text-tide underline"
							href="/live/{room.sessionId}/incidents/{incident.id}"
							download>{incident.attachment}</a
						>{/if}
					{#if coordinates || incident.tellerId === page.data.person.id}<button
							class="ml-auto underline"
							onclick={() => takeBack(incident)}
							>{asked === incident.id
								? `Really withdraw it${incident.minutes > 0 ? `, and ${minutesInWords(incident.minutes)} from ${whom(incident)}` : ''}?`
								: 'Withdraw'}</button
						>{/if}
				</p>
			</li>
		{:else}
			<li class="text-ink-3">No incidents reported.</li>
		{/each}
	</ul>
{/if}
