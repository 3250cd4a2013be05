<script lang="ts">
	import { INCIDENT_KINDS } from '$core/incident';
	import { offers, remainingNow, tallyKeyOf, type CandidateDetails, type SeatView } from '$core/room';
	import { SPOILED_SHARE } from '$core/pace';
	import { isInTheRoom, isUnfinished } from '$core/sitting';
	import { clockLength, clockTime, minutesLeft } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { DEVICE_NOTE_WORDS, entryInWords } from '$core/logbook';
	import { send } from '$ui/post';
	import Badges from './Badges.svelte';
	import { asksNothing, OFFERED, type ActAtOnce, type AskKind } from './asks';
	import type { LiveRoom } from './room.svelte';
	import AskGrant from './AskGrant.svelte';
	import TheirQuestion from './TheirQuestion.svelte';

	type Props = {
		room: LiveRoom;
		seat: SeatView;
		now: number;
		isMasked: boolean;
		coordinates: boolean;
		onask: (kind: AskKind) => void;
		/** Acts that ask nothing unless they concern several. */
		ondo: (kind: ActAtOnce) => void;
	};
	let { room, seat, now, isMasked, coordinates, onask, ondo }: Props = $props();

	const PACE_WORDS = { calm: 'calm', watch: 'worth a look', hold: 'rushing', spoiled: 'spoiled' };
	const isRapid = (question: CandidateDetails['questions'][number]) =>
		question.answered && question.inViewMs < question.thresholdMs;
	let details = $state.raw<CandidateDetails | null>(null);
	let trouble = $state<string | null>(null);
	const key = $derived(tallyKeyOf(seat));
	const offered = $derived(offers(seat, coordinates ? 'coordinator' : 'proctor'));
	const remaining = $derived(remainingNow(seat, now));
	const zone = $derived(room.head.zone);
	const isAtWork = $derived(['working', 'line_lost', 'on_hold'].includes(key) && seat.begun);
	const used = $derived(
		details?.time.allotted && remaining !== null
			? Math.min(100, 100 - (100 * remaining) / (details.time.allotted + details.time.credits))
			: 0
	);
	/** What is ordinary is told beside what happened; what somebody should look at stands above. */
	const alarming = $derived(seat.noted.filter(({ what }) => what === 'forged' || what === 'second_line'));
	const ordinary = $derived(seat.noted.filter((note) => !alarming.includes(note)));
	const noteInWords = ({ what, at, times }: SeatView['noted'][number]) =>
		`${DEVICE_NOTE_WORDS[what]}${times === 1 ? '' : `, ${times} times`}, last at ${clockTime(at, zone)}.`;
	const longest = $derived(Math.max(1, ...(details?.questions.map((question) => question.inViewMs) ?? [])));

	/** Whole minutes of lost connection; what is shorter is ordinary. */
	const lostMinutes = $derived(seat.begun ? Math.floor(seat.lost.ms / 60_000 + 0.5) : 0);
	const giveBack = $derived(Math.max(1, Math.ceil(seat.lost.unpaidMs / 60_000)));
	let shownQuestion = $state<number | null>(null);
	let isAskingGrant = $state(false);

	const incidentsTold = $derived(room.head.incidents);
	$effect(() => {
		// Read anew for another candidate, and whenever this one changes or an incident is told.
		const { id } = seat;
		void incidentsTold;
		const abort = new AbortController();
		const timer = setTimeout(async () => {
			const answer = await send<CandidateDetails>('GET', `/live/${room.sessionId}/sitting/${id}`, undefined, {
				signal: abort.signal
			});
			if (abort.signal.aborted) return;
			if (answer.ok) details = answer.data;
			trouble = answer.ok ? null : answer.problem.message;
		}, 120);
		return () => {
			clearTimeout(timer);
			abort.abort();
		};
	});
	$effect(() => {
		void seat.id;
		return () => (details = null);
	});
</script>

