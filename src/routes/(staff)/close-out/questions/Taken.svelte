<!-- @component Which answers were taken, by how many, and how the best and the weakest third divided. -->
<script lang="ts">
	import type { QuestionFigures } from '$core/figures';

	type Props = { taken: QuestionFigures['taken']; valueInWords(value: string): string };
	let { taken, valueInWords }: Props = $props();

	const most = $derived(Math.max(1, ...taken.map(({ taken }) => taken)));
</script>

<table class="mt-3 w-full text-[14.5px]" data-testid="taken">
	<thead
		><tr class="text-ink-2 border-line border-b text-left text-[13px]">
			<th class="w-8"><span class="sr-only">Right</span></th><th scope="col" class="py-1 font-normal">answer</th><th
				scope="col"
				class="w-52 font-normal">taken by</th
			><th scope="col" class="w-16 font-normal">upper ⅓</th><th scope="col" class="w-16 font-normal">lower ⅓</th>
		</tr></thead
	>
	<tbody>
		{#each taken as one (one.value)}
			<tr class="border-line border-b">
				<td class="text-tide">{one.isRight ? '✓' : ''}</td>
				<td class="py-1.5 {one.isRight ? 'font-semibold' : ''}">{valueInWords(one.value)}</td>
				<td
					><span class="bg-line-strong block h-2.5 w-48 overflow-hidden rounded-full"
						><span
							class="block h-full {one.isRight
								? 'bg-tide'
								: one.thirds[0] > (taken.find(({ isRight }) => isRight)?.thirds[0] ?? 0)
									? 'bg-brick'
									: 'bg-[#8cbcae]'}"
							style="width:{(one.taken / most) * 100}%"
						></span></span
					><span class="sr-only">{one.taken}</span></td
				>
				<td class="font-mono font-semibold">{one.thirds[0]}</td><td class="font-mono font-semibold">{one.thirds[2]}</td>
			</tr>
		{/each}
	</tbody>
</table>
