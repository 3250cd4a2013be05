<!-- @component What a grant would come to, told before it is saved. -->
<script lang="ts">
	import { counted } from '$core/names';
	import type { Foreseen } from '$core/grants';

	type Effect = Foreseen['effects'][number];
	/** `mine`: of the one person, or the first of several. `people`: for how many it is. */
	let { effects, mine, people }: { effects: Effect[]; mine: Effect | undefined; people: number } = $props();

	const short = $derived(effects.filter((effect) => effect.misfits.length > 0));
</script>

{#if mine}
	<div class="bg-plum-ground text-plum mt-3 rounded-xl px-4 py-3" aria-live="polite">
		<p class="font-serif text-[20px] font-semibold" data-testid="effect">{mine.after}</p>
		<p class="text-[13.5px]">now: {mine.before}</p>
		{#if people === 1}
			{#each mine.misfits as misfit, i (i)}<p class="text-brick mt-1 text-[14px]" data-testid="misfit">
					{misfit}
				</p>{/each}
			{#each mine.notes as note, i (i)}<p class="mt-1 text-[14px]">{note}</p>{/each}
		{:else}
			<p class="mt-1 text-[13.5px]">for {mine.name}; {counted(effects.length, 'sitting')} in all.</p>
			{#if new Set(effects.map((effect) => effect.after)).size > 1}
				<details class="mt-1 text-[13.5px]">
					<summary class="cursor-pointer">It comes to different times: see all</summary>
					<ul class="mt-1 max-h-40 overflow-y-auto">
						{#each effects as effect (effect.sittingId)}<li>{effect.name}: {effect.after}</li>{/each}
					</ul>
				</details>
			{/if}
			{#if short.length > 0}
				<p class="text-brick mt-1 text-[14px]">
					Does not fit for {short.length === 1 ? short[0].name : `${short.length} of them`}: {short[0].misfits[0]}
					<a class="underline" href="/grants/fit">Find windows for all</a>
				</p>
			{/if}
		{/if}
		{#if people === 1 && effects.length > 1}<p class="mt-1 text-[13.5px]">
				Applies to {effects.length} of their sittings.
			</p>{/if}
	</div>
{/if}
