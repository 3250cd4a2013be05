<!-- @component The papers that a question stands in, how it did there, and its revisions. -->
<script lang="ts">
	import type { BankQuestion } from '$core/bank';
	import { isSame, plainText, type Question } from '$core/paper';
	import { longDate } from '$core/time';

	type Props = {
		known: BankQuestion;
		/** As it is being written. */
		question: Question | null;
		zone: string;
		onback(before: Question): void;
	};
	let { known, question, zone, onback }: Props = $props();
	const when = (at: number) => longDate(at, zone);
</script>

<section>
	<h3 class="text-[16px]">Papers</h3>
	<ul class="text-ink-2 mt-1 text-[14px]" data-testid="papers-with">
		{#each known.papers as paper (`${paper.title} ${paper.version}`)}
			<li>
				{paper.title}, version {paper.version}: {paper.lastOpened === null
					? 'not sat yet'
					: `sat in ${paper.sessions} ${paper.sessions === 1 ? 'session' : 'sessions'}, last ${when(paper.lastOpened)}`}
			</li>
		{:else}<li>In no frozen paper.</li>{/each}
	</ul>
	{#if known.did.length > 0}
		<h3 class="mt-3 text-[16px]">How it did</h3>
		<ul class="text-ink-2 mt-1 text-[14px]" data-testid="how-it-did">
			{#each known.did as one (`${one.paper} ${one.administration}`)}
				<li>
					{one.paper}, {one.administration}: {one.facility === null ? '–' : `${Math.round(one.facility * 100)} %`} of the
					points, {one.seen}
					people{one.discrimination === null ? '' : `, ${one.discrimination.toFixed(2)} with the rest`}{one.medianMs ===
					null
						? ''
						: `, ${Math.round(one.medianMs / 1000)} s`}
				</li>
			{/each}
		</ul>
	{/if}
</section>
{#if known.revisions.length > 1}
	<details>
		<summary class="text-[16px] font-semibold">Revisions ({known.revisions.length})</summary>
		<ol class="mt-1 space-y-2 text-[14px]" data-testid="revisions">
			{#each known.revisions as one (one.revision)}
				<li class="border-line rounded-lg border px-3 py-2">
					<span class="text-ink-3 text-[13px]">{one.revision} · {when(one.at)}{one.by ? `, ${one.by}` : ''}</span>
					<span class="block font-serif">{plainText(one.question.stem)}</span>
					{#if known.mayChange && !isSame(one.question, question)}<button
							type="button"
							class="text-tide text-[13px] underline"
							onclick={() => onback(one.question)}>Go back to this</button
						>{/if}
				</li>
			{/each}
		</ol>
	</details>
{/if}
