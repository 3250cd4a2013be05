<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { onMount } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { clockTime, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	type Site = (typeof data.sites)[number];
	type Device = Site['devices'][number];
	/** So many are read at once; more are found by typing. */
	const AT_ONCE = 40;
	const LOOK_AGAIN_MS = 4_000;
	let opened = $state.raw<{ siteId: string; site: string; code: string; until: number; before: number } | null>(null);
	let withdrawing = $state.raw<{ device: Device; last: boolean; sessions: number } | null>(null);
	let asks = $state(false);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let typed = $state('');
	const holding = (site: Site) => site.devices.filter((one) => one.withdrawnAt === null);
	const matching = (site: Site) =>
		site.devices.filter((one) => one.name.toLowerCase().includes(typed.trim().toLowerCase()));
	const enrolled = $derived(
		opened ? holding(data.sites.find((site) => site.id === opened!.siteId)!).length - opened.before : 0
	);
	// While devices enrol, whoever goes from one to the next sees them come in.
	onMount(() => {
		const timer = setInterval(() => void (opened && clock.now < opened.until && invalidateAll()), LOOK_AGAIN_MS);
		return () => clearInterval(timer);
	});

	async function open(site: Site) {
		if (busy) return;
		busy = true;
		const answer = await send<{ code: string; until: number }>('POST', '/prepare/clients', { siteId: site.id });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) opened = { siteId: site.id, site: site.name, before: holding(site).length, ...answer.data };
	}
	async function withdraw() {
		busy = true;
		const answer = await send('DELETE', `/prepare/clients?id=${withdrawing!.device.id}`);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		asks = false;
		await invalidateAll();
	}
	const when = (at: number) => timeAndDate(at, data.site.zone, clock.now);
</script>

<svelte:head><title>Sealed clients · Otium</title></svelte:head>
<main class="mx-auto max-w-4xl px-6 py-6">
	<div class="flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Sealed clients</h1>
		<div class="ml-auto w-56"><Input bind:value={typed} placeholder="Find a device" aria-label="Find a device" /></div>
	</div>
	<p class="text-ink-2 mt-1">
		Each device creates its own key and never gives it away. It enrols once, with a code; after that its client signs
		every request of a sitting. Withdraw a device that is lost or sold.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if opened}
		<div class="border-ochre-mark bg-ochre-ground text-ochre mt-4 rounded-2xl border p-4" role="status">
			<p class="font-semibold">
				Devices of {opened.site} enrol by this code until {clockTime(opened.until, data.site.zone)}. Enter it on each.
			</p>
			<p
				class="bg-sheet text-ink mt-2 rounded-lg px-3 py-2 font-mono text-[22px] tracking-wide"
				data-testid="enrolment"
			>
				{opened.code}
			</p>
			<div class="mt-2 flex items-center gap-3">
				<Act size="xs" onclick={() => (opened = null)}>Hide it</Act>
				<span class="text-[14px]"
					>{enrolled <= 0 ? 'None has enrolled yet.' : `${enrolled} ${enrolled === 1 ? 'has' : 'have'} come in.`}</span
				>
			</div>
		</div>
	{/if}
	{#each data.sites as site (site.id)}
		{@const inUse = holding(site)}
		{@const found = matching(site)}
		<section class="bg-sheet border-line mt-4 rounded-2xl border p-5">
			<div class="flex items-center gap-3">
				<h2 class="text-[18px]">{site.name}</h2>
				<span class="text-ink-2 text-[14px]"
					>{inUse.length}
					{inUse.length === 1 ? 'device' : 'devices'}, {site.sessions === 0
						? 'no sealed session open'
						: `${site.sessions} sealed ${site.sessions === 1 ? 'session' : 'sessions'} open`}</span
				>
				<Act class="ml-auto" onclick={() => open(site)} {busy} testid="enrol">Enrol devices</Act>
			</div>
			<ul class="mt-2">
				{#each found.slice(0, AT_ONCE) as device (device.id)}
					<li class="border-line flex items-center gap-3 border-t py-2 text-[14.5px]">
						<span class="font-semibold">{device.name}</span>
						<span class="text-ink-2"
							>enrolled {when(device.enrolledAt)}, by {device.enrolledBy}{device.seenAt
								? ` · last seen ${when(device.seenAt)}, version ${device.version}`
								: ' · not seen yet'}</span
						>
						{#if device.withdrawnAt}<span class="text-ink-3 ml-auto">withdrawn {when(device.withdrawnAt)}</span>
						{:else}<Act
								size="xs"
								class="ml-auto"
								onclick={() => {
									withdrawing = { device, last: inUse.length === 1, sessions: site.sessions };
									asks = true;
								}}>Withdraw</Act
							>{/if}
					</li>
				{:else}<li class="text-ink-2 py-1">
						{site.devices.length === 0 ? 'None yet: no client can prove itself here.' : 'None of that name.'}
					</li>{/each}
				{#if found.length > AT_ONCE}<li class="text-ink-3 border-line border-t py-2 text-[14px]">
						{found.length - AT_ONCE} more: type a part of the name.
					</li>{/if}
			</ul>
		</section>
	{/each}
</main>
{#if withdrawing}
	<Ask
		bind:open={asks}
		title="Withdraw {withdrawing.device.name}?"
		verb="Withdraw it"
		tone="danger"
		{busy}
		error={trouble}
		onconfirm={withdraw}
	>
		<p>
			Anyone using it is cut off at once. Their answers are kept, and their proctor can move them to another device.
			{#if withdrawing.last}<strong
					>It is the site’s last: {withdrawing.sessions === 0
						? 'no sealed session can be planned until another has enrolled.'
						: `${withdrawing.sessions} open sealed ${withdrawing.sessions === 1 ? 'session' : 'sessions'} would let nobody in.`}</strong
				>{/if}
		</p>
	</Ask>
{/if}
