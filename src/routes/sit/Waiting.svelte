<!-- @component At the door, or let in before it is time: nothing to do but to wait. -->
<script lang="ts">
	import { counted } from '$core/names';
	import type { Snippet } from 'svelte';
	import type { SittingPicture } from '$core/room';
	import { clockLength, clockTime } from '$core/time';
	import OwnTime from '$ui/OwnTime.svelte';
	import Calm from './Calm.svelte';
	import OwnLength from './OwnLength.svelte';

	/** `children`: what can be done meanwhile. */
	type Props = { picture: SittingPicture; now: number; isLineDown: boolean; children: Snippet };
	let { picture, now, isLineDown, children }: Props = $props();

	const zone = $derived(picture.session.zone);
</script>

<Calm
	title={picture.state === 'at_door' ? 'You are at the door' : 'You are in'}
	paper={picture.paper.title}
	person="{picture.candidate.name}{picture.candidate.seat ? `, seat ${picture.candidate.seat}` : ''}"
>
	<p>
		{picture.state === 'at_door'
			? 'All is well: your proctor lets you in from here. Stay on this page.'
			: picture.session.roomWaits
				? 'Everyone begins together, when your proctor starts the room. Stay on this page.'
				: 'You can begin when the time comes. Stay on this page: it counts down.'}
	</p>
	{#if picture.time.opens > now}
		<p class="font-mono text-[44px] font-semibold tabular-nums" data-testid="countdown">
			{clockLength(picture.time.opens - now)}
		</p>
		<p class="text-ink-3 text-[16px]">
			until {clockTime(picture.time.opens, zone)}<OwnTime at={picture.time.opens} {zone} />
		</p>
	{/if}
	<p class="text-ink-2">
		{counted(picture.paper.questions, 'question')}, {counted(picture.paper.points, 'point')}. <OwnLength {picture} />
	</p>
	{@render children()}
	{#if isLineDown}<p class="text-ochre text-[16px]">
			The connection is lost at the moment. It will come back automatically.
		</p>{/if}
</Calm>
