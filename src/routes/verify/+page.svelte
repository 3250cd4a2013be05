<script lang="ts">
	import { onMount } from 'svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import type { ReceiptVerdict } from '$core/closing';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import { typedIn } from '$ui/typed';

	let isReady = $state(false);
	onMount(() => (isReady = true));
	let busy = $state(false);
	let trouble = $state('');
	let verdict = $state.raw<ReceiptVerdict | null>(null);

	const COMPARED = {
		same: 'What is kept here now is, to the letter, what was handed in then.',
		went_on:
			'Since then the work was reopened, or answers that had been kept aside were let count. The logbook says by whom and why.',
		changed:
			'What is kept here now is not what was handed in then, and nothing in the logbook explains it. Tell the people who run this server.',
		not_kept: 'It was handed in before answers were bound to receipts: what is kept can’t be compared with it.',
		deleted:
			'The answers themselves have been deleted since, as their time had come. What was handed in is in the sealed archive of that administration.'
	};

	async function verify(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		verdict = null;
		const answer = await send<ReceiptVerdict>('POST', '/verify', { text: typedIn(event, 'text') });
		busy = false;
		trouble = answer.ok ? '' : inWords(answer.problem);
		if (answer.ok) verdict = answer.data;
	}
	const when = (iso: string) => `${iso.slice(0, 10)}, ${iso.slice(11, 16)} UTC`;
</script>

<svelte:head><title>Verify a receipt · Otium</title></svelte:head>
<main class="mx-auto max-w-2xl px-5 py-10">
	<h1 class="text-[30px] leading-tight">Verify a receipt</h1>
	<p class="text-ink-2 mt-2">
		Candidates can keep a signed receipt of their hand-in. Paste it here, or the whole file that it came in, to see what
		it proves.
	</p>
	<form class="mt-5 space-y-4" onsubmit={verify}>
		<label class="block">
			<span class="mb-1 block font-semibold">The receipt</span>
			<Textarea name="text" rows={7} maxlength={8000} required class="w-full font-mono text-[14px]" />
		</label>
		<Act tone="main" type="submit" {busy} disabled={!isReady}>Verify</Act>
	</form>
	<div class="mt-6" role="status" aria-live="polite">
		{#if trouble}<p class="bg-brick-ground text-brick rounded-xl px-4 py-3">{trouble}</p>{/if}
		{#if verdict && !verdict.isOurs}
			<p class="bg-brick-ground text-brick rounded-xl px-4 py-3">
				This is not a receipt of this house, or not a whole one. It is the long line of letters, digits and two dots at
				the end of the file, and takes all of it.
			</p>
		{:else if verdict?.isOurs}
			{@const { receipt, number, paper, version, at, answers, now } = verdict}
			<section class="bg-sheet border-line space-y-3 rounded-2xl border p-5" aria-label="What it proves">
				<p class="text-[17px] font-semibold">This receipt was given by this house.</p>
				<dl class="grid grid-cols-[110px_1fr] gap-y-1.5">
					<dt class="text-ink-3">Receipt</dt>
					<dd class="font-mono">{receipt}</dd>
					<dt class="text-ink-3">Candidate</dt>
					<dd class="font-mono">{number}</dd>
					<dt class="text-ink-3">Paper</dt>
					<dd>{paper}, version {version}</dd>
					<dt class="text-ink-3">Handed in</dt>
					<dd>{when(at)}</dd>
					{#if answers !== null}<dt class="text-ink-3">Answers</dt>
						<dd>{answers}</dd>{/if}
				</dl>
				<p
					class="rounded-xl px-4 py-3 {now === 'changed' ? 'bg-brick-ground text-brick' : 'bg-mist'}"
					data-testid="compared"
				>
					{COMPARED[now]}
				</p>
			</section>
		{/if}
	</div>
</main>
