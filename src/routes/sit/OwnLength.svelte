<!-- @component How long somebody has who is about to begin or to go on, in one sentence wherever that is told. -->
<script lang="ts">
	import type { SittingPicture } from '$core/room';
	import { clockTime, minutesInWords, minutesLeft } from '$core/time';
	import OwnTime from '$ui/OwnTime.svelte';

	let { picture }: { picture: SittingPicture } = $props();
	const time = $derived(picture.time);
</script>

{#if picture.begun}
	{#if time.remaining !== null}<strong>{minutesInWords(minutesLeft(time.remaining))}</strong>
		{minutesLeft(time.remaining) === 1 ? 'is' : 'are'} left.{/if} All your answers are there.
{:else if time.isEndedByHand}
	Your proctor ends the paper.
{:else if time.allotted !== null}
	You have <strong>{minutesInWords(minutesLeft(time.remaining ?? time.allotted))}</strong>{#if time.deadline}, until {clockTime(
			time.deadline,
			picture.session.zone
		)}<OwnTime at={time.deadline} zone={picture.session.zone} />{:else if picture.session.roomWaits}&nbsp;from when your
		proctor starts the room{:else}&nbsp;from when you begin{/if}.
{:else}
	There is no time limit.
{/if}
