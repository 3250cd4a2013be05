<!-- @component What a candidate must know while working, each in one line across the page. -->
<script lang="ts">
	import { counted } from '$core/names';
	import type { SittingPicture } from '$core/room';
	import type { TimeLeft } from '$player/time-left.svelte';
	import { clockLength, minutesInWords, minutesLeft } from '$core/time';

	type Props = {
		picture: SittingPicture;
		time: TimeLeft;
		isLastUp: boolean;
		warning: number | null;
		isDurable: boolean;
	};
	let { picture, time, isLastUp, warning, isDurable }: Props = $props();

	/** A clock that ticks would be read out each second: whoever listens hears it now and then. */
	const SAID = [60, 30, 10];
	function secondsSaid(ms: number): string {
		const next = SAID.findLast((seconds) => ms <= seconds * 1_000);
		return next === undefined ? minutesInWords(minutesLeft(ms)) : counted(next, 'second');
	}
</script>

{#if picture.session.kind === 'rehearsal'}<p
		class="bg-plum-ground text-plum px-6 py-1.5 text-center text-[15px] font-semibold"
	>
		This is a rehearsal. It does not count.
	</p>{/if}
{#if warning !== null}
	<p
		class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold"
		role="status"
		data-testid="warning"
	>
		{warning === 1 ? 'One minute' : `${warning} minutes`} left.
	</p>
{/if}
{#if isLastUp && !time.isUp}<p
		class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold"
		role="status"
	>
		The time for the last question is up. Hand in now.
	</p>{/if}
{#if time.isUp}
	<p class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold" role="status">
		{#if time.grace !== null}
			Time is up. Finish your last answer and hand in: <span aria-hidden="true">{clockLength(time.grace)}</span><span
				class="sr-only">{secondsSaid(time.grace)}</span
			>{picture.time.atTimeUp === 'zero' ? '. What is not handed in by then is not scored.' : ''}
		{:else if time.isClosed}
			Time is up. Hand in now; no more answers are accepted.
		{:else}
			Time is up. You can continue: answers from now on are marked late.
		{/if}
	</p>
{/if}
{#if !isDurable}<p class="bg-ochre-ground text-ochre px-6 py-1.5 text-center text-[15px]">
		This browser cannot keep answers on the device. Do not close this page while the connection is lost.
	</p>{/if}
