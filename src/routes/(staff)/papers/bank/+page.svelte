<!-- @component The bank of questions: found, opened, written and kept. -->
<script lang="ts">
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { onMount, untrack } from 'svelte';
	import { beforeNavigate, goto, invalidateAll } from '$app/navigation';
	import {
		newQuestion,
		QUESTION_KIND_NAMES,
		QUESTION_KINDS,
		type Question,
		type QuestionKind,
		plainText
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { saveFile } from '$ui/download';
	import Ask from '$ui/Ask.svelte';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import { newId } from '../question/new-id';
	import { Bank } from './bank.svelte';
	import BankFilters from './BankFilters.svelte';
	import BankRow from './BankRow.svelte';
	import Bulk from './Bulk.svelte';
	import FromFile from './FromFile.svelte';
	import OneQuestion from './OneQuestion.svelte';

	let { data } = $props();
	const bank = new Bank();
	onMount(() => bank.look(0));

	/** Which question is open; one with content is new and not kept yet. */
	type Opened = { id: string; isNew: Question | null };
	let open = $state.raw<Opened | null>(null);
	let one = $state<{ isUnsaved(): boolean } | null>(null);
	/** What is opened once what is not saved has been given up; `to` null: nothing. */
	let leaving = $state.raw<{ to: Opened | null; url?: URL; isGivenUp?: true } | null>(null);
	let isLeaving = $state(false);
	function show(to: Opened | null) {
		if (to?.id === open?.id && to !== null) return;
		if (one?.isUnsaved()) [leaving, isLeaving] = [{ to }, true];
		else open = to;
	}
	beforeNavigate((navigation) => {
		if (!one?.isUnsaved() || leaving?.isGivenUp) return;
		navigation.cancel();
		[leaving, isLeaving] = [{ to: null, url: navigation.to?.url }, true];
	});
	let kind = $state<QuestionKind>('single');
	let isTaking = $state(false);
	let isExporting = $state(false);
	/** What the list shows as one file, for another house. */
	async function exportAll() {
		if (isExporting) return;
		isExporting = true;
		bank.trouble = await saveFile(`/papers/bank/package?${new URLSearchParams(bank.ask)}`, 'Questions QTI 3.0.zip');
		isExporting = false;
	}
	const ownSites = $derived([
		...(data.mySites === null ? [{ value: '', name: 'All sites' }] : []),
		...data.sites
			.filter(({ id }) => data.mySites === null || data.mySites.includes(id))
			.map(({ id, name }) => ({ value: id, name }))
	]);
	let scroller = $state<HTMLElement | null>(null);

	const ROW_PX = 76;
	const virtual = createVirtualizer<HTMLElement, HTMLElement>({
		count: 0,
		getScrollElement: () => scroller,
		estimateSize: () => ROW_PX,
		overscan: 10
	});
	$effect(() => {
		const count = bank.total ?? 0;
		const element = scroller;
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => element }));
	});
	const items = $derived($virtual.getVirtualItems());
	$effect(() => {
		if (items.length > 0) bank.want(items[0].index, items.at(-1)!.index);
	});

	function ask(change: Partial<Bank['ask']>) {
		Object.assign(bank.ask, change);
		bank.selected.clear();
		bank.look();
		scroller?.scrollTo({ top: 0 });
	}
	function write() {
		const question = { ...newQuestion(kind, newId), topic: bank.ask.topic };
		show({ id: question.id, isNew: question });
	}
	async function changed() {
		bank.look(0);
		await invalidateAll();
	}
	function step(by: 1 | -1) {
		const rows = [...(scroller?.querySelectorAll<HTMLElement>('[data-row]') ?? [])];
		const at = rows.findIndex((row) => row === document.activeElement);
		rows[at + by]?.focus();
	}
	const keys = {
		n: () => write(),
		'/': () => document.getElementById('bank-text')?.focus(),
		ArrowDown: () => step(1),
		ArrowUp: () => step(-1)
	};
</script>

<Shortcuts {keys} />
<svelte:head><title>Questions · Otium</title></svelte:head>

