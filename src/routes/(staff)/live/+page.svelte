<script lang="ts">
	import { counted } from '$core/names';
	import { untrack } from 'svelte';
	import { roomReady, SETTLED_AT_ONCE, TALLY_ORDER, type Need, type NeedAct } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { needInWords, verbInWords, whomInWords } from './[id]/needs-words';
	import { readyInWords } from './[id]/ready-words';
	import { LiveRoom } from './[id]/room.svelte';
	import { timeInFull } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const rooms = untrack(() =>
		data.rooms.map(({ coordinates, isMasked, ...drawn }) => new LiveRoom(drawn, clock, coordinates, isMasked))
	);
	const now = $derived(clock.now);

	$effect(() => {
		if (rooms.length === 0) return;
		let stopped = false;
		let retry: ReturnType<typeof setTimeout> | undefined;
		let source: EventSource;
		const open = () => {
			source = new EventSource(`/live/wall?rooms=${rooms.map((room) => room.sessionId).join(',')}`);
			for (const room of rooms) room.attach(source, `:${room.sessionId}`);
			source.onerror = () => {
				if (source.readyState === EventSource.CLOSED && !stopped) retry = setTimeout(open, 2_000);
			};
		};
		open();
		return () => {
			stopped = true;
			clearTimeout(retry);
			source.close();
		};
	});

	/** Rooms in which somebody needs a person come first; otherwise as they opened. */
	const ordered = $derived(
		[...rooms].sort((a, b) => Math.sign(b.needs.length) - Math.sign(a.needs.length) || a.head.opens - b.head.opens)
	);
	const waiting = $derived(rooms.reduce((sum, room) => sum + room.needs.length, 0));
	const people = $derived(rooms.reduce((sum, room) => sum + (room.isComing ? room.head.expected : room.all.length), 0));
	const isComing = $derived(rooms.some((room) => room.isComing));
	const isStale = $derived(rooms.some((room) => room.isStale));
	const notices = $derived(rooms.flatMap((room) => room.notices.list.map((notice) => ({ room, notice }))));

	/** What one press settles is done from here; what asks for words or a choice is done in the room. */
	const AT_ONCE: NeedAct[] = ['let_in', 'resume', ...SETTLED_AT_ONCE];
	const atOnce = (need: Need) => need.acts.find((act) => AT_ONCE.includes(act));
	function settle(room: LiveRoom, need: Need, act: NeedAct) {
		if (need.seats.length > 0 && (act === 'let_in' || act === 'resume')) void room.act(act, need.seats);
		else void room.settle(act as 'seen', need);
	}
	const SHOWN = 3;
</script>

