<!-- @component Beside a paper: what each candidate gets, what is doubtful, and what can be done with it. -->
<script lang="ts">
	import { nameInPaper, type Doubt, type Paper } from '$core/paper';
	import type { SentencePart } from '$core/session';
	import Act from '$ui/Act.svelte';
	import Sentence from '$ui/Sentence.svelte';
	import Balance from './Balance.svelte';
	import WantedTable from './WantedTable.svelte';
	import type { BesideBank } from './beside-bank.svelte';

	type Props = {
		id: string;
		paper: Paper;
		/** What each candidate gets, in words. */
		gets: SentencePart[];
		doubts: Doubt[];
		bank: BesideBank;
		/** Every change has reached the server. */
		isKept: boolean;
		/** The version that it goes on from; null: it is new. */
		basedOn: number | null;
		onshow: (questionId: string) => void;
		onlook: (isPair: boolean) => void;
		onplan: () => void;
		onforms: () => void;
		oncompare: () => void;
		onfreeze: () => void;
	};
	let { id, paper, gets, doubts, bank, isKept, basedOn, onshow, onlook, onplan, onforms, oncompare, onfreeze }: Props =
		$props();

	let form = $state(1);
	const PRINTS = [
		['paper', 'Paper'],
		['answers', 'Answer sheet'],
		['key', 'Key']
	] as const;
	const grave = $derived(doubts.filter(({ isGrave }) => isGrave));
	const ofWhole = $derived(doubts.filter(({ questionIds }) => questionIds.length !== 1));
	const count = $derived(paper.parts.reduce((sum, { questions }) => sum + questions.length, 0));
	const missing = $derived(bank.missing(paper));
	let isBalanced = $state(false);
	const nameOf = (id: string) => nameInPaper(paper, id);
</script>

{#snippet show({ questionIds: [first] }: Doubt)}
	{#if first !== undefined}<button type="button" class="font-semibold underline" onclick={() => onshow(first)}
			>Show {nameOf(first)}</button
		>{/if}
{/snippet}

<aside class="bg-tide-deep min-h-0 overflow-auto px-5 py-4 text-[#f6f2e8]" data-testid="gets">
	<h2 class="font-sans text-[13px] font-normal tracking-normal opacity-80">What each candidate gets</h2>
	<p class="mt-1.5 font-serif text-[20px] leading-snug"><Sentence parts={gets} /></p>
	<ul class="mt-4 space-y-2">
		{#each grave as doubt, i (i)}
			<li class="bg-brick-ground text-brick rounded-xl px-3.5 py-2.5 text-[14px]">
				{doubt.text}
				{@render show(doubt)}
			</li>
		{/each}
		{#each ofWhole.filter(({ isGrave }) => !isGrave) as doubt, i (i)}
			<li class="bg-ochre-ground text-ochre rounded-xl px-3.5 py-2.5 text-[14px]">
				{doubt.text}
				{@render show(doubt)}
			</li>
		{/each}
	</ul>
	{#if paper.plan}<div class="mt-4">
			<h3 class="mb-1 font-sans text-[13px] font-normal tracking-normal opacity-80">Wanted, and there</h3>
			<WantedTable {paper} />
		</div>{/if}
	<div class="mt-5 flex flex-wrap gap-2">
		<Act key="V" disabled={count === 0} onclick={() => onlook(false)} testid="preview-one">As a candidate</Act>
		<Act disabled={count === 0} onclick={() => onlook(true)} testid="preview-pair">Two side by side</Act>
		<Act onclick={onplan} testid="plan-open">Plan…</Act>
		{#if count > 1}<Act onclick={onforms} testid="forms-open"
				>{paper.forms ? `${paper.forms.length} forms…` : 'Forms…'}</Act
			>{/if}
		{#if basedOn !== null}<Act onclick={oncompare} testid="compare">Compare with version {basedOn}</Act>{/if}
		<Act
			tone="main"
			class="border border-current"
			disabled={count === 0 || grave.length > 0 || !isKept}
			onclick={onfreeze}
			testid="freeze">Ready to be sat…</Act
		>
	</div>
	{#if grave.length > 0}<p class="mt-2 text-[13px] opacity-90">
			{grave.length === 1 ? 'One thing' : `${grave.length} things`} must be fixed before it can be sat.
		</p>{/if}
	{#if count > 0}
		<p class="mt-4 text-[14px]" data-testid="beside-bank">
			{#if missing.length === 0}The bank has every question as it is here.
			{:else}{missing.length === 1 ? 'One question is' : `${missing.length} questions are`} not in the bank as {missing.length ===
				1
					? 'it is'
					: 'they are'} here.
				<button
					type="button"
					class="font-semibold underline"
					disabled={bank.busy || !isKept}
					onclick={() => bank.keep(missing)}
					data-testid="keep-in-bank">Keep {missing.length === 1 ? 'it' : 'them'} there</button
				>{/if}
			{bank.trouble ?? bank.done ?? ''}
		</p>
		<details class="mt-5 text-[14px]" bind:open={isBalanced}>
			<summary class="font-semibold" data-testid="balance-open">Balance</summary>
			{#if isBalanced}<Balance {paper} />{/if}
		</details>
		<details class="mt-3 text-[14px]">
			<summary class="font-semibold">Export</summary>
			<p class="mt-1.5 opacity-90">
				A QTI package, for other systems or another house: 3.0 has everything, 2.1 leaves other languages out. CSV is
				for a spreadsheet.
			</p>
			<p class="mt-2 flex gap-3">
				{#each ['3.0', '2.1'] as version (version)}<a
						class="font-semibold underline"
						download
						href="/papers/{id}/package?version={version}">QTI {version}</a
					>{/each}<a class="font-semibold underline" download href="/papers/{id}/questions.csv">CSV</a>
			</p>
		</details>
		<details class="mt-3 text-[14px]">
			<summary class="font-semibold">Print</summary>
			<p class="mt-1.5 opacity-90">
				For when nothing else works. {paper.forms
					? `Prints 1 to ${paper.forms.length} are its forms in the paper’s order, higher ones the same forms, mixed.`
					: 'Form 1 is in the paper’s order, the others are mixed.'}
			</p>
			<p class="mt-2 flex flex-wrap items-center gap-3">
				<label class="flex items-center gap-2"
					>{paper.forms ? 'Print' : 'Form'}
					<input
						class="text-ink bg-sheet w-16 rounded-lg border px-2 py-1"
						type="number"
						min="1"
						max="9999"
						bind:value={form}
					/></label
				>
				{#each PRINTS as [what, name] (what)}<a
						class="font-semibold underline"
						target="_blank"
						href="/papers/{id}/print/{what}?form={form ?? 1}">{name}</a
					>{/each}
			</p>
		</details>
	{/if}
</aside>
