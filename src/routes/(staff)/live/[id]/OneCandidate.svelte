<!-- @component One candidate: how they stand, what can be done for them, their time, and what has happened. -->
<script lang="ts">
	import { counted } from '$core/names';
	import { offers, remainingNow, tallyKeyOf, type CandidateDetails, type SeatView } from '$core/room';
	import { isInTheRoom, isUnfinished } from '$core/sitting';
	import { clockLength, minutesLeft, timeAndDate } from '$core/time';
	import { heldBackTold } from './needs-words';
	import Act from '$ui/Act.svelte';
	import { DEVICE_NOTE_WORDS } from '$core/logbook';
	import { send } from '$ui/post';
	import Badges from './Badges.svelte';
	import { asksNothing, OFFERED, type ActAtOnce, type AskKind } from './asks';
	import type { LiveRoom } from './room.svelte';
	import AskGrant from './AskGrant.svelte';
	import QuestionBars from './QuestionBars.svelte';
	import TheirQuestion from './TheirQuestion.svelte';
	import TheirRecord from './TheirRecord.svelte';

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
		`${DEVICE_NOTE_WORDS[what]}${times === 1 ? '' : `, ${times} times`}, last at ${timeAndDate(at, zone, now)}.`;

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
				{heldBackTold(seat.heldBack)}, from {timeAndDate(seat.heldBack.since, zone, now)} on. They are kept and do not count.
			</p>
			{#if coordinates}<Act size="xs" class="mt-2" onclick={() => onask('count_answers')}>Count them…</Act>
			{:else}<p>A coordinator can let them count.</p>{/if}
		</div>
	{/if}
	{#if seat.unsigned || alarming.length > 0}
		<ul class="bg-ochre-ground text-ochre space-y-1 rounded-xl px-3.5 py-2.5 text-[14px]" data-testid="noted">
			{#if seat.unsigned}<li>This browser cannot sign its requests, so its cookie alone identifies it.</li>{/if}
			{#each alarming as note, i (i)}<li>{noteInWords(note)}</li>{/each}
		</ul>
	{/if}
	{#if seat.pace === 'spoiled' && seat.state === 'working'}
		<div class="bg-brick-ground text-brick rounded-xl px-3.5 py-2.5 text-[14px]" data-testid="spoiled">
			<p>
				<strong>{seat.rapid} of {counted(room.head.questions, 'answer')} came faster than reading takes.</strong> The score
				no longer shows what they can do. You can:
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
							? `, finishes ${timeAndDate(seat.deadline, zone, now)}`
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
			{:else if isAtWork && details.time.stoppedMs > 0}<p class="text-ink-3 mt-1 text-[13px]">
					{clockLength(details.time.stoppedMs)} stopped so far is given back.
				</p>{/if}
			{#if details.time.cutMs > 0}<p class="text-brick mt-1 text-[13px]">
					The close takes {minutesLeft(details.time.cutMs)} min of it.
				</p>{/if}
			{#each details.time.reasons as reason, i (i)}<p class="text-plum text-[13.5px]">{reason}</p>{/each}
			<button class="text-tide mt-1 min-h-6 text-[13.5px] underline" onclick={() => (isAskingGrant = true)}
				>Ask for a grant…</button
			>
		</div>
		{#if details.questions.length > 0}<QuestionBars
				questions={details.questions}
				{seat}
				of={room.head.questions}
			/>{/if}
		<TheirRecord {room} {seat} {details} {now} notes={ordinary.map(noteInWords)} />
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
