<!-- @component One clock for everyone: names who begins, who is let in with it, and who is not there yet. -->
<script lang="ts">
	import { isAwayFromDoor, isScreenReady, roomReady } from '$core/room';
	import { clockLength, clockTime } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import { named } from './asks';
	import type { LiveRoom } from './room.svelte';

	let { room, now, onclose }: { room: LiveRoom; now: number; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	const ready = $derived(roomReady(room.all));
	const atDoor = $derived(room.all.filter((seat) => seat.state === 'at_door' && !isAwayFromDoor(seat)));
	const inside = $derived(room.all.filter((seat) => seat.state === 'let_in'));
	const unseen = $derived(inside.filter((seat) => !isScreenReady(seat)));
	const begin = $derived(atDoor.length + inside.length);
	const missing = $derived(room.all.filter((seat) => seat.state === 'expected' && !seat.movedOn));
	$effect(() => {
		if (!open) onclose();
	});
	async function confirm() {
		if (busy) return;
		busy = true;
		error = await room.session('start_room');
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="Start the room for {begin} of {ready.meant}?"
	verb={atDoor.length > 0 ? `Let in ${atDoor.length} and start` : 'Start the room'}
	{busy}
	{error}
	onconfirm={confirm}
>
	<p class="text-[16px]">
		Everyone’s time starts now, at {clockTime(now, room.head.zone, true)}{room.head.opens > now
			? `, ${clockLength(room.head.opens - now)} before the planned start`
			: ''}. This cannot be undone; minutes can be given back.
	</p>
	<ul class="mt-3 space-y-1.5 text-[15px]" data-testid="start-list">
		{#if atDoor.length > 0}<li><strong>Also let in:</strong> {named(atDoor)}</li>{/if}
		{#if unseen.length > 0}<li class="text-ochre">
				<strong>Screen not ready yet:</strong>
				{named(unseen)}
			</li>{/if}
		{#if missing.length > 0}<li class="text-ochre">
				<strong>Not here yet, and with less time when they come:</strong>
				{named(missing)}
			</li>{/if}
	</ul>
</Ask>
