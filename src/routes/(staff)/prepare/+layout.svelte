<script lang="ts">
	import { page } from '$app/state';
	import { PREPARE_PAGES, PREPARE_TABS } from '$ui/prepare-places';

	let { children } = $props();
	const path = $derived(page.url.pathname);
	/** A session's own pages are under Sessions. */
	const here = $derived(PREPARE_PAGES.find((place) => path.startsWith(place.href))?.href ?? '/prepare');
	const tab = $derived(PREPARE_TABS.find(({ pages }) => pages.some(({ href }) => href === here))!);
</script>

<div class="flex min-h-full flex-col">
	<nav aria-label="Prepare" class="bg-sheet border-line flex gap-x-1 overflow-x-auto border-b px-5 print:hidden">
		{#each PREPARE_TABS as { name, pages } (name)}
			<a
				href={pages[0].href}
				aria-current={tab.name === name ? 'page' : undefined}
				class="text-ink-2 hover:text-ink aria-[current=page]:border-tide aria-[current=page]:text-ink border-b-2 border-transparent px-3 py-2 text-[14px] font-semibold whitespace-nowrap"
				>{name}</a
			>
		{/each}
	</nav>
	{#if tab.pages.length > 1}
		<nav aria-label={tab.name} class="flex flex-wrap gap-1 px-6 pt-3 print:hidden">
			{#each tab.pages as { href, name } (href)}
				<a
					{href}
					aria-current={here === href ? 'page' : undefined}
					class="text-ink-2 hover:text-ink aria-[current=page]:bg-mist aria-[current=page]:text-tide rounded-full px-3 py-1 text-[14px] font-semibold"
					>{name}</a
				>
			{/each}
		</nav>
	{/if}
	<div class="flex-1">{@render children()}</div>
</div>
