<!-- @component A candidate's own page: what they sit and what they have been given, in their words, and asking for more. -->
<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { REQUEST_STATES, REQUEST_WHAT, type RequestWhat } from '$core/request';
	import { clockTime, longDate, timeAndDate, zoneName } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import OwnTime from '$ui/OwnTime.svelte';
	import LinkPage from '$ui/LinkPage.svelte';
	import { inWords, send } from '$ui/post';
	import RequestFields from '$ui/RequestFields.svelte';
	import ToldList from '$ui/ToldList.svelte';
	import { shownFrom } from '$ui/shown-from';

	import OwnResult from './OwnResult.svelte';

	let { data } = $props();
	let sessionId = $state('');
	let what = $state<RequestWhat>('more_time');
	let why = $state('');
	let files = $state<FileList>();
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let asked = $state(false);
	const coming = $derived(data.own?.sittings.filter((one) => one.isToCome) ?? []);
	const past = $derived(data.own?.sittings.filter((one) => !one.isToCome) ?? []);

	async function act(body: object): Promise<boolean> {
		busy = true;
		const answer = await send('POST', page.url.pathname, body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
		return answer.ok;
	}
	async function ask(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		const shown = await shownFrom(files?.[0]);
		asked = await act({ act: 'ask', sessionId: sessionId || null, what, why, shown });
		if (!asked) return;
		why = '';
		files = undefined;
	}
</script>

<LinkPage title="My sittings">
	{#if !data.own}
		<h1 class="mt-4 text-[26px]">This link is not valid any more</h1>
		<p class="text-ink-2 mt-2">The link in the latest mail that you got works; or ask your college.</p>
	{:else}
		<h1 class="mt-4 text-[26px]">{data.own.name}</h1>
		<p class="text-ink-2 font-mono">{data.own.number}</p>
		{#if data.results.length > 0}
			<section class="mt-6 space-y-4">
				<h2 class="text-[20px]">My results</h2>
				{#each data.results as result (result.paper + result.attempt)}<OwnResult {result} now={data.now} />{/each}
			</section>
		{/if}
		<section class="mt-6 space-y-4">
			<h2 class="text-[20px]">What I can sit now</h2>
			{#each coming.filter((one) => one.isNow) as one (one.sessionId)}{@render sitting(one)}{:else}
				<p class="text-ink-2">Nothing at this moment.</p>
			{/each}
			<p class="text-[15px]">
				At any time: <a class="font-semibold underline" href="/sit/practice">practice papers</a>, and
				<a class="font-semibold underline" href="/sit/rehearse">checking this device</a>.
			</p>
			<h2 class="pt-2 text-[20px]">What I will sit</h2>
			{#each coming.filter((one) => !one.isNow) as one (one.sessionId)}{@render sitting(one)}{:else}
				<p class="text-ink-2">Nothing {coming.length > 0 ? 'more' : ''} is planned for you at present.</p>
			{/each}
		</section>
		{#if past.length > 0}
			<section class="mt-6">
				<h2 class="text-[20px]">What was before</h2>
				<ul class="mt-1">
					{#each past as one (one.sessionId)}
						<li class="border-line flex justify-between gap-3 border-b py-2">
							<span>{one.paper}, {timeAndDate(one.opens, one.zone, data.now)}</span><span class="text-ink-2"
								>{one.state}</span
							>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		<section class="mt-8">
			<h2 class="text-[20px]">Asking for something else</h2>
			{#if data.own.requests.length > 0}
				<ul class="mt-1">
					{#each data.own.requests as one (one.id)}
						<li class="border-line flex flex-wrap items-center gap-x-3 border-b py-2" data-testid="own-request">
							<span class="flex-1"
								>{REQUEST_WHAT[one.what]}{one.session ? `, for ${one.session.name}` : ''}<span
									class="text-ink-2 block text-[14.5px]">{one.why}</span
								>{#if one.note}<span class="block text-[14.5px]">{one.note}</span>{/if}</span
							><strong class={one.state === 'given' ? 'text-tide' : 'text-ink-2'}>{REQUEST_STATES[one.state]}</strong>
							{#if one.state === 'open'}<Act size="xs" {busy} onclick={() => act({ act: 'take_back', id: one.id })}
									>Take back</Act
								>{/if}
						</li>
					{/each}
				</ul>
			{/if}
			<form class="mt-4 space-y-4" onsubmit={ask}>
				{#if coming.length > 0}
					<Field id="for-session" label="For which sitting"
						><Select
							id="for-session"
							placeholder=""
							bind:value={sessionId}
							items={[
								{ value: '', name: 'All of them' },
								...coming.map((one) => ({
									value: one.sessionId,
									name: `${one.paper}, ${timeAndDate(one.opens, one.zone, data.now)}`
								}))
							]}
						/></Field
					>
				{/if}
				<RequestFields bind:what bind:why bind:files />
				{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
				{#if asked}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2" data-testid="asked">
						Asked. What is decided stands here, and comes by mail where there is an address.
					</p>{/if}
				<Act tone="main" type="submit" {busy} disabled={why.trim() === ''}>Ask</Act>
			</form>
		</section>
	{/if}
</LinkPage>

{#snippet sitting(one: NonNullable<typeof data.own>['sittings'][number])}
	<article class="border-line bg-sheet rounded-2xl border px-5 py-4" data-testid="own-sitting">
		<h3 class="text-[18px]">{one.paper}</h3>
		<p class="text-ink-2 text-[14.5px]">
			{longDate(one.opens, one.zone, data.now)}, {clockTime(one.opens, one.zone)}
			{zoneName(one.opens, one.zone)}, {one.site}<OwnTime at={one.opens} zone={one.zone} />
		</p>
		{#if one.closed}<p class="bg-ochre-ground text-ochre mt-2 rounded-lg px-3 py-2" data-testid="closed">
				Not open for you yet. {one.closed}
			</p>{:else if one.isNow}<p class="mt-2">
				<a class="bg-tide-deep inline-block rounded-xl px-4 py-2 font-semibold text-[#f6f2e8]" href={one.link}
					>To the door</a
				>
			</p>{/if}
		<ul class="mt-2 list-disc space-y-1 pl-5">
			{#each one.told as sentence, i (i)}<li>{sentence}</li>{/each}
		</ul>
		<details class="mt-2">
			<summary class="text-tide font-semibold">Everything that applies</summary>
			<div class="mt-2"><ToldList told={one.binds} /></div>
		</details>
	</article>
{/snippet}
