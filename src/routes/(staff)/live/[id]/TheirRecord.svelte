<!-- @component What is on record of one candidate: screen, snapshots, incidents, messages, their device, and every step. -->
<script lang="ts">
	import { INCIDENT_KINDS } from '$core/incident';
	import { entryInWords } from '$core/logbook';
	import type { CandidateDetails, SeatView } from '$core/room';
	import { clockLength, timeAndDate } from '$core/time';
	import type { LiveRoom } from './room.svelte';

	type Props = {
		room: LiveRoom;
		seat: SeatView;
		details: CandidateDetails;
		now: number;
		/** What is ordinary of their device, in words. */
		notes: string[];
	};
	let { room, seat, details, now, notes }: Props = $props();

	const zone = $derived(room.head.zone);
</script>

{#if seat.lapses}
	<div>
		<h3 class="text-[16px]">Screen</h3>
		<p class="text-ink-2 text-[14px]">
			Left {seat.lapses.left}
			{seat.lapses.left === 1 ? 'time' : 'times'}{room.head.leavingsAllowed > 0
				? ` of ${room.head.leavingsAllowed} allowed`
				: ''}{seat.lapses.tried > 0 ? `, tried ${seat.lapses.tried} times what is prevented` : ''}{seat.lapses.awaySince
				? `; away now for ${clockLength(now - seat.lapses.awaySince)}`
				: ''}.
		</p>
	</div>
{/if}
{#if details.snapshots.length > 0}
	<div>
		<h3 class="text-[16px]">Snapshots</h3>
		<div class="mt-1 flex gap-1.5 overflow-x-auto pb-1" data-testid="snapshots">
			{#each [...details.snapshots].reverse() as snapshot (snapshot.id)}
				<figure class="shrink-0">
					<img
						src="/live/{room.sessionId}/sitting/{seat.id}/snapshots/{snapshot.id}"
						alt="The camera at {timeAndDate(snapshot.at, zone, now)}"
						width="96"
						height="72"
						loading="lazy"
						class="border-line rounded-md border"
					/>
					<figcaption class="text-ink-3 font-mono text-[11px]">{timeAndDate(snapshot.at, zone, now, true)}</figcaption>
				</figure>
			{/each}
		</div>
	</div>
{/if}
{#if details.incidents.length > 0}
	<div>
		<h3 class="text-[16px]">Incidents</h3>
		<ul class="mt-1 space-y-1 text-[14px]" data-testid="own-incidents">
			{#each details.incidents as incident (incident.id)}
				<li>
					<span class="text-ink-2 mr-1 font-mono text-[13px]">{timeAndDate(incident.happenedAt, zone, now)}</span
					><strong>{INCIDENT_KINDS[incident.kind]}</strong>: {incident.note}{incident.done
						? ` Done: ${incident.done}`
						: ''}
					{#if incident.minutes > 0}<span class="text-plum font-semibold">{incident.minutes} min given back</span>{/if}
				</li>
			{/each}
		</ul>
	</div>
{/if}
{#if details.messages.length > 0}
	<div>
		<h3 class="text-[16px]">Messages</h3>
		<ul class="mt-1 space-y-1 text-[14px]">
			{#each details.messages as message (message.id)}
				<li class={message.fromCandidate ? 'text-slate-sea' : ''}>
					<span class="text-ink-2 mr-1 font-mono text-[13px]">{timeAndDate(message.at, zone, now)}</span
					>{message.fromCandidate ? `Hand up${message.text ? `: ${message.text}` : ''}` : message.text}
					<span class="text-ink-3"
						>{message.seenAt === null
							? message.fromCandidate
								? 'up'
								: 'not read yet'
							: message.fromCandidate
								? ''
								: `read ${timeAndDate(message.seenAt, zone, now)}`}</span
					>
				</li>
			{/each}
		</ul>
	</div>
{/if}
{#if notes.length > 0}
	<p class="text-ink-2 text-[13.5px]" data-testid="device-notes">{notes.join(' ')}</p>
{/if}
<div>
	<h3 class="text-[16px]">History</h3>
	<ol class="border-line mt-1 ml-1 border-l-2 text-[14px]">
		{#each details.history as entry (entry.seq)}
			<li class="relative py-1 pl-4">
				<span class="bg-tide absolute top-2.5 -left-[5px] h-2 w-2 rounded-full"></span><span
					class="text-ink-2 mr-1.5 font-mono text-[13px]">{timeAndDate(entry.at, zone, now)}</span
				>{entryInWords(entry)}
			</li>
		{:else}
			<li class="text-ink-3 py-1 pl-4">Nothing yet.</li>
		{/each}
	</ol>
</div>
