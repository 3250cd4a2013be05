<!-- @component Ending the paper by hand: who is out of time now, and who goes on for how long. -->
<script lang="ts">
	import { isUnfinished } from '$core/sitting';
	import { minutesInWords, clockTime, MINUTE } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import { named } from './asks';
	import type { LiveRoom } from './room.svelte';

	let { room, now, onclose }: { room: LiveRoom; now: number; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	const concerned = $derived(
		room.all.filter((seat) => !seat.movedOn && seat.ownWindow === null && isUnfinished(seat.state))
	);
	const goOn = $derived(concerned.filter((seat) => seat.extra !== null));
	const ends = $derived(concerned.filter((seat) => seat.extra === null && seat.begun));
	const minutes = $derived(Math.floor((now - (room.head.roomStartedAt ?? now)) / MINUTE));
	$effect(() => {
		if (!open) onclose();
	});
	async function confirm() {
		if (busy) return;
		busy = true;
		error = await room.session('call_time');
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="End {room.head.paper} for {ends.length}?"
	verb="End it for {ends.length}"
	tone="danger"
	{busy}
	{error}
	onconfirm={confirm}
>
	<p class="text-[16px]">
		The room has worked for {minutesInWords(minutes)}; the time is up at {clockTime(now, room.head.zone, true)}{room
			.head.graceMinutes > 0
			? `, with ${room.head.graceMinutes} ${room.head.graceMinutes === 1 ? 'minute' : 'minutes'} to hand in`
			: ''}. This cannot be undone; minutes can be given.
	</p>
	<ul class="mt-3 space-y-1.5 text-[15px]" data-testid="call-list">
		{#if ends.length > 0}<li><strong>Out of time:</strong> {named(ends)}</li>{/if}
		{#if goOn.length > 0}<li class="text-plum">
				<strong>Go on, by what they were given:</strong>
				{goOn.map((seat) => `${seat.name} (${seat.extra})`).join(', ')}
			</li>{/if}
	</ul>
</Ask>
