<!-- @component A question as its author reads it: what is asked, what is right, and what is doubtful about it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import {
		firstWords,
		blocksOf,
		keepsPlace,
		keyInWords,
		QUESTION_KIND_NAMES,
		type Doubt,
		type Picture,
		type Question
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { DRAGGED, isDragged } from './dragged';
	import DifficultyMark from './DifficultyMark.svelte';
	import MediaRead from './MediaRead.svelte';
	import Blocks from '../../../sit/question/Blocks.svelte';
	import Text from '../../../sit/question/Text.svelte';

	type Props = {
		question: Question;
		/** As it is called in its paper; empty: it stands alone. */
		name: string;
		picture?: Picture;
		doubts: Doubt[];
		isChosen: boolean;
		/** As the bank has it now, if it has gone on. */
		newer?: Question;
		/** Whether the text it shares stands here, and not with the question before it. */
		showsShared?: boolean;
		/** Another question was dropped onto this one. */
		onmove?: (id: string) => void;
		onedit: () => void;
		onfix: (question: Question) => void;
		/** What the question is called that this one goes with. */
		lead?: string;
		/** What else stands beside its points. */
		children?: Snippet;
	};
	let {
		question,
		name,
		picture,
		doubts,
		isChosen,
		newer,
		showsShared = true,
		onmove,
		onedit,
		onfix,
		lead,
		children
	}: Props = $props();

	let isOver = $state(false);
	const right = (id: string) =>
		question.kind === 'single' ? question.answer === id : question.kind === 'multiple' && question.answer.includes(id);
	const isChoosing = $derived(question.kind === 'single' || question.kind === 'multiple');
</script>

<li
	class="border-line border-b py-3 [contain-intrinsic-size:auto_110px] [content-visibility:auto] {name
		? 'grid grid-cols-[44px_minmax(0,1fr)_auto] gap-x-3 px-3'
		: 'flex flex-col gap-y-2'} {isChosen ? 'bg-ochre-ground/50' : ''} {isOver
		? 'outline-tide outline-2 -outline-offset-2'
		: ''}"
	id="question-{question.id}"
	data-question-row={question.id}
	ondragover={(event) => {
		if (!onmove || !isDragged(event)) return;
		event.preventDefault();
		isOver = true;
	}}
	ondragleave={() => (isOver = false)}
	ondrop={(event) => {
		isOver = false;
		const id = event.dataTransfer?.getData(DRAGGED);
		if (!onmove || !id) return;
		event.preventDefault();
		if (id !== question.id) onmove(id);
	}}
>
	{#if name}<span
			class="text-ink-3 cursor-grab pt-1 font-mono text-[13px] font-semibold"
			role="presentation"
			draggable="true"
			title="Drag to move"
			ondragstart={(event) => event.dataTransfer?.setData(DRAGGED, question.id)}>{name}</span
		>{/if}
	<div class="min-w-0">
		{#if question.stimulus && showsShared}<div
				class="bg-mist mb-2 rounded-xl px-3 py-2 text-[15px]"
				data-testid="shared-text"
			>
				<p class="text-ink-2 text-[13px]">Shared text</p>
				<div class="font-serif"><Blocks blocks={blocksOf(question.stimulus.text)} /></div>
				{#if question.stimulus.media}<MediaRead media={question.stimulus.media} />{/if}
			</div>{/if}
		<button type="button" class="block w-full text-left" onclick={onedit} data-testid="edit-{name}">
			<span class="block font-serif text-[18px] leading-snug break-words"
				>{#if question.stem}<Blocks
						blocks={blocksOf(question.stem, question.kind === 'fill_in' ? question.gaps.map(({ id }) => id) : [])}
						>{#snippet gap(id)}<span class="border-line-strong mx-1 rounded border px-2 text-[15px]">{id}</span
							>{/snippet}</Blocks
					>{:else}<span class="text-ink-3">No question text yet</span>{/if}</span
			>
		</button>
		{#if picture}<img
				src="data:image/svg+xml;utf8,{encodeURIComponent(picture.svg)}"
				alt={picture.alt}
				class="border-line mt-2 h-24 w-auto rounded-lg border"
			/>{/if}
		{#if question.media}<MediaRead media={question.media} />{/if}
		{#if isChoosing && 'choices' in question}
			<ul class="mt-2 flex flex-wrap gap-1.5">
				{#each question.choices as choice (choice.id)}
					<li
						class="rounded-lg border px-2.5 py-0.5 text-[14.5px] {right(choice.id)
							? 'border-tide text-tide font-semibold'
							: 'border-line'}"
					>
						{#if right(choice.id)}✓&nbsp;{/if}<Text text={choice.text} />{#if keepsPlace(choice)}<strong
								class="text-ochre ml-1">keeps its place</strong
							>{/if}
					</li>
				{/each}
			</ul>
		{:else if question.kind === 'upload'}
			<p class="text-ink-2 mt-1.5 text-[14.5px]">
				Marked by hand, {question.most === 1 ? 'one file' : `up to ${question.most} files`}.
			</p>
		{:else if question.kind === 'essay'}
			<p class="text-ink-2 mt-1.5 text-[14.5px]">
				Marked by hand{question.words ? `, ${question.words.from} to ${question.words.to} words` : ''}.
			</p>
		{:else}
			<p class="text-tide mt-1.5 text-[14.5px] font-semibold">✓ <Text text={keyInWords(question)} /></p>
		{/if}
		{#if newer}<p class="text-plum mt-1.5 text-[14px]" data-testid="newer">
				The bank has a newer revision{newer.stem === question.stem ? '' : `: “${firstWords(newer.stem, 120)}”`}.
				<Act size="xs" class="ml-1" onclick={() => onfix(newer)}>Take it</Act>
			</p>{/if}
		{#each doubts as doubt (doubt.code)}
			<p class="{doubt.isGrave ? 'text-brick' : 'text-ochre'} mt-1.5 text-[14px]" data-doubt={doubt.code}>
				{doubt.text}
				{#if doubt.fix}<Act size="xs" class="ml-1" onclick={() => onfix(doubt.fix!.question)}>{doubt.fix.label}</Act
					>{/if}
			</p>
		{/each}
	</div>
	<div class="text-ink-2 text-[13px] {name ? 'text-right whitespace-nowrap' : ''}">
		{question.points}
		{question.points === 1 ? 'point' : 'points'}<br />
		{#if question.isExtra}on top<br />{/if}{#if lead}<span class="text-plum font-semibold">goes with {lead}</span><br
			/>{/if}<span class="text-ink-3">{QUESTION_KIND_NAMES[question.kind]}</span>
		{#if question.topic}<br /><span class="text-ink-3">{question.topic}</span>{/if}
		{#if question.difficulty}<br /><DifficultyMark difficulty={question.difficulty} />{/if}
		{#if children}<div class="mt-1">{@render children()}</div>{/if}
	</div>
</li>
