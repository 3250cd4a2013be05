<!-- @component Sound or film. What may be played only so often has one button: it plays from its beginning to its end. -->
<script lang="ts">
	import { shows, type Medium } from '$core/paper';

	type Props = {
		medium: Medium;
		/** null: it has not come yet. */
		address: string | null;
		/** null: as often as one likes. */
		left: number | null;
		onplay: () => void;
	};
	let { medium, address, left, onplay }: Props = $props();

	const what = $derived(shows(medium) === 'sound' ? 'sound' : 'film');
	let element = $state<HTMLMediaElement | null>(null);
	let isPlaying = $state(false);
	let seconds = $state(0);
	let duration = $state<number | null>(null);
	let cantPlay = $state(false);

	async function play() {
		if (!element || isPlaying || left === 0) return;
		element.currentTime = 0;
		try {
			await element.play();
			// Counted when it has begun: what the browser refuses to play was not heard.
			onplay();
		} catch {
			cantPlay = true;
		}
	}
	const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`;
	const events = {
		onplay: () => (isPlaying = true),
		onpause: () => (isPlaying = false),
		onended: () => (isPlaying = false),
		onerror: () => ((cantPlay = true), (isPlaying = false)),
		ontimeupdate: () => (seconds = element?.currentTime ?? 0),
		onloadedmetadata: () =>
			(duration = element && Number.isFinite(element.duration) ? Math.round(element.duration) : null)
	};
</script>

<div class="border-line bg-sheet mt-5 rounded-xl border p-4 text-[0.9em]" data-testid="played">
	{#if !address}
		<p class="text-ink-2" role="status">The {what} is on its way.</p>
	{:else}
		{#if shows(medium) === 'sound'}
			<audio
				bind:this={element}
				src={address}
				controls={left === null}
				class="w-full"
				aria-label={medium.alt}
				{...events}
			></audio>
		{:else}
			<video
				bind:this={element}
				src={address}
				controls={left === null}
				disablepictureinpicture
				playsinline
				class="w-full rounded-lg"
				aria-label={medium.alt}
				{...events}
			></video>
		{/if}
		{#if left !== null}
			<div class="flex flex-wrap items-center gap-4">
				<button
					type="button"
					class="bg-tide text-on-tide rounded-lg px-4 py-2 font-semibold disabled:opacity-60"
					disabled={isPlaying || left === 0}
					onclick={play}
					data-testid="play">{isPlaying ? 'Playing' : `Play the ${what}`}</button
				>
				{#if isPlaying}<span class="font-mono" aria-hidden="true"
						>{clock(seconds)}{duration === null ? '' : ` of ${clock(duration)}`}</span
					>{/if}
				<span class="text-ink-2" role="status">
					{left === 0
						? 'Played as often as allowed.'
						: `${left === 1 ? 'Once' : left === 2 ? 'Twice' : `${left} times`}${left === medium.plays ? '' : ' more'}, from beginning to end without a pause.`}
				</span>
			</div>
		{/if}
		{#if cantPlay}<p class="text-brick mt-2" role="alert">
				This browser can’t play it. Raise your hand: the proctor can help.
			</p>{/if}
	{/if}
	{#if medium.alt}<details class="mt-2">
			<summary class="cursor-pointer underline">In words</summary>
			<p class="mt-1">{medium.alt}</p>
		</details>{/if}
</div>
