<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { localTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	type Key = (typeof data.sites)[number]['keys'][number];
	let made = $state.raw<{ site: string; key: string } | null>(null);
	let withdrawing = $state.raw<{ key: Key; last: boolean; sessions: number } | null>(null);
	let asks = $state(false);
	let busy = $state(false);
	let trouble = $state<string | null>(null);

	async function make(site: { id: string; name: string }) {
		if (busy) return;
		busy = true;
		const answer = await send<{ key: string }>('POST', '/prepare/clients', { siteId: site.id });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		made = { site: site.name, key: answer.data.key };
		await invalidateAll();
	}
	async function withdraw() {
		busy = true;
		const answer = await send('DELETE', `/prepare/clients?id=${withdrawing!.key.id}`);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		asks = false;
		await invalidateAll();
	}
	const day = (at: number) => `${longDate(at, data.site.zone, clock.now)}, ${localTime(at, data.site.zone)}`;
</script>

<svelte:head><title>Sealed clients · Otium</title></svelte:head>
<main class="mx-auto max-w-4xl px-6 py-6">
	<h1 class="text-[28px]">Sealed clients</h1>
	<p class="text-ink-2 mt-1">
		A sealed client proves itself with its site’s key: the server sends a number that is used once, the client answers
		with what only the key can make of it. Make a new key, change the devices over, then withdraw the old one.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if made}
		<div class="border-ochre-mark bg-ochre-ground text-ochre mt-4 rounded-2xl border p-4" role="status">
			<p class="font-semibold">
				The new key of {made.site}. It is shown this once: put it where the clients read it, now.
			</p>
			<p class="bg-sheet text-ink mt-2 rounded-lg px-3 py-2 font-mono text-[14px] break-all" data-testid="new-key">
				{made.key}
			</p>
			<div class="mt-2 flex gap-2">
				<Act size="xs" onclick={() => void navigator.clipboard?.writeText(made!.key)}>Copy</Act>
				<Act size="xs" onclick={() => (made = null)}>It is put away</Act>
			</div>
		</div>
	{/if}
	{#each data.sites as site (site.id)}
		{@const inUse = site.keys.filter((key) => key.withdrawnAt === null)}
		<section class="bg-sheet border-line mt-4 rounded-2xl border p-5">
			<div class="flex items-center gap-3">
				<h2 class="text-[18px]">{site.name}</h2>
				<span class="text-ink-2 text-[14px]"
					>{site.sessions === 0
						? 'no sealed session is open'
						: `${site.sessions} sealed ${site.sessions === 1 ? 'session' : 'sessions'} open`}</span
				>
				<Act class="ml-auto" onclick={() => make(site)} {busy} testid="make-key"
					>{inUse.length === 0 ? 'Make a key' : 'Make another, to change over'}</Act
				>
			</div>
			<ul class="mt-2">
				{#each site.keys as key (key.id)}
					<li class="border-line flex items-center gap-3 border-t py-2 text-[14.5px]">
						<span class="font-mono">{key.id}</span>
						<span class="text-ink-2">made {day(key.madeAt)}</span>
						{#if key.withdrawnAt}<span class="text-ink-3 ml-auto">withdrawn {day(key.withdrawnAt)}</span>
						{:else}<Act
								size="xs"
								class="ml-auto"
								onclick={() => {
									withdrawing = { key, last: inUse.length === 1, sessions: site.sessions };
									asks = true;
								}}>Withdraw</Act
							>{/if}
					</li>
				{:else}<li class="text-ink-2 py-1">No key yet: no client can prove itself here.</li>{/each}
			</ul>
		</section>
	{/each}
</main>
{#if withdrawing}
	<Ask
		bind:open={asks}
		title="Withdraw {withdrawing.key.id}?"
		verb="Withdraw it"
		tone="danger"
		{busy}
		error={trouble}
		onconfirm={withdraw}
	>
		<p>
			Devices that have only this key are shut out within three minutes.
			{#if withdrawing.last}<strong
					>It is the site’s last: {withdrawing.sessions === 0
						? 'no sealed session can be planned until another is made.'
						: `${withdrawing.sessions} open sealed ${withdrawing.sessions === 1 ? 'session' : 'sessions'} would let nobody in.`}</strong
				>{/if}
		</p>
	</Ask>
{/if}
