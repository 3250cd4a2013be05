<script lang="ts">
	import { page } from '$app/state';

	let { children } = $props();
	const PLACES = [
		{ href: '/prepare', name: 'Sessions' },
		{ href: '/prepare/people', name: 'People' },
		{ href: '/prepare/rules', name: 'Rule sheets' },
		{ href: '/prepare/rooms', name: 'Rooms' },
		{ href: '/prepare/networks', name: 'Networks' },
		{ href: '/prepare/clients', name: 'Sealed clients' },
		{ href: '/prepare/devices', name: 'Devices' },
		{ href: '/prepare/mail', name: 'Mail' },
		{ href: '/prepare/administration', name: 'Administration' },
		{ href: '/prepare/staff', name: 'Staff' }
	];
	const path = $derived(page.url.pathname);
	/** A session's own pages are under Sessions. */
	const here = $derived(PLACES.slice(1).find((place) => path.startsWith(place.href))?.href ?? '/prepare');
</script>

<div class="flex min-h-full flex-col">
	<nav aria-label="Prepare" class="bg-sheet border-line flex flex-wrap gap-x-1 border-b px-5 print:hidden">
		{#each PLACES as place (place.href)}
			<a
				href={place.href}
				aria-current={here === place.href ? 'page' : undefined}
				class="text-ink-2 hover:text-ink aria-[current=page]:border-tide aria-[current=page]:text-ink border-b-2 border-transparent px-3 py-2 text-[14px] font-semibold"
				>{place.name}</a
			>
		{/each}
	</nav>
	<div class="flex-1">{@render children()}</div>
</div>
