<!-- @component The head of a room: what is sat, how far it is, and the acts that concern everybody in it. -->
<script lang="ts">
	import { showDoorCode } from '$core/access';
	import { roomReady, stageInWords, timesInWords, type SeatView } from '$core/room';
	import Act from '$ui/Act.svelte';
	import type { AskKind } from './asks';
	import { readyInWords } from './ready-words';
	import type { LiveRoom } from './room.svelte';

	type Props = {
		room: LiveRoom;
		now: number;
		/** Whoever stands at the door. */
		atDoor: SeatView[];
		onask: (kind: AskKind, seats: SeatView[]) => void;
		onletin: () => void;
	};
	let { room, now, atDoor, onask, onletin }: Props = $props();

	const head = $derived(room.head);
	const stage = $derived(stageInWords(head, now));
	const when = $derived(timesInWords(head, room.all, now));
	const ready = $derived(head.endedAt === null ? readyInWords(roomReady(room.all), head.lastEntry, now) : '');
</script>

<header class="bg-sheet border-line flex flex-wrap items-center gap-x-4 gap-y-2 border-b px-5 py-3">
	<div class="min-w-0">
		<h1 class="text-[21px] leading-tight">
			{head.paper} <span class="text-ink-2 font-normal">in</span>
			{head.room}{#if head.kind !== 'live'}<span
					class="bg-plum-ground text-plum ml-2 rounded-full px-2.5 py-0.5 align-middle font-sans text-[13px] font-semibold"
					>{head.kind === 'make_up' ? 'Make-up' : 'Rehearsal: counts for nothing'}</span
				>{/if}
		</h1>
		<p class="text-ink-2 text-[14px]">{room.all.length} candidates · {when}</p>
		{#if ready}<p class="text-tide text-[14px] font-semibold" data-testid="ready">{ready}</p>{/if}
	</div>
	<span class="bg-mist text-tide rounded-full px-3 py-0.5 text-[13px] font-semibold">{stage}</span>
	<div class="ml-auto flex flex-wrap items-center gap-2">
		{#if head.endedAt !== null && head.doorCode}
			<span class="text-ink-2 text-[14px]">own windows go on</span>
		{/if}
		{#if head.endedAt === null || head.doorCode}
			{#if head.doorCode && !head.codeHidden}
				<button
					class="bg-mist text-tide rounded-xl px-3.5 py-1.5 font-mono text-[21px] font-semibold"
					title="Hide the code"
					onclick={() => room.session('hide_code')}
					data-testid="door-code">{showDoorCode(head.doorCode)}</button
				>
			{:else}
				<Act onclick={() => room.session('show_code')} testid="show-code"
					>{head.doorCode ? 'Show code' : 'Release code early'}</Act
				>
			{/if}
		{/if}
		{#if head.endedAt === null}
			<Act key="B" href="/live/{head.id}/board">Board</Act>
			{#if head.clockStarts === 'candidate' && head.openedEarlyAt === null && now < head.opens && now >= head.doorOpens}<Act
					onclick={() => room.session('open_early')}
					testid="open-early">Let work begin now</Act
				>{/if}
			{#if head.clockStarts === 'room' && head.roomStartedAt === null}<Act
					tone="main"
					onclick={() => onask('start', [])}
					testid="start">Start the room…</Act
				>{/if}
			{#if atDoor.length > 1}<Act tone="main" key="L" onclick={() => onletin()}
					>Let in all {atDoor.length} at the door</Act
				>{/if}
			<Act onclick={() => onask('minutes_all', [])}>Add time</Act>
			<Act key="I" onclick={() => onask('incident', [])}>Incident</Act>
			<Act
				onclick={() =>
					onask(
						'hold',
						room.all.filter((seat) => seat.state === 'working')
					)}
				disabled={room.tally.working + room.tally.line_lost === 0}>Hold all</Act
			>
			<Act tone="danger" key="E" onclick={() => onask('end', [])} testid="end">End…</Act>
		{:else}
			<Act tone="main" href="/close-out/{head.id}">Open its ledger</Act>
		{/if}
	</div>
</header>
