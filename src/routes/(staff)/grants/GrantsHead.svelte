<!-- @component The heading of the Grants pages, with the ways between them and how much waits on each. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';

	type Props = { counts: { owed: number; requests: number }; children?: Snippet };
	let { counts, children }: Props = $props();
	const PAGES = $derived([
		{ href: '/grants', text: 'Who has what', count: 0 },
		{ href: '/grants/fit', text: 'Does not fit', count: 0 },
		{ href: '/grants/owed', text: 'Owed', count: counts.owed },
		{ href: '/grants/requests', text: 'Requests', count: counts.requests }
	]);
</script>

<div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1 class="text-[28px]">Grants</h1>
	<nav aria-label="Grants" class="flex flex-wrap gap-1">
		{#each PAGES as one (one.href)}
			{@const isHere = page.url.pathname === one.href}
			<a
				href={one.href}
				aria-current={isHere ? 'page' : undefined}
				class="rounded-lg px-3 py-1.5 text-[14.5px] font-semibold {isHere
					? 'bg-plum-ground text-plum'
					: 'text-ink-2 hover:bg-sheet'}"
				>{one.text}{#if one.count > 0}<span
						class="bg-ochre-ground text-ochre ml-1.5 rounded-full px-1.5 py-px text-[12.5px]">{one.count}</span
					>{/if}</a
			>
		{/each}
	</nav>
	{@render children?.()}
</div>