<div class="grid h-full min-h-0 grid-cols-[236px_minmax(0,1fr)_400px] max-lg:block max-lg:h-auto">
	<aside class="border-line min-h-0 space-y-3 overflow-auto border-r px-3.5 py-4 max-lg:border-r-0">
		<h1 class="text-[22px]">Questions</h1>
		<BankFilters
			ask={bank.ask}
			topics={data.topics}
			total={bank.total}
			{isExporting}
			onask={ask}
			ontake={() => (isTaking = true)}
			onexport={exportAll}
		/>
	</aside>

	<main class="flex min-h-0 min-w-0 flex-col px-5 py-4">
		<div class="mb-3 flex min-h-10 flex-wrap items-center gap-3">
			<p class="text-ink-2 text-[14px]" role="status" data-testid="found">
				{bank.total === null ? 'Looking…' : `${bank.total} ${bank.total === 1 ? 'question' : 'questions'}`}
			</p>
			{#if bank.selected.size > 0}<Bulk {bank} topics={data.topics} onchanged={changed} />{/if}
			<span class="ml-auto flex items-center gap-2">
				<select
					class="bg-sheet border-line-strong rounded-lg border py-2 pr-8 pl-2 text-[14px]"
					aria-label="Kind of the new question"
					bind:value={kind}
				>
					{#each QUESTION_KINDS as one (one)}<option value={one}>{QUESTION_KIND_NAMES[one]}</option>{/each}
				</select>
				<Act tone="main" key="N" onclick={write} testid="new-question">New question</Act>
			</span>
		</div>
		{#if bank.trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">
				{bank.trouble}
			</p>{/if}
		<div
			class="bg-sheet border-line min-h-0 flex-1 overflow-auto rounded-xl border max-lg:max-h-[70vh]"
			bind:this={scroller}
		>
			{#if bank.total === 0}
				<p class="text-ink-2 p-4">
					{bank.isFiltered
						? 'No question has all of this. Take something out of the search.'
						: 'The bank has no question yet. Press N to write one; what is frozen in a paper comes here as well.'}
				</p>
			{/if}
			<ul style="height:{$virtual.getTotalSize()}px" class="relative" data-testid="bank">
				{#each items as item (item.key)}
					{@const line = bank.line(item.index)}
					<li
						class="border-line absolute inset-x-0 flex items-start gap-3 border-b px-3 py-2 {line &&
						open?.id === line.id
							? 'bg-mist'
							: ''}"
						style="top:{item.start}px;height:{ROW_PX}px"
					>
						{#if line}
							<input
								type="checkbox"
								class="border-line-strong text-tide mt-1.5 h-4 w-4 rounded"
								aria-label="Select: {plainText(line.stem)}"
								checked={bank.selected.has(line.id)}
								onchange={() =>
									bank.selected.has(line.id) ? bank.selected.delete(line.id) : bank.selected.add(line.id)}
							/>
							<BankRow {line} zone={data.site.zone} onopen={() => show({ id: line.id, isNew: null })} />
						{:else}<span class="text-ink-3 text-[14px]">…</span>{/if}
					</li>
				{/each}
			</ul>
		</div>
	</main>

	<aside class="border-line min-h-0 overflow-auto border-l px-4 py-4 max-lg:border-l-0" aria-label="One question">
		{#if open}
			{#key open.id}
				<OneQuestion
					bind:this={one}
					id={open.id}
					isNew={open.isNew}
					sites={data.sites}
					mySites={data.mySites}
					colleagues={data.colleagues}
					drafts={data.drafts}
					topics={data.topics.map(({ path }) => path)}
					zone={data.site.zone}
					onchanged={changed}
					onopen={(id) => show({ id, isNew: null })}
					onclose={() => show(null)}
				/>
			{/key}
		{:else}
			<p class="text-ink-2 text-[15px]">
				Choose a question to see its answer, its revisions, its papers and what colleagues remark.
			</p>
		{/if}
	</aside>
</div>

<Ask
	bind:open={isLeaving}
	title="Leave this question?"
	verb="Leave without saving"
	tone="danger"
	onconfirm={async () => {
		isLeaving = false;
		const url = leaving?.url;
		if (url) {
			leaving = { to: null, isGivenUp: true };
			await goto(url);
		} else open = leaving?.to ?? null;
	}}
>
	<p>What you have written here is not saved. Cancel to go back and save it.</p>
</Ask>
<FromFile bind:open={isTaking} sites={ownSites} onchanged={changed} />
