<!-- @component Which forms of its paper a question is in; a press puts it in or takes it out. -->
<script lang="ts">
	import type { FormLetter, PaperForm } from '$core/paper';

	type Props = { forms: PaperForm[]; id: string; onform: (name: FormLetter) => void };
	let { forms, id, onform }: Props = $props();
</script>

<span class="inline-flex gap-1" role="group" aria-label="Forms" data-testid="form-letters">
	{#each forms as { name, questions } (name)}
		{@const isIn = questions.includes(id)}
		<button
			type="button"
			class="h-6 w-6 rounded-md border text-[12.5px] font-semibold {isIn
				? 'bg-tide border-tide text-sheet'
				: 'border-line-strong text-ink-2'}"
			aria-pressed={isIn}
			title={isIn ? `Take it out of form ${name}` : `Put it into form ${name}`}
			onclick={() => onform(name)}>{name}</button
		>
	{/each}
</span>
