<!-- @component Every question of a paper, part by part: where one is, what is blank and what is marked. -->
<script lang="ts">
	import type { Paper } from '$player/paper.svelte';
	import Press from './Press.svelte';
	import QuestionNumber from './QuestionNumber.svelte';

	type Props = {
		paper: Paper;
		mayJump: (index: number) => boolean;
		onjump: (index: number) => void;
		onclose: () => void;
		/** Handing in from here, where the page has no button for it; null: it has. */
		onhandin: (() => void) | null;
	};
	let { paper, mayJump, onjump, onclose, onhandin }: Props = $props();

	let dialog: HTMLDialogElement;
	$effect(() => {
		dialog.showModal();
		dialog.querySelector<HTMLElement>('[aria-current]')?.focus();
	});
	/** Places by part, in order; what has not come yet has no part that is known. */
	const parts = $derived.by(() => {
		const all: { title: string; places: number[] }[] = [];
		paper.order.forEach((_, place) => {
			const title = paper.questionAt(place)?.part ?? 'Not reached yet';
			if (all.at(-1)?.title === title) all.at(-1)!.places.push(place);
			else all.push({ title, places: [place] });
		});
		return all;
	});
</script>

<dialog
	bind:this={dialog}
	{onclose}
	onclick={(event) => event.target === dialog && dialog.close()}
	class="bg-sheet text-ink border-line m-auto max-h-[84dvh] w-[min(680px,94vw)] overflow-auto rounded-2xl border p-6 backdrop:bg-black/40 max-sm:mb-2"
	aria-labelledby="map-title"
	data-testid="map"
>
	<div class="flex flex-wrap items-baseline gap-x-4">
		<h2 id="map-title" class="text-[22px]">All questions</h2>
		<p class="text-ink-2 text-[15px]">{paper.blanks.length} blank · {paper.marked.length} marked</p>
		<button type="button" class="ml-auto text-[15px] font-semibold underline" onclick={() => dialog.close()}
			>Close</button
		>
	</div>
	{#each parts as { title, places } (places[0])}
		<h3 class="mt-4 text-[16px]">{title}</h3>
		<p class="mt-1.5 flex flex-wrap gap-1.5">
			{#each places as place (place)}
				<QuestionNumber
					{paper}
					{place}
					{mayJump}
					onjump={() => {
						dialog.close();
						onjump(place);
					}}
					class="h-11 w-11 rounded-lg text-[15px] disabled:opacity-50"
				/>
			{/each}
		</p>
	{/each}
	{#if onhandin}<p class="mt-5 sm:hidden">
			<Press
				onclick={() => {
					dialog.close();
					onhandin();
				}}>Hand in</Press
			>
		</p>{/if}
</dialog>
