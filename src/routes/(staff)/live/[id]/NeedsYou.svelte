<!-- @component Who needs the proctor, most urgent first, each with the key that settles it. -->
<script lang="ts">
	import ClockOutline from 'flowbite-svelte-icons/ClockOutline.svelte';
	import { onMount, tick, untrack } from 'svelte';
	import { needCounts, tallyKeyOf, type Need, type NeedAct, type NeedKind, type SeatView } from '$core/room';
	import Act from '$ui/Act.svelte';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { NEED_KEYS } from './asks';
	import { KIND_NAMES, needInWords, newsInWords, verbInWords, whomInWords } from './needs-words';
	import type { LiveRoom } from './room.svelte';
	import { keepIn, keptIn } from '$ui/browser-storage';

	type Props = {
		room: LiveRoom;
		now: number;
		isMasked: boolean;
		onsettle: (act: NeedAct, need: Need) => void;
		/** Whom it is about is looked at closely. */
		onlook: (seat: SeatView) => void;
	};
	let { room, now, isMasked, onsettle, onlook }: Props = $props();

	const head = $derived(room.head);
	const QUIET = 'otium live quiet';
	let isLoud = $state(false);
	onMount(() => (isLoud = keptIn('localStorage', QUIET) === 'loud'));
	// A sound for what is new and presses, never for what only moved up.
	// svelte-ignore state_referenced_locally
	let known = new Set(room.needs.map((need) => need.key));
	$effect(() => {
		const keys = room.needs.map((need) => need.key);
		const isNew = room.needs.some((need) => need.urgency <= 6 && !known.has(need.key));
		const news = room.needs.filter((need) => !known.has(need.key));
		known = new Set(keys);
		if (isNew && untrack(() => isLoud)) void ring();
		if (news.length > 0 && untrack(() => isSaid)) say(news);
	});

	const SAID = 'otium live said';
	/** Whoever does not see the room hears who needs them, by their screen reader. */
	let isSaid = $state(true);
	onMount(() => (isSaid = keptIn('localStorage', SAID) !== 'no'));
	/** What comes at once is said in one sentence. */
	const GATHERED_MS = 1_500;
	let said = $state('');
	let gathered: Need[] = [];
	function say(news: Need[]) {
		gathered.push(...news);
		if (gathered.length > news.length) return;
		setTimeout(() => {
			// What was settled meanwhile is no news.
			const still = gathered.filter(({ key }) => known.has(key));
			gathered = [];
			if (still.length > 0) said = newsInWords(still, isMasked);
		}, GATHERED_MS);
	}
	function setSaid(on: boolean) {
		isSaid = on;
		keepIn('localStorage', SAID, on ? 'yes' : 'no');
		if (!on) said = '';
	}
	async function ring() {
		const audio = new AudioContext();
		const tone = audio.createOscillator();
		const volume = audio.createGain();
		tone.frequency.value = 587;
		volume.gain.setValueAtTime(0.12, audio.currentTime);
		volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.5);
		tone.connect(volume).connect(audio.destination);
		tone.start();
		tone.stop(audio.currentTime + 0.5);
		tone.onended = () => void audio.close();
	}
	function setLoud(on: boolean) {
		isLoud = on;
		keepIn('localStorage', QUIET, on ? 'loud' : 'quiet');
		if (on) void ring();
	}
	/** So many are read one by one; more than that are told by kind first. */
	const MANY = 6;
	const AT_ONCE = 40;
	const kinds = $derived(needCounts(room.needs));
	let chosen = $state<NeedKind | null>(null);
	const only = $derived(kinds.some(([kind]) => kind === chosen) && kinds.length > 1 ? chosen : null);
	const listed = $derived(only === null ? room.needs : room.needs.filter((need) => need.kind === only));
	const choosable = $derived(listed.flatMap(({ seats }) => seats).length);
	function select(needs: Need[]) {
		room.selected.clear();
		for (const { id } of needs.flatMap(({ seats }) => seats)) room.selected.add(id);
	}
	// Whoever settles by keyboard is with the next one when the one before has gone, and not at the top of the page.
	let list = $state<HTMLElement>();
	let settled: { key: string; at: number } | null = null;
	function settle(act: NeedAct, need: Need) {
		settled = { key: need.key, at: listed.indexOf(need) };
		onsettle(act, need);
	}
	$effect(() => {
		const keys = listed.map(({ key }) => key);
		if (settled === null || keys.includes(settled.key)) return;
		const { at } = settled;
		settled = null;
		void tick().then(() => {
			if (document.activeElement !== document.body) return;
			const next = list?.children[Math.min(at, keys.length - 1)]?.querySelector<HTMLElement>('[data-keyed]');
			(next ?? heading)?.focus();
		});
	});
	let heading = $state<HTMLElement>();
	const EDGES = { brick: 'border-l-brick', ochre: 'border-l-ochre-mark', slate: 'border-l-slate-sea' };
