<!-- @component A part: everybody gets all of it, or each candidate so many of it; and how alike two candidates' are then. -->
<script lang="ts">
	import {
		chanceOfAtLeast,
		DIFFICULTIES,
		poolInWords,
		poolsOf,
		poolStrength,
		sharedOverAll,
		sumOfStrata,
		unitsOf,
		type Difficulty,
		type Part,
		type PartAbout,
		type PoolStrength
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import NumberField from '$ui/NumberField.svelte';

	type Props = { part: Part; onchange: (change: Partial<PartAbout>) => void };
	let { part, onchange }: Props = $props();
	const ondraw = (draw: number | null) => onchange({ draw, strata: undefined });
	const units = $derived(unitsOf(part.questions));
	const counts = $derived(
		DIFFICULTIES.map((difficulty) => units.filter(([first]) => first.difficulty === difficulty).length)
	);
	function set(difficulty: Difficulty, count: number) {
		const strata = { ...part.strata, [difficulty]: count };
		onchange({ strata, draw: sumOfStrata(strata) });
	}
	/** Each difficulty gives about as large a share as it has. */
	function byDifficulty() {
		const draw = part.draw ?? 0;
		const known = counts.reduce((sum, count) => sum + count, 0);
		const strata = Object.fromEntries(
			DIFFICULTIES.flatMap((difficulty, i) =>
				counts[i] > 0 ? [[difficulty, Math.max(1, Math.round((draw * counts[i]) / Math.max(1, known)))]] : []
			)
		);
		onchange({ strata, draw: sumOfStrata(strata) });
	}

	const of = $derived(units.length);
	const strength = $derived.by((): PoolStrength | null => {
		const pools = poolsOf(part);
		if (part.draw === null || pools.some(({ draw, units }) => draw > units.length)) return null;
		const each = pools.map(({ draw, units }) => poolStrength(draw, units.length));
		const mean = each.reduce((sum, one) => sum + one.mean, 0);
		return { take: part.draw, of: each.reduce((sum, one) => sum + one.of, 0), mean, exactly: sharedOverAll(each) };
	});
	const highest = $derived(Math.max(...(strength?.exactly ?? [1])));
	const percent = (chance: number) => (chance < 0.01 ? 'less than 1 %' : `${Math.round(100 * chance)} %`);
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
			<NumberField
				id="draw-{part.title}"
				size="sm"
				class="w-14"
				value={part.draw}
				most={500}
				disabled={part.strata !== undefined}
				onchange={(draw) => typeof draw === 'number' && ondraw(draw)}
			/>
			of {of}
			<span class="ml-auto flex gap-2">
				{#if part.strata}<Act size="xs" onclick={() => ondraw(part.draw)}>Whatever difficulty</Act>
				{:else if counts.some((count) => count > 0)}<Act size="xs" onclick={byDifficulty} testid="by-difficulty"
						>By difficulty</Act
					>{/if}
				<Act size="xs" onclick={() => ondraw(null)}>No pool: all of them</Act>
			</span>
		</p>
		{#if part.strata}
			<p class="mt-2 flex flex-wrap gap-4 text-[14px]" data-testid="strata">
				{#each DIFFICULTIES as difficulty, i (difficulty)}
					<label class="flex items-center gap-1.5"
						><NumberField
							size="sm"
							class="w-14"
							value={part.strata[difficulty] ?? 0}
							most={500}
							onchange={(count) => typeof count === 'number' && set(difficulty, count)}
						/>
						of {counts[i]}
						{difficulty}</label
					>
				{/each}
			</p>
		{/if}
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
				<p class="text-ink text-[14px]">
					{#if part.strata}Two neighbours share {Number(strength.mean.toFixed(2))} on average, all difficulties together{strength.take >
							1 && strength.mean > 0
							? `, and more than half of them in ${percent(chanceOfAtLeast(strength, Math.floor(strength.take / 2) + 1))} of pairs`
							: ''}.{:else}{poolInWords(strength)}{/if}
				</p>
			</div>
		{/if}
	</div>
{/if}
