<!-- @component The closing of an administration: its ledger, its gates site by site, and the closing itself. -->
<script lang="ts">
	import { counted } from '$core/names';
	import { invalidateAll } from '$app/navigation';
	import { GATES, type Gate, type GateKey } from '$core/closing';
	import { shortDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import { COLUMN_NAMES } from './columns';
	import ClosingDialog from './ClosingDialog.svelte';
	import GateCell from './Gate.svelte';
	import { timeInFull } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const standing = $derived(data.closing?.standing ?? null);
	/** Where each gate is settled. */
	const WHERE: Partial<Record<GateKey, { href: string; verb: string }[]>> = {
		sessions: [{ href: '/close-out/sessions', verb: 'Sessions' }],
		sitting: [{ href: '/live', verb: 'Live' }],
		turn: [{ href: '/grants/owed', verb: 'Arrange or waive…' }],
		held_back: [{ href: '/close-out/sessions', verb: 'Sessions' }],
		incidents: [{ href: '/close-out/decide', verb: 'Decide…' }],
		by_hand: [{ href: '/close-out/marking', verb: 'Marking' }],
		validity: [{ href: '/close-out/decide', verb: 'Decide…' }],
		alike: [{ href: '/close-out/decide', verb: 'Look at them…' }],
		questions: [{ href: '/close-out/questions', verb: 'Look at it…' }]
	};
	const HINTS: Partial<Record<GateKey, string>> = {
		turn: 'absent, carried over, set aside to sit again',
		validity: 'pace, lapses, devices, late answers, incidents',
		questions: 'of all sites together'
	};
	const rows = $derived(
		(Object.keys(GATES) as GateKey[]).map((key) => ({
			key,
			name: GATES[key],
			shared: standing?.gates.find((gate) => gate.key === key && gate.siteId === null) ?? null,
			cells: (standing?.sites ?? []).map(({ id }) =>
				standing!.gates.find((gate) => gate.key === key && gate.siteId === id)
			)
		}))
	);
	const signature = (siteId: string) => standing?.signOffs.find((one) => one.siteId === siteId && one.holds);
	const dayOf = (date: string) => shortDate(Date.parse(`${date}T12:00:00Z`), 'UTC');
	const days = $derived(
		standing?.administration.opensOn && standing.administration.closesOn
			? `${dayOf(standing.administration.opensOn)} to ${dayOf(standing.administration.closesOn)} · `
			: ''
	);
	const isReady = $derived(data.closing?.objection === null);

	let signing = $state<string | null>(null);
	let closing = $state(false);
	let isRehearsal = $state(false);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);

	async function post(path: string, body: object, words: string) {
		busy = true;
		const answer = await send<{ state?: string }>('POST', path, body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) told = answer.data.state === 'waits' ? 'Another person has to close as well. Ask them now.' : words;
		await invalidateAll();
		return answer.ok;
	}
	async function sign(act: 'sign' | 'take_back', siteId: string) {
		const done = await post(
			'/close-out/sign',
			{ act, administrationId: standing!.administration.id, siteId, read: data.beneath?.[siteId] },
			act === 'sign' ? 'Signed.' : 'The signature is taken back.'
		);
		if (done) signing = null;
	}
	async function close(typed: string) {
		const body = { administrationId: standing!.administration.id, typed, basis: data.closing!.basis };
		if (await post('/close-out/close', body, 'Closed. The archive is written and sealed.')) closing = false;
	}
	function open(rehearsal: boolean) {
		[isRehearsal, trouble, closing] = [rehearsal, null, true];
	}
</script>

