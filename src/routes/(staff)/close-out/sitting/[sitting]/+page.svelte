<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { plainText } from '$core/paper';
	import { shownPoints } from '$core/results';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	let trouble = $state<{ at: string; words: string } | null>(null);
	let busy = $state(false);

	async function scan(question: string, files: FileList | null) {
		const file = files?.[0];
		if (!file || busy) return;
		busy = true;
		const query = new URLSearchParams({ question, name: file.name });
		const answer = await send('PUT', `${page.url.pathname}/scan?${query}`, file);
		busy = false;
		trouble = answer.ok ? null : { at: question, words: inWords(answer.problem) };
		await invalidateAll();
	}
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
				{#if question.takesFiles && data.mayScan}
					<label class="text-tide mt-1 inline-block cursor-pointer text-[14px] font-semibold underline"
						>Add a scan of their paper<input
							type="file"
							class="sr-only"
							accept="image/jpeg,image/png,image/webp,application/pdf"
							disabled={busy}
							data-testid="scan-{i + 1}"
							onchange={(event) => scan(question.id, event.currentTarget.files)}
						/></label
					>
					{#if trouble?.at === question.id}<p role="alert" class="text-brick text-[14px]">{trouble.words}</p>{/if}
				{/if}
			</li>
		{/each}
	</ol>
</main>
