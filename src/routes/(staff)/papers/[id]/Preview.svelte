<!--
@component The paper as one candidate would get it, in the candidate's own components; or two candidates side by side with
what they share. Nothing is kept, and no code is used.
-->
<script lang="ts">
	import { shownPoints } from '$core/results';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import { deal, firstWords, isBlank, sharedAround, type AnswerValue, type Form, type Paper } from '$core/paper';
	import { markForm } from '$core/marking';
	import { DEFAULT_RULES } from '$core/session';
	import { LOOKS, SIZES, type Look } from '$player/display.svelte';
	import Act from '$ui/Act.svelte';
	import QuestionView from '../../../sit/QuestionView.svelte';

	type Props = { paper: Paper; isPair: boolean; open: boolean };
	let { paper, isPair, open = $bindable() }: Props = $props();

	let seed = $state(1);
	let at = $state(0);
	let answers = $state.raw<Record<string, AnswerValue>>({});
	let isMarked = $state(false);
	let isNarrow = $state(false);
	let ownQuestions = $state(true);
	let ownChoices = $state(true);
	let language = $state<string | null>(null);
	/** Larger text and other colours, as a grant would give them. */
	let size = $state(100);
	let look = $state<Look>('paper');
	const order = $derived({ questionsInOwnOrder: ownQuestions, choicesInOwnOrder: ownChoices });
	const form = $derived<Form>(deal(paper, order, seed));
	const other = $derived<Form>(deal(paper, order, seed + 1));
	const shared = $derived(
		new Set(form.questions.map(({ id }) => id).filter((id) => other.questions.some((one) => one.id === id)))
	);
	const languages = $derived([
		...new Set(paper.parts.flatMap(({ questions }) => questions.flatMap((one) => Object.keys(one.inOther ?? {}))))
	]);
	const question = $derived(form.questions[Math.min(at, form.questions.length - 1)]);
	const score = $derived(
		isMarked ? markForm(paper, form, new Map(Object.entries(answers)), DEFAULT_RULES.marking) : null
	);
	function another() {
		seed += 1;
		at = 0;
		answers = {};
		isMarked = false;
	}
	const SELECT = 'bg-sheet border-line-strong rounded-lg border py-1 pr-8 pl-2 text-[14px]';
	const TICK = 'border-line-strong text-tide rounded';
</script>

<Modal
	aria-label={isPair ? 'Two candidates side by side' : 'As a candidate'}
	bind:open
	title={isPair ? 'Two candidates side by side' : 'As a candidate'}
	size="xl"
	class="bg-sheet"
>
	<div class="text-ink" data-testid="preview">
		<div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 text-[14px]">
			<Act size="xs" onclick={another} testid="another">{isPair ? 'Another pair' : 'Another candidate'}</Act>
			{#if form.name}<span class="text-plum font-semibold">form {form.name}{isPair ? ` and ${other.name}` : ''}</span
				>{/if}
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class={TICK} bind:checked={ownQuestions} />own order of questions</label
			>
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class={TICK} bind:checked={ownChoices} />own order of choices</label
			>
			{#if !isPair}
				<label class="flex items-center gap-1.5"
					><input type="checkbox" class={TICK} bind:checked={isNarrow} />on a phone</label
				>
				<label class="flex items-center gap-1.5"
					>Size
					<select class={SELECT} bind:value={size}>
						{#each SIZES as percent (percent)}<option value={percent}>{percent} %</option>{/each}
					</select></label
				>
				<label class="flex items-center gap-1.5"
					>Colours
					<select class={SELECT} bind:value={look} data-testid="preview-look">
						{#each Object.entries(LOOKS) as [value, { name }] (value)}<option {value}>{name}</option>{/each}
					</select></label
				>
				{#if languages.length > 0}
					<label class="flex items-center gap-1.5"
						>Language
						<select
							class={SELECT}
							value={language ?? ''}
							onchange={(event) => (language = event.currentTarget.value || null)}
						>
							<option value="">{paper.language ?? 'en'}</option>
							{#each languages as tag (tag)}<option value={tag}>{tag}</option>{/each}
						</select></label
					>
				{/if}
			{/if}
			<span class="text-ink-3 ml-auto">Nothing here is kept.</span>
		</div>
		{#if form.questions.length === 0}
			<p class="text-ink-2">There is no question yet.</p>
		{:else if isPair}
			<p class="mb-3 text-[15px]">
				They share <strong>{shared.size} of {form.questions.length}</strong> questions; they are shown in plum.
			</p>
			<div class="grid gap-5 sm:grid-cols-2">
				{#each [form, other] as one, i (i)}
					<ol class="space-y-1.5" aria-label="Candidate {i + 1}">
						{#each one.questions as shown, n (shown.id)}
							<li
								class="rounded-lg border px-3 py-1.5 text-[14px] {shared.has(shown.id)
									? 'border-plum bg-plum-ground text-plum'
									: 'border-line'}"
							>
								<span class="font-mono text-[12.5px]">{n + 1}</span>
								{firstWords(shown.stem)}
							</li>
						{/each}
					</ol>
				{/each}
			</div>
		{:else}
			<div
				class="bg-paper text-ink mx-auto rounded-xl p-4 {LOOKS[look].class} {isNarrow
					? 'max-w-[360px]'
					: 'max-w-[760px]'}"
				style="font-size:{(16 * size) / 100}px"
				data-testid="preview-page"
			>
				{#key `${seed} ${question.id}`}
					<QuestionView
						{question}
						number={at + 1}
						of={form.questions.length}
						given={{ value: answers[question.id] ?? null, marked: false, struck: [], inViewMs: 0 }}
						picture={question.picture ? paper.pictures?.[question.picture] : undefined}
						{language}
						hints
						addressOf={(file) => `/papers/media/${file}`}
						sharedBy={sharedAround(at, (place) => form.questions[place]?.stimulus?.id)}
						onchange={({ value }) => {
							if (value !== undefined) answers = { ...answers, [question.id]: value };
						}}
					/>
				{/key}
			</div>
			<div class="border-line mt-5 flex flex-wrap items-center gap-2 border-t pt-3">
				<Act disabled={at === 0} onclick={() => (at -= 1)}>← Back</Act>
				<span class="text-ink-2 text-[14px]"
					>{at + 1} of {form.questions.length} · {form.questions.filter(({ id }) => isBlank(answers[id] ?? null))
						.length} blank</span
				>
				<Act disabled={at >= form.questions.length - 1} onclick={() => (at += 1)} testid="preview-next">Next →</Act>
				<Act class="ml-auto" onclick={() => (isMarked = true)} testid="preview-mark">Mark it as if handed in</Act>
			</div>
			{#if score}<p class="bg-mist mt-3 rounded-xl px-4 py-2.5 text-[15px]" role="status" data-testid="preview-score">
					<strong>{shownPoints(score.points)} of {score.outOf} points</strong>, {score.blanks} blank{score.toMark > 0
						? `, ${score.toMark} to be marked by hand`
						: ''}.
				</p>{/if}
		{/if}
	</div>
</Modal>
