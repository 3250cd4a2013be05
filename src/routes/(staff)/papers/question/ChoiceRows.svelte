<!--
@component Choices as they are written, one below the other: Enter begins the next, Backspace in an empty one removes it,
Alt and Enter marks the right one.
-->
<script lang="ts">
	import { keepsPlace, type Choice } from '$core/paper';
	import { tick } from 'svelte';
	import { newId } from './new-id';

	type Props = {
		label: string;
		choices: Choice[];
		/** The ids of the right ones; none: nothing is marked here. */
		right?: string[];
		one?: boolean;
		most?: number;
		onchange: (choices: Choice[], right: string[]) => void;
	};
	let { label, choices, right, one = false, most = 200, onchange }: Props = $props();

	let list = $state<HTMLElement | null>(null);
	async function focus(index: number) {
		await tick();
		list?.querySelectorAll<HTMLInputElement>('input[type=text]')[index]?.focus();
	}
	function write(index: number, text: string) {
		onchange(choices.with(index, { ...choices[index], text }), right ?? []);
	}
	/** What the words say of it is kept where that is what the author wants as well. */
	function pin(index: number) {
		const { pinned: _, ...choice } = choices[index];
		const wanted = !keepsPlace(choices[index]);
		onchange(choices.with(index, keepsPlace(choice) === wanted ? choice : { ...choice, pinned: wanted }), right ?? []);
	}
	function mark(id: string) {
		if (!right) return;
		if (one) onchange(choices, [id]);
		else onchange(choices, right.includes(id) ? right.filter((other) => other !== id) : [...right, id]);
	}
	function add(index: number) {
		if (choices.length >= most) return;
		onchange(choices.toSpliced(index, 0, { id: newId(), text: '' }), right ?? []);
		void focus(index);
	}
	function remove(index: number) {
		const { id } = choices[index];
		onchange(
			choices.toSpliced(index, 1),
			(right ?? []).filter((other) => other !== id)
		);
		void focus(Math.max(0, index - 1));
	}
	/** On to the next, which is there already where it is empty. */
	function next(index: number) {
		if (choices[index]?.text === '') void focus(index);
		else add(index);
	}
	function onkeydown(event: KeyboardEvent, index: number) {
		if (event.key === 'Enter' && event.altKey) mark(choices[index].id);
		else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) next(index + 1);
		else if (event.key === 'Backspace' && choices[index].text === '' && choices.length > 1) remove(index);
		else return;
		event.preventDefault();
	}
</script>

<fieldset>
	<legend class="text-ink-2 mb-1 text-[13px] font-semibold">{label}</legend>
	<ol class="space-y-1.5" bind:this={list}>
		{#each choices as choice, i (choice.id)}
			<li class="flex items-center gap-2">
				{#if right}<input
						type={one ? 'radio' : 'checkbox'}
						class="border-line-strong text-tide {one ? '' : 'rounded'}"
						checked={right.includes(choice.id)}
						onchange={() => mark(choice.id)}
						aria-label="Choice {i + 1} is right"
					/>{/if}
				<input
					type="text"
					class="bg-sheet border-line-strong min-w-0 flex-1 rounded-lg border px-2.5 py-1.5 text-[15px]"
					value={choice.text}
					maxlength="2000"
					aria-label="{label} {i + 1}"
					oninput={(event) => write(i, event.currentTarget.value)}
					onkeydown={(event) => onkeydown(event, i)}
				/>
				{#if right}<button
						type="button"
						class="min-h-6 rounded px-1.5 text-[13px] font-semibold {keepsPlace(choice)
							? 'bg-ochre-ground text-ochre'
							: 'text-ink-3 hover:text-ink font-normal'}"
						aria-pressed={keepsPlace(choice)}
						aria-label="Choice {i + 1} keeps its place"
						title={keepsPlace(choice)
							? 'It stays where it stands when choices are shuffled. Press to let it move.'
							: 'It moves when choices are shuffled. Press to keep it where it stands.'}
						onclick={() => pin(i)}>keeps its place</button
					>{/if}
				<button
					type="button"
					class="text-ink-3 hover:text-brick min-h-6 px-1.5"
					aria-label="Remove {label.toLowerCase()} {i + 1}"
					title="Remove"
					onclick={() => remove(i)}>×</button
				>
			</li>
		{/each}
	</ol>
	<button type="button" class="text-tide mt-1.5 text-[14px] font-semibold underline" onclick={() => add(choices.length)}
		>Another</button
	>
</fieldset>
