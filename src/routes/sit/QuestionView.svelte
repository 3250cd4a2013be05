<script lang="ts">
	import type { FormQuestion } from '$core/paper';
	import type { Given } from '$player/paper.svelte';

	type Props = {
		question: FormQuestion;
		number: number;
		of: number;
		given: Given;
		onchange: (change: Partial<Given>, rests?: boolean) => void;
	};
	let { question, number, of, given, onchange }: Props = $props();

	const choices = $derived(
		question.kind === 'single'
			? question.choices!.map((choice) => ({ id: choice.id, text: choice.text, value: choice.id as string | boolean }))
			: question.kind === 'true_false'
				? [
						{ id: 'true', text: 'True', value: true },
						{ id: 'false', text: 'False', value: false }
					]
				: []
	);
	const isStruck = (id: string) => given.struck.includes(id);
	function strike(id: string, value: string | boolean) {
		const struck = isStruck(id) ? given.struck.filter((one) => one !== id) : [...given.struck, id];
		// Striking out the chosen one takes it back: two opposite marks would leave it open which is meant.
		onchange({ struck, value: struck.includes(id) && given.value === value ? null : given.value });
	}
</script>

<fieldset class="min-w-0" data-question={question.id}>
	<legend class="w-full">
		<span class="text-ink-2 block text-[15px]"
			>Question {number} of {of} · {question.points} {question.points === 1 ? 'point' : 'points'}</span
		>
		<span class="mt-2 block font-serif text-[22px] leading-snug">{question.stem}</span>
	</legend>
	{#if question.kind === 'numeric'}
		<label class="mt-5 flex flex-wrap items-center gap-3">
			<span class="sr-only">Your answer{question.unit ? ` in ${question.unit}` : ''}</span>
			<input
				class="bg-sheet border-line-strong w-56 rounded-xl border px-4 py-3 font-mono text-[22px]"
				inputmode="decimal"
				autocomplete="off"
				maxlength="60"
				value={typeof given.value === 'string' ? given.value : ''}
				oninput={(event) => onchange({ value: event.currentTarget.value || null }, true)}
			/>
			{#if question.unit}<span class="text-[19px]">{question.unit}</span>{/if}
		</label>
	{:else}
		<div class="mt-5 space-y-2.5">
			{#each choices as choice, i (choice.id)}
				<div
					class="border-line-strong has-checked:bg-mist has-checked:border-tide has-focus-visible:outline-ochre-mark flex items-center rounded-xl border has-focus-visible:outline-3 {isStruck(
						choice.id
					)
						? 'bg-paper'
						: 'bg-sheet'}"
				>
					<label class="flex min-w-0 flex-1 cursor-pointer items-center gap-4 px-4 py-3">
						<input
							type="radio"
							class="text-tide h-5 w-5 border-2 outline-none focus:ring-0"
							name="q-{question.id}"
							checked={given.value === choice.value}
							onchange={() =>
								onchange({ value: choice.value, struck: given.struck.filter((one) => one !== choice.id) })}
						/>
						<span class="min-w-0 text-[18px] break-words {isStruck(choice.id) ? 'text-ink-3 line-through' : ''}"
							>{choice.text}</span
						>
						<span class="sr-only">, key {i + 1}</span>
					</label>
					<button
						type="button"
						class="text-ink-3 hover:text-ink px-4 py-3 text-[14px]"
						aria-pressed={isStruck(choice.id)}
						aria-label="{isStruck(choice.id) ? 'Put back' : 'Strike out'}: {choice.text}"
						onclick={() => strike(choice.id, choice.value)}
					>
						{isStruck(choice.id) ? 'put back' : 'strike out'}
					</button>
				</div>
			{/each}
		</div>
	{/if}
	{#if given.value !== null && given.value !== ''}
		<button
			type="button"
			class="text-ink-3 hover:text-ink mt-3 text-[14px] underline"
			onclick={() => onchange({ value: null })}>Clear this answer</button
		>
	{/if}
</fieldset>