</script>

<div class="mb-2.5 flex items-baseline gap-2">
	<h2 class="text-[17px] outline-none" tabindex="-1" bind:this={heading}>
		Needs you <span class="text-ink-3 font-sans font-normal">{room.needs.length || ''}</span>
	</h2>
	<label class="text-ink-3 ml-auto flex items-center gap-1.5 text-[13px]"
		><input
			type="checkbox"
			class="border-line-strong text-tide rounded"
			checked={isLoud}
			onchange={(event) => setLoud(event.currentTarget.checked)}
		/>sound</label
	>
	<label
		class="text-ink-3 flex items-center gap-1.5 text-[13px]"
		title="A screen reader says who needs you, as it happens."
		><input
			type="checkbox"
			class="border-line-strong text-tide rounded"
			checked={isSaid}
			onchange={(event) => setSaid(event.currentTarget.checked)}
		/>spoken</label
	>
</div>
<p class="sr-only" role="status" data-testid="said">{said}</p>
<!-- Always as high as one line, so that the queue below stays where it is when the seventh comes. -->
<div
	class="mb-2 flex h-8 items-start gap-1.5 overflow-x-auto text-[13px]"
	role="group"
	aria-label="Needs by kind"
	data-testid="kinds"
>
	{#if room.needs.length > MANY}
		{#each kinds as [kind, count] (kind)}
			<button
				class="shrink-0 rounded-full border px-2.5 py-0.5 {only === kind
					? 'bg-mist border-tide text-tide font-semibold'
					: 'border-line-strong text-ink-2'}"
				aria-pressed={only === kind}
				onclick={() => (chosen = only === kind ? null : kind)}>{KIND_NAMES[kind]} {count}</button
			>
		{/each}
	{:else if room.needs.length > 1}<span class="text-ink-3">most urgent first</span>{/if}
</div>
{#if room.needs.length > MANY}
	{#if only !== null && choosable > 0}<p class="mb-2.5">
			<Act size="xs" onclick={() => select(listed)}>Select these {choosable}</Act>
		</p>{/if}
{/if}
<ul class="space-y-2.5" bind:this={list} data-testid="needs">
	{#each listed.slice(0, AT_ONCE) as need (need.key)}
		<li class="bg-sheet border-line rounded-xl border border-l-4 px-3 py-2.5 {EDGES[need.tone]}" data-need={need.kind}>
			<div class="flex items-center gap-2">
				<button
					class="flex min-h-6 min-w-0 flex-1 items-center gap-2 text-left max-lg:min-h-9"
					disabled={need.seats.length === 0}
					data-keyed
					onclick={() => (need.seat ? onlook(need.seat) : select([need]))}
				>
					{#if need.seats.length > 0}<StateGlyph state={tallyKeyOf(need.seats[0])} size={15} />{/if}
					<span class="truncate font-semibold">{whomInWords(need, isMasked)}</span>
					<span class="text-ink-3 ml-auto font-mono text-[13px]">{need.seat?.seat ?? ''}</span>
				</button>
				<button
					class="text-ink-3 hover:text-ink min-h-6 px-1 max-lg:min-h-9 max-lg:px-3"
					title="Later: comes back in five minutes, or when it changes"
					aria-label="Later: {whomInWords(need, isMasked)}"
					onclick={() => room.putOff.put(need)}><ClockOutline class="h-4 w-4" /></button
				>
			</div>
			<p class="text-ink-2 mt-0.5 text-[13.5px] leading-snug">
				{needInWords(need, now, head)}
			</p>
			<div class="mt-2 flex flex-wrap gap-1.5">
				{#each need.acts as act, i (act)}
					<Act
						size="xs"
						tone={i === 0 && act !== 'free_device' ? 'main' : 'quiet'}
						key={i === 0 ? NEED_KEYS[act] : undefined}
						disabled={room.busy}
						onclick={() => settle(act, need)}>{verbInWords(act, need)}</Act
					>
				{/each}
			</div>
		</li>
	{:else}
		<li class="text-ink-3 text-[14px]">
			{head.endedAt === null ? 'Nobody needs you. A quiet room.' : 'The session has ended.'}
		</li>
	{/each}
</ul>
{#if listed.length > AT_ONCE}<p class="text-ink-3 mt-3 text-[13px]">
		and {listed.length - AT_ONCE} more, less urgent
	</p>{/if}
{#if room.putOffCount > 0}
	<button class="text-ink-3 mt-3 text-[13px] underline" onclick={() => room.putOff.clear()}
		>{room.putOffCount} postponed: show</button
	>
{/if}
