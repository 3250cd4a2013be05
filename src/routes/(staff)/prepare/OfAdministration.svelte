<!-- @component A page about one administration, with the others beside it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';

	type Props = {
		title: string;
		path: string;
		data: {
			administration: { id: string; name: string } | null;
			all: { id: string; name: string }[];
			mayChange: boolean;
		};
		children: Snippet;
	};
	let { title, path, data, children }: Props = $props();
</script>

<main class="mx-auto max-w-6xl px-6 py-5">
	{#if data.all.length > 1}
		<nav aria-label="Administrations">
			<ul class="flex flex-wrap gap-2">
				{#each data.all as one (one.id)}
					<li>
						<a
							href="{path}?id={one.id}"
							aria-current={one.id === data.administration?.id ? 'page' : undefined}
							class="text-ink-2 border-line-strong aria-[current=page]:bg-mist aria-[current=page]:border-tide aria-[current=page]:text-tide block rounded-full border px-3.5 py-1 text-[14px]"
							>{one.name}</a
						>
					</li>
				{/each}
			</ul>
		</nav>
	{/if}
	<h1 class="mt-3 text-[28px]">{title}{data.administration ? ` of ${data.administration.name}` : ''}</h1>
	{#if !data.administration}
		<p class="text-ink-2 mt-2">There is no administration yet: make one under “Dates, sites and papers”.</p>
	{:else}
		{#if !data.mayChange}<p class="text-ink-2 mt-1">Only somebody who coordinates all sites can change this.</p>{/if}
		{#key data.administration.id}{@render children()}{/key}
	{/if}
</main>
