<script lang="ts">
	import { counted } from '$core/names';
	import { invalidateAll, goto } from '$app/navigation';
	import { TALLY_ORDER, type TallyKey } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import { clockTime, longDate, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import ReadyLines from '$ui/ReadyLines.svelte';
	import Sentence from '$ui/Sentence.svelte';
	import SetUpList from './set-up/SetUpList.svelte';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { timeInFull } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const today = $derived(data.today);
	/** Nothing is offered that can't work yet: what comes first stands in the list. */
	const canPlan = $derived(
		data.mayPrepare && !data.leftToSetUp?.some(({ key, state }) => state === 'next' && key !== 'session')
	);
	const hours = $derived(
		Array.from({ length: Math.round((today.to - today.from) / 3_600_000) }, (_, i) => today.from + i * 3_600_000)
	);
	const at = (instant: number) => `${(100 * (instant - today.from)) / (today.to - today.from)}%`;
	const width = (from: number, to: number) => `${(100 * Math.max(0, to - from)) / (today.to - today.from)}%`;
	const shown = $derived(TALLY_ORDER.filter((key) => today.tally[key] > 0));
	const nameOf = (key: TallyKey) =>
		key === 'line_lost' ? 'Line lost' : key === 'expected' ? 'Still expected' : STATE_NAMES[key];
	const shade: Record<TallyKey, string> = {
		handed_in: 'bg-tide',
		time_up: 'bg-tide/80',
		working: 'bg-tide/60',
		let_in: 'bg-tide/40',
		at_door: 'bg-slate-sea/60',
		on_hold: 'bg-ochre-mark',
		line_lost: 'bg-brick',
		carried_over: 'bg-plum/60',
		absent: 'bg-ink-3/60',
		set_aside: 'bg-brick/50',
		expected: 'bg-line'
	};
	const STAGE = {
		planned: 'bg-sheet border-line-strong',
		door: 'bg-slate-ground border-slate-sea/40',
		running: 'bg-tide border-tide text-on-tide',
		ended: 'bg-mist border-tide/25 text-tide'
	};

	// The ribbon follows the day without anybody reloading it.
	$effect(() => {
		const timer = setInterval(() => void invalidateAll(), 15_000);
		return () => clearInterval(timer);
	});

	const keys = {
		n: () => void (canPlan && goto('/prepare/new')),
		o: () => void (today.next && goto(`/live/${today.next.id}`))
	};
</script>

<svelte:head><title>Today · Otium</title></svelte:head>
<Shortcuts {keys} />

<div class="grid min-h-full grid-cols-[1fr_330px] max-lg:grid-cols-1">
	<main class="space-y-4 px-6 py-5">
		<div class="flex flex-wrap items-baseline gap-x-3">
			<h1 class="text-[28px]">{longDate(clock.now, today.zone)}</h1>
			<p class="text-ink-2">{[data.administration, data.site.name].filter(Boolean).join(' · ')}</p>
			{#if canPlan}<Act tone="main" key="N" href="/prepare/new" class="ml-auto">New session</Act>{/if}
		</div>

		{#if data.leftToSetUp}<SetUpList steps={data.leftToSetUp} />{/if}
		{#if data.waiting.length > 0}
			<section class="bg-sheet border-line rounded-2xl border px-4 py-3" aria-labelledby="waiting">
				<h2 id="waiting" class="text-[17px]">Waits for you</h2>
				<ul class="mt-1.5 space-y-1 text-[15px]" data-testid="waiting">
					{#each data.waiting as one (one.key)}<li>
							<a class="{one.presses ? 'text-brick' : 'text-ochre'} font-semibold underline" href={one.href}
								>{one.what}</a
							>{one.then}
						</li>{/each}
				</ul>
			</section>
		{/if}
		{#if !data.seesSessions}
			{#if data.waiting.length === 0}<section class="bg-sheet border-line rounded-2xl border p-10 text-center">
					<p class="font-serif text-xl">Nothing waits for you.</p>
				</section>{/if}
		{:else if today.lanes.length === 0 && data.leftToSetUp}
			<!-- What comes first stands above. -->
		{:else if today.lanes.length === 0}
			<section class="bg-sheet border-line rounded-2xl border p-10 text-center">
				<p class="font-serif text-xl">
					{data.mayPrepare ? 'Nothing is planned for today.' : 'You supervise nothing today.'}
				</p>
				<p class="text-ink-2 mt-1">
					{data.mayPrepare ? 'Press N to plan a session.' : 'Sessions that name you as their proctor appear here.'}
				</p>
			</section>
		{:else}
			<section class="bg-sheet border-line overflow-x-auto rounded-2xl border" aria-label="The day, room by room">
				<div class="min-w-[640px]">
					<div class="border-line ml-[140px] flex border-b">
						{#each hours as hour (hour)}<div
								class="text-ink-3 border-line flex-1 border-l py-1.5 pl-1.5 font-mono text-[12px]"
							>
								{clockTime(hour, today.zone)}
							</div>{/each}
					</div>
					<div class="relative">
						{#each today.lanes as lane (lane.room)}
							<div class="border-line flex h-[69px] border-t border-dashed first:border-t-0">
								<div class="w-[140px] shrink-0 px-4 py-3 leading-tight">
									<p class="truncate text-[14px] font-semibold">{lane.room}</p>
									<p class="text-ink-3 text-[12px]">{counted(lane.seats, 'seat')} · {lane.proctors}</p>
								</div>
								<div class="relative flex-1 overflow-hidden">
									{#each lane.bars as bar (bar.id)}
										<div
											class="bg-slate-ground border-slate-sea/30 absolute top-2 h-[52px] rounded-l-lg border border-r-0"
											style="left:{at(bar.door)};width:{width(bar.door, bar.opens)}"
										></div>
										{#if bar.lastEnds > bar.ends}
											<div
												class="tail border-plum/40 absolute top-2 h-[52px] rounded-r-lg border border-l-0"
												style="left:{at(bar.ends)};width:{width(bar.ends, bar.lastEnds)}"
											></div>
										{/if}
										<a
											href={bar.stage === 'ended' ? `/close-out/${bar.id}` : `/live/${bar.id}`}
											class="absolute top-2 h-[52px] overflow-hidden rounded-lg border px-2 py-0.5 {bar.needsProctor
												? 'bg-ochre-ground border-ochre-mark text-ochre'
												: STAGE[bar.stage]}"
											style="left:{at(bar.opens)};width:{width(bar.opens, bar.ends)}"
											title="{bar.title}, {clockTime(bar.opens, today.zone)}: {bar.line}"
										>
											<span class="line-clamp-2 text-[12.5px] leading-[1.2] font-semibold"
												>{bar.title}{bar.kind === 'make_up'
													? ', make-up'
													: bar.kind === 'rehearsal'
														? ', rehearsal'
														: ''}</span
											>
											<span class="block truncate text-[12px] leading-[1.25]"
												>{bar.line}{bar.needsProctor ? ' · no proctor' : ''}</span
											>
										</a>
									{/each}
								</div>
							</div>
						{/each}
						{#if clock.now >= today.from && clock.now <= today.to}
							<div class="pointer-events-none absolute inset-y-0 right-0 left-[140px]">
								<div class="border-brick absolute inset-y-0 border-l-2" style="left:{at(clock.now)}">
									<span class="bg-brick absolute -top-[25px] -left-5 rounded px-1 font-mono text-[12px] text-on-tide"
										>{clockTime(clock.now, today.zone)}</span
									>
								</div>
							</div>
						{/if}
					</div>
				</div>
			</section>

			<div class="grid grid-cols-2 gap-4 max-md:grid-cols-1">
				<section class="bg-sheet border-line rounded-2xl border p-4">
					<h2 class="mb-3 text-[17px]">
						Everyone, today <span class="text-ink-3 font-sans font-normal">{today.expected}</span>
					</h2>
					<div class="flex h-6 gap-0.5 overflow-hidden rounded-lg" aria-hidden="true">
						{#each shown as key (key)}<div class={shade[key]} style="flex:{today.tally[key]}"></div>{/each}
					</div>
					<ul class="mt-3 flex flex-wrap gap-x-4 gap-y-1.5 text-[13.5px]">
						{#each shown as key (key)}<li class="flex items-center gap-1.5">
								<StateGlyph state={key} />{nameOf(key)} <strong>{today.tally[key]}</strong>
							</li>{/each}
					</ul>
				</section>
				<section class="bg-sheet border-line rounded-2xl border p-4">
					<h2 class="mb-3 text-[17px]">Carried over</h2>
					{#each today.endedByItself as one (one.id)}
						<p class="mb-2 text-[14px]" data-testid="ended-by-itself">
							Nobody ended <a class="text-ochre font-semibold underline" href="/close-out/{one.id}"
								>{one.title} in the {one.room}</a
							>: it ended by itself {timeAndDate(one.at, today.zone, clock.now)}. Look through its ledger, and sign out
							where a screen was left open.
						</p>
					{/each}
					{#each today.carried as one (one.name + one.paper)}
						<div class="mb-2 flex gap-2 text-[14px]">
							<StateGlyph state="carried_over" />
							<p>
								<strong>{one.name}</strong>
								<span class="text-ink-2"
									>{one.paper}, {one.answered} answered{one.minutesLeft === null
										? ''
										: `, ${one.minutesLeft} min left`}</span
								>
								<span class="text-ink-3 block"
									>{one.joins
										? `continues in the ${one.joins.room} at ${timeInFull(one.joins.opens, one.joins.zone, clock.now)}`
										: 'not in another session yet'}</span
								>
							</p>
						</div>
					{:else}
						<p class="text-ink-3 text-[14px]">Nobody is waiting to continue.</p>
					{/each}
				</section>
			</div>
		{/if}
	</main>

	<aside class="bg-sheet border-line border-l px-5 py-5 max-lg:border-t max-lg:border-l-0">
		{#if !data.seesSessions}
			<h2 class="text-[19px]">Your places</h2>
			<ul class="mt-2 space-y-1.5 text-[15px]">
				{#each data.places.filter(({ href }) => href !== '/') as { href, name } (href)}<li>
						<a class="text-tide underline" {href}>{name}</a>
					</li>{/each}
			</ul>
		{:else if today.next}
			<h2 class="text-[19px]">Next: {today.next.title}</h2>
			<p class="text-ink-2 text-[14px]">
				{clockTime(today.next.opens, today.zone)} in the {today.next.room}, door opens {clockTime(
					today.next.door,
					today.zone
				)}
			</p>
			<p class="bg-mist mt-3 rounded-xl p-3.5 font-serif text-[17px] leading-snug">
				<Sentence parts={today.next.sentence} />
			</p>
			<h3 class="mt-5 mb-1 text-[16px]">Ready?</h3>
			<ReadyLines lines={today.next.ready} />
			<div class="mt-4 flex gap-2">
				<Act tone="main" key="O" href="/live/{today.next.id}">Open room</Act>
				{#if data.mayPrepare}<Act href="/prepare/{today.next.id}/ready">Prepare</Act>{/if}
			</div>
		{:else}
			<h2 class="text-[19px]">Nothing more today</h2>
			<p class="text-ink-2 mt-1 text-[14px]">
				{data.mayPrepare
					? 'The next session you plan is described here in one sentence.'
					: 'You supervise no further session today.'}
			</p>
		{/if}
	</aside>
</div>

<style>
	.tail {
		background: repeating-linear-gradient(
			45deg,
			color-mix(in srgb, var(--plum) 32%, transparent) 0 3px,
			var(--plum-ground) 3px 9px
		);
	}
</style>
