<!-- @component A question where it stands, being written. Every change is kept after a moment, without a button. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { untrack } from 'svelte';
	import {
		gapsOf,
		inKind,
		isMarkedByHand,
		parametersOf,
		isSame,
		QUESTION_KIND_NAMES,
		QUESTION_KINDS,
		withoutStaleKey,
		type Doubt,
		type Question,
		type QuestionKind,
		type Stimulus
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import KindEdit from './KindEdit.svelte';
	import { newId } from './new-id';
	import LanguagesEdit from './LanguagesEdit.svelte';
	import MediaEdit from './MediaEdit.svelte';
	import NumberEntry from './NumberEntry.svelte';
	import QuestionAbout from './QuestionAbout.svelte';
	import StemEdit from './StemEdit.svelte';
	import SharedText from './SharedText.svelte';

	type Props = {
		question: Question;
		name: string;
		doubts: Doubt[];
		topics: string[];
		/** Languages in which other questions of the paper are there, too. */
		languages?: string[];
		/** The text that the question before it stands under. */
		before?: Stimulus;
		onkeep: (before: Question, after: Question) => void;
		/** A text has changed that other questions share. Without: this question stands alone. */
		onshared?: (before: Stimulus, after: Stimulus) => void;
		onremove?: (question: Question) => void;
		onclose: () => void;
		/** The next of the same kind. */
		onnext?: () => void;
		/** A question that this one can go with, and what it is called. */
		lead?: { id: string; name: string };
		/** Asks for the working of this one, in a question that goes with it. */
		onworking?: () => void;
	};
	let {
		question,
		name,
		doubts,
		topics,
		languages = [],
		before,
		onkeep,
		onshared,
		onremove,
		onclose,
		onnext,
		lead,
		onworking
	}: Props = $props();

	const REST_MS = 600;
	/** As it was when this editing began, or was last kept: what somebody else has changed since is told by it. */
	let base = untrack(() => question);
	let mine = $state.raw(untrack(() => question));
	let timer: ReturnType<typeof setTimeout> | undefined;

	// What came from elsewhere, as by undo, is shown where nothing of mine waits to be kept.
	$effect(() => {
		const now = question;
		untrack(() => {
			if (timer === undefined && now !== base) base = mine = now;
		});
	});
	function set(change: object) {
		mine = { ...mine, ...change } as Question;
		clearTimeout(timer);
		timer = setTimeout(keep, REST_MS);
	}
	/** Another kind, keeping what fits; undo brings the rest back. */
	function become(kind: QuestionKind) {
		keep();
		mine = inKind(mine, kind, newId);
		keep();
	}
	function keep() {
		clearTimeout(timer);
		timer = undefined;
		if (mine === base) return;
		const before = base;
		base = mine;
		onkeep(before, mine);
	}
	/**
	 * Keeps what waits to be kept; whoever takes this editing off the screen calls it before. (Not done when it is taken off:
	 * what is read of the paper then is how it was before the act that did it.) Choices without a word are not left behind.
	 */
	export function leave() {
		stem?.leave();
		shared?.leave();
		if ('choices' in mine && mine.choices.some(({ text }) => text.trim() !== '')) {
			const choices = mine.choices.filter(({ text }) => text.trim() !== '');
			if (choices.length < mine.choices.length) mine = { ...mine, choices };
		}
		const whole = withoutStaleKey(mine);
		if (!isSame(whole, mine)) mine = whole;
		keep();
	}

	let stem = $state<{ leave(): void } | null>(null);
	let shared = $state<{ leave(): void } | null>(null);
	function share(stimulus: Stimulus | undefined) {
		const known = mine.stimulus;
		if (!onshared || !known || known.id !== stimulus?.id) return set({ stimulus });
		// What waits of this question is kept by itself: the text changes in all that share it at once.
		keep();
		base = mine = { ...mine, stimulus };
		onshared(known, stimulus);
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Escape') onclose();
		else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && onnext) onnext();
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
	let box = $state<HTMLElement | null>(null);
	$effect(() => box?.scrollIntoView({ block: 'nearest' }));
	/** The first choice is written next; false: there is none. */
	function toChoices(): boolean {
		const next = box?.querySelector<HTMLInputElement>('ol input[type=text]');
		next?.focus();
		return next !== undefined && next !== null;
	}
</script>

{#snippet sharedText()}
	<SharedText bind:this={shared} stimulus={mine.stimulus} {before} onchange={share} />
{/snippet}

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<li
	class="bg-sheet border-tide my-2 space-y-3 rounded-xl border-2 px-4 py-3"
	bind:this={box}
	{onkeydown}
	data-testid="question-edit"
	id="question-{question.id}"
>
	<div class="flex items-baseline gap-3">
		<span class="text-ink-3 font-mono text-[13px] font-semibold">{name}</span>
		<select
			aria-label="Kind"
			class="bg-sheet border-line-strong rounded-lg border py-0.5 pr-7 pl-2 text-[13px]"
			value={mine.kind}
			onchange={(event) => become(event.currentTarget.value as QuestionKind)}
			data-testid="kind-of"
		>
			{#each QUESTION_KINDS as kind (kind)}<option value={kind}>{QUESTION_KIND_NAMES[kind]}</option>{/each}
		</select>
		<span class="text-ink-3 ml-auto text-[13px]">{onnext ? 'Ctrl Enter: next of this kind · ' : ''}Esc: done</span>
	</div>
	{#if mine.stimulus}{@render sharedText()}{/if}
	<StemEdit
		bind:this={stem}
		id="stem"
		label="Question"
		hint={mine.kind === 'fill_in'
			? 'Write a name in brackets where something is to be filled in: The range is [a] metres.'
			: mine.kind === 'calculated'
				? 'Write a name in braces for each number that is drawn: High water is {high} m.'
				: 'Formulas in TeX between dollar signs: $h = 4.8$. Enter goes on to the choices, Shift Enter makes a line.'}
		value={mine.stem}
		isFocused
		onenter={toChoices}
		onchange={(stem) => {
			if (mine.kind === 'fill_in') set({ stem, gaps: gapsOf(stem, mine.gaps) });
			else if (mine.kind === 'calculated') set({ stem, parameters: parametersOf(stem, mine.parameters) });
			else set({ stem });
		}}
	/>

	<KindEdit question={mine} onchange={set} />
	<MediaEdit media={mine.media ?? []} onchange={(media) => set({ media: media.length > 0 ? media : undefined })} />
	{#if !mine.stimulus}{@render sharedText()}{/if}

	<div class="flex flex-wrap items-end gap-3">
		<NumberEntry
			id="points"
			label="Points"
			class="w-24"
			value={mine.points}
			onchange={(points) => points >= 0 && points <= 1000 && set({ points })}
		/>
		<Field id="topic" label="Topic" class="w-56">
			<Input
				id="topic"
				list="topics"
				maxlength={120}
				bind:value={() => mine.topic, (topic: string) => set({ topic })}
			/>
		</Field>
		<datalist id="topics"
			>{#each topics as topic (topic)}<option value={topic}></option>{/each}</datalist
		>
		{#if 'partial' in mine}<label class="flex items-center gap-1.5 pb-2 text-[14px]"
				><input
					type="checkbox"
					class="border-line-strong text-tide rounded"
					checked={mine.partial}
					onchange={(event) => set({ partial: event.currentTarget.checked })}
				/>part of the points for part of it</label
			>{/if}
		{#if lead}<label class="flex items-center gap-1.5 pb-2 text-[14px]"
				><input
					type="checkbox"
					class="border-line-strong text-tide rounded"
					checked={mine.follows !== undefined}
					onchange={(event) => set({ follows: event.currentTarget.checked ? lead.id : undefined })}
				/>goes with {lead.name}</label
			>{/if}
		{#if onworking && !isMarkedByHand(mine)}<Act size="xs" onclick={onworking} testid="working">Ask for the working</Act
			>{/if}
		<Act size="xs" class="ml-auto" onclick={onclose} testid="done">Done</Act>
		{#if onremove}<Act size="xs" tone="danger" onclick={() => onremove(mine)} testid="remove">Remove</Act>{/if}
	</div>
	<LanguagesEdit question={mine} {languages} onchange={(inOther) => set({ inOther })} />
	<QuestionAbout question={mine} onchange={set} />
	{#each doubts as doubt (doubt.code)}
		<p class="{doubt.isGrave ? 'text-brick' : 'text-ochre'} text-[14px]">{doubt.text}</p>
	{/each}
</li>
