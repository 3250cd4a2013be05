<!-- @component A part: everybody gets all of it, or each candidate so many of it; and how alike two candidates' are then. -->
<script lang="ts">
	import { poolInWords, poolStrength, type Part } from '$core/paper';
	import Act from '$ui/Act.svelte';

	type Props = { part: Part; ondraw: (draw: number | null) => void };
	let { part, ondraw }: Props = $props();

	const of = $derived(part.questions.length);
	const strength = $derived(part.draw !== null && part.draw <= of ? poolStrength(part.draw, of) : null);
	const highest = $derived(Math.max(...(strength?.exactly ?? [1])));
	const nameOf = (shared: number, take: number) => (shared === 0 ? 'none' : shared === take ? 'all' : String(shared));
	/** More bars than these are no picture any more. */
	const MOST_BARS = 16;
</script>

{#if part.draw === null}
	<p class="text-ink-2 mb-2 text-[14px]">
		Everybody gets all of this part.
		{#if of > 1}<Act size="xs" class="ml-1" onclick={() => ondraw(Math.max(1, Math.floor(of / 2)))} testid="make-pool"
				>Make it a pool</Act
			>{/if}
	</p>
{:else}
	<div class="border-plum bg-plum-ground/40 mb-3 rounded-xl border border-dashed px-4 py-3" data-testid="pool">
		<p class="text-plum flex flex-wrap items-center gap-2 font-semibold">
			<label for="draw-{part.title}">A pool: each candidate is dealt</label>
			<input
				id="draw-{part.title}"
				type="text"
				class="bg-sheet border-line-strong text-ink w-14 rounded-lg border px-2 py-1 text-center"
				value={String(part.draw)}
				inputmode="numeric"
				onchange={(event) => {
					const draw = Number(event.currentTarget.value);
					if (Number.isInteger(draw) && draw >= 0 && draw <= 500) ondraw(draw);
					else event.currentTarget.value = String(part.draw);
				}}
			/>
			of {of}
			<Act size="xs" class="ml-auto" onclick={() => ondraw(null)}>No pool: all of them</Act>
		</p>
		{#if strength}
			<div class="mt-2 flex items-end gap-4 max-sm:flex-wrap">
				{#if strength.exactly.length <= MOST_BARS}
					<ol class="flex items-end gap-1" aria-hidden="true">
						{#each strength.exactly as chance, shared (shared)}
							<li class="text-center">
								<span
									class="bg-plum block w-7 rounded-t"
									style="height: {Math.max(1, Math.round((44 * chance) / highest))}px"
								></span>
								<span class="text-ink-2 block text-[11px]">{nameOf(shared, strength.take)}</span>
							</li>
						{/each}
					</ol>
				{/if}
				<p class="text-ink text-[14px]">{poolInWords(strength)}</p>
			</div>
		{/if}
	</div>
{/if}
