<!-- @component Let in: what awaits the candidate, and the button that begins. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Problem } from '$core/problem';
	import type { SittingPicture } from '$core/room';
	import { clockTime, minutesLeft } from '$core/time';
	import { blocksOf } from '$core/paper';
	import Blocks from './question/Blocks.svelte';
	import Calm from './Calm.svelte';
	import Entry from './Entry.svelte';
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
	const watched = $derived(picture.session.watch?.level ?? 'open');
</script>

<Calm
	title={picture.begun ? 'You can continue' : 'You can start'}
	paper={picture.paper.title}
	person="{picture.candidate.name}{picture.candidate.seat ? `, seat ${picture.candidate.seat}` : ''}"
>
	<p>
		{picture.paper.questions} questions, {picture.paper.points} points.
		{#if picture.begun}
			{#if picture.time.remaining !== null}<strong>{minutesLeft(picture.time.remaining)} minutes</strong> are left. All your
				answers are there.{/if}
		{:else if picture.time.allotted !== null}
			You have <strong>{minutesLeft(picture.time.remaining ?? picture.time.allotted)} minutes</strong>{picture.time
				.deadline
				? `, until ${clockTime(picture.time.deadline, picture.session.zone)}`
				: ' from when you begin'}.
		{:else}
			There is no time limit.
		{/if}
	</p>
	{#if picture.time.cut > 0 && !picture.begun}
		<p class="bg-ochre-ground text-ochre rounded-xl px-4 py-3">
			The room closes before your full time: if you begin now, you have {minutesLeft(picture.time.remaining ?? 0)} minutes.
			Ask your proctor if that is not right.
		</p>
	{/if}
	{#if picture.paper.instructions}<div class="bg-mist rounded-xl px-4 py-3 text-[17px]" data-testid="instructions">
			<Blocks blocks={blocksOf(picture.paper.instructions)} />
		</div>{/if}
	<ul class="text-ink-2 list-disc space-y-1 pl-5 text-[16px]">
		{#if watched !== 'open'}<li>
				The paper fills the screen. {watched === 'watched'
					? 'Leaving it, copying and printing are noted'
					: 'Copying and printing are switched off'}, and your proctor sees that.
			</li>{/if}
		{#if picture.session.snapshotSeconds !== null}<li>
				The camera takes a small picture every {picture.session.snapshotSeconds} seconds. Only staff see them, and they are
				deleted later.
			</li>{/if}
		<li>Answers are saved as you enter them. If the connection drops, just keep working.</li>
		{#if picture.session.movement.goingBack && picture.session.tools.marking}<li>
				You can mark a question for later and come back to it.
			</li>{:else if picture.session.forwardBy !== null}<li>You can’t go back to a question after leaving it.</li>{/if}
		{#if picture.session.wrongAnswers}<li>{picture.session.wrongAnswers}</li>{/if}
		<li>You hand in at the end, after seeing what is blank.</li>
	</ul>
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
