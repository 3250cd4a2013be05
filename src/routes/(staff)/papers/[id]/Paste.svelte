<!-- @component Questions from text that was written elsewhere: pasted or dropped, shown with what is doubtful, then taken over. -->
<script lang="ts">
	import { Modal, Textarea } from 'flowbite-svelte';
	import { keyInWords, QUESTION_KIND_NAMES, readText, type Question } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { inWords } from '$ui/post';
	import { newId } from '../question/new-id';

	type Props = { id: string; open: boolean; part: string; ontake: (questions: Question[]) => void };
	let { id, open = $bindable(), part, ontake }: Props = $props();

	const MOST = 400_000;
	const EXAMPLE = `1. Spring tides come shortly after (2 points)
a) the quarters
*b) new and full moon

2. High water is 6.4 m and low water 1.6 m. What is the range?
Answer: 4.8 m`;
	let text = $state('');
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let isReading = $state(false);
	const read = $derived(readText(text, newId));
	const doubtful = $derived(read.questions.filter(({ doubts }) => doubts.length > 0).length);

	async function take(file: File | undefined) {
		if (!file) return;
		trouble = told = null;
		if (/\.docx$/i.test(file.name)) return readDocument(file);
		if (file.size > MOST) trouble = `${file.name} is larger than 400 kB. Paste a part of it.`;
		else if (!/\.(txt|md|text)$/i.test(file.name) && !file.type.startsWith('text/'))
			trouble = `${file.name} is neither a .docx document nor plain text. Copy its text, and paste it here.`;
		else text = await file.text();
	}
	async function readDocument(file: File) {
		isReading = true;
		try {
			const answer = await fetch(`/papers/${id}/document`, { method: 'POST', body: file });
			const data = await answer.json();
			if (!answer.ok) trouble = inWords(data);
			else {
				text = data.text;
				if (data.pictures > 0)
					told = `${data.pictures} pictures are left out; “(a picture stood here)” marks their places.`;
			}
		} catch {
			trouble = 'The server can’t be reached. Try again in a moment.';
		}
		isReading = false;
	}
</script>

<Modal bind:open title="Questions from text" size="xl" class="bg-sheet">
	<div class="text-ink grid gap-5 md:grid-cols-2" data-testid="paste">
		<div
			role="group"
			aria-label="Text"
			ondragover={(event) => event.preventDefault()}
			ondrop={(event) => {
				event.preventDefault();
				void take(event.dataTransfer?.files[0]);
			}}
		>
			<label for="paste-text" class="text-ink-2 mb-1 block text-[13px] font-semibold"
				>Paste numbered questions with lettered choices, or drop a .docx or a text file</label
			>
			<Textarea
				id="paste-text"
				rows={16}
				class="w-full font-mono text-[13.5px]"
				maxlength={MOST}
				bind:value={text}
				placeholder={EXAMPLE}
			/>
			<p class="text-ink-3 mt-1 text-[13px]">
				The right one is starred, bold (**so**), or named in a line “Answer: B”.
			</p>
			<label class="text-tide mt-1 block text-[14px] font-semibold"
				>Or choose a file
				<input
					type="file"
					accept=".docx,.txt,.md,text/plain"
					class="ml-2 font-normal"
					data-testid="document"
					onchange={(event) => void take(event.currentTarget.files?.[0])}
				/></label
			>
			{#if isReading}<p class="text-ink-2 text-[14px]">Reading the document…</p>{/if}
			{#if told}<p class="text-ochre text-[14px]">{told}</p>{/if}
			{#if trouble}<p class="text-brick text-[14px]" role="alert">{trouble}</p>{/if}
		</div>
		<div class="max-h-[60vh] overflow-auto" aria-live="polite">
			{#if read.questions.length === 0}
				<p class="text-ink-2 text-[14.5px]">
					{text.trim() === ''
						? 'What is read is shown here before anything is added.'
						: 'No numbered question was found.'}
				</p>
			{/if}
			<ol class="space-y-2">
				{#each read.questions as { question, line, doubts } (line)}
					<li class="border-line rounded-lg border px-3 py-2 text-[14px] {doubts.length > 0 ? 'bg-ochre-ground' : ''}">
						<span class="text-ink-3 text-[12.5px]"
							>Line {line} · {QUESTION_KIND_NAMES[question.kind]} · {question.points}
							{question.points === 1 ? 'point' : 'points'}</span
						>
						<p class="font-serif text-[15.5px] whitespace-pre-line">{question.stem}</p>
						{#if 'choices' in question}<p class="text-ink-2">
								{question.choices.map((choice) => choice.text).join(' · ')}
							</p>{/if}
						{#if question.kind !== 'essay' && doubts.length === 0}<p class="text-tide font-semibold">
								✓ {keyInWords(question)}
							</p>{/if}
						{#each doubts as doubt (doubt)}<p class="text-ochre font-semibold">{doubt}</p>{/each}
					</li>
				{/each}
			</ol>
			{#if read.unread.length > 0}
				<p class="mt-3 text-[14px] font-semibold">Belongs to no question, and is left out:</p>
				<ul class="text-ink-2 text-[13.5px]">
					{#each read.unread as { line, text: words } (line)}<li>Line {line}: {words}</li>{/each}
				</ul>
			{/if}
		</div>
	</div>
	<div class="flex items-center gap-3">
		<Act
			tone="main"
			disabled={read.questions.length === 0}
			onclick={() => {
				ontake(read.questions.map(({ question }) => question));
				text = '';
				open = false;
			}}
			testid="take-over"
			>Add {read.questions.length}
			{read.questions.length === 1 ? 'question' : 'questions'} to {part || 'this part'}</Act
		>
		{#if doubtful > 0}<span class="text-ochre text-[14px] font-semibold">{doubtful} to look at afterwards</span>{/if}
		<Act class="ml-auto" onclick={() => (open = false)}>Cancel</Act>
	</div>
</Modal>
