<!-- @component The text that several questions share: they stay together under it, in their order. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { Stimulus } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import MediaEdit from './MediaEdit.svelte';
	import { newId } from './new-id';
	import StemEdit from './StemEdit.svelte';

	type Props = {
		stimulus?: Stimulus;
		/** The text that the question before stands under. */
		before?: Stimulus;
		onchange: (stimulus: Stimulus | undefined) => void;
	};
	let { stimulus, before, onchange }: Props = $props();

	const REST_MS = 600;
	let text = $state(untrack(() => stimulus?.text ?? ''));
	let written = $state<{ leave(): void } | null>(null);
	let timer: ReturnType<typeof setTimeout> | undefined;
	$effect(() => {
		const now = stimulus?.text ?? '';
		untrack(() => {
			if (timer === undefined) text = now;
		});
	});
	/** Keeps what waits to be kept. */
	export function leave() {
		written?.leave();
		keep();
	}
	function keep() {
		if (timer === undefined) return;
		clearTimeout(timer);
		timer = undefined;
		if (stimulus && stimulus.text !== text) onchange({ ...stimulus, text });
	}
</script>

{#if stimulus}
	<div class="bg-mist space-y-2 rounded-xl px-3 py-2.5" data-testid="shared-edit">
		<StemEdit
			bind:this={written}
			id="shared-text"
			label="Shared text, before this question and those beside it"
			hint="They stay together in this order, for everybody."
			value={text}
			onchange={(now) => {
				text = now;
				clearTimeout(timer);
				timer = setTimeout(keep, REST_MS);
			}}
		/>
		<MediaEdit
			media={stimulus.media ?? []}
			onchange={(media) => {
				leave();
				onchange({ ...stimulus, text, media: media.length > 0 ? media : undefined });
			}}
		/>
		<Act
			size="xs"
			onclick={() => {
				leave();
				onchange(undefined);
			}}
			testid="shared-leave">Take this question out of it</Act
		>
	</div>
{:else}
	<div class="flex flex-wrap gap-2">
		<Act size="xs" onclick={() => onchange({ id: newId(), text: '' })} testid="shared-new">Write a shared text…</Act>
		{#if before}<Act size="xs" onclick={() => onchange(before)} testid="shared-join"
				>Put it under the shared text before it</Act
			>{/if}
	</div>
{/if}