<svelte:head><title>Closing · Otium</title></svelte:head>
{#if !standing}
	<main class="mx-auto max-w-4xl px-6 py-8">
		<h1 class="text-[28px]">Close-out</h1>
		<p class="bg-sheet border-line text-ink-2 mt-4 rounded-2xl border p-10 text-center">
			No session has begun yet. What was sat is closed here afterwards.{#if data.places.some(({ href }) => href === '/prepare')}
				<a class="text-tide underline" href="/prepare">See what is planned</a>{/if}
		</p>
	</main>
{:else}
	<main class="flex min-h-full max-lg:flex-col">
		<div class="min-w-0 flex-1 px-6 py-5">
			<div class="mb-3 flex flex-wrap items-baseline gap-x-4">
				<h1 class="text-[28px]">{standing.administration.name}</h1>
				<p class="text-ink-2 ml-auto text-[13.5px]">
					{days}{standing.sites.length}
					{standing.sites.length === 1 ? 'site' : 'sites'}, {standing.sessions}
					{standing.sessions === 1 ? 'session' : 'sessions'}
				</p>
			</div>
			{#if told}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2" data-testid="told">{told}</p>{/if}
			<dl
				class="bg-sheet border-line mb-4 flex overflow-x-auto rounded-2xl border"
				aria-label="Ledger"
				data-testid="administration-ledger"
			>
				<div class="flex-1 px-3.5 py-2.5">
					<dd class="font-mono text-[22px] leading-7 font-semibold">{standing.ledger.expected}</dd>
					<dt class="text-ink-2 text-[13px]">expected</dt>
				</div>
				{#each COLUMN_NAMES as column (column.key)}
					<div class="border-line flex-1 border-l px-3.5 py-2.5">
						<dd class="font-mono text-[22px] leading-7 font-semibold">{standing.ledger.columns[column.key].length}</dd>
						<dt class="text-ink-2 text-[13px] whitespace-nowrap">{column.name.toLowerCase()}</dt>
					</div>
				{/each}
				<div
					class="border-line flex-1 border-l px-3.5 py-2.5 {standing.ledger.addsUp
						? 'bg-mist text-tide'
						: 'bg-brick-ground text-brick'}"
				>
					<dd class="font-mono text-[22px] leading-7 font-semibold whitespace-nowrap">= {standing.ledger.accounted}</dd>
					<dt class="text-[13px] whitespace-nowrap">{standing.ledger.addsUp ? 'it adds up' : 'it does not add up'}</dt>
				</div>
			</dl>
			<div class="bg-sheet border-line overflow-x-auto rounded-2xl border">
				<table class="w-full text-[14.5px]" data-testid="gates">
					<thead>
						<tr class="bg-paper/60 text-left">
							<th scope="col" class="text-ink-2 px-3.5 py-2.5 text-[13.5px] font-normal">What must be settled first</th>
							{#each standing.sites as site (site.id)}
								<th scope="col" class="border-line border-l px-3.5 py-2.5"
									>{site.name}
									<span class="text-ink-2 text-[13.5px] font-normal">{site.coordinators.join(', ')}</span></th
								>
							{/each}
						</tr>
					</thead>
					<tbody>
						{#each rows as row (row.key)}
							<tr class="border-line border-t">
								<th scope="row" class="w-50 px-3.5 py-2.5 text-left align-top"
									>{row.name}{#if HINTS[row.key]}<span class="text-ink-2 block text-[13px] font-normal"
											>{HINTS[row.key]}</span
										>{/if}</th
								>
								{#snippet settle(gate: Gate)}
									{#if !gate.isSettled && gate.key !== 'signed'}
										<p class="mt-1.5 flex flex-wrap gap-1.5">
											{#each WHERE[gate.key] ?? [] as { href, verb } (href)}<Act size="xs" {href}>{verb}</Act>{/each}
										</p>
									{/if}
								{/snippet}
								{#if row.shared}
									<GateCell gate={row.shared} columns={standing.sites.length}>{@render settle(row.shared)}</GateCell>
								{:else}
									{#each row.cells as gate, i (standing.sites[i].id)}
										{#if gate}
											{@const site = standing.sites[i]}
											<GateCell {gate}>
												{@render settle(gate)}
												{#if gate.key === 'signed'}
													{#if signature(site.id)}
														<p class="text-ink-2 text-[13.5px]">
															{timeInFull(signature(site.id)!.at, site.zone, clock.now)}
														</p>
														{#if !standing.closed && data.signsAt?.includes(site.id)}<Act
																size="xs"
																class="mt-1"
																onclick={() => sign('take_back', site.id)}>Take it back</Act
															>{/if}
													{:else if data.signsAt?.includes(site.id) && gate.who.length > 0}
														<Act
															size="xs"
															class="mt-1.5"
															onclick={() => ((signing = site.id), (trouble = null))}
															testid="sign">Sign for {site.name}…</Act
														>
													{/if}
												{/if}
											</GateCell>
										{:else}<td class="border-line border-l"></td>{/if}
									{/each}
								{/if}
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		</div>
		<aside
			class="bg-sheet border-line w-80 shrink-0 border-l px-5 py-5 max-lg:w-full max-lg:border-t"
			aria-label="Closing"
		>
			<h2 class="text-[20px]">{standing.closed ? 'Closed' : 'Closing'}</h2>
			<p class="bg-mist mt-2 rounded-2xl px-4 py-3.5 font-serif text-[17.5px] leading-7" data-testid="closing-sentence">
				{#if standing.closed}
					<strong>{standing.closed.by}</strong>{#if standing.closed.second}
						and <strong>{standing.closed.second}</strong>{/if} closed it:
					<strong>{counted(standing.closed.counts.results, 'result')}</strong>
					are final, and a sealed archive of
					<strong>{standing.closed.counts.entries} log entries</strong> and
					<strong>{counted(standing.closed.counts.answers, 'answer')}</strong> is written.
				{:else}
					{isReady ? 'Every gate is settled.' : 'When the last gate is settled,'}
					<strong>{standing.closers.map(({ name }) => name).join(' or ') || 'a closing officer'}</strong>
					{isReady ? 'can close' : 'closes'}: <strong>{counted(standing.results, 'result')}</strong> become final,
					nothing can be answered, granted or corrected any more, and a sealed archive of
					<strong>{standing.entries} log entries</strong>
					and
					<strong>{counted(standing.answers, 'answer')}</strong> is written.
				{/if}
			</p>
			{#if !standing.closed}
				<div class="mt-3 flex flex-wrap gap-2">
					{#if data.mayClose}
						<Act tone="danger" disabled={!isReady} onclick={() => open(false)} testid="close"
							>Close the administration…</Act
						>
					{/if}
					<Act onclick={() => open(true)} testid="rehearse">Rehearse it</Act>
				</div>
				{#if data.closing?.waitsForSecond}<p class="text-ochre mt-2 text-[14px]">
						{data.closing.waitsForSecond.by} has closed. Another person has to as well.
					</p>{/if}
				<h3 class="mt-5 text-[16.5px]">Who can settle what</h3>
				<ul class="mt-1.5" data-testid="who">
					{#each data.who ?? [] as { name, open } (name)}
						<li class="border-line border-t py-2">
							<strong>{name}</strong>
							<span class="bg-ochre-ground text-ochre ml-1 rounded-full px-2 py-px text-[12.5px] font-semibold"
								>{open.length}</span
							>
							<span class="text-ink-2 block text-[13.5px]">{open.join(' · ')}</span>
						</li>
					{:else}
						<li class="border-line text-ink-2 border-t py-2 text-[14px]">Nothing is open.</li>
					{/each}
					{#each standing.closers as closer (closer.id)}
						<li class="border-line border-t py-2">
							<strong>{closer.name}</strong>
							<span class="bg-mist text-tide ml-1 rounded-full px-2 py-px text-[12.5px] font-semibold"
								>{isReady ? 'closes' : 'waits'}</span
							>
							<span class="text-ink-2 block text-[13.5px]"
								>{closer.isApart
									? 'closes; supervised none of these sessions'
									: 'supervised some of these sessions, so another person closes as well'}</span
							>
						</li>
					{/each}
				</ul>
			{/if}
			<div class="border-line mt-3 border-t pt-3">
				<p class="text-ink-2 text-[14px]">
					{data.releases?.length
						? `Released to candidates: ${data.releases.map(({ paper }) => paper).join(', ')}.`
						: 'No results are released to candidates.'}
					<a class="text-tide underline" href="/close-out/results">Change</a>
				</p>
				<div class="mt-3 flex flex-wrap gap-2">
					<Act href="/close-out/report/{standing.administration.id}">Report, PDF</Act>
					<Act href="/close-out/results">Results…</Act>
					{#if standing.sites.length > 1}{#each standing.sites as site (site.id)}<Act
								size="xs"
								href="/close-out/report/{standing.administration.id}?site={site.id}">{site.name} alone</Act
							>{/each}{/if}
				</div>
			</div>
		</aside>
	</main>

	<Ask
		open={signing !== null}
		title="Sign for {standing.sites.find(({ id }) => id === signing)?.name ?? ''}"
		verb="Sign"
		{busy}
		error={trouble}
		onconfirm={() => sign('sign', signing!)}
	>
		<p>{data.statement}</p>
		<p class="text-ink-2 mt-2 text-[14px]">
			Your name, the time and a digest of everything this rests on go into the log. If any of it changes, the signature
			no longer holds.
		</p>
	</Ask>

	<ClosingDialog
		bind:open={closing}
		{standing}
		closing={data.closing!}
		{isRehearsal}
		{busy}
		error={trouble}
		signedBy={(siteId) => signature(siteId)?.by}
		onclose={close}
	/>
{/if}
