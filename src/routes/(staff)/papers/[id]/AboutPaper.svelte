<!-- @component What of a paper is about all of it: title, script, formula sheet. -->
<script lang="ts">
	import NumberField from '$ui/NumberField.svelte';
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import type { Paper, PaperAbout, PaperCard, PracticeRules } from '$core/paper';
	import Ask from '$ui/Ask.svelte';
	import MaterialEdit from './MaterialEdit.svelte';

	type Props = { open: boolean; paper: Paper; onchange: (change: Partial<PaperAbout>) => void };
	let { open = $bindable(), paper, onchange }: Props = $props();

	const LINES = [
		['subject', 'Subject'],
		['level', 'Level'],
		['programme', 'Programme'],
		['year', 'Year']
	] as const;
	function card(change: PaperCard) {
		const filled = Object.entries({ ...paper.card, ...change }).filter(([, text]) => text);
		onchange({ card: filled.length > 0 ? Object.fromEntries(filled) : undefined });
	}
</script>

<Ask bind:open title="About this paper" verb="Done" onconfirm={() => (open = false)}>
	<div class="space-y-3">
		<label class="block text-[14px]"
			>Title
			<Input
				class="mt-1"
				value={paper.title}
				maxlength={200}
				onchange={(event) => {
					const title = event.currentTarget.value.trim();
					if (title) onchange({ title });
				}}
			/></label
		>
		<div class="grid grid-cols-2 gap-3">
			{#each LINES as [field, label] (field)}
				<label class="block text-[14px]"
					>{label}
					<Input
						class="mt-1"
						value={paper.card?.[field] ?? ''}
						maxlength={120}
						onchange={(event) => card({ [field]: event.currentTarget.value.trim() })}
					/></label
				>
			{/each}
		</div>
		<label class="block text-[14px]"
			>Description, for authors and coordinators
			<Textarea
				class="mt-1 w-full"
				rows={2}
				maxlength={2000}
				value={paper.card?.description ?? ''}
				onchange={(event) => card({ description: event.currentTarget.value.trim() })}
			/></label
		>
		<label class="block text-[14px]"
			>Instructions: what candidates read before they begin
			<Textarea
				class="mt-1 w-full"
				rows={3}
				maxlength={10_000}
				value={paper.instructions ?? ''}
				onchange={(event) => onchange({ instructions: event.currentTarget.value.trim() || undefined })}
			/></label
		>
		<div class="border-line rounded-xl border p-3">
			<Checkbox
				checked={paper.practice !== undefined}
				onchange={() => onchange({ practice: paper.practice ? undefined : { tries: 2, costPercent: 50 } })}
				>For practice: anyone may try it at any time, and is told what is right</Checkbox
			>
			{#if paper.practice}
				{@const practice = paper.practice}
				<div class="mt-2 flex flex-wrap items-center gap-3 text-[14px]">
					<label class="flex items-center gap-2"
						>tries for each question
						<NumberField
							size="sm"
							class="w-16"
							value={practice.tries}
							least={1}
							most={10}
							onchange={(tries) => typeof tries === 'number' && onchange({ practice: { ...practice, tries } })}
						/></label
					>
					<label class="flex items-center gap-2"
						>a wrong try costs, in % of the points
						<NumberField
							size="sm"
							class="w-16"
							value={practice.costPercent}
							most={100}
							onchange={(costPercent) =>
								typeof costPercent === 'number' && onchange({ practice: { ...practice, costPercent } })}
						/></label
					>
					<label class="flex items-center gap-2"
						>hints
						<select
							class="bg-sheet border-line-strong rounded-lg border py-1.5 pr-8 pl-2 text-[14px]"
							value={practice.hints ?? 'asked'}
							onchange={(event) =>
								onchange({ practice: { ...practice, hints: event.currentTarget.value as PracticeRules['hints'] } })}
						>
							<option value="asked">for the asking</option>
							<option value="after_wrong">once a try was wrong</option>
							<option value="never">none</option>
						</select></label
					>
				</div>
				<p class="text-ink-3 mt-1 text-[13px]">
					Once it is frozen it is listed at /sit/practice. It can be rehearsed with, and not be sat for real.
				</p>
			{/if}
		</div>
		<label class="block text-[14px]"
			>Script: what the proctor reads aloud before the start
			<Textarea
				class="mt-1 w-full"
				rows={5}
				maxlength={10_000}
				value={paper.script ?? ''}
				placeholder="A general text is read where this is empty."
				onchange={(event) => onchange({ script: event.currentTarget.value.trim() || undefined })}
			/></label
		>
		<MaterialEdit material={paper.material ?? []} onchange={(material) => onchange({ material })} />
		<label class="block text-[14px]"
			>Formula sheet, one formula on each line
			<Textarea
				class="mt-1 w-full font-mono"
				rows={4}
				value={(paper.formulaSheet ?? []).join('\n')}
				onchange={(event) => {
					const lines = event.currentTarget.value
						.split('\n')
						.map((line) => line.trim())
						.filter(Boolean);
					onchange({ formulaSheet: lines.length > 0 ? lines : undefined });
				}}
			/></label
		>
	</div>
</Ask>
