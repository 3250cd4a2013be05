<!-- @component One of what lies beside the paper, page under page, as wide as there is room. -->
<script lang="ts">
	import type { Material } from '$core/paper';
	import type { Media } from '$player/media.svelte';

	type Props = { material: Material[]; media: Media };
	let { material, media }: Props = $props();

	let chosen = $state(0);
	const one = $derived(material[chosen] ?? material[0]);
</script>

{#if material.length > 1}
	<label class="text-ink-2 block text-[14px]"
		>Which one
		<select
			class="bg-paper border-line-strong text-ink ml-2 rounded-lg border px-2 py-1 text-[16px]"
			bind:value={chosen}
		>
			{#each material as { name }, i (i)}<option value={i}>{name}</option>{/each}
		</select></label
	>
{:else}<p class="font-semibold">{one.name}</p>{/if}
{#each one.pages as { file, alt, width, height }, i (i)}
	{@const address = media.addressOf(file)}
	{#if media.isMissing(file)}
		<p class="bg-ochre-ground text-ochre mt-3 rounded-xl px-4 py-3 text-[15px]" role="alert">
			Page {i + 1} can’t be had. Raise your hand: the proctor can help. {alt}
		</p>
	{:else}
		<span
			class="border-line mt-3 block overflow-hidden rounded-xl border"
			style={width && height ? `aspect-ratio:${width}/${height}` : ''}
		>
			{#if address}<img src={address} {alt} class="h-auto w-full" />{:else}<span
					class="text-ink-2 block p-4 text-[15px]"
					role="status">Page {i + 1} is on its way. {alt}</span
				>{/if}
		</span>
	{/if}
{/each}
