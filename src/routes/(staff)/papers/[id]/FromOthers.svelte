<!-- @component Questions of other papers, found by their words and taken into this one. -->
<script lang="ts">
	import { Input, Modal } from 'flowbite-svelte';
	import { keyInWords, QUESTION_KIND_NAMES, type Question } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';

	type Props = { id: string; open: boolean; part: string; ontake: (question: Question) => void };
	let { id, open = $bindable(), part, ontake }: Props = $props();

	const REST_MS = 200;
	let text = $state('');
	let found = $state.raw<{ paper: string; question: Question }[] | null>(null);
	let trouble = $state<string | null>(null);
	let taken = $state.raw<string[]>([]);
	$effect(() => {
		if (!open) return;
		const asked = text;
		const abort = new AbortController();
		const timer = setTimeout(async () => {
			const answer = await send<{ questions: NonNullable<typeof found> }>(
				'GET',
				`/papers/${id}/others?text=${encodeURIComponent(asked)}`,
				undefined,
				{ signal: abort.signal }
			);
			if (abort.signal.aborted) return;
			trouble = answer.ok ? null : inWords(answer.problem);
			if (answer.ok) found = answer.data.questions;
		}, REST_MS);
		return () => {
			clearTimeout(timer);
			abort.abort();
		};
	});
	function take(question: Question) {
		ontake(question);
		taken = [...taken, question.id];
	}
</script>

<Modal bind:open title="Questions of other papers" size="lg" class="bg-sheet">
	<div class="text-ink" data-testid="others">
		<label for="others-text" class="text-ink-2 mb-1 block text-[13px] font-semibold"
			>Words of the question, its choices, its answer or its topic</label
		>
		<Input id="others-text" bind:value={text} maxlength={200} autocomplete="off" />
		{#if trouble}<p role="alert" class="text-brick mt-2 text-[14px]">{trouble}</p>{/if}
		<ol class="mt-3 max-h-[55vh] space-y-2 overflow-auto" aria-live="polite">
			{#each found ?? [] as { paper, question } (question.id)}
				<li class="border-line flex items-start gap-3 rounded-lg border px-3 py-2 text-[14px]">
					<div class="min-w-0 flex-1">
						<p class="font-serif text-[15.5px] break-words whitespace-pre-line">{question.stem}</p>
						<p class="text-tide font-semibold">{question.kind === 'essay' ? '' : `✓ ${keyInWords(question)}`}</p>
						<p class="text-ink-3 text-[13px]">
							{paper} · {QUESTION_KIND_NAMES[question.kind]} · {question.points}
							{question.points === 1 ? 'point' : 'points'}
						</p>
					</div>
					<Act size="xs" disabled={taken.includes(question.id)} onclick={() => take(question)}
						>{taken.includes(question.id) ? 'Taken' : 'Take'}</Act
					>
				</li>
			{:else}
				<li class="text-ink-2 text-[14px]">
					{found === null ? 'Looking…' : 'No other question that you may use has these words.'}
				</li>
			{/each}
		</ol>
		<p class="text-ink-3 mt-2 text-[13px]">
			Questions you choose are added at the end of {part || 'this part'}.
		</p>
	</div>
</Modal>
