<!-- @component Questions from text or a table that was made elsewhere: pasted or dropped, shown with what is doubtful, then taken over. -->
<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import {
		doubtsOf,
		guessColumns,
		QUESTION_COLUMNS,
		readRows,
		readText,
		type Question,
		type QuestionColumn,
		type ReadQuestion
	} from '$core/paper';
	import { counted } from '$core/names';
	import type { TableRow } from '$core/formats';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import ReadList from './ReadList.svelte';
	import { newId } from '../question/new-id';

	type Props = {
		id: string;
		open: boolean;
		part: string;
		ontake: (questions: ReadQuestion[], asParts: boolean) => void;
	};
	let { id, open = $bindable(), part, ontake }: Props = $props();

	const MOST = 400_000;
	const EXAMPLE = `1. Spring tides come shortly after (2 points)
a) the quarters
*b) new and full moon

2. High water is 6.4 m and low water 1.6 m. What is the range?
Answer: 4.8 m`;
	let text = $state('');
	let trouble = $state<string | null>(null);
	/** What of the file is not in the text, or was changed on its way. */
	let told = $state.raw<string[]>([]);
	let isReading = $state(false);
	type Sheet = { header: string[]; rows: TableRow[]; told: string[] };
	/** A table that was chosen, in the text's place. */
	let sheet = $state.raw<(Sheet & { name: string }) | null>(null);
	let columns = $state.raw<QuestionColumn[]>([]);
	/** What the author has put right, by the question that was read. null: it is left out. */
	let mended = $state.raw<Readonly<Record<string, Question | null>>>({});
	const keyOf = (one: ReadQuestion) => `${one.line} ${one.question.stem}`;
	const found = $derived(sheet ? readRows(sheet.rows, columns, newId) : readText(text, newId));
	const read = $derived({
		...found,
		questions: found.questions.flatMap((one): ReadQuestion[] => {
			const mine = mended[keyOf(one)];
			if (mine === null) return [];
			return [mine ? { ...one, question: mine, doubts: doubtsOf(mine, {}).map((doubt) => doubt.text) } : one];
		})
	});
	const out = $derived(found.questions.filter((one) => mended[keyOf(one)] === null));
	const doubtful = $derived(read.questions.filter(({ doubts }) => doubts.length > 0).length);
	const headings = $derived([...new Set(read.questions.flatMap((one) => one.part ?? []))]);
	let asParts = $state(true);

	function mend(one: ReadQuestion, question: Question | null | undefined) {
		const rest = Object.entries(mended).filter(([key]) => key !== keyOf(one));
		mended = Object.fromEntries(question === undefined ? rest : [...rest, [keyOf(one), question]]);
	}
	function takeAll() {
		ontake(read.questions, asParts && headings.length > 0);
		text = '';
		sheet = null;
		told = [];
		mended = {};
		open = false;
	}

	async function take(file: File | undefined) {
		if (!file) return;
		trouble = sheet = null;
		told = [];
		mended = {};
		if (/\.(xlsx|csv|tsv)$/i.test(file.name)) return readSheet(file);
		if (/\.docx$/i.test(file.name)) return readDocument(file);
		if (file.size > MOST) trouble = `${file.name} is larger than 400 kB. Paste a part of it.`;
		else if (!/\.(txt|md|text)$/i.test(file.name) && !file.type.startsWith('text/'))
			trouble = `${file.name} is no .docx, .xlsx, .csv or plain text. Copy its text, and paste it here.`;
		else text = await file.text();
	}
	async function readDocument(file: File) {
		isReading = true;
		const answer = await send<{ text: string; told: string[] }>('POST', `/papers/${id}/document`, file);
		isReading = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		text = answer.data.text;
		told = answer.data.told;
	}
	async function readSheet(file: File) {
		isReading = true;
		const answer = await send<Sheet>('POST', `/papers/${id}/sheet`, file);
		isReading = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		sheet = { ...answer.data, name: file.name };
		columns = guessColumns(sheet.header);
	}
</script>

<Modal
	aria-label="Questions from text or a table"
	bind:open
	title="Questions from text or a table"
	size="xl"
	class="bg-sheet"
