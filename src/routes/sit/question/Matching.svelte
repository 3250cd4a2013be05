<!-- @component Each item gets one of the matches, from a list beside it. -->
<script lang="ts">
	import type { FormQuestion } from '$core/paper';
	import { spokenText } from '$player/spoken-text';
	import type { Given } from '$player/paper.svelte';
	import Text from './Text.svelte';

	type Props = {
		question: FormQuestion;
		given: Given;
		textOf: (id: string, own: string) => string;
		onchange: (change: Partial<Given>) => void;
	};
	let { question, given, textOf, onchange }: Props = $props();

	const parts = $derived((given.value ?? {}) as Record<string, string>);
	const used = $derived(Object.values(parts));
	/** A list of a browser's own holds words alone: what is drawn stands above it, under a letter. */
	const isLettered = $derived(question.matches!.some((match) => textOf(match.id, match.text).includes('$')));
	const letterOf = (i: number) => (i < 26 ? String.fromCodePoint(65 + i) : String(i + 1));
	const nameOf = (match: { id: string; text: string }, i: number) =>
		`${isLettered ? `${letterOf(i)}: ` : ''}${spokenText(textOf(match.id, match.text))}`;
	function choose(item: string, match: string) {
		const next = { ...parts, [item]: match };
		onchange({ value: Object.values(next).some((one) => one !== '') ? next : null });
	}
</script>

{#if isLettered}
	<dl class="mt-5 grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-2" data-testid="drawn-matches">
		{#each question.matches! as match, i (match.id)}
			<dt class="font-semibold">{letterOf(i)}</dt>
			<dd class="min-w-0 break-words"><Text text={textOf(match.id, match.text)} /></dd>
		{/each}
	</dl>
{/if}
<ul class="mt-5 space-y-2.5">
	{#each question.items! as item, i (item.id)}
		<li
			class="bg-sheet border-line-strong grid grid-cols-[1fr_1.3fr] items-center gap-4 rounded-xl border px-4 py-3 max-sm:grid-cols-1"
		>
			<label for="m-{question.id}-{item.id}" class="min-w-0 break-words"
				><Text text={textOf(item.id, item.text)} /></label
			>
			<select
				id="m-{question.id}-{item.id}"
				class="bg-paper border-line-strong text-ink w-full rounded-lg border px-3 py-2 text-[0.9em]"
				value={parts[item.id] ?? ''}
				onchange={(event) => choose(item.id, event.currentTarget.value)}
				aria-label={item.text.includes('$') ? spokenText(textOf(item.id, item.text)) : undefined}
				data-testid="match-{i}"
			>
				<option value="">Choose…</option>
				{#each question.matches! as match, nth (match.id)}
					<option value={match.id}
						>{nameOf(match, nth)}{used.includes(match.id) && parts[item.id] !== match.id ? ' (used)' : ''}</option
					>
				{/each}
			</select>
		</li>
	{/each}
</ul>
