<!-- @component Lets answers count that were held back: how many, whose, and why. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import type { SeatView } from '$core/room';
	import { clockTime } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, seat, onclose }: { room: LiveRoom; seat: SeatView; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let reason = $state('');
	const count = $derived(seat.heldBack?.count ?? 0);
	$effect(() => {
		if (!open) onclose();
	});
	async function confirm() {
		if (busy || reason.trim() === '') return;
		busy = true;
		error = await room.countHeldBack(seat, reason.trim());
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="Count {count === 1 ? 'one answer' : `${count} answers`} of {seat.name}?"
	verb="Count {count === 1 ? 'it' : `them`}"
	{busy}
	{error}
	disabled={reason.trim() === '' || count === 0}
	onconfirm={confirm}
>
	<p class="text-[16px]">
		They came from {clockTime(seat.heldBack?.since ?? 0, room.head.zone)} on, after the work had ended here or from a device
		that was freed, and were kept. Only the candidate knows when they were written. If you count them, each replaces the answer
		before it; nothing newer is replaced.
	</p>
	<div class="mt-3">
		<Field id="count-reason" label="Why"
			><Input
				id="count-reason"
				bind:value={reason}
				maxlength={300}
				autofocus
				autocomplete="off"
				placeholder="Connection lost from 10:05"
			/></Field
		>
	</div>
</Ask>
