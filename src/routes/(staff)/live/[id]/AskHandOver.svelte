<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto } from '$app/navigation';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import type { LiveRoom } from './room.svelte';

	let { room, onclose }: { room: LiveRoom; onclose: () => void } = $props();

	type Proctor = { id: string; name: string; isHere: boolean };
	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let proctors = $state.raw<Proctor[]>([]);
	let staffId = $state('');
	let note = $state('');
	let stays = $state(false);
	const next = $derived(proctors.find((one) => one.id === staffId));
	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => {
		void send<{ proctors: Proctor[] }>('GET', `/live/${room.sessionId}/proctors`).then((answer) => {
			if (answer.ok) proctors = answer.data.proctors;
			else error = inWords(answer.problem);
		});
	});
	async function confirm() {
		if (busy || !next) return;
		busy = true;
		const answer = await send('POST', `/live/${room.sessionId}/proctors`, { staffId, note, stays });
		busy = false;
		if (!answer.ok) return void (error = inWords(answer.problem));
		room.tell('done', `${next.name} has the room${stays ? ' with you' : ''}.`);
		open = false;
		if (!stays) await goto('/');
	}
	const open_ = $derived(room.needs.length);
</script>

<Ask
	bind:open
	title="Hand this room over"
	verb={next ? `Hand over to ${next.name}` : 'Hand over'}
	{busy}
	{error}
	disabled={!next}
	onconfirm={confirm}
>
	<Field id="next-proctor" label="To whom">
		<Select
			id="next-proctor"
			bind:value={staffId}
			placeholder="Choose…"
			items={proctors.map((one) => ({ value: one.id, name: one.isHere ? `${one.name}, already here` : one.name }))}
		/>
	</Field>
	<div class="mt-3">
		<Field id="over-note" label="What they should know"
			><Input id="over-note" bind:value={note} maxlength={500} autocomplete="off" /></Field
		>
	</div>
	<label class="mt-3 flex items-center gap-2"
		><input type="checkbox" class="border-line-strong text-tide rounded" bind:checked={stays} />I stay as well</label
	>
	<p class="text-ink-3 mt-3 text-[14px]">
		{room.tally.working} working, {open_} under “Needs you”. Nobody’s paper is touched. {stays
			? ''
			: 'You leave this room when it is done.'}
	</p>
</Ask>
