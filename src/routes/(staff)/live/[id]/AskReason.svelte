<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { sameName } from '$core/access';
	import { reach, type SeatView } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import Ask from '$ui/Ask.svelte';
	import { ASKS, named } from './asks';
	import type { LiveRoom } from './room.svelte';

	type Props = { room: LiveRoom; kind: keyof typeof ASKS; seats: SeatView[]; onclose: () => void };
	let { room, kind, seats, onclose }: Props = $props();

	const ask = $derived(ASKS[kind]);
	const { touched, left } = $derived(reach(kind, seats));
	let open = $state(true);
	let reason = $state('');
	/** Starting again is for one person at a time, named by hand. */
	let typed = $state('');
	const isTyped = $derived(kind !== 'allow_fresh' || (touched.length === 1 && sameName(typed, touched[0].number)));
	// svelte-ignore state_referenced_locally
	let stopsClock = $state(room.head.clockStops !== 'never');
	$effect(() => {
		if (!open) onclose();
	});

	async function confirm() {
		if (ask.needsReason && reason.trim() === '') return;
		if (touched.length === 0 || !isTyped) return;
		if (await room.act(kind, touched, { reason, stopsClock })) open = false;
	}
</script>

<Ask
	bind:open
	title="{ask.title}: {touched.length === 1 ? touched[0].name : `${touched.length} candidates`}"
	verb={touched.length === 1 ? ask.verb : `${ask.verb} ${touched.length}`}
	tone={ask.tone}
	busy={room.busy}
	disabled={touched.length === 0 || !isTyped || (ask.needsReason && reason.trim() === '')}
	onconfirm={confirm}
>
	{#if touched.length > 1}<p class="mb-2 font-semibold">{named(touched)}</p>{/if}
	{#if left.length > 0}<p class="text-ink-2 mb-2" data-testid="left-out">
			Not touched: {left.length <= 4
				? left.map((seat) => `${seat.name} (${STATE_NAMES[seat.state].toLowerCase()})`).join(', ')
				: `${left.length} who are in another state`}.
		</p>{/if}
	<p class="text-ink-2">{ask.then}</p>
	{#if ask.needsReason}
		<form
			class="mt-3"
			onsubmit={(event) => {
				event.preventDefault();
				void confirm();
			}}
		>
			<label for="reason" class="text-ink-2 mb-1 block text-[13px] font-semibold">Why</label>
			<Input
				id="reason"
				bind:value={reason}
				maxlength={300}
				autofocus
				placeholder="In a few words"
				autocomplete="off"
			/>
			<div class="mt-2 flex flex-wrap gap-1.5">
				{#each ask.reasons as canned (canned)}
					<button
						type="button"
						class="border-line-strong hover:bg-paper rounded-full border px-3 py-1 text-[13px]"
						onclick={() => (reason = canned)}>{canned}</button
					>
				{/each}
			</div>
		</form>
	{/if}
	{#if kind === 'allow_fresh'}
		{#if touched.length === 1}
			<label for="typed" class="text-ink-2 mt-3 mb-1 block text-[13px] font-semibold"
				>To be sure of the person, type their number: {touched[0].number}</label
			>
			<Input id="typed" bind:value={typed} maxlength={60} autocomplete="off" class="font-mono" />
		{:else if touched.length > 1}
			<p class="bg-ochre-ground text-ochre mt-3 rounded-lg px-3 py-2">
				Starting again is decided for one person at a time: choose them one by one.
			</p>
		{/if}
	{/if}
	{#if kind === 'hold' && room.head.clockStops !== 'never' && touched.some((seat) => seat.begun)}
		<label class="mt-3 flex items-center gap-2"
			><input type="checkbox" class="border-line-strong text-tide rounded" bind:checked={stopsClock} />The clock stops
			during the hold</label
		>
	{/if}
</Ask>