>
	<div class="text-ink grid gap-5 md:grid-cols-2" data-testid="paste">
		<div
			role="group"
			aria-label="Text"
			ondragover={(event) => event.preventDefault()}
			ondrop={(event) => {
				event.preventDefault();
				void take(event.dataTransfer?.files[0]);
			}}
		>
			{#if sheet}
				<p class="text-[14.5px]" data-testid="sheet">
					<strong>{sheet.name}</strong>, {sheet.rows.length}
					{sheet.rows.length === 1 ? 'row' : 'rows'}. Say what each column holds:
				</p>
				<div class="mt-2 max-h-[44vh] overflow-auto">
					<table class="w-full text-[14px]">
						<tbody>
							{#each sheet.header as title, i (i)}
								<tr class="border-line border-b align-top">
									<td class="py-1.5 pr-2"
										><label for="column-{i}" class="font-semibold">{title || `Column ${i + 1}`}</label>
										<span class="text-ink-3 block max-w-56 truncate text-[13px]">{sheet.rows[0]?.cells[i] ?? ''}</span
										></td
									>
									<td class="py-1.5">
										<select
											id="column-{i}"
											class="bg-sheet border-line-strong w-full rounded-lg border px-2 py-1.5 text-[14px]"
											value={columns[i]}
											onchange={(event) => (columns = columns.with(i, event.currentTarget.value as QuestionColumn))}
										>
											{#each Object.entries(QUESTION_COLUMNS) as [column, name] (column)}<option value={column}
													>{name}</option
												>{/each}
										</select>
									</td>
								</tr>
							{/each}
						</tbody>
					</table>
				</div>
				{#each sheet.told as line, i (i)}<p class="text-ochre mt-1 text-[14px]">{line}</p>{/each}
				<Act size="xs" class="mt-2" onclick={() => (sheet = null)}>Back to text</Act>
			{:else}
				<label for="paste-text" class="text-ink-2 mb-1 block text-[13px] font-semibold"
					>Paste numbered questions with lettered choices, or drop a document, a table or a text file</label
				>
				<Textarea
					id="paste-text"
					rows={16}
					class="w-full font-mono text-[13.5px]"
					maxlength={MOST}
					bind:value={text}
					placeholder={EXAMPLE}
				/>
				<p class="text-ink-3 mt-1 text-[13px]">
					The right one is starred, bold (**so**), or named in a line “Answer: B” or in a list of answers at the end.
					Put a line break in or take one out here, and what is read changes at once.
				</p>
			{/if}
			<label class="text-tide mt-1 block text-[14px] font-semibold"
				>Or choose a file
				<input
					type="file"
					accept=".docx,.xlsx,.csv,.tsv,.txt,.md,text/plain"
					class="ml-2 font-normal"
					data-testid="document"
					onchange={(event) => void take(event.currentTarget.files?.[0])}
				/></label
			>
			{#if isReading}<p class="text-ink-2 text-[14px]">Reading the file…</p>{/if}
			{#if told.length > 0}<ul class="text-ochre mt-1 text-[14px]" data-testid="told">
					{#each told as line (line)}<li>{line}</li>{/each}
				</ul>{/if}
			{#if trouble}<p class="text-brick text-[14px]" role="alert">{trouble}</p>{/if}
		</div>
		<div class="max-h-[60vh] overflow-auto" aria-live="polite">
			{#if read.questions.length === 0}
				<p class="text-ink-2 text-[14.5px]">
					{sheet
						? 'No row has a question. Choose the column that holds them.'
						: text.trim() === ''
							? 'What is read is shown here before anything is added.'
							: 'No numbered question was found.'}
				</p>
			{/if}
			{#if found.keys !== undefined}<p class="text-tide mb-2 text-[14px] font-semibold">
					{counted(found.keys, 'right answer was', 'right answers were')} taken from the list of answers. The list is in no
					question.
				</p>{/if}
			<ReadList {read} {out} onmend={mend} />
		</div>
	</div>
	<div class="flex items-center gap-3">
		<Act tone="main" disabled={read.questions.length === 0} onclick={takeAll} testid="take-over"
			>Add {counted(read.questions.length, 'question')}{asParts && headings.length > 0
				? ''
				: ` to ${part || 'this part'}`}</Act
		>
		{#if headings.length > 0}<label class="flex items-center gap-1.5 text-[14px]"
				><input type="checkbox" class="border-line-strong text-tide rounded" bind:checked={asParts} />Make {headings.length ===
				1
					? 'a part'
					: 'parts'}: {headings.slice(0, 3).join(', ')}{headings.length > 3 ? ', …' : ''}</label
			>{/if}
		{#if doubtful > 0}<span class="text-ochre text-[14px] font-semibold">{doubtful} to look at afterwards</span>{/if}
		<Act class="ml-auto" onclick={() => (open = false)}>Cancel</Act>
	</div>
</Modal>
