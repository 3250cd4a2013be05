<!-- @component The head of a room: what is sat, how far it is, and the acts that concern everybody in it. -->
<script lang="ts">
	import { counted } from '$core/names';
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
	const working = $derived(room.all.filter((seat) => seat.state === 'working'));
	const held = $derived(room.all.filter((seat) => seat.state === 'on_hold'));
	const isAllHeld = $derived(working.length === 0 && held.length > 0);
	const when = $derived(timesInWords(head, room.all, now));
	const ready = $derived(head.endedAt === null ? readyInWords(roomReady(room.all), head.lastEntry, now) : '');
</script>

<!-- Two lines of fixed height: nothing here moves while people come, wait and go. What appears by the clock stands left of
	what is always there. -->
<header class="bg-sheet border-line border-b px-5 py-2 max-lg:px-3 max-lg:py-1.5">
	<div class="flex h-11 items-center gap-3 max-lg:h-auto max-lg:gap-2">
		<h1 class="min-w-0 truncate text-[21px] leading-tight max-lg:text-[17px]">
			{head.paper} <span class="text-ink-2 font-normal">in</span>
			{head.room}
		</h1>
		{#if head.kind !== 'live'}<span
				class="bg-plum-ground text-plum rounded-full px-2.5 py-0.5 text-[13px] font-semibold whitespace-nowrap"
				>{head.kind === 'make_up' ? 'Make-up' : 'Rehearsal: does not count'}</span
			>{/if}
		<span class="bg-mist text-tide rounded-full px-3 py-0.5 text-[13px] font-semibold whitespace-nowrap">{stage}</span>
		{#if ready}<p
				class="text-tide line-clamp-2 min-w-0 text-[13.5px] leading-[19px] font-semibold max-lg:hidden"
				title={ready}
				data-testid="ready"
			>
				{ready}
			</p>{/if}
		<div class="ml-auto flex shrink-0 items-center gap-2">
			{#if head.endedAt !== null && head.doorCode}
				<span class="text-ink-2 text-[14px]">own windows continue</span>
			{/if}
			{#if head.endedAt === null || head.doorCode}
				{#if head.doorCode && !head.codeHidden}
					<button
						class="bg-mist text-tide rounded-xl px-3.5 py-1 font-mono text-[21px] font-semibold"
						title="Hide the code"
						onclick={() => room.session('hide_code')}
						data-testid="door-code">{showDoorCode(head.doorCode)}</button
					>
				{:else}
					<Act
						onclick={() => (head.doorCode ? void room.session('show_code') : onask('release', []))}
						testid="show-code">{head.doorCode ? 'Show code' : 'Release code early'}</Act
					>
				{/if}
			{/if}
			{#if head.endedAt === null}<Act class="max-lg:hidden" key="B" href="/live/{head.id}/board">Board</Act>{/if}
		</div>
	</div>
	<div class="flex h-11 items-center gap-3 max-lg:h-12">
		<p
			class="text-ink-2 min-w-0 truncate text-[14px] max-lg:hidden"
			title="{counted(room.all.length, 'candidate')} · {when}"
		>
			{counted(room.all.length, 'candidate')} · {when}
		</p>
		<div
			class="ml-auto flex shrink-0 items-center gap-2 max-lg:ml-0 max-lg:min-w-0 max-lg:flex-1 max-lg:shrink max-lg:overflow-x-auto"
			data-testid="head-acts"
		>
			{#if head.endedAt === null}
				{#if head.clockStarts === 'candidate' && head.openedEarlyAt === null && now < head.opens && now >= head.doorOpens}<Act
						onclick={() => room.session('open_early')}
						testid="open-early">Start work early</Act
					>{/if}
				{#if head.clockStarts === 'room' && head.roomStartedAt === null}<Act
						tone="main"
						onclick={() => onask('start', [])}
						testid="start">Start the room…</Act
					>{/if}
				{#if head.endedBy === 'proctor' && head.roomStartedAt !== null && head.timeCalledAt === null}<Act
						tone={working.length > 0 && atDoor.length === 0 ? 'main' : 'quiet'}
						onclick={() => onask('call_time', [])}
						testid="call-time">End the paper…</Act
					>{/if}
				<Act
					tone={atDoor.length > 0 ? 'main' : 'quiet'}
					key="L"
					disabled={atDoor.length === 0}
					onclick={() => onletin()}
					class="h-[38px] w-[150px] tabular-nums"
					testid="let-in-all"
					>{atDoor.length > 1 ? `Let in all ${atDoor.length}` : atDoor.length === 1 ? 'Let in 1' : 'Let in'}</Act
				>
				<Act onclick={() => onask('minutes_all', [])}>Give time to all</Act>
				<Act key="I" onclick={() => onask('incident', [])}>Incident</Act>
				<!-- When all are held, the same place lets them go on. -->
				<Act
					onclick={() => (isAllHeld ? void room.act('resume', held) : onask('hold', working))}
					disabled={working.length + held.length === 0}
					class="w-[118px] tabular-nums"
					testid="hold-all">{isAllHeld ? `Resume all ${held.length}` : 'Hold all'}</Act
				>
				<Act tone="danger" key="E" onclick={() => onask('end', [])} testid="end">End…</Act>
			{:else}
				<span class="text-ink-2 text-[14px]">On a shared machine, sign out when you are done.</span>
				<Act tone="main" href="/close-out/{head.id}">Open its ledger</Act>
			{/if}
		</div>
	</div>
</header>
