<!-- @component What of a paper is about all of it: title, script, formula sheet. -->
<script lang="ts">
	import { Input, Textarea } from 'flowbite-svelte';
	import type { Paper, PaperAbout } from '$core/paper';
	import Ask from '$ui/Ask.svelte';

	type Props = { open: boolean; paper: Paper; onchange: (change: Partial<PaperAbout>) => void };
	let { open = $bindable(), paper, onchange }: Props = $props();
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
