<!-- @component What a candidate sees of the watching: the way back to the full screen, and a calm word afterwards. -->
<script lang="ts">
	import { leavingInWords } from '$core/lockdown';
	import type { SittingPicture } from '$core/room';
	import type { Watch } from '$player/watch.svelte';
	import Press from './Press.svelte';

	let { watch, rules }: { watch: Watch; rules: NonNullable<SittingPicture['session']['watch']> } = $props();

	const PREVENTED = {
		copy: 'Copying is switched off in this paper.',
		paste: 'Pasting is switched off in this paper.',
		print: 'Printing is switched off in this paper.',
		menu: 'The right-click menu is switched off in this paper.'
	} as Record<string, string>;
	$effect(() => {
		if (watch.prevented === null) return;
		const timer = setTimeout(() => (watch.prevented = null), 4_000);
		return () => clearTimeout(timer);
	});
</script>

{#if !watch.isFull}
	<!-- Nothing behind it can be reached, and it can't be left by a key. -->
	<dialog
		class="bg-paper text-ink m-0 grid h-dvh max-h-none w-dvw max-w-none place-items-center p-6"
		aria-labelledby="full"
		data-testid="full-screen"
		oncancel={(event) => event.preventDefault()}
		{@attach (dialog: HTMLDialogElement) => dialog.showModal()}
	>
		<div class="max-w-md space-y-4 text-center text-[18px]">
			<h2 id="full" class="text-[26px]">This paper fills the screen</h2>
			<p class="text-ink-2">
				Your answers are safe and the clock is running. Your proctor sees when you leave the paper.
			</p>
			<Press main onclick={() => watch.fill()} testid="fill">Open in full screen</Press>
		</div>
	</dialog>
{:else if watch.lastAway}
	<p
		class="bg-ochre-ground text-ochre flex flex-wrap items-center justify-center gap-4 px-6 py-2 text-[16px] font-semibold"
		role="status"
		data-testid="left"
	>
		{leavingInWords(rules, rules.left, watch.lastAway.ms)}
		<button type="button" class="underline" onclick={() => (watch.lastAway = null)}>I understand</button>
	</p>
{/if}
{#if watch.prevented && PREVENTED[watch.prevented]}
	<p
		class="bg-ochre-ground text-ochre border-ochre-mark/50 fixed bottom-24 left-1/2 z-40 -translate-x-1/2 rounded-xl border px-5 py-3 text-[16px] font-semibold"
		role="status"
	>
		{PREVENTED[watch.prevented]}
	</p>
{/if}