<svelte:head><title>Live · Otium</title></svelte:head>
<main class="px-6 py-6">
	<div class="flex flex-wrap items-baseline gap-x-4">
		<h1 class="text-[28px]">Live rooms</h1>
		{#if rooms.length > 0}<p class="text-ink-2" data-testid="wall-sum">
				{rooms.length}
				{rooms.length === 1 ? 'room' : 'rooms'}, {people} candidates. {waiting === 0
					? isComing
						? ''
						: 'Nobody needs you.'
					: waiting === 1
						? 'One needs you.'
						: `${waiting} need you.`}
			</p>{/if}
	</div>
	{#if isStale}<p role="alert" class="bg-brick text-on-tide mt-3 rounded-lg px-4 py-1.5 font-semibold">
			The connection to the server is lost. It comes back automatically.
		</p>{/if}
	{#if rooms.length === 0}<p class="text-ink-3 mt-4">
			No door is open at the moment.{#if data.places.some(({ href }) => href === '/prepare')}
				<a class="text-tide underline" href="/prepare">See what is planned, or plan a session</a>{/if}
		</p>{/if}
	<ul class="mt-4 grid grid-cols-[repeat(auto-fill,minmax(370px,1fr))] gap-4" data-testid="wall">
		{#each ordered as room (room.sessionId)}
			{@const head = room.head}
			{@const ready = readyInWords(roomReady(room.all), head.lastEntry, now)}
			<li
				class="bg-sheet flex flex-col rounded-2xl border p-4 {room.needs.length > 0
					? 'border-ochre-mark'
					: 'border-line'}"
			>
				<div class="flex items-baseline gap-2">
					<h2 class="min-w-0 text-[18px] leading-tight">
						<a class="hover:underline" href="/live/{head.id}"
							>{head.room} <span class="text-ink-2 font-sans text-[14px]">{head.name}</span></a
						>
						{#if head.kind !== 'live'}<span
								class="bg-plum-ground text-plum rounded-full px-2 font-sans text-[12.5px] font-semibold"
								>{head.kind === 'make_up' ? 'make-up' : 'rehearsal'}</span
							>{/if}
					</h2>
					<span class="text-ink-3 ml-auto font-mono text-[13px]">{timeInFull(head.opens, head.zone, now)}</span>
				</div>
				<p class="text-ink-2 mt-1.5 flex flex-wrap gap-x-3 gap-y-0.5 text-[13.5px]">
					{#each TALLY_ORDER.filter((key) => room.tally[key] > 0) as key (key)}
						<span class="flex items-center gap-1"
							><StateGlyph state={key} size={13} />{room.tally[key]}
							{(key === 'line_lost' ? 'line lost' : STATE_NAMES[key]).toLowerCase()}</span
						>
					{/each}
				</p>
				{#if ready}<p class="text-tide mt-1 text-[13.5px] font-semibold">{ready}</p>{/if}
				<ul class="mt-3 space-y-2">
					{#each room.needs.slice(0, SHOWN) as need (need.key)}
						{@const act = atOnce(need)}
						<li class="border-line border-t pt-2 text-[13.5px]">
							<p class="flex items-center gap-2">
								<strong class="truncate">{whomInWords(need, room.isMasked)}</strong>
								<span class="text-ink-3 font-mono">{need.seat?.seat ?? ''}</span>
							</p>
							<p class="text-ink-2">{needInWords(need, now, head)}</p>
							<div class="mt-1 flex gap-1.5">
								{#if act}<Act size="xs" tone="main" disabled={room.busy} onclick={() => settle(room, need, act)}
										>{verbInWords(act, need)}</Act
									>{/if}
								<Act size="xs" href="/live/{head.id}{need.seat ? `?seat=${need.seat.id}` : ''}">Open</Act>
							</div>
						</li>
					{:else}
						<li class="text-ink-3 text-[13.5px]">
							{room.isComing
								? `Its ${counted(room.head.expected, 'seat')} appear in a moment.`
								: 'Nobody needs you here.'}
						</li>
					{/each}
				</ul>
				{#if room.needs.length > SHOWN}<p class="mt-2 text-[13.5px]">
						<a class="text-tide underline" href="/live/{head.id}">{room.needs.length - SHOWN} more</a>
					</p>{/if}
			</li>
		{/each}
	</ul>
	<h2 class="mt-8 mb-2 text-[18px]">Later</h2>
	<ul class="grid max-w-4xl gap-2">
		{#each data.later as session (session.id)}
			<li>
				<a
					href="/live/{session.id}"
					class="bg-sheet border-line hover:border-tide flex items-baseline gap-3 rounded-xl border px-4 py-2.5"
				>
					<span class="font-semibold">{session.name}</span>
					<span class="text-ink-2">{session.room}</span>
					<span class="text-ink-3 ml-auto font-mono text-[14px]"
						>{timeInFull(session.opens, session.zone, clock.now)}</span
					>
				</a>
			</li>
		{:else}
			<li class="text-ink-3">Nothing further is planned for you.</li>
		{/each}
	</ul>
</main>
<div
	class="fixed bottom-6 left-1/2 z-40 flex -translate-x-1/2 flex-col gap-2"
	role="status"
	aria-live="polite"
	data-testid="notices"
>
	{#each notices as { room, notice } (`${room.sessionId} ${notice.id}`)}
		<p
			class="rounded-xl px-4 py-2.5 text-[14.5px] font-semibold shadow-lg {notice.tone === 'done'
				? 'bg-tide-deep text-[#f6f2e8]'
				: 'bg-brick text-on-tide'}"
		>
			{room.head.room}: {notice.text}
			{#if notice.undo}<button
					class="ml-2 rounded-md border border-current/50 px-2"
					onclick={() => room.notices.undo(notice)}>Undo</button
				>{/if}
		</p>
	{/each}
</div>
