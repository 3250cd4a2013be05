<!-- @component Size, colours, spacing and a ruler, chosen by the candidate. -->
<script lang="ts">
	import { LETTERS, LOOKS, SIZES, SPACINGS, type Display, type Look } from '$player/display.svelte';

	import { singleKeys } from '$ui/shortcuts.svelte';

	let { display }: { display: Display } = $props();
	const SPACING_NAMES = ['usual', 'wider', 'widest'];
	const LETTER_NAMES = ['usual', 'apart', 'far apart'];
	const button =
		'border-line-strong hover:bg-mist rounded-lg border px-3 py-1.5 text-[15px] aria-pressed:bg-mist aria-pressed:border-tide aria-pressed:font-semibold';
</script>

<div class="space-y-4">
	<div role="group" aria-labelledby="size">
		<p id="size" class="mb-1.5 text-[14px] font-semibold">Size of the text</p>
		<div class="flex flex-wrap gap-1.5">
			{#each SIZES as size (size)}<button
					type="button"
					class={button}
					aria-pressed={display.size === size}
					onclick={() => display.set({ size })}>{size} %</button
				>{/each}
		</div>
	</div>
	<div role="group" aria-labelledby="colours">
		<p id="colours" class="mb-1.5 text-[14px] font-semibold">Colours</p>
		<div class="flex flex-wrap gap-1.5">
			{#each Object.entries(LOOKS) as [look, { name }] (look)}<button
					type="button"
					class={button}
					aria-pressed={display.look === look}
					onclick={() => display.set({ look: look as Look })}>{name}</button
				>{/each}
		</div>
	</div>
	<div role="group" aria-labelledby="spacing">
		<p id="spacing" class="mb-1.5 text-[14px] font-semibold">Line spacing</p>
		<div class="flex flex-wrap gap-1.5">
			{#each SPACINGS as spacing, i (spacing)}<button
					type="button"
					class={button}
					aria-pressed={display.spacing === spacing}
					onclick={() => display.set({ spacing })}>{SPACING_NAMES[i]}</button
				>{/each}
		</div>
	</div>
	<div role="group" aria-labelledby="letters">
		<p id="letters" class="mb-1.5 text-[14px] font-semibold">Letters</p>
		<div class="flex flex-wrap gap-1.5">
			{#each LETTERS as letters, i (letters)}<button
					type="button"
					class={button}
					aria-pressed={display.letters === letters}
					onclick={() => display.set({ letters })}>{LETTER_NAMES[i]}</button
				>{/each}
			<button
				type="button"
				class={button}
				aria-pressed={display.plain}
				onclick={() => display.set({ plain: !display.plain })}>without serifs</button
			>
		</div>
	</div>
	<div class="flex flex-wrap gap-1.5">
		<button
			type="button"
			class={button}
			aria-pressed={display.ruler}
			onclick={() => display.set({ ruler: !display.ruler })}>Reading ruler</button
		>
		<button
			type="button"
			class={button}
			aria-pressed={display.calm}
			onclick={() => display.set({ calm: !display.calm })}
			data-testid="calm">Hide time and counts</button
		>
	</div>
	{#if display.calm}<p class="text-ink-2 text-[13px]">You are still told when time gets short.</p>{/if}
	<button
		type="button"
		class={button}
		aria-pressed={singleKeys.isOff}
		onclick={() => singleKeys.switch(!singleKeys.isOff)}
		data-testid="single-keys">No single keys</button
	>
	<p class="text-ink-2 text-[13px]">
		{singleKeys.isOff
			? 'Letters and digits do nothing by themselves: press the buttons instead.'
			: 'N and P turn the page, M marks, digits choose an answer.'}
	</p>
</div>
