<!-- @component True or false, one of several, or all that are right. Each choice can be struck out. -->
<script lang="ts">
	import type { FormQuestion } from '$core/paper';
	import { spokenText } from '$player/spoken-text';
	import type { Given } from '$player/paper.svelte';
	import Text from './Text.svelte';

	type Props = {
		question: FormQuestion;
		given: Given;
		textOf: (id: string, own: string) => string;
		striking: boolean;
		onchange: (change: Partial<Given>) => void;
	};
	let { question, given, textOf, striking, onchange }: Props = $props();

	const TRUTH = [
		{ id: 'true', text: 'True' },
		{ id: 'false', text: 'False' }
	];
	const several = $derived(question.kind === 'multiple');
	const choices = $derived(question.choices ?? TRUTH);
	const isStruck = (id: string) => given.struck.includes(id);
	const chosen = $derived(Array.isArray(given.value) ? given.value : given.value === null ? [] : [String(given.value)]);

	function valueOf(ids: string[]) {
		if (several) return ids.length > 0 ? ids : null;
		if (ids.length === 0) return null;
		return question.kind === 'true_false' ? ids[0] === 'true' : ids[0];
	}
	function choose(id: string, on: boolean) {
		const ids = several ? [...chosen.filter((one) => one !== id), ...(on ? [id] : [])] : [id];
		onchange({ value: valueOf(ids), struck: given.struck.filter((one) => one !== id) });
	}
	/** Of a formula in it a browser takes nothing into a name. */
	const nameOf = ({ id, text }: { id: string; text: string }, i: number) =>
		`${spokenText(textOf(id, text))}, key ${i + 1}`;
	function strike(id: string) {
		const struck = isStruck(id) ? given.struck.filter((one) => one !== id) : [...given.struck, id];
		// Striking out the chosen one takes it back: two opposite marks would leave it open which is meant.
		onchange({ struck, value: valueOf(chosen.filter((one) => !struck.includes(one))) });
	}
</script>

{#if several}<p class="text-ink-2 mt-4 text-[0.83em]" lang="en">Choose all that are right.</p>{/if}
<div class="mt-5 space-y-2.5">
	{#each choices as choice, i (choice.id)}
		<div
			class="border-line-strong group-disabled/question:bg-paper has-checked:bg-mist has-checked:border-tide has-focus-visible:outline-ochre-mark flex items-center rounded-xl border has-focus-visible:outline-3 {isStruck(
				choice.id
			)
				? 'bg-paper'
				: 'bg-sheet'}"
		>
			<label
				class="flex min-w-0 flex-1 cursor-pointer group-disabled/question:cursor-default items-center gap-4 px-4 py-3"
			>
				<input
					type={several ? 'checkbox' : 'radio'}
					class="text-tide h-5 w-5 border-2 outline-none focus:ring-0 {several ? 'rounded' : ''}"
					name="q-{question.id}"
					checked={chosen.includes(choice.id)}
					aria-label={nameOf(choice, i)}
					onchange={(event) => choose(choice.id, event.currentTarget.checked)}
				/>
				<span class="min-w-0 break-words {isStruck(choice.id) ? 'text-ink-3 line-through' : ''}"
					><Text text={textOf(choice.id, choice.text)} /></span
				>
			</label>
			{#if striking}<button
					type="button"
					class="text-ink-3 hover:text-ink px-4 py-3 text-[14px] group-disabled/question:hidden"
					lang="en"
					aria-pressed={isStruck(choice.id)}
					aria-label="{isStruck(choice.id) ? 'Put back' : 'Strike out'}: {spokenText(textOf(choice.id, choice.text))}"
					onclick={() => strike(choice.id)}
				>
					{isStruck(choice.id) ? 'put back' : 'strike out'}
				</button>{/if}
		</div>
	{/each}
</div>
