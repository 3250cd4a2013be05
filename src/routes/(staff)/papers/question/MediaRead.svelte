<!-- @component Pictures, sound and film of a question, small, as its author reads it. -->
<script lang="ts">
	import { shows, type Medium } from '$core/paper';

	let { media }: { media: Medium[] } = $props();
</script>

<ul class="mt-2 flex flex-wrap gap-2">
	{#each media as medium, i (i)}
		{@const { file, alt, plays } = medium}
		<li class="border-line overflow-hidden rounded-lg border text-[13px]">
			{#if shows(medium) === 'picture'}<img src="/papers/media/{file}" {alt} class="h-24 w-auto" />
			{:else}<span class="block px-3 py-2"
					>{shows(medium) === 'sound' ? 'Sound' : 'Film'}{plays
						? `, played ${plays === 1 ? 'once' : `${plays} times`} at most`
						: ''}{alt ? `: ${alt}` : ''}</span
				>{/if}
		</li>
	{/each}
</ul>
