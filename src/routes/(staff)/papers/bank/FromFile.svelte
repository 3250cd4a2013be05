<!-- @component Questions from a file of another house's bank, or of another system: told what it would bring, then kept. -->
<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { AUDIENCE_NAMES, type Audience } from '$core/bank';
	import type { BankIncoming } from '$lib/server/paper';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import PackageTold from '../PackageTold.svelte';

	type Props = { open: boolean; sites: { value: string; name: string }[]; onchanged: () => void };
	let { open = $bindable(), sites, onchanged }: Props = $props();

	let file = $state.raw<File | null>(null);
	let incoming = $state.raw<BankIncoming | null>(null);
	let done = $state<string | null>(null);
	let site = $state('');
	let audience = $state<Audience>('site');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const takes = $derived(incoming ? incoming.new + incoming.changed : 0);
	$effect(() => {
		if (!sites.some(({ value }) => value === site)) site = sites[0]?.value ?? '';
	});
	const audiences = (['site', 'all', 'me'] as const).map((value) => ({ value, name: AUDIENCE_NAMES[value] }));
	const counted = (count: number) => `${count} ${count === 1 ? 'question' : 'questions'}`;

	async function look(chosen: File | undefined) {
		if (!chosen || busy) return;
		[file, incoming, done, trouble, busy] = [chosen, null, null, null, true];
		const answer = await send<BankIncoming>('POST', '/papers/bank/package', chosen);
		busy = false;
		if (answer.ok) incoming = answer.data;
		else trouble = inWords(answer.problem);
	}
	async function take() {
		if (busy || takes === 0 || !file) return;
		[busy, trouble] = [true, null];
		const query = new URLSearchParams({ site, audience });
		const answer = await send<{ added: number; changed: number }>('POST', `/papers/bank/package?${query}`, file);
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		const { added, changed } = answer.data;
		done = `${counted(added)} added${changed > 0 ? `, ${changed} changed` : ''}.`;
		incoming = null;
		onchanged();
	}
</script>

<Modal aria-label="Questions from a file" bind:open title="Questions from a file" size="md" class="bg-sheet">
	<form
		class="text-ink space-y-3"
		data-testid="bank-file"
		onsubmit={(event) => {
			event.preventDefault();
			void take();
		}}
	>
		<p class="text-ink-2 text-[14px]">
			What another house has exported from its bank, or a QTI package of another system, zipped, up to 10 MB. You see
			what comes in before anything is kept.
		</p>
		<input
			type="file"
			accept=".zip,application/zip"
			aria-label="File of questions"
			class="block w-full text-[14px]"
			onchange={(event) => void look(event.currentTarget.files?.[0])}
		/>
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if busy}<p class="text-ink-2 text-[14px]" role="status">
				{incoming ? 'Keeping them…' : 'Reading the file…'}
			</p>{/if}
		{#if done}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2 font-semibold">{done}</p>{/if}
		{#if incoming}
			<ul class="text-[14.5px]" data-testid="bank-incoming">
				<li><strong>{counted(incoming.new)}</strong> the bank does not have</li>
				{#if incoming.changed > 0}<li>
						<strong>{incoming.changed}</strong> become the latest revision of what it has
					</li>{/if}
				{#if incoming.same > 0}<li>
						<strong>{incoming.same}</strong> stay as they are: it has them, or they are not yours to change
					</li>{/if}
				{#if incoming.not_yours > 0}<li>
						<strong>{incoming.not_yours}</strong> are left out: they are in the bank and not open to you
					</li>{/if}
			</ul>
			<PackageTold told={incoming.told} />
			<div class="flex flex-wrap gap-3">
				<Field id="bank-site" label="They belong to"
					><Select id="bank-site" bind:value={site} items={sites} placeholder="" /></Field
				>
				<Field id="bank-audience" label="New ones are open to"
					><Select id="bank-audience" bind:value={audience} items={audiences} placeholder="" /></Field
				>
			</div>
			<Act tone="main" type="submit" {busy} disabled={takes === 0} testid="take-bank-file"
				>{takes === 0 ? 'Nothing to take' : `Take ${counted(takes)}`}</Act
			>
		{/if}
	</form>
</Modal>
