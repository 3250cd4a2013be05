<!-- @component One question in the list of the bank. -->
<script lang="ts">
	import { plainText, QUESTION_KIND_NAMES } from '$core/paper';
	import { longDate } from '$core/time';
	import DifficultyMark from '../question/DifficultyMark.svelte';
	import type { Bank } from './bank.svelte';

	let { line, zone, onopen }: { line: NonNullable<ReturnType<Bank['line']>>; zone: string; onopen(): void } = $props();
</script>

<button type="button" data-row class="min-w-0 flex-1 text-left" onclick={onopen}>
	<span class="line-clamp-2 font-serif text-[15.5px] leading-snug break-words"
		>{plainText(line.stem) || 'No question text yet'}</span
	>
	<span class="text-ink-3 mt-0.5 block truncate text-[13px]"
		>{QUESTION_KIND_NAMES[line.kind]} · {line.topic || 'no topic'} · {line.papers === 0
			? 'in no paper'
			: `in ${line.papers} ${line.papers === 1 ? 'version' : 'versions'}`}{line.lastUsed === null
			? ''
			: `, sat ${longDate(line.lastUsed, zone)}`}</span
	>
</button>
<span class="flex flex-col items-end gap-1 text-[13px] whitespace-nowrap">
	<span class="text-ink-2">{line.points} {line.points === 1 ? 'point' : 'points'}</span>
	{#if line.difficulty}<DifficultyMark difficulty={line.difficulty} />{/if}
	{#if line.openRemarks > 0}<span class="text-ochre font-semibold"
			>{line.openRemarks} {line.openRemarks === 1 ? 'remark' : 'remarks'}</span
		>{/if}
</span>
