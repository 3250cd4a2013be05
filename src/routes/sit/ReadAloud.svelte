<!-- @component Reads what is on the page aloud, by a voice of this device. It stops with its question. -->
<script lang="ts">
	import { languageName } from '$core/session';
	import { ReadAloud, type SpokenPart } from '$player/read-aloud.svelte';

	/** `language`: in which the questions are read; `view`: what is on the page, by a name. */
	type Props = { spoken: () => SpokenPart[]; language: string; view: string; button: string };
	let { spoken, language, view, button }: Props = $props();

	const aloud = new ReadAloud();
	$effect(() => aloud.listen());
	$effect(() => {
		void view;
		return () => aloud.stop();
	});
	const speaks = $derived(aloud.speaks(language));
	let isAsked = $state(false);
	let main = $state<HTMLElement>();
	function press() {
		isAsked = true;
		if (aloud.state === 'reading') aloud.pause();
		else if (aloud.state === 'paused') aloud.goOn();
		else if (speaks) aloud.start(spoken());
	}
	function stop() {
		aloud.stop();
		main?.focus();
	}
</script>

<!-- One button all along: the focus stays on it. -->
<span role="group" aria-label="Reading aloud">
	<button type="button" class={button} bind:this={main} onclick={press} data-testid="read-aloud"
		>{aloud.state === 'silent' ? 'Read aloud' : aloud.state === 'reading' ? 'Pause' : 'Go on'}</button
	>
	{#if aloud.state !== 'silent'}
		<button type="button" class={button} onclick={() => aloud.again()}>Again</button>
		<button type="button" class={button} aria-label="Speed: {aloud.speed} ×" onclick={() => aloud.changeSpeed()}
			>{aloud.speed} ×</button
		>
		<button type="button" class={button} onclick={stop}>Stop reading</button>
	{/if}
</span>
{#if speaks === false && isAsked}<span class="text-ochre text-[14px] whitespace-normal" role="status"
		>This device has no voice for {languageName(language)}: it can’t read aloud. Ask your proctor.</span
	>{/if}
