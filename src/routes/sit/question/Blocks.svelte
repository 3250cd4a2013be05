<!-- @component A text of several lines, with lists and tables. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Block } from '$core/paper';
	import Pieces from './Pieces.svelte';

	let { blocks, gap }: { blocks: Block[]; gap?: Snippet<[string]> } = $props();
</script>

{#snippet item(pieces: Extract<Block, { kind: 'line' }>['inline'])}<li><Pieces {pieces} {gap} /></li>{/snippet}

{#each blocks as block, i (i)}
	{#if block.kind === 'line'}
		<span class="block min-h-[0.7em]"><Pieces pieces={block.inline} {gap} /></span>
	{:else if block.kind === 'list' && block.isOrdered}
		<ol class="my-1 list-decimal pl-7">
			{#each block.items as pieces, n (n)}{@render item(pieces)}{/each}
		</ol>
	{:else if block.kind === 'list'}
		<ul class="my-1 list-disc pl-7">
			{#each block.items as pieces, n (n)}{@render item(pieces)}{/each}
		</ul>
	{:else}
		{@const [head, ...rows] = block.rows}
		<div class="my-2 overflow-x-auto">
			<table class="border-line-strong border-collapse text-[0.86em]">
				<thead>
					<tr>
						{#each head as cell, n (n)}<th
								scope="col"
								class="border-line-strong bg-mist border px-3 py-1 text-left font-semibold"
								><Pieces pieces={cell} {gap} /></th
							>{/each}
					</tr>
				</thead>
				<tbody>
					{#each rows as cells, row (row)}<tr>
							{#each cells as cell, n (n)}<td class="border-line-strong border px-3 py-1"
									><Pieces pieces={cell} {gap} /></td
								>{/each}
						</tr>{/each}
				</tbody>
			</table>
		</div>
	{/if}
{/each}
