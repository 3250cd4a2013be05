<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { longDate } from '$core/time';

	let { data, children } = $props();
	const path = $derived(page.url.pathname);
	const TABS = $derived(
		[
			{ href: '/close-out', name: 'Closing', shown: data.may.seeClosing },
			{ href: '/close-out/sessions', name: 'Sessions', shown: data.may.seeClosing },
			{ href: '/grants/owed', name: 'Still owed', count: data.owed, shown: data.may.seeClosing && data.may.grant },
			{ href: '/close-out/marking', name: 'Marking', shown: data.may.seeClosing || data.may.mark },
			{ href: '/close-out/decide', name: 'Decisions', shown: data.may.seeClosing },
			{ href: '/close-out/questions', name: 'How questions did', shown: data.may.seeClosing },
			{ href: '/close-out/results', name: 'Results', shown: data.may.seeClosing },
			{ href: '/close-out/archive', name: 'Archive', shown: data.may.seeClosing }
		].filter(({ shown }) => shown)
	);
	const under = $derived(TABS.findLast(({ href }) => path === href || path.startsWith(`${href}/`))?.href);
	/** Similar answers are decided about, and a session’s own ledger is under Sessions. */
	const here = $derived(
		path.startsWith('/close-out/alike/')
			? '/close-out/decide'
			: under === '/close-out' && path !== '/close-out'
				? '/close-out/sessions'
				: under
	);
	/** Whether a page is about the administration that is chosen; a session has its own. */
	const isOfOne = $derived(here !== '/close-out/sessions' || path === here);
	const choosesHere = $derived(data.administrations.length > 1 && isOfOne);
	function show(event: Event) {
		const of = (event.currentTarget as HTMLSelectElement).value;
		void goto(`${path}?of=${encodeURIComponent(of)}`, { invalidateAll: true });
	}
</script>

<div class="flex h-full min-h-0 flex-col max-lg:h-auto">
	{#if TABS.length > 0}
		<nav
			aria-label="Close-out"
			class="bg-sheet border-line flex shrink-0 items-center gap-x-1 overflow-x-auto border-b px-5 print:hidden"
		>
			{#each TABS as { href, name, count = 0 } (href)}
				<a
					{href}
					aria-current={here === href ? 'page' : undefined}
					class="text-ink-2 hover:text-ink aria-[current=page]:border-tide aria-[current=page]:text-ink border-b-2 border-transparent px-3 py-2 text-[14px] font-semibold whitespace-nowrap"
					>{name}{#if count > 0}<span class="bg-ochre-ground text-ochre ml-1.5 rounded-full px-1.5 py-px text-[12.5px]"
							>{count}</span
						>{/if}</a
				>
			{/each}
			{#if choosesHere}
				<Select
					class="ml-auto w-64 shrink-0 py-1 text-[13.5px]"
					size="sm"
					aria-label="Administration"
					value={data.here?.id}
					onchange={show}
					items={data.administrations.map(({ id, name }) => ({ value: id, name }))}
				/>
			{/if}
		</nav>
	{/if}
	{#if data.gone && isOfOne}
		<p role="status" class="bg-mist text-tide shrink-0 px-6 py-2 text-[14.5px]" data-testid="gone">
			Answers and results of {data.here?.name} were deleted on {longDate(data.gone, data.site.zone)}, as their time had
			come. Its sealed archive has them.
		</p>
	{/if}
	<div class="min-h-0 flex-1 overflow-auto">{@render children()}</div>
</div>
