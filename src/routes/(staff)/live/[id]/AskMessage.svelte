<script lang="ts">
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { CANNED_MESSAGES, type SeatView } from '$core/room';
	import Ask from '$ui/Ask.svelte';
	import { named } from './asks';
	import type { LiveRoom } from './room.svelte';

	let { room, seats, onclose }: { room: LiveRoom; seats: SeatView[]; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let text = $state('');
	$effect(() => {
		if (!open) onclose();
	});

	async function confirm() {
		if (busy || text.trim() === '') return;
		busy = true;
		error = await room.message(seats, text.trim());
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="Message to {seats.length === 1 ? seats[0].name : `${seats.length} candidates`}"
	verb="Send"
	{busy}
	{error}
	disabled={text.trim() === ''}
	onconfirm={confirm}
>
	{#if seats.length > 1}<p class="mb-2 font-semibold">{named(seats)}</p>{/if}
	<label for="message" class="text-ink-2 mb-1 block text-[13px] font-semibold">What they read</label>
	<Textarea
		id="message"
		rows={3}
		bind:value={text}
		maxlength={500}
		class="w-full"
		autofocus
		onkeydown={(event: KeyboardEvent) => (event.ctrlKey || event.metaKey) && event.key === 'Enter' && confirm()}
	/>
	<div class="mt-2 flex flex-wrap gap-1.5">
		{#each CANNED_MESSAGES as canned (canned)}
			<button
				type="button"
				class="border-line-strong hover:bg-paper rounded-full border px-3 py-1 text-[13px]"
				onclick={() => (text = canned)}>{canned}</button
			>
		{/each}
	</div>
	<p class="text-ink-3 mt-3 text-[14px]">
		It is shown above their paper until they have read it. They can’t answer in writing; they can raise a hand.
		Ctrl+Enter sends.
	</p>
</Ask>
