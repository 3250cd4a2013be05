<!-- @component The bar at the top: the places of the day in their order, the clock, who is signed in. -->
<script lang="ts">
	import MoonSolid from 'flowbite-svelte-icons/MoonSolid.svelte';
	import SearchOutline from 'flowbite-svelte-icons/SearchOutline.svelte';
	import SunSolid from 'flowbite-svelte-icons/SunSolid.svelte';
	import { clockTime, zoneName } from '$core/time';
	import type { ServerClock } from './server-clock.svelte';
	import { singleKeys } from './shortcuts.svelte';

	type Props = {
		path: string;
		clock: ServerClock;
		site: { name: string; zone: string };
		person: { id: string; name: string; roles: string };
		places: { href: string; name: string }[];
		onfind: () => void;
	};
	let { path, clock, site, person, places, onfind }: Props = $props();

	const initials = $derived(
		person.name
			.split(' ')
			.map((part) => part[0])
			.join('')
	);
	const isHere = (href: string) => (href === '/' ? path === '/' : path.startsWith(href));
	$effect(() => singleKeys.of(person.id));
	let dark = $state(typeof document !== 'undefined' && document.documentElement.classList.contains('dark'));

	function turn() {
		dark = !dark;
		document.documentElement.classList.toggle('dark', dark);
		try {
			localStorage.setItem('otium-theme', dark ? 'dark' : 'light');
		} catch {
			// Storage is refused: it holds until the page is left.
		}
	}
</script>

<header class="bg-tide-deep flex h-13 shrink-0 items-center gap-1 px-5 text-[#f6f2e8] max-md:px-2 print:hidden">
	<a href="/" class="mr-4 font-serif text-[22px] font-semibold max-md:hidden">Otium</a>
	<nav aria-label="Places" class="flex min-w-0 gap-1 overflow-x-auto" style="scrollbar-width:none">
		{#each places as place (place.href)}
			<a
				href={place.href}
				aria-current={isHere(place.href) ? 'page' : undefined}
				class="rounded-lg px-3 py-1.5 text-[14px] font-semibold text-[#dcebe5] hover:bg-white/10 aria-[current=page]:bg-[#f6f2e8] aria-[current=page]:text-[#174843]"
				>{place.name}</a
			>
		{/each}
	</nav>
	<div class="ml-auto flex shrink-0 items-center gap-3 max-md:gap-1.5 max-md:pl-1.5">
		<button
			class="flex items-center gap-2 rounded-lg border border-white/25 px-2.5 py-1 text-[13px] text-[#dcebe5] hover:bg-white/10"
			onclick={onfind}
			data-testid="find-anything"
			><SearchOutline class="h-3.5 w-3.5" /><span class="max-md:sr-only">Find</span>
			<kbd class="font-mono text-[11.5px] max-md:hidden">Ctrl K</kbd></button
		>
		<span class="text-[14px] text-[#dcebe5] max-md:hidden"
			>{#if site.name === ''}<a class="underline" href="/set-up">Set up your place</a>{:else}{site.name} · {zoneName(
					clock.now,
					site.zone
				)}{/if}</span
		>
		<span class="font-mono text-[16px] font-semibold tabular-nums max-md:text-[13px]" data-testid="clock"
			>{clockTime(clock.now, site.zone, true)}</span
		>
		<button
			class="rounded-lg p-2 hover:bg-white/10 max-md:hidden"
			onclick={turn}
			aria-label={dark ? 'Light theme' : 'Dark theme'}
		>
			{#if dark}<SunSolid class="h-4 w-4" />{:else}<MoonSolid class="h-4 w-4" />{/if}
		</button>
		<details class="relative">
			<summary
				class="flex h-8 w-8 list-none items-center justify-center rounded-full bg-[#e9dcc0] text-[12px] font-bold text-[#174843]"
				>{initials}<span class="sr-only">, {person.name}: account</span></summary
			>
			<div class="bg-sheet text-ink border-line absolute right-0 z-40 mt-2 w-60 rounded-xl border p-4 shadow-lg">
				<p class="font-semibold">{person.name}</p>
				<p class="text-ink-2 text-[13px]">{person.roles}</p>
				<p class="text-[13px]"><a class="underline" href="/you">What may I do?</a></p>
				<p class="mb-3 text-[13px]"><a class="underline" href="/you/sign-in">How I sign in</a></p>
				<button class="mb-3 text-[13px] underline md:hidden" onclick={turn}
					>{dark ? 'Light theme' : 'Dark theme'}</button
				>
				<button
					class="mb-3 block text-left text-[13px] underline"
					aria-pressed={singleKeys.isOff}
					onclick={() => singleKeys.switch(!singleKeys.isOff)}
					data-testid="single-keys">{singleKeys.isOff ? 'Let single keys act again' : 'No single keys'}</button
				>
				<form method="POST" action="/sign-out">
					<button
						class="border-line-strong hover:bg-paper w-full rounded-lg border px-3 py-1.5 text-[14px] font-semibold"
						>Sign out</button
					>
				</form>
			</div>
		</details>
	</div>
</header>
