<!-- @component What is looked for in the bank, what leaves and enters it as a file, and its topics. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { QUESTION_KIND_NAMES, QUESTION_KINDS } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import type { Bank } from './bank.svelte';
	import type { PageData } from './$types';

	type Props = {
		ask: Bank['ask'];
		topics: PageData['topics'];
		/** How many were found; null: they are being looked for. */
		total: number | null;
		isExporting: boolean;
		onask(change: Partial<Bank['ask']>): void;
		ontake(): void;
		onexport(): void;
	};
	let { ask: asked, topics, total, isExporting, onask, ontake, onexport }: Props = $props();

	const FILTERS = [
		{
			name: 'difficulty',
			label: 'Difficulty',
			options: [
				['', 'any'],
				['easy', 'easy'],
				['medium', 'medium'],
				['hard', 'hard'],
				['none', 'not known']
			]
		},
		{
			name: 'use',
			label: 'In papers',
			options: [
				['', 'used or not'],
				['never', 'never used'],
				['used', 'used']
			]
		},
		{
			name: 'remarks',
			label: 'Remarks',
			options: [
				['', 'any'],
				['open', 'with open remarks']
			]
		},
		{
			name: 'retired',
			label: 'Offered',
			options: [
				['', 'offered'],
				['true', 'no longer offered']
			]
		}
	] as const;
</script>

<Input
	id="bank-text"
	type="search"
	placeholder="Words, tag, source"
	aria-label="Find questions"
	maxlength={200}
	bind:value={() => asked.text, (text: string) => onask({ text })}
/>
<div class="flex flex-wrap items-end gap-2">
	<label class="text-ink-2 flex-1 text-[13px]"
		>Kind
		<select
			class="bg-sheet border-line-strong mt-0.5 w-full rounded-lg border px-2 py-1.5 text-[14px]"
			value={asked.kind}
			onchange={(event) => onask({ kind: event.currentTarget.value })}
		>
			<option value="">any</option>
			{#each QUESTION_KINDS as one (one)}<option value={one}>{QUESTION_KIND_NAMES[one]}</option>{/each}
		</select></label
	>
	{#each FILTERS as filter (filter.name)}
		<label class="text-ink-2 w-full text-[13px]"
			>{filter.label}
			<select
				class="bg-sheet border-line-strong mt-0.5 w-full rounded-lg border px-2 py-1.5 text-[14px]"
				value={asked[filter.name]}
				onchange={(event) => onask({ [filter.name]: event.currentTarget.value })}
			>
				{#each filter.options as [value, text] (value)}<option {value}>{text}</option>{/each}
			</select></label
		>
	{/each}
</div>
<div class="flex flex-wrap gap-2">
	<Act size="xs" onclick={ontake} testid="from-file">From a file…</Act>
	{#if total}<Act size="xs" busy={isExporting} onclick={onexport} testid="to-file"
			>Export {total === 1 ? 'this one' : `these ${total}`}</Act
		>{/if}
</div>
<nav aria-label="Topics">
	<h2 class="text-ink-2 text-[13px] font-semibold">Topics</h2>
	<ul class="mt-1" data-testid="topics">
		{#each [{ path: '', name: 'All topics', depth: 0, count: null }, ...topics] as branch (branch.path)}
			<li>
				<button
					type="button"
					class="flex w-full items-baseline gap-2 rounded-lg py-1 pr-2 text-left text-[14px] {asked.topic ===
					branch.path
						? 'bg-mist text-tide font-semibold'
						: 'hover:bg-sheet'}"
					style="padding-left:{8 + 14 * branch.depth}px"
					aria-pressed={asked.topic === branch.path}
					onclick={() => onask({ topic: branch.path })}
				>
					<span class="min-w-0 flex-1 break-words">{branch.name}</span>
					{#if branch.count !== null}<span class="text-ink-3 text-[13px]">{branch.count}</span>{/if}
				</button>
			</li>
		{/each}
	</ul>
</nav>
