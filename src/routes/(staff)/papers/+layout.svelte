<script lang="ts">
	import { page } from '$app/state';

	let { children } = $props();
	const TABS = [
		{ href: '/papers', name: 'Papers' },
		{ href: '/papers/bank', name: 'Questions' }
	];
	const here = $derived(page.url.pathname.startsWith('/papers/bank') ? '/papers/bank' : '/papers');
</script>

<div class="flex h-full min-h-0 flex-col max-lg:h-auto">
	<nav aria-label="Papers" class="bg-sheet border-line flex shrink-0 gap-x-1 border-b px-5 print:hidden">
		{#each TABS as { href, name } (href)}
			<a
				{href}
				aria-current={here === href ? 'page' : undefined}
				class="text-ink-2 hover:text-ink aria-[current=page]:border-tide aria-[current=page]:text-ink border-b-2 border-transparent px-3 py-2 text-[14px] font-semibold whitespace-nowrap"
				>{name}</a
			>
		{/each}
	</nav>
	<div class="min-h-0 flex-1 overflow-auto">{@render children()}</div>
</div>
