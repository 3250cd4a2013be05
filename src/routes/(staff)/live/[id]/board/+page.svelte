<script lang="ts">
	import { untrack } from 'svelte';
	import { showDoorCode } from '$core/access';
	import { isAwayFromDoor, roomReady } from '$core/room';
	import { clockLength, clockTime, longDate, timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import { LiveRoom } from '../room.svelte';

	let { data } = $props();
	const clock = getClock();
	const room = untrack(() => new LiveRoom(data, clock, data.coordinates));
	$effect(() => room.listen());
	const head = $derived(room.head);
	const now = $derived(clock.now);
	const counts = $derived(
		room.isComing
			? []
			: [
					{ text: 'expected', n: room.tally.expected },
					{
						text: 'at the door',
						n: room.all.filter((seat) => seat.state === 'at_door' && !isAwayFromDoor(seat)).length
					},
					{ text: 'in', n: room.tally.let_in + room.tally.working + room.tally.on_hold + room.tally.line_lost },
					{ text: 'finished', n: room.tally.handed_in + room.tally.time_up }
				]
	);
	const ready = $derived(roomReady(room.all));
	const waits = $derived(head.opens > now);
	const mark = $derived(
		waits
			? { text: 'to the start', ms: head.opens - now }
			: head.lastEntry !== null && head.lastEntry > now
				? { text: 'to last entry', ms: head.lastEntry - now }
				: null
	);

	/** Read with a camera, the page opens with the code that stands here filled in; hidden, it is not in it. */
	const shownCode = $derived(head.doorCode && !head.codeHidden ? head.doorCode : null);
	let qr = $state(untrack(() => data.qr));
	$effect(() => {
		const address = shownCode ? `${data.door}?code=${shownCode}` : data.door;
		void import('qrcode').then(async ({ default: QRCode }) => {
			qr = await QRCode.toString(address, { type: 'svg', margin: 1 });
		});
	});

	/** The back page: whom to turn to. */
	let isBack = $state(false);

	const leave = () => void window.open(`/live/${head.id}`, '_self');
	const keys = {
		Escape: leave,
		b: leave,
		h: () => void (data.help.length > 0 && (isBack = !isBack)),
		f: () => void document.documentElement.requestFullscreen?.(),
		s: () => void room.session(head.codeHidden ? 'show_code' : 'hide_code')
	};
</script>

<svelte:head><title>Door board · {head.paper}</title></svelte:head>
<Shortcuts {keys} />

<main class="bg-tide-deep flex min-h-dvh flex-col px-14 py-10 text-[#f6f2e8] max-md:px-6">
	<div class="flex items-baseline gap-6">
		<h1 class="text-[40px]">{head.paper}</h1>
		<p class="text-[22px] text-[#dcebe5]">{head.room} · {longDate(now, head.zone)}</p>
		<p class="ml-auto font-mono text-[44px] font-semibold tabular-nums">{clockTime(now, head.zone, true)}</p>
	</div>
	{#if isBack}
		<div class="my-auto" data-testid="board-help">
			<h2 class="font-serif text-[44px]">Who can help</h2>
			<ul class="mt-6 grid grid-cols-2 gap-x-14 gap-y-6 text-[24px] max-md:grid-cols-1">
				{#each data.help as one (`${one.problem} ${one.name}`)}
					<li>
						<p class="text-[#dcebe5]">{one.problem}</p>
						<p>{one.name}{one.hours ? `, ${one.hours}` : ''}</p>
						<p class="font-mono text-[30px] font-semibold">{one.telephone}</p>
					</li>
				{/each}
			</ul>
		</div>
	{:else if head.endedAt !== null}
		<p class="m-auto font-serif text-[56px]">This session has ended.</p>
	{:else}
		<div class="my-auto grid grid-cols-[1fr_auto] items-center gap-14 max-md:grid-cols-1">
			<div>
				<p class="text-[24px] text-[#dcebe5]">
					Go to <strong class="font-mono text-[#f6f2e8]">{data.door.replace(/^https?:\/\//, '')}</strong> and enter
				</p>
				{#if head.doorCode && !head.codeHidden}
					<p
						class="mt-2 font-mono text-[clamp(64px,12vw,168px)] leading-none font-semibold tracking-tight"
						data-testid="board-code"
					>
						{showDoorCode(head.doorCode)}
					</p>
				{:else if head.doorCode}
					<p class="mt-4">
						<button
							class="rounded-xl bg-[#f6f2e8] px-8 py-4 text-[28px] font-semibold text-[#174843]"
							onclick={() => room.session('show_code')}
							>Show the code <kbd class="ml-2 rounded border border-current/40 px-2 font-mono text-[18px]">S</kbd
							></button
						>
					</p>
				{:else}
					<p class="mt-3 font-serif text-[44px]">The door opens at {timeAndDate(head.doorOpens, head.zone, now)}.</p>
				{/if}
				{#if mark}
					<p class="mt-8 text-[30px]">
						<span class="font-mono font-semibold tabular-nums">{clockLength(mark.ms)}</span>
						<span class="text-[#dcebe5]">{mark.text}</span>
					</p>
				{:else if head.lastEntry !== null}
					<p class="mt-8 text-[24px] text-[#dcebe5]">The last entry has passed.</p>
				{/if}
			</div>
			<div
				class="w-64 overflow-hidden rounded-2xl bg-white p-3 [&_svg]:h-auto [&_svg]:w-full"
				role="img"
				aria-label="QR code for {data.door}{shownCode ? ', with the code filled in' : ''}"
			>
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn here from our own address and code -->
				{@html qr}
			</div>
		</div>
	{/if}
	<div class="flex min-h-[51px] items-end gap-10 text-[20px]">
		{#if ready.letIn > 0}<p data-testid="screens">
				<span class="font-mono text-[34px] font-semibold">{ready.screens} of {ready.mayWork}</span>
				<span class="text-[#dcebe5]">screens ready</span>
			</p>{/if}
		{#each counts as count (count.text)}<p>
				<span class="font-mono text-[34px] font-semibold">{count.n}</span>
				<span class="text-[#dcebe5]">{count.text}</span>
			</p>{/each}
		{#if data.help.length > 0}<button
				type="button"
				class="ml-auto text-[15px] text-[#dcebe5] underline print:hidden"
				data-testid="board-back"
				onclick={() => (isBack = !isBack)}>{isBack ? 'The code' : 'Who can help'} <kbd class="font-mono">H</kbd></button
			>{/if}
		<a
			class="{data.help.length > 0 ? '' : 'ml-auto'} text-[15px] text-[#dcebe5] underline print:hidden"
			href="/live/{head.id}"
			>Back to the room <kbd class="font-mono">Esc</kbd>, full screen <kbd class="font-mono">F</kbd></a
		>
	</div>
	{#if room.isStale}<p role="alert" class="bg-brick mt-4 rounded-lg px-4 py-2 text-[18px] font-semibold">
			The connection is lost: this is how it was at {clockTime(room.heardAt, head.zone, true)}.
		</p>{/if}
</main>
