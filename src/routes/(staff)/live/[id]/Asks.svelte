<!-- @component The dialog that asks back before an act, whichever it is. -->
<script lang="ts">
	import type { SeatView } from '$core/room';
	import AskCallTime from './AskCallTime.svelte';
	import AskCount from './AskCount.svelte';
	import AskEnd from './AskEnd.svelte';
	import AskHandOver from './AskHandOver.svelte';
	import AskIncident from './AskIncident.svelte';
	import AskMessage from './AskMessage.svelte';
	import AskMinutes from './AskMinutes.svelte';
	import AskReason from './AskReason.svelte';
	import AskRelease from './AskRelease.svelte';
	import AskStart from './AskStart.svelte';
	import type { ASKS, AskKind } from './asks';
	import AskWindow from './AskWindow.svelte';
	import FindSomebody from './FindSomebody.svelte';
	import type { LiveRoom } from './room.svelte';

	type Props = {
		room: LiveRoom;
		now: number;
		coordinates: boolean;
		ask: { kind: AskKind; seats: SeatView[] };
		onclose: () => void;
	};
	let { room, now, coordinates, ask, onclose }: Props = $props();
	/** Minutes for all were asked for, and then the window instead. */
	let isWindow = $state(false);
</script>

{#if isWindow}
	<AskWindow {room} {onclose} />
{:else if ask.kind === 'end'}
	<AskEnd {room} {onclose} />
{:else if ask.kind === 'release'}
	<AskRelease {room} {onclose} />
{:else if ask.kind === 'count_answers'}
	<AskCount {room} seat={ask.seats[0]} {onclose} />
{:else if ask.kind === 'find'}
	<FindSomebody {room} {onclose} />
{:else if ask.kind === 'start'}
	<AskStart {room} {now} {onclose} />
{:else if ask.kind === 'call_time'}
	<AskCallTime {room} {now} {onclose} />
{:else if ask.kind === 'minutes' || ask.kind === 'minutes_all'}
	<AskMinutes
		{room}
		seats={ask.kind === 'minutes_all' ? null : ask.seats}
		{now}
		onwindow={coordinates && ask.kind === 'minutes_all' ? () => (isWindow = true) : undefined}
		{onclose}
	/>
{:else if ask.kind === 'message'}
	<AskMessage {room} seats={ask.seats} {onclose} />
{:else if ask.kind === 'incident'}
	<AskIncident {room} seats={ask.seats} {now} {onclose} />
{:else if ask.kind === 'hand_over'}
	<AskHandOver {room} {onclose} />
{:else}
	<AskReason
		{room}
		kind={(ask.kind === 'let_in_all' ? 'let_in' : ask.kind) as keyof typeof ASKS}
		seats={ask.seats}
		{onclose}
	/>
{/if}
