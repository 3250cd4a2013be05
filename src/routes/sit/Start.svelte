<!-- @component Let in: what awaits the candidate, and the button that begins. -->
<script lang="ts">
	import { counted } from '$core/names';
	import type { Snippet } from 'svelte';
	import type { Problem } from '$core/problem';
	import type { SittingPicture } from '$core/room';
	import { minutesInWords, minutesLeft } from '$core/time';
	import { blocksOf } from '$core/paper';
	import Blocks from './question/Blocks.svelte';
	import ToldList from '$ui/ToldList.svelte';
	import Calm from './Calm.svelte';
	import Entry from './Entry.svelte';
	import OwnLength from './OwnLength.svelte';
	import Press from './Press.svelte';
	import Trouble from './Trouble.svelte';

	type Props = {
		picture: SittingPicture;
		busy: boolean;
		problem: Problem | null;
		/** The device has been checked, as far as it must be. */
		isDeviceReady: boolean;
		deviceCheck: Snippet;
		onbegin: (startWord: string) => void;
	};
	let { picture, busy, problem, isDeviceReady, deviceCheck, onbegin }: Props = $props();

	let startWord = $state('');
</script>

<Calm
	title={picture.begun ? 'You can continue' : 'You can start'}
	paper={picture.paper.title}
	person="{picture.candidate.name}{picture.candidate.seat ? `, seat ${picture.candidate.seat}` : ''}"
	beside={picture.begun ? undefined : told}
>
	<p>
		{counted(picture.paper.questions, 'question')}, {counted(picture.paper.points, 'point')}.
		<OwnLength {picture} />
	</p>
	{#if picture.time.cut > 0 && !picture.begun}
		<p class="bg-ochre-ground text-ochre rounded-xl px-4 py-3">
			The room closes before your full time: if you begin now, you have {minutesInWords(
				minutesLeft(picture.time.remaining ?? 0)
			)}. Ask your proctor if that is not right.
		</p>
	{/if}
	{#if picture.paper.instructions}<div class="bg-mist rounded-xl px-4 py-3 text-[17px]" data-testid="instructions">
			<Blocks blocks={blocksOf(picture.paper.instructions)} />
		</div>{/if}
	<form
		class="space-y-4"
		onsubmit={(event) => {
			event.preventDefault();
			onbegin(startWord);
		}}
	>
		{#if picture.session.asksStartWord}
			<Entry label="Start word" mono bind:value={startWord} />
		{/if}
		{#if picture.session.checklist === 'needed'}{@render deviceCheck()}{/if}
		<Trouble {problem} />
		<Press main type="submit" disabled={busy || !isDeviceReady} testid="begin"
			>{picture.begun ? 'Continue' : 'Begin'}</Press
		>
	</form>
</Calm>

{#snippet told()}<ToldList
		told={picture.told.filter(({ subject }) => subject !== 'when' && subject !== 'coming')}
	/>{/snippet}
