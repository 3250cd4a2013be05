<!-- @component Questions of the bank, found by their words and taken into this paper. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import { plainText, QUESTION_KIND_NAMES, spotOf, type Paper, type Question } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import DifficultyMark from '../question/DifficultyMark.svelte';
	import { Bank } from '../bank/bank.svelte';

	type Props = { open: boolean; paper: Paper; part: string; ontake: (question: Question) => void };
	let { open = $bindable(), paper, part, ontake }: Props = $props();

	/** More than anybody reads through; a word more finds fewer. */
	const SHOWN = 60;
	const bank = new Bank();
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	$effect(() => {
		if (open) bank.look(0);
	});
	const lines = $derived(
		Array.from({ length: Math.min(SHOWN, bank.total ?? 0) }, (_, i) => bank.line(i)).filter(
			(line) => line !== undefined
		)
	);

	async function take(id: string) {
		if (busy) return;
		busy = true;
		const answer = await send<{ question: Question }>('GET', `/papers/bank/${id}`);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) ontake(answer.data.question);
	}
</script>

<Modal aria-label="Questions of the bank" bind:open title="Questions of the bank" size="lg" class="bg-sheet">
	<div class="text-ink" data-testid="others">
		<label for="others-text" class="text-ink-2 mb-1 block text-[13px] font-semibold"
			>Words of the question, its choices, its answer or its topic</label
		>
		<Input
			id="others-text"
			maxlength={200}
			autocomplete="off"
			bind:value={() => bank.ask.text, (text: string) => ((bank.ask.text = text), bank.look())}
		/>
		{#if trouble ?? bank.trouble}<p role="alert" class="text-brick mt-2 text-[14px]">{trouble ?? bank.trouble}</p>{/if}
		<ol class="mt-3 max-h-[55vh] space-y-2 overflow-auto" aria-live="polite">
			{#each lines as line (line.id)}
				{@const isTaken = spotOf(paper, line.id) !== null}
				<li class="border-line flex items-start gap-3 rounded-lg border px-3 py-2 text-[14px]">
					<div class="min-w-0 flex-1">
						<p class="font-serif text-[15.5px] break-words whitespace-pre-line">{plainText(line.stem)}</p>
						<p class="text-tide font-semibold">{line.key && `✓ ${line.key}`}</p>
						<p class="text-ink-3 text-[13px]">
							{line.topic || 'no topic'} · {QUESTION_KIND_NAMES[line.kind]} · {line.points}
							{line.points === 1 ? 'point' : 'points'} · {line.papers === 0
								? 'in no paper'
								: `in ${line.papers} ${line.papers === 1 ? 'version' : 'versions'}`}
						</p>
					</div>
					{#if line.difficulty}<DifficultyMark difficulty={line.difficulty} />{/if}
					<Act size="xs" {busy} disabled={isTaken} onclick={() => take(line.id)}>{isTaken ? 'In it' : 'Add'}</Act>
				</li>
			{:else}
				<li class="text-ink-2 text-[14px]">
					{bank.total === null ? 'Looking…' : 'No question of the bank that you may use has these words.'}
				</li>
			{/each}
		</ol>
		<p class="text-ink-3 mt-2 text-[13px]">
			{(bank.total ?? 0) > SHOWN ? `${bank.total! - SHOWN} more: add a word. ` : ''}Questions you choose are added at
			the end of {part || 'this part'}.
		</p>
	</div>
</Modal>
