<script lang="ts">
	import ThemeProvider from 'flowbite-svelte/ThemeProvider.svelte';
	import { onMount, untrack } from 'svelte';
	import { page, updated } from '$app/state';
	import AppBar from '$ui/AppBar.svelte';
	import Finder from '$ui/Finder.svelte';
	import { PREPARE_PAGES } from '$ui/prepare-places';
	import ConfirmIdentity from '$ui/ConfirmIdentity.svelte';
	import StillHere from '$ui/StillHere.svelte';
	import { keepFields, restoreFields } from '$ui/kept-fields';
	import { setClock } from '$ui/clock-context';
	import { ServerClock } from '$ui/server-clock.svelte';

	let { data, children } = $props();
	const clock = new ServerClock(untrack(() => data.now));
	setClock(clock);
	$effect(() => clock.start());
	$effect(() => clock.set(data.now));
	// Says that keys and buttons are listening. Until then nothing can be pressed or typed: it would be lost.
	let isReady = $state(false);
	onMount(() => {
		isReady = true;
		// What a page has drawn by now; what it asks the server for first is not entered by anybody yet.
		setTimeout(restoreFields);
	});
	function loadAgain() {
		keepFields();
		location.reload();
	}
	let isFinding = $state(false);
	const OWN = $derived([
		...(data.setsUp ? [{ href: '/set-up', name: 'Set up: name, address, steps' }] : []),
		{ href: '/you', name: 'What may I do?' },
		{ href: '/you/sign-in', name: 'How I sign in' }
	]);
	const findable = $derived([
		...data.places,
		...(data.places.some(({ href }) => href === '/prepare')
			? [{ href: '/prepare/new', name: 'New session' }, ...PREPARE_PAGES]
			: []),
		...OWN
	]);
	const isBoard = $derived(page.url.pathname.endsWith('/board'));
	/** Where the first site is made, or the list that leads there stands. */
	const isSettingUp = $derived(['/', '/set-up'].includes(page.url.pathname));
	/** A line is open here: it says that somebody is there. */
	const isWatching = $derived(page.url.pathname.startsWith('/live'));
</script>

<!-- An empty theme: a component that finds none makes an error of that each time, which costs more than a cell of a table. -->
<ThemeProvider>
	{#if isBoard}
		<div class="contents" data-ready={isReady}>{@render children()}</div>
	{:else}
		<div class="flex h-dvh flex-col" data-ready={isReady}>
			<AppBar
				onfind={() => (isFinding = true)}
				path={page.url.pathname}
				{clock}
				site={page.data.site}
				person={data.person}
				places={data.places}
			/>
			{#if updated.current}
				<p role="status" class="bg-ochre-ground text-ochre flex items-center gap-3 px-5 py-2 text-[14px] font-semibold">
					Otium has been updated. Load the page again; what you have entered stays.
					<button class="rounded-lg border border-current px-2.5 py-1" onclick={loadAgain}>Load again</button>
				</p>
			{/if}
			{#if data.setsUp && data.site.name === '' && !isSettingUp}
				<p class="bg-ochre-ground flex flex-wrap items-center gap-3 px-6 py-2 text-[14.5px]" data-testid="comes-first">
					<span><strong>There is no site yet.</strong> Rooms, people and sessions come after it.</span>
					<a class="text-tide font-semibold underline" href="/set-up">Set up your place</a>
				</p>
			{/if}
			<div class="min-h-0 flex-1 overflow-auto" inert={!isReady}>{@render children()}</div>
		</div>
		<Finder places={findable} bind:open={isFinding} />
		<ConfirmIdentity />
		<StillHere
			{clock}
			zone={page.data.site.zone}
			idleUntil={data.idle.until}
			idleMinutes={data.idle.minutes}
			{isWatching}
		/>
	{/if}
</ThemeProvider>
