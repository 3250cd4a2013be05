<!-- @component A calculator beside the paper. Loaded when it is opened. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { calculate, showValue, type Angle, type CalculatorKind } from '$core/calculator';

	let { kind }: { kind: CalculatorKind } = $props();

	let typed = $state('');
	let angle = $state<Angle>('degrees');
	let result = $state<string | null>(null);
	let trouble = $state<string | null>(null);
	let past = $state<{ typed: string; result: string }[]>([]);
	let field: HTMLInputElement;
	// A finger has the keys below, and no keyboard that would cover the question.
	onMount(() => void (matchMedia('(pointer: fine)').matches && field.focus()));

	const BASIC = ['7', '8', '9', '÷', '4', '5', '6', '×', '1', '2', '3', '−', '0', '.', '%', '+'];
	const MORE = ['sin(', 'cos(', 'tan(', 'π', 'asin(', 'acos(', 'atan(', '^', 'log(', 'ln(', '√(', 'e'];

	function put(text: string) {
		const at = field.selectionStart ?? typed.length;
		typed = typed.slice(0, at) + text + typed.slice(field.selectionEnd ?? at);
		field.focus();
		queueMicrotask(() => field.setSelectionRange(at + text.length, at + text.length));
	}
	function work() {
		const answer = calculate(typed, kind, angle);
		trouble = answer.ok ? null : answer.message;
		result = answer.ok ? showValue(answer.value) : null;
		if (result !== null) past = [{ typed, result }, ...past].slice(0, 5);
	}
	const button = 'border-line-strong hover:bg-mist rounded-lg border py-1.5 font-mono text-[15px]';
</script>

<form
	onsubmit={(event) => {
		event.preventDefault();
		work();
	}}
>
	<label class="block">
		<span class="sr-only">What to work out</span>
		<input
			bind:this={field}
			bind:value={typed}
			class="bg-sheet border-line-strong text-ink w-full rounded-lg border px-3 py-2 font-mono text-[18px]"
			autocomplete="off"
			spellcheck="false"
			maxlength="200"
		/>
	</label>
	<p class="min-h-9 py-1 text-right font-mono text-[22px] font-semibold" role="status" data-testid="calculated">
		{#if trouble}<span class="text-ochre font-sans text-[14px] font-normal">{trouble}</span>{:else if result}= {result}{/if}
	</p>
	{#if kind === 'scientific'}
		<div class="mb-1.5 flex gap-3 text-[14px]">
			{#each ['degrees', 'radians'] as const as each (each)}
				<label class="flex items-center gap-1.5"
					><input type="radio" class="text-tide" name="angle" value={each} bind:group={angle} />{each}</label
				>
			{/each}
		</div>
		<div class="mb-1.5 grid grid-cols-4 gap-1.5">
			{#each MORE as key (key)}<button type="button" class={button} onclick={() => put(key)}
					>{key.replace('(', '')}</button
				>{/each}
		</div>
	{/if}
	<div class="grid grid-cols-4 gap-1.5">
		{#each BASIC as key (key)}<button type="button" class={button} onclick={() => put(key)}>{key}</button>{/each}
		<button type="button" class={button} onclick={() => put('(')}>(</button>
		<button type="button" class={button} onclick={() => put(')')}>)</button>
		<button
			type="button"
			class={button}
			onclick={() => ((typed = ''), (result = null), (trouble = null), field.focus())}>clear</button
		>
		<button type="submit" class="{button} bg-tide text-on-tide border-tide">=</button>
	</div>
</form>
{#if past.length > 0}
	<ul class="text-ink-2 mt-3 space-y-0.5 font-mono text-[13px]" aria-label="Before">
		{#each past as one (one)}
			<li>
				<button
					type="button"
					class="w-full truncate text-left hover:underline"
					onclick={() => ((typed = one.typed), field.focus())}>{one.typed} = {one.result}</button
				>
			</li>
		{/each}
	</ul>
{/if}
