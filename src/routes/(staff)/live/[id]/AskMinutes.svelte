<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { remainingNow, type SeatView } from '$core/room';
	import { minutesInWords, clockTime, minutesLeft } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { named } from './asks';
	import type { LiveRoom } from './room.svelte';

	/** null: everyone in the room. */
	type Props = { room: LiveRoom; seats: SeatView[] | null; now: number; onwindow?: () => void; onclose: () => void };
	let { room, seats, now, onwindow, onclose }: Props = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let minutes = $state(10);
	let reason = $state('');
	const whom = $derived(
		seats ??
			room.all.filter((seat) => !['handed_in', 'time_up', 'absent', 'set_aside', 'carried_over'].includes(seat.state))
	);
	const preview = $derived.by(() => {
		if (whom.length !== 1 || !Number.isInteger(minutes)) return null;
		const [seat] = whom;
		const left = remainingNow(seat, now);
		if (left === null) return null;
		const ends =
			seat.deadline && !seat.standing ? `, ends ${clockTime(seat.deadline + minutes * 60_000, room.head.zone)}` : '';
		return `${minutesLeft(left)} + ${minutes} = ${minutesLeft(left) + minutes} min left${ends}`;
	});
	$effect(() => {
		if (!open) onclose();
	});

	/** More than that is seldom meant: a digit too many stands there quickly. */
	const USUAL = 60;
	let asked = $state<number | null>(null);
	$effect(() => {
		if (asked !== null && minutes !== asked) [asked, error] = [null, null];
	});

	async function confirm() {
		if (busy) return;
		if (minutes > USUAL && asked !== minutes) {
			asked = minutes;
			error = `${minutesInWords(minutes)} are more than an hour. Press again if you mean that.`;
			return;
		}
		busy = true;
		error = await room.giveMinutes(seats, minutes, reason);
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="Give minutes: {whom.length === 1 ? whom[0].name : `${whom.length} candidates`}"
	verb="Give {minutes || 0} min"
	tone="grant"
	{busy}
	{error}
	disabled={!Number.isInteger(minutes) || minutes < 1 || reason.trim() === ''}
	onconfirm={confirm}
>
	<p class="mb-3 font-semibold">
		{seats === null ? 'Everyone in the room who has not finished' : whom.length > 1 ? named(whom) : ''}
	</p>
	<form
		class="grid grid-cols-[110px_1fr] gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void confirm();
		}}
	>
		<Field id="minutes" label="Minutes"
			><Input
				id="minutes"
				type="number"
				min={1}
				max={240}
				bind:value={minutes}
				autofocus
				onfocus={(event: FocusEvent) => (event.currentTarget as HTMLInputElement).select()}
			/></Field
		>
		<Field id="why" label="Why"
			><Input
				id="why"
				bind:value={reason}
				maxlength={300}
				placeholder="Fire alarm, line down…"
				autocomplete="off"
			/></Field
		>
		<button class="hidden" type="submit">Give</button>
	</form>
	<div role="status">
		{#if preview}<p
				class="bg-plum-ground text-plum mt-3 rounded-lg px-3 py-2 font-serif text-[17px]"
				data-testid="effect"
			>
				{preview}
			</p>{/if}
		{#if seats === null}<p class="mt-2 text-[14px]" data-testid="whom">
				{whom.length} gain {minutes || 0} minutes; {room.all.length - whom.length} have finished or are not here, and stay
				as they are.
				{#if onwindow}<button type="button" class="text-tide min-h-6 underline" onclick={onwindow}
						>Move the window instead…</button
					>{/if}
			</p>{/if}
	</div>
	<p class="text-ink-3 mt-2 text-[14px]">Time given back is never cut by the close. No answer is touched.</p>
</Ask>
