<!-- @component A question that two have changed at once: both are shown, and whoever came second says which one stays. -->
<script lang="ts">
	import { plainText } from '$core/paper';
	import type { Question } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import type { DraftPaper } from './draft.svelte';

	let { draft, conflict }: { draft: DraftPaper; conflict: { mine: Question; theirs: Question | null } } = $props();
</script>

<Ask
	open={true}
	title="Somebody else has changed this question as well"
	verb="Keep mine"
	onconfirm={() => draft.keepMine()}
>
	<div class="grid gap-3 sm:grid-cols-2" data-testid="conflict">
		{#each [['Theirs, kept now', conflict.theirs], ['Yours', conflict.mine]] as const as [whose, one] (whose)}
			<div class="border-line rounded-lg border px-3 py-2 text-[14px]">
				<h3 class="font-sans text-[13px] font-semibold tracking-normal">{whose}</h3>
				{#if one}<p class="font-serif text-[15.5px] whitespace-pre-line">{plainText(one.stem)}</p>
					{#if 'choices' in one}<ul class="text-ink-2">
							{#each one.choices as choice (choice.id)}<li>{choice.text}</li>{/each}
						</ul>{/if}{:else}<p class="text-ink-2">Removed.</p>{/if}
			</div>
		{/each}
	</div>
	<div class="mt-3"><Act size="xs" onclick={() => (draft.conflict = null)}>Keep theirs</Act></div>
</Ask>
