<!-- @component What a paper's plan wants and what is there, by topic and difficulty; what is missing stands out. -->
<script lang="ts">
	import { questionsOf, DIFFICULTIES, type Paper } from '$core/paper';
	import { met } from '$core/plan';

	let { paper }: { paper: Paper } = $props();

	const plan = $derived(paper.plan ?? []);
	const there = $derived(met(questionsOf(paper), plan));
	const COLUMNS = [...DIFFICULTIES, null];
	const topics = $derived([...new Set(plan.map(({ topic }) => topic))]);
	const at = (topic: string, difficulty: (typeof COLUMNS)[number]) =>
		plan.findIndex((cell) => cell.topic === topic && cell.difficulty === difficulty);
</script>

<table class="w-full text-left text-[13.5px]" data-testid="wanted">
	<caption class="sr-only">Wanted, and there</caption>
	<thead>
		<tr class="opacity-80">
			<th class="py-1 font-normal">Topic</th>
			{#each COLUMNS as column (column)}<th class="py-1 text-right font-normal">{column ?? 'any'}</th>{/each}
		</tr>
	</thead>
	<tbody>
		{#each topics as topic (topic)}
			<tr>
				<th class="py-1 pr-2 font-normal break-words">{topic || 'any topic'}</th>
				{#each COLUMNS as column (column)}
					{@const i = at(topic, column)}
					<td class="py-1 text-right whitespace-nowrap">
						{#if i < 0}<span class="opacity-60">·</span>
						{:else}<span
								class={there[i] < plan[i].count ? 'bg-ochre-ground text-ochre rounded px-1.5 font-semibold' : ''}
								>{there[i]} of {plan[i].count}</span
							>{/if}
					</td>
				{/each}
			</tr>
		{/each}
	</tbody>
</table>
