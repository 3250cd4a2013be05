<!-- @component Calls a planned session off: names who is expected no more and who is written to, before it is done. -->
<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { goto } from '$app/navigation';
	import { counted, someNames } from '$core/names';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { id, name, leaves }: { id: string; name: string; leaves: boolean } = $props();
	type Foreseen = { people: string[]; told: { name: string; address: string }[] };
	let open = $state(false);
	let foreseen = $state.raw<Foreseen | null>(null);
	let why = $state('');
	let tells = $state(true);
	let busy = $state(false);
	let trouble = $state<string | null>(null);

	async function ask() {
		trouble = foreseen = null;
		open = true;
		const answer = await send<Foreseen>('GET', `/prepare/${id}/call-off`);
		if (answer.ok) foreseen = answer.data;
		else trouble = inWords(answer.problem);
	}
	async function callOff() {
		if (busy || why.trim() === '') return;
		busy = true;
		const answer = await send<{ draftId: string; told: number }>('POST', `/prepare/${id}/call-off`, { why, tells });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) await goto(`/prepare?off=${answer.data.draftId}&told=${answer.data.told}`);
	}
</script>

<Act tone="danger" onclick={ask} testid="call-off">Call off…</Act>
<Modal bind:open title="Call off {name}?" aria-label="Call off {name}?" size="md" class="bg-sheet">
	<div class="text-ink space-y-3 text-[15px]" data-testid="calling-off">
		{#if foreseen}
			<p>
				{#if foreseen.people.length > 0}<strong>{counted(foreseen.people.length, 'candidate')}</strong>
					{foreseen.people.length === 1 ? 'is' : 'are'} expected no more: {someNames(foreseen.people)}. Nobody is absent
					or owed a sitting by it.{:else}Nobody is expected in it.{/if}
			</p>
			{#if foreseen.told.length > 0}
				<label class="flex items-baseline gap-2"
					><input type="checkbox" class="text-tide border-line-strong rounded" bind:checked={tells} /><span
						>Write to {counted(foreseen.told.length, 'person', 'people')} who {foreseen.told.length === 1
							? 'has'
							: 'have'} been told of it: {someNames(foreseen.told.map((one) => one.name))}.{leaves
							? ''
							: ' No mail server is set up: the letters lie in the outbox.'}</span
					></label
				>
			{:else}<p class="text-ink-2">
					Nobody was told of it by mail. Slips that were printed open nothing any more.
				</p>{/if}
			<Field id="why-off" label="Why"><Input id="why-off" bind:value={why} maxlength={500} /></Field>
			<p class="text-ink-2 text-[14px]">What was planned stays among your drafts, so that it can be planned again.</p>
		{:else if trouble === null}<p class="text-ink-2">Looking…</p>{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
		<div class="flex gap-2">
			{#if foreseen}<Act tone="danger" {busy} disabled={why.trim() === ''} onclick={callOff} testid="confirm-off"
					>Call off{foreseen.people.length > 0 ? `, for ${counted(foreseen.people.length, 'candidate')}` : ''}</Act
				>{/if}
			<Act onclick={() => (open = false)}>Keep it</Act>
		</div>
	</div>
</Modal>
