<!-- @component What has changed since the version that is sat now, question by question, both side by side. -->
<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	import { plainText, comparePapers, keyInWords, type Paper, type Question, type QuestionChange } from '$core/paper';
	import { inWords, send } from '$ui/post';

	let { open = $bindable(), id, paper }: { open: boolean; id: string; paper: Paper } = $props();

	let before = $state.raw<{ version: number; content: Paper } | null>(null);
	let trouble = $state<string | null>(null);
	$effect(() => {
		if (!open) return;
		void send<{ version: number; content: Paper }>('GET', `/papers/${id}/before`).then((answer) => {
			if (answer.ok) before = answer.data;
			else trouble = inWords(answer.problem);
		});
	});
	const changes = $derived(before && comparePapers(before.content, paper));
	const WORDS: Record<QuestionChange['what'], string> = {
		added: 'New',
		removed: 'Removed',
		changed: 'Changed',
		moved: 'Moved'
	};
</script>

{#snippet side(question: Question | null, none: string)}
	<div class="border-line min-w-0 rounded-lg border px-3 py-2">
		{#if question}
			<p class="font-serif text-[15.5px] break-words whitespace-pre-line">{plainText(question.stem)}</p>
			{#if 'choices' in question}<p class="text-ink-2">{question.choices.map(({ text }) => text).join(' · ')}</p>{/if}
			<p class="text-tide font-semibold">✓ {keyInWords(question)}</p>
		{:else}<p class="text-ink-3">{none}</p>{/if}
	</div>
{/snippet}

<Modal
	aria-label={before ? `What has changed since version ${before.version}` : 'What has changed'}
	bind:open
	title={before ? `What has changed since version ${before.version}` : 'What has changed'}
	size="xl"
	class="bg-sheet"
>
	<div class="text-ink max-h-[70vh] overflow-auto text-[14px]" data-testid="changes">
		{#if trouble}<p class="text-brick" role="alert">{trouble}</p>
		{:else if !changes}<p class="text-ink-2">Reading the version before…</p>
		{:else if changes.about.length + changes.questions.length === 0}<p class="text-ink-2">Nothing has changed.</p>
		{:else}
			{#if changes.about.length > 0}<ul class="mb-3 list-disc pl-5">
					{#each changes.about as line (line)}<li>{line}</li>{/each}
				</ul>{/if}
			<ol class="space-y-4">
				{#each changes.questions as change (change.id)}
					<li>
						<p class="mb-1">
							<strong>{WORDS[change.what]}</strong>{change.details.length > 0 ? `: ${change.details.join('; ')}` : ''}
						</p>
						{#if change.what !== 'moved'}<div class="grid gap-2 sm:grid-cols-2">
								{@render side(change.before, 'Was not there')}
								{@render side(change.after, 'Is not there any more')}
							</div>{:else if change.after}<p class="font-serif text-[15.5px]">{plainText(change.after.stem)}</p>{/if}
					</li>
				{/each}
			</ol>
		{/if}
	</div>
</Modal>
