<!-- @component A phone that adds photos of working to a question on another screen; it sees nothing of the paper. -->
<script lang="ts">
	import { page } from '$app/state';
	import { inWords, send } from '$ui/post';
	import Press from '../../Press.svelte';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();

	let input = $state<HTMLInputElement | null>(null);
	let sending = $state(0);
	let handed = $state(0);
	let trouble = $state<string | null>(null);

	async function add(files: File[]) {
		trouble = null;
		for (const file of files) {
			sending++;
			const answer = await send('POST', page.url.pathname, file);
			sending--;
			if (answer.ok) handed++;
			else trouble = inWords(answer.problem);
		}
	}
</script>

<svelte:head><title>Hand over a photo · Otium</title></svelte:head>

<main class="bg-paper text-ink mx-auto flex min-h-dvh max-w-md flex-col gap-5 px-6 py-10 text-[18px]">
	<h1 class="text-[28px]">Hand over a photo of your working</h1>
	{#if !data.isValid}
		<p role="alert" data-testid="hand-code-over">
			This code is no longer valid. Show a new one on the screen of the test.
		</p>
	{:else}
		<p>It appears in your answer on the screen of the test. Photograph each page by itself, from above.</p>
		<Press onclick={() => input?.click()} disabled={sending > 0} testid="hand-photo">
			{sending > 0 ? 'Sending…' : handed > 0 ? 'One more photo' : 'Take a photo'}
		</Press>
		<input
			bind:this={input}
			type="file"
			class="hidden"
			accept="image/*,application/pdf"
			multiple
			onchange={(event) => {
				const files = [...(event.currentTarget.files ?? [])];
				event.currentTarget.value = '';
				void add(files);
			}}
		/>
		{#if handed > 0}<p class="text-tide font-semibold" role="status" data-testid="handed">
				{handed === 1 ? 'One file has' : `${handed} files have`} arrived. Look at the screen of the test.
			</p>{/if}
		{#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
	{/if}
</main>
