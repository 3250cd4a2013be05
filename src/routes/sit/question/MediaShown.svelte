<!-- @component Pictures, sound and film of a question or of a shared text. -->
<script lang="ts">
	import { shows, type Medium } from '$core/paper';
	import Played from './Played.svelte';

	type Props = {
		media: Medium[];
		/** Where the page finds a file; null: it has not come yet. */
		addressOf: (file: string) => string | null;
		isMissing?: (file: string) => boolean;
		/** How often the one at this place may still be played; null: as often as one likes. */
		leftOf?: (medium: Medium, place: number) => number | null;
		onplay?: (place: number) => void;
	};
	let {
		media,
		addressOf,
		isMissing = () => false,
		leftOf = ({ plays }) => plays ?? null,
		onplay = () => {}
	}: Props = $props();
</script>

{#each media as medium, place (place)}
	{@const address = addressOf(medium.file)}
	{#if isMissing(medium.file)}
		<p class="bg-ochre-ground text-ochre mt-5 rounded-xl px-4 py-3 text-[0.9em]" role="alert">
			This {shows(medium)} can’t be had. Raise your hand: the proctor can help. {medium.alt}
		</p>
	{:else if shows(medium) === 'picture'}
		<span
			class="border-line mt-5 block w-[min(100%,36em)] overflow-hidden rounded-xl border"
			style={medium.width && medium.height
				? `aspect-ratio:${medium.width}/${medium.height};max-width:min(${medium.width}px,${Math.round((60 * medium.width) / medium.height)}vh)`
				: ''}
		>
			{#if address}<img src={address} alt={medium.alt} class="h-auto w-full" />{:else}<span
					class="text-ink-2 block p-4 text-[0.9em]"
					role="status">The picture is on its way. {medium.alt}</span
				>{/if}
		</span>
	{:else}
		<Played {medium} {address} left={leftOf(medium, place)} onplay={() => onplay(place)} />
	{/if}
{/each}