<section aria-label="One candidate" class="space-y-4">
	<div class="flex items-center gap-3">
		<span
			class="bg-plum-ground text-plum grid h-13 w-13 shrink-0 place-items-center rounded-xl font-serif text-[20px]"
			aria-hidden="true"
		>
			{#if details?.photo && !isMasked}<img
					src="/live/{room.sessionId}/sitting/{seat.id}/photo"
					alt=""
					class="h-13 w-13 rounded-xl object-cover"
				/>{:else}{isMasked
					? '·'
					: seat.name
							.split(' ')
							.map((part) => part[0])
							.join('')
							.slice(0, 2)}{/if}
		</span>
		<div class="min-w-0">
			<h2 class="truncate text-[19px]">{isMasked ? seat.number : seat.name}</h2>
			<p class="text-ink-2 font-mono text-[13.5px]">
				{seat.number}{seat.seat ? ` · seat ${seat.seat}` : seat.elsewhere ? ' · elsewhere' : ''}{details?.form
					? ` · form ${details.form}`
					: ''}
			</p>
		</div>
	</div>
	<Badges {seat} {now} />

	{#if seat.heldBack}
		<div class="bg-ochre-ground text-ochre rounded-xl px-3.5 py-2.5 text-[14px]" data-testid="held-back">
			<p>
				<strong>{seat.heldBack.count === 1 ? 'One answer' : `${seat.heldBack.count} answers`}</strong> came after the
				end, after their question’s time, on hold or from a freed device, from {clockTime(seat.heldBack.since, zone)} on.
				They are kept and do not count.
			</p>
			{#if coordinates}<Act size="xs" class="mt-2" onclick={() => onask('count_answers')}>Count them…</Act>
			{:else}<p>A coordinator can let them count.</p>{/if}
		</div>
	{/if}
	{#if seat.unsigned || alarming.length > 0}
		<ul class="bg-ochre-ground text-ochre space-y-1 rounded-xl px-3.5 py-2.5 text-[14px]" data-testid="noted">
			{#if seat.unsigned}<li>This browser cannot sign its requests, so its cookie alone identifies it.</li>{/if}
			{#each alarming as note (note.what)}<li>{noteInWords(note)}</li>{/each}
		</ul>
	{/if}
	{#if seat.pace === 'spoiled' && seat.state === 'working'}
		<div class="bg-brick-ground text-brick rounded-xl px-3.5 py-2.5 text-[14px]" data-testid="spoiled">
			<p>
				<strong>{seat.rapid} of {room.head.questions} answers came faster than reading takes.</strong> The score no longer
				shows what they can do. You can:
			</p>
			<div class="mt-2 flex flex-wrap gap-1.5">
				<Act size="xs" onclick={() => onask('message')}>Talk to them…</Act>
				<Act size="xs" onclick={() => onask('incident')}>Let them continue, with a note…</Act>
				{#if coordinates}<Act size="xs" onclick={() => onask('set_aside')}>Set aside, to sit again…</Act>
				{:else}<span class="w-full">A coordinator can set the work aside and let them sit again.</span>{/if}
			</div>
		</div>
	{/if}
	{#if lostMinutes > 0}
		<div class="bg-ochre-ground text-ochre rounded-xl px-3.5 py-2.5 text-[14px]" data-testid="lost">
			<p>
				Connection lost for {clockLength(seat.lost.ms)} in all{seat.lost.unpaidMs > 0
					? `; the clock ran on for ${clockLength(seat.lost.unpaidMs)} of it`
					: '; that time was given back'}.
			</p>
			{#if seat.lost.unpaidMs >= 30_000 && isUnfinished(seat.state)}<Act
					size="xs"
					class="mt-2"
					busy={room.busy}
					onclick={() => void room.giveMinutes([seat], giveBack, 'Connection lost')}
					testid="give-back">Give {giveBack} min back</Act
				>{/if}
		</div>
	{/if}
	{#if seat.at !== null && isAtWork}
		<p class="text-[14px]">
			<button
				class="text-tide font-semibold underline"
				onclick={() => (shownQuestion = seat.at! + 1)}
				data-testid="on-question">Question {seat.at + 1}</button
			> is on their screen.
		</p>
	{/if}
	{#if seat.movedOn}
		<p class="text-ink-2">Continues in another session. What happens is shown there.</p>
	{:else}
		<div class="grid grid-cols-2 gap-2">
			{#each offered as act (act)}
				{@const { label, key: shortcut } = OFFERED[act]}
				<Act
					tone={act === 'let_in' || act === 'resume' ? 'main' : undefined}
					key={shortcut}
					disabled={room.busy}
					onclick={() => (asksNothing(act) ? ondo(act) : onask(act))}>{label}</Act
				>
			{/each}
			{#if isInTheRoom(seat.state)}<Act key="W" onclick={() => onask('message')}>Message…</Act>{/if}
			{#if isUnfinished(seat.state)}<Act key="M" onclick={() => onask('minutes')}>Minutes…</Act>{/if}
		</div>
	{/if}

	{#if trouble}<p class="text-brick text-[14px]">{trouble}</p>{/if}
	{#if details}
		<div>
			<h3 class="text-[16px]">Time</h3>
			<p class="text-ink-2 text-[14px]">
				{details.time.words}{#if isAtWork && remaining !== null}<br /><strong class="text-ink"
						>{minutesLeft(remaining)} min left</strong
					>{seat.standing
						? ', clock stopped'
						: seat.deadline
							? `, finishes ${clockTime(seat.deadline, zone)}`
							: ''}{/if}
			</p>
			{#if isAtWork && details.time.allotted}
				<div class="bg-line mt-1.5 h-2.5 overflow-hidden rounded-full" aria-hidden="true">
					<div class="h-full {seat.standing ? 'bg-ochre-mark' : 'bg-tide'}" style="width:{used}%"></div>
				</div>
			{/if}
			{#if isAtWork && seat.standing}<p class="text-ink-3 mt-1 text-[13px]">
					Time during which the clock is stopped is given back.
				</p>
			{:else if details.time.stoppedMs > 0}<p class="text-ink-3 mt-1 text-[13px]">
					{clockLength(details.time.stoppedMs)} stopped so far is given back.
				</p>{/if}
			{#if details.time.cutMs > 0}<p class="text-brick mt-1 text-[13px]">
					The close takes {minutesLeft(details.time.cutMs)} min of it.
				</p>{/if}
			{#each details.time.reasons as reason (reason)}<p class="text-plum text-[13.5px]">{reason}</p>{/each}
			<button class="text-tide mt-1 min-h-6 text-[13.5px] underline" onclick={() => (isAskingGrant = true)}
				>Ask for a grant…</button
			>
		</div>
		{#if details.questions.length > 0}
			<div>
				<h3 class="text-[16px]">Question by question</h3>
				<div
					class="mt-1 flex h-12 items-end gap-[2px]"
					role="img"
					aria-label="Time in view for each question; {details.questions.filter((one) => one.answered).length} answered"
				>
					{#each details.questions as question (question.number)}
						<span
							class="flex-1 rounded-t-sm {isRapid(question)
								? 'bg-brick'
								: question.answered
									? 'bg-tide'
									: question.inViewMs > 0
										? 'bg-ochre-mark'
										: 'bg-line'}"
							style="height:{Math.max(4, (100 * question.inViewMs) / longest)}%"
							title="{question.number}: {question.answered ? 'answered' : 'not answered'}{question.marked
								? ', marked'
								: ''}, {clockLength(question.inViewMs)} in view{isRapid(question)
								? `: faster than the ${(question.thresholdMs / 1_000).toFixed(1)} s that reading takes`
								: ''}"
						></span>
					{/each}
				</div>
				{#if seat.pace !== 'calm' || seat.rapid > 0}
					<p class="mt-1.5 text-[13.5px] {seat.pace === 'spoiled' ? 'text-brick font-semibold' : 'text-ink-2'}">
						Pace: {PACE_WORDS[seat.pace]}. {seat.rapid} faster than reading takes.
					</p>
					<div class="bg-line relative mt-1 h-2 rounded-full" aria-hidden="true">
						<div
							class="h-full rounded-full {seat.pace === 'spoiled' ? 'bg-brick' : 'bg-ochre-mark'}"
							style="width:{Math.min(100, (100 * seat.rapid) / (room.head.questions * SPOILED_SHARE))}%"
						></div>
					</div>
					<p class="text-ink-3 text-[12.5px]">
						{Math.round((100 * seat.rapid) / Math.max(1, room.head.questions))} % of the paper; at {100 * SPOILED_SHARE} %
						it is spoiled.
					</p>
				{/if}
			</div>
		{/if}
		{#if seat.lapses}
			<div>
				<h3 class="text-[16px]">Screen</h3>
				<p class="text-ink-2 text-[14px]">
					Left {seat.lapses.left}
					{seat.lapses.left === 1 ? 'time' : 'times'}{room.head.leavingsAllowed > 0
						? ` of ${room.head.leavingsAllowed} allowed`
						: ''}{seat.lapses.tried > 0 ? `, tried ${seat.lapses.tried} times what is prevented` : ''}{seat.lapses
						.awaySince
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
								alt="The camera at {clockTime(snapshot.at, zone)}"
								width="96"
								height="72"
								loading="lazy"
								class="border-line rounded-md border"
							/>
							<figcaption class="text-ink-3 font-mono text-[11px]">{clockTime(snapshot.at, zone, true)}</figcaption>
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
							<span class="text-ink-2 mr-1 font-mono text-[13px]">{clockTime(incident.happenedAt, zone)}</span><strong
								>{INCIDENT_KINDS[incident.kind]}</strong
							>: {incident.note}{incident.done ? ` Done: ${incident.done}` : ''}
							{#if incident.minutes > 0}<span class="text-plum font-semibold">{incident.minutes} min given back</span
								>{/if}
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
							<span class="text-ink-2 mr-1 font-mono text-[13px]">{clockTime(message.at, zone)}</span
							>{message.fromCandidate ? `Hand up${message.text ? `: ${message.text}` : ''}` : message.text}
							<span class="text-ink-3"
								>{message.seenAt === null
									? message.fromCandidate
										? 'up'
										: 'not read yet'
									: message.fromCandidate
										? ''
										: `read ${clockTime(message.seenAt, zone)}`}</span
							>
						</li>
					{/each}
				</ul>
			</div>
		{/if}
		{#if ordinary.length > 0}
			<p class="text-ink-2 text-[13.5px]" data-testid="device-notes">{ordinary.map(noteInWords).join(' ')}</p>
		{/if}
		<div>
			<h3 class="text-[16px]">History</h3>
			<ol class="border-line mt-1 ml-1 border-l-2 text-[14px]">
				{#each details.history as entry (entry.seq)}
					<li class="relative py-1 pl-4">
						<span class="bg-tide absolute top-2.5 -left-[5px] h-2 w-2 rounded-full"></span><span
							class="text-ink-2 mr-1.5 font-mono text-[13px]">{clockTime(entry.at, zone)}</span
						>{entryInWords(entry)}
					</li>
				{:else}
					<li class="text-ink-3 py-1 pl-4">Nothing yet.</li>
				{/each}
			</ol>
		</div>
	{/if}
</section>

{#if isAskingGrant}<AskGrant
		sessionId={room.sessionId}
		sittingId={seat.id}
		name={isMasked ? seat.number : seat.name}
		onclose={() => (isAskingGrant = false)}
	/>{/if}
{#if shownQuestion !== null}<TheirQuestion
		{room}
		sittingId={seat.id}
		name={isMasked ? seat.number : seat.name}
		place={shownQuestion}
		onclose={() => (shownQuestion = null)}
	/>{/if}
