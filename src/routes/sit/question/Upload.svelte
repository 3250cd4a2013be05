<!-- @component Photos or PDFs of working, from this device or from a phone by a code on the screen. -->
<script lang="ts">
	import type { FormQuestion } from '$core/paper';
	import { inWords } from '$ui/post';
	import { ask } from '$player/ask';
	import type { Handed } from '$player/handed.svelte';
	import type { Given } from '$player/paper.svelte';

	type Props = {
		question: FormQuestion;
		given: Given;
		/** None: it is a preview, where nothing is handed over. */
		handed: Handed | null;
		isClosed: boolean;
		onchange: (change: Partial<Given>) => void;
	};
	let { question, given, handed, isClosed, onchange }: Props = $props();

	const LOOK_MS = 2_000;
	const most = $derived(question.most ?? 1);
	const ids = $derived(Array.isArray(given.value) ? given.value : []);
	const pending = $derived(handed?.pending.filter(({ questionId }) => questionId === question.id) ?? []);
	/** By a code, and in no answer: they came while nobody looked, or were taken out again. */
	const aside = $derived(
		handed?.files.filter((file) => file.questionId === question.id && file.byCode && !ids.includes(file.id)) ?? []
	);
	const isFull = $derived(ids.length + pending.length >= most);

	let input = $state<HTMLInputElement | null>(null);
	let code = $state.raw<{ address: string; picture: string; shownAt: number } | null>(null);
	let trouble = $state<string | null>(null);
	$effect(() => void handed?.look());
	$effect(() => {
		for (const id of ids) void handed?.show(id);
	});

	async function showCode() {
		trouble = null;
		const answer = await ask<{ address: string }>('POST', '/sit/api/files/code', { question: question.id });
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		const { default: QRCode } = await import('qrcode');
		const svg = await QRCode.toString(answer.data.address, { type: 'svg', margin: 1, width: 220 });
		const newest = Math.max(0, ...(handed?.files.map(({ at }) => at) ?? []));
		code = {
			address: answer.data.address,
			picture: `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`,
			shownAt: newest
		};
	}
	// While the code is shown, what comes by it goes into the answer by itself.
	$effect(() => {
		if (!code || !handed) return;
		const { shownAt } = code;
		const timer = setInterval(async () => {
			await handed.look();
			const come = aside.filter(({ at }) => at > shownAt).slice(0, most - ids.length);
			if (come.length > 0) onchange({ value: [...ids, ...come.map(({ id }) => id)] });
		}, LOOK_MS);
		return () => clearInterval(timer);
	});
	function remove(id: string) {
		const left = ids.filter((one) => one !== id);
		onchange({ value: left.length > 0 ? left : null });
	}
	const size = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);
	const button = 'border-line-strong rounded-xl border px-4 py-2.5 font-semibold disabled:opacity-50';
</script>

<div class="mt-5 space-y-3 text-[0.95em]" data-testid="upload">
	{#if ids.length > 0}
		<ul class="space-y-2">
			{#each ids as id, i (id)}
				{@const file = handed?.of(id)}
				<li class="border-line bg-sheet flex items-center gap-3 rounded-xl border px-4 py-2">
					{#if handed?.addressOf(id)}<img
							src={handed.addressOf(id)}
							alt=""
							class="h-14 w-14 rounded object-cover"
						/>{/if}
					<span class="min-w-0 flex-1 truncate">{file ? `${file.name}, ${size(file.bytes)}` : `File ${i + 1}`}</span>
					{#if !isClosed}<button type="button" class="underline" onclick={() => remove(id)}
							>Remove<span class="sr-only"> {file?.name ?? `file ${i + 1}`}</span></button
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
	{#each pending as { name }, i (i)}<p class="text-ink-2" role="status">
			{name} is on its way. Stay on this page until it has arrived.
		</p>{/each}
	{#if handed?.refused[question.id]}<p class="text-brick" role="alert">{handed.refused[question.id]}</p>{/if}
	{#each aside as file (file.id)}
		<p class="text-ink-2">
			{file.name}, {size(file.bytes)}, is not in your answer.
			{#if !isFull && !isClosed}<button
					type="button"
					class="text-ink underline"
					onclick={() => onchange({ value: [...ids, file.id] })}>Put it in</button
				>{/if}
		</p>
	{/each}
	{#if isFull}
		<p class="text-ink-2">{most === 1 ? 'One file is' : `${most} files are`} as many as this question takes.</p>
	{:else if !isClosed}
		<div class="flex flex-wrap gap-3">
			<button type="button" class={button} disabled={!handed} onclick={() => input?.click()} data-testid="add-file"
				>Add a photo or PDF</button
			>
			<button type="button" class={button} disabled={!handed} onclick={showCode} data-testid="by-phone"
				>From a phone</button
			>
		</div>
		<p class="text-ink-2">{most === 1 ? 'One file' : `Up to ${most} files`}, 10 MB each.</p>
		<input
			bind:this={input}
			type="file"
			class="hidden"
			accept="image/jpeg,image/png,image/webp,application/pdf"
			multiple={most > 1}
			onchange={(event) => {
				const files = [...(event.currentTarget.files ?? [])].slice(0, most - ids.length - pending.length);
				event.currentTarget.value = '';
				handed?.add(question.id, files);
			}}
		/>
		{#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
		{#if code}
			<div
				class="border-line bg-sheet flex flex-wrap items-center gap-5 rounded-2xl border p-4"
				data-testid="hand-code"
			>
				<img src={code.picture} alt="A code with the address beside it" width="220" height="220" class="bg-white" />
				<div class="min-w-0 flex-1 space-y-2">
					<p>Point the phone’s camera at the code and take a photo there. It appears here by itself.</p>
					<p class="text-ink-2">The code is for this question and is valid for ten minutes.</p>
					<p class="text-ink-2 font-mono text-[0.75em] break-all">{code.address}</p>
					<button type="button" class="underline" onclick={() => (code = null)}>Hide the code</button>
				</div>
			</div>
		{/if}
	{/if}
</div>
