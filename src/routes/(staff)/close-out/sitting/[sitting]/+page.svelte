<script lang="ts">
	import { plainText } from '$core/paper';
	import { shownPoints } from '$core/results';

	let { data } = $props();
	const VERDICTS = {
		right: 'right',
		partly: 'partly right',
		wrong: 'wrong',
		blank: 'blank',
		to_mark: 'not marked yet'
	};
	const TREATED = { for_all: 'counts for all', left_out: 'left out' };
</script>

<svelte:head><title>{data.name}’s paper · Otium</title></svelte:head>
<main class="mx-auto max-w-4xl px-6 py-5">
	<p class="text-[14px]">
		<a class="text-tide underline" href="/close-out/questions?paper={data.paperId}">How questions did</a>
	</p>
	<h1 class="text-[26px]">{data.name} <span class="text-ink-2 font-mono text-[18px]">{data.number}</span></h1>
	<p class="text-ink-2 mb-4">{data.session} · {shownPoints(data.points)} of {shownPoints(data.outOf)} points</p>
	<ol class="space-y-3">
		{#each data.questions as question, i (question.id)}
			<li id="q{i + 1}" class="bg-sheet border-line target:border-tide rounded-2xl border px-5 py-3 target:border-2">
				<p class="flex flex-wrap items-baseline gap-3">
					<strong>{i + 1}</strong>
					<span
						class={question.verdict === 'right'
							? 'text-tide font-semibold'
							: question.verdict === 'wrong'
								? 'text-brick font-semibold'
								: 'text-ink-2'}
						>{VERDICTS[question.verdict]}{question.treated ? `, ${TREATED[question.treated]}` : ''}</span
					>
					<span class="text-ink-2 font-mono text-[14px]"
						>{shownPoints(question.points)} of {shownPoints(question.outOf)}</span
					>
					<a
						class="text-tide ml-auto text-[14px] underline"
						href="/close-out/questions?{new URLSearchParams({ paper: data.paperId, question: question.id })}"
						>How it did</a
					>
				</p>
				<p class="mt-1 font-serif text-[16.5px]">{plainText(question.stem)}</p>
				<p class="mt-1">
					{#if question.given}<span class="text-ink-2 text-[13.5px]">Answer:</span> {question.given}{:else}<span
							class="text-ink-2">No answer.</span
						>{/if}
				</p>
			</li>
		{/each}
	</ol>
</main>
