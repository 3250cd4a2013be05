<!-- @component Several forms of one paper that are as alike as can be: each candidate gets one of them. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import {
		expectedPoints,
		FORM_LETTERS,
		formsOf,
		minutesNeeded,
		pointsToReach,
		sumOfPoints,
		type Paper,
		type PaperForm,
		type Question
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import LongWork from '$ui/LongWork.svelte';
	import { inWords, send } from '$ui/post';
	import NumberEntry from '../question/NumberEntry.svelte';

	type Props = {
		open: boolean;
		id: string;
		paper: Paper;
		isKept: boolean;
		/** undefined: it has no forms any more. */
		onforms: (forms: PaperForm[] | undefined) => void;
	};
	let { open = $bindable(), id, paper, isKept, onforms }: Props = $props();

	const count = $derived(paper.parts.reduce((sum, { questions }) => sum + questions.length, 0));
	let forms = $state(2);
	let each = $state<number | null>(null);
	const size = $derived(each ?? Math.floor(count / forms));
	let busy = $state(false);
	let stopping: AbortController | null = null;
	let trouble = $state<string | null>(null);
	const made = $derived(formsOf(paper));
	const figure = (value: number) => String(Number(value.toFixed(1)));
	const expectedOf = (questions: Question[]) =>
		questions.reduce((sum, one) => sum + expectedPoints(pointsToReach(one), one.difficulty), 0);
	const minutesOf = (questions: Question[]) => questions.reduce((sum, one) => sum + minutesNeeded(one), 0);

	async function make() {
		if (busy) return;
		busy = true;
		trouble = null;
		const stop = (stopping = new AbortController());
		const asked = { forms, each: size };
		const answer = await send<{ forms: PaperForm[] }>('POST', `/papers/${id}/forms`, asked, { signal: stop.signal });
		busy = false;
		if (stop.signal.aborted) return;
		if (answer.ok) onforms(answer.data.forms);
		else trouble = inWords(answer.problem);
	}
</script>

<Modal aria-label="Forms of {paper.title}" bind:open title="Forms of {paper.title}" size="md" class="bg-sheet">
	<div class="text-ink space-y-4" data-testid="parallel">
		<p class="text-ink-2 text-[14.5px]">
			The {counted(count, 'question')} of this paper are divided so that the forms differ as little as possible in points,
			expected score, topics and time. No question is in two; add or take out some by the letters beside each question. A
			session says how its candidates get them: drawn, by site, by group, by seat, or one for all.
		</p>
		<div class="flex flex-wrap items-end gap-3">
			<NumberEntry
				id="forms"
				label="Forms, 2 to {FORM_LETTERS.length}"
				value={forms}
				onchange={(read) => (forms = Math.min(FORM_LETTERS.length, Math.max(2, Math.round(read))))}
			/>
			<NumberEntry
				id="each"
				label="Questions in each"
				class="w-40"
				value={size}
				onchange={(read) => (each = Math.round(read))}
			/>
			<Act tone="main" {busy} disabled={!isKept || size < 1} onclick={make} testid="make-forms"
				>{made.length > 0 ? 'Divide again' : `Make ${forms} forms`}</Act
			>
			{#if made.length > 0}<Act onclick={() => onforms(undefined)} testid="no-forms">No forms</Act>{/if}
		</div>
		{#if busy}<LongWork what="Dividing" mostSeconds={25} onstop={() => stopping?.abort()} />{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if made.length > 0}
			<table class="w-full text-left text-[14.5px]" data-testid="made-forms">
				<thead class="text-ink-2 text-[13px]">
					<tr>
						<th class="py-1 font-semibold">Form</th>
						{#each ['Questions', 'Points', 'Expected', 'Minutes'] as name (name)}<th
								class="py-1 text-right font-semibold">{name}</th
							>{/each}
					</tr>
				</thead>
				<tbody>
					{#each made as { name, questions } (name)}<tr class="border-line border-t">
							<td class="py-1.5 font-semibold">{name}</td>
							<td class="py-1.5 text-right">{questions.length}</td>
							<td class="py-1.5 text-right">{figure(sumOfPoints(questions))}</td>
							<td class="py-1.5 text-right">{figure(expectedOf(questions))}</td>
							<td class="py-1.5 text-right">{figure(minutesOf(questions))}</td>
						</tr>{/each}
				</tbody>
			</table>
			<p class="text-ink-2 text-[13px]">Kept with the paper. Undo takes it back.</p>
		{/if}
	</div>
</Modal>
