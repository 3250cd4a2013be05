<script lang="ts">
	import { untrack } from 'svelte';
	import { endedInWords, type SittingPicture } from '$core/room';
	import { localTime, timeAndDate } from '$core/time';
	import { deviceName } from '$player/device-name';
	import type { Leftovers } from '$player/leftovers.svelte';
	import { Line } from '$player/line.svelte';
	import { keepPage } from '$player/offline';
	import { OneTab } from '$player/one-tab.svelte';
	import { Paper } from '$player/paper.svelte';
	import { Snapshots } from '$player/snapshots.svelte';
	import { Watch } from '$player/watch.svelte';
	import { clockLength, minutesLeft } from '$ui/durations';
	import { sendCommand } from '$ui/command-keys';
	import type { Problem } from '$core/problem';
	import { send } from '$ui/post';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import Calm from './Calm.svelte';
	import DeviceList from './DeviceList.svelte';
	import Press from './Press.svelte';

	type Props = {
		clock: ServerClock;
		device: { sittingId: string; epoch: number };
		first: SittingPicture;
		/** What earlier lives of this device have sent. */
		leftovers: Leftovers;
		/** This sitting's own outbox is at work now; null: it no longer is. */
		onpaper: (place: { sittingId: string; epoch: number } | null) => void;
		onleave: () => void;
	};
	let { clock, device, first, leftovers, onpaper, onleave }: Props = $props();

	const line = untrack(() => new Line(first, clock));
	const tab = untrack(() => new OneTab(`otium ${device.sittingId}`));
	$effect(() => line.open());
	$effect(() => {
		void tab.take();
		return () => tab.close();
	});

	const picture = $derived(line.picture);
	const zone = $derived(picture.session.zone);
	const now = $derived(clock.now);
	/** Let in before the opening: work begins when the countdown ends. */
	const isEarly = $derived(picture.time.opens > now);
	const isFreed = $derived(
		picture.epoch !== device.epoch &&
			!['handed_in', 'time_up', 'carried_over', 'absent', 'expected'].includes(picture.state)
	);
	// The door loads fast because the paper's own screen comes behind it, while the candidate still waits.
	let paperView = $state.raw(import('./PaperView.svelte'));
	let paper = $state.raw<Paper | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let startWord = $state('');
	let isDeviceReady = $state(false);
	let busy = $state(false);

	// The paper comes when work may begin, and stays on the device from then on, through holds and lost lines.
	$effect(() => {
		if (picture.state !== 'working' || isFreed || tab.isHere !== true || paper) return;
		void load();
	});
	$effect(() => {
		onpaper(paper ? device : null);
		return () => paper?.outbox.stop();
	});
	// What the paper may need later is fetched while the line is up, and kept.
	$effect(() => {
		if (!paper) return;
		const { questions, formulaSheet } = paper;
		const parts: Promise<unknown>[] = [untrack(() => paperView)];
		if (untrack(() => picture.session.tools.calculator) !== 'none') parts.push(import('./tools/Calculator.svelte'));
		if (formulaSheet.length > 0 || JSON.stringify(questions).includes('$'))
			parts.push(import('./question/Formula.svelte'));
		void Promise.allSettled(parts).then(keepPage);
	});
	// What is known of the sitting is kept with the paper, and goes from the device with the hand-in.
	$effect(() => {
		if (!paper) return;
		if (picture.state === 'working' || picture.state === 'on_hold') void paper.keep(picture);
		else void paper.forget();
	});

	// Watching begins with the work and ends with it; a pause or a hand-in is no leaving.
	let watch = $state.raw<Watch | null>(null);
	// Of its own, so that a new picture of the same state starts nothing anew.
	const isWorking = $derived(picture.state === 'working');
	const watched = $derived(picture.session.watch?.level ?? 'open');
	$effect(() => {
		if (watched === 'open' || !isWorking || !paper) return;
		const rules = untrack(() => picture.session.watch!);
		const started = new Watch(device.sittingId, rules, clock);
		watch = started;
		const stop = started.start();
		return () => {
			stop();
			watch = null;
		};
	});

	// What the rules lock stays locked for looking back: in full screen, with copying and printing prevented.
	let reviewing = $state(false);
	const locksReview = $derived(watched === 'watched' && picture.session.watch!.alsoForReview);
	$effect(() => {
		if (!locksReview || !reviewing || isWorking) return;
		const started = new Watch(
			device.sittingId,
			untrack(() => picture.session.watch!),
			clock
		);
		watch = started;
		const stop = started.start();
		return () => {
			stop();
			watch = null;
		};
	});
	async function lookBack() {
		await document.documentElement.requestFullscreen?.().catch(() => {});
		reviewing = true;
	}

	const every = $derived(picture.session.snapshotSeconds);
	$effect(() => {
		if (every === null || !isWorking || !paper) return;
		const standIn = async () => (await import('../../../stand-ins/camera')).cameraStandIn();
		return new Snapshots(standIn).start(every);
	});

	async function load() {
		if (busy) return;
		busy = true;
		const loaded = await Paper.load(device, picture);
		busy = false;
		if (loaded.ok) paper = loaded.paper;
		else problem = loaded.problem;
	}

	async function begin() {
		if (busy) return;
		busy = true;
		problem = null;
		// Browsers grant the full screen on a press only, and this is the one that begins.
		if (watched === 'watched') await document.documentElement.requestFullscreen?.().catch(() => {});
		const answer = await sendCommand('POST', '/sit/api/begin', { startWord });
		busy = false;
		if (!answer.ok) problem = answer.problem;
		await line.refresh();
	}

	async function takeBreak(on: boolean) {
		await send('POST', '/sit/api/break', { on });
		await line.refresh();
	}

	async function again() {
		if (busy) return;
		busy = true;
		problem = null;
		const answer = await sendCommand('POST', '/sit/api/again', { deviceName: deviceName() });
		busy = false;
		if (answer.ok) return onleave();
		problem = answer.problem;
		await line.refresh();
	}

	async function leave() {
		await send('POST', '/sit/api/leave', {});
		onleave();
	}
	const lengthOf = $derived(
		picture.time.allotted === null
			? 'There is no time limit.'
			: `You have ${minutesLeft(picture.time.allotted)} minutes`
	);
</script>

{#snippet deviceList()}
	{#if picture.session.checklist !== 'none' && !picture.begun && !isDeviceReady}<DeviceList
			needed={picture.session.checklist === 'needed'}
			camera={picture.session.snapshotSeconds !== null}
			onready={(ready) => (isDeviceReady = ready)}
		/>{/if}
{/snippet}

{#snippet trouble()}
	{#if problem}
		<div role="alert" class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[17px]">
			<p class="font-semibold">{problem.message}</p>
			{#if problem.instead}<p>{problem.instead}</p>{/if}
		</div>
	{/if}
{/snippet}

{#if line.isSignedOut}
	<Calm title="Sign in once more">
		<p>This device is no longer signed in. Your answers are safe.</p>
		<Press main onclick={onleave}>To the door</Press>
	</Calm>
{:else if isFreed}
	<Calm title="This paper has been moved" paper={picture.paper.title} person={picture.candidate.name}>
		<p>Your proctor has freed this device, so that you can go on at another one. Every answer is safe.</p>
		<p>To go on here instead, enter the code again.</p>
		<Press main onclick={leave}>To the door</Press>
	</Calm>
{:else if tab.isHere === false && ['let_in', 'working', 'on_hold'].includes(picture.state)}
	<Calm title="This paper is open in another tab" paper={picture.paper.title} person={picture.candidate.name}>
		<p>Go on there, or work here instead: the other tab then rests. Every answer is safe in both.</p>
		<Press main onclick={() => tab.takeOver()}>Work here instead</Press>
	</Calm>
{:else if picture.state === 'at_door' || (picture.state === 'let_in' && (picture.session.roomWaits || isEarly))}
	<Calm
		title={picture.state === 'at_door' ? 'You are at the door' : 'You are in'}
		paper={picture.paper.title}
		person="{picture.candidate.name}{picture.candidate.seat ? `, seat ${picture.candidate.seat}` : ''}"
	>
		<p>
			{picture.state === 'at_door'
				? 'All is well: your proctor lets you in from here. Stay on this page.'
				: picture.session.roomWaits
					? 'Everyone begins together, when your proctor starts the room. Stay on this page.'
					: 'You can begin when the time comes. Stay on this page: it counts down.'}
		</p>
		{#if picture.time.opens > now}
			<p class="font-mono text-[44px] font-semibold tabular-nums" data-testid="countdown">
				{clockLength(picture.time.opens - now)}
			</p>
			<p class="text-ink-3 text-[16px]">until {localTime(picture.time.opens, zone)}</p>
		{/if}
		<p class="text-ink-2">
			{picture.paper.questions} questions, {picture.paper.points} points. {lengthOf}{picture.time.allotted === null
				? ''
				: '.'}
		</p>
		{@render deviceList()}
		{#if line.downSince}<p class="text-ochre text-[16px]">
				The line is down for the moment. It comes back by itself.
			</p>{/if}
	</Calm>
{:else if picture.state === 'let_in'}
	<Calm
		title={picture.begun ? 'You may go on' : 'You may begin'}
		paper={picture.paper.title}
		person="{picture.candidate.name}{picture.candidate.seat ? `, seat ${picture.candidate.seat}` : ''}"
	>
		<p>
			{picture.paper.questions} questions, {picture.paper.points} points.
			{#if picture.begun}
				{#if picture.time.remaining !== null}<strong>{minutesLeft(picture.time.remaining)} minutes</strong> are left. All
					your answers are there.{/if}
			{:else if picture.time.allotted !== null}
				You have <strong>{minutesLeft(picture.time.remaining ?? picture.time.allotted)} minutes</strong>{picture.time
					.deadline
					? `, until ${localTime(picture.time.deadline, zone)}`
					: ' from when you begin'}.
			{:else}
				There is no time limit.
			{/if}
		</p>
		{#if picture.time.cut > 0 && !picture.begun}
			<p class="bg-ochre-ground text-ochre rounded-xl px-4 py-3">
				The room closes before your full time: beginning now, you have {minutesLeft(picture.time.remaining ?? 0)} minutes.
				Ask your proctor if that is not right.
			</p>
		{/if}
		<ul class="text-ink-2 list-disc space-y-1 pl-5 text-[16px]">
			{#if watched !== 'open'}<li>
					The paper fills the screen. {watched === 'watched'
						? 'Leaving it, copying and printing are noted'
						: 'Copying and printing are switched off'}, and your proctor sees that.
				</li>{/if}
			{#if picture.session.snapshotSeconds !== null}<li>
					The camera takes a small picture every {picture.session.snapshotSeconds} seconds. Only staff see them, and they
					are deleted later.
				</li>{/if}
			<li>Answers are saved as you give them. If the line drops, just go on.</li>
			{#if picture.session.movement.goingBack && picture.session.tools.marking}<li>
					You can mark a question for later and come back to it.
				</li>{:else if picture.session.forwardBy !== null}<li>
					You can’t go back to a question once you have gone on.
				</li>{/if}
			{#if picture.session.wrongAnswers}<li>{picture.session.wrongAnswers}</li>{/if}
			<li>You hand in at the end, after seeing what is blank.</li>
		</ul>
		<form
			class="space-y-4"
			onsubmit={(event) => {
				event.preventDefault();
				void begin();
			}}
		>
			{#if picture.session.asksStartWord}
				<label class="block">
					<span class="mb-1 block text-[16px] font-semibold">Start word</span>
					<input
						bind:value={startWord}
						required
						autocomplete="off"
						class="bg-sheet border-line-strong w-full rounded-xl border px-4 py-3 font-mono text-[20px]"
					/>
				</label>
			{/if}
			{#if picture.session.checklist === 'needed'}{@render deviceList()}{/if}
			{@render trouble()}
			<Press
				main
				type="submit"
				disabled={busy || (picture.session.checklist === 'needed' && !picture.begun && !isDeviceReady)}
				testid="begin">{picture.begun ? 'Go on' : 'Begin'}</Press
			>
		</form>
	</Calm>
{:else if picture.state === 'working' && paper}
	{#await paperView then { default: PaperView }}
		<PaperView {paper} {line} {clock} {watch} />
	{:catch}
		<Calm title="One moment" paper={picture.paper.title} person={picture.candidate.name}>
			<p>The line went just now, before your paper was here. Nothing is lost.</p>
			<Press main onclick={() => (paperView = import('./PaperView.svelte'))}>Try again</Press>
		</Calm>
	{/await}
{:else if picture.state === 'working'}
	<Calm title="One moment" paper={picture.paper.title} person={picture.candidate.name}>
		<p>Your paper is coming.</p>
		{@render trouble()}
		{#if problem}<Press onclick={() => ((problem = null), load())}>Try again</Press>{/if}
	</Calm>
{:else if picture.state === 'on_hold'}
	<Calm
		title={picture.breaks?.until ? 'Your break' : 'A pause'}
		paper={picture.paper.title}
		person={picture.candidate.name}
	>
		{#if picture.breaks?.until}
			<p>
				It goes until <strong>{localTime(picture.breaks.until, zone)}</strong>, and the clock stands still. Your paper
				goes on by itself then.
			</p>
			<Press main onclick={() => takeBreak(false)} testid="end-break">Go on now</Press>
		{:else}
			<p>Your proctor has paused your paper. Every answer is safe, and it goes on by itself from here.</p>
			<p class="text-ink-2">
				{picture.time.standing
					? 'The clock stands still.'
					: picture.time.deadline
						? `You finish by ${localTime(picture.time.deadline, zone)}.`
						: ''}
			</p>
		{/if}
	</Calm>
{:else if picture.state === 'handed_in' || picture.state === 'time_up'}
	<Calm
		title={picture.state === 'handed_in' ? 'Handed in' : 'Time is up'}
		paper={picture.paper.title}
		person={picture.candidate.name}
	>
		<p>
			{endedInWords(picture)} at {timeAndDate(picture.ended?.at ?? now, zone, now)}. Every answer that you gave is with
			us.
		</p>
		{#if picture.ended?.countsNothing}<p class="font-semibold">
				It was not handed in before time was up, so by the rules of this paper it counts nothing. Speak to your proctor
				if your line or your device was the reason.
			</p>{/if}
		{#if leftovers.kept > 0}<p
				class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[16px]"
				data-testid="leftovers"
			>
				{leftovers.kept === 1 ? 'One answer' : `${leftovers.kept} answers`} that this device had kept
				{leftovers.kept === 1 ? 'has' : 'have'} arrived now. Your proctor has been told and decides whether they count.
			</p>{/if}
		{#if paper?.outbox.keptNote}<p class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[16px]">
				{paper.outbox.keptNote.message}
				{paper.outbox.keptNote.instead}
			</p>{/if}
		<div class="bg-mist rounded-2xl p-5">
			<p class="text-ink-2 text-[15px]">Your receipt</p>
			<p class="text-tide font-mono text-[28px] font-semibold" data-testid="receipt">{picture.ended?.receipt}</p>
			<p class="text-ink-2 text-[15px]">Note it down: it proves that your work arrived.</p>
		</div>
		{#if picture.again}
			{@const { attempt, most, from } = picture.again}
			{#if from === null || now >= from}
				<p>You may sit this paper again. What you have handed in stays as it is.</p>
				<Press main onclick={again} disabled={busy} testid="again">Begin attempt {attempt} of {most}</Press>
			{:else}
				<p data-testid="again-from">
					Attempt {attempt} of {most} can begin from {timeAndDate(from, zone, now)}, in {clockLength(from - now)}.
				</p>
			{/if}
			{#if problem}<p class="text-brick" role="alert">{problem.message} {problem.instead ?? ''}</p>{/if}
		{/if}
		{#if picture.mayReview && locksReview && !(reviewing && watch?.isFull)}
			<Press onclick={lookBack} testid="review-full">See how it went, in full screen</Press>
		{:else if picture.mayReview}{#await import('./Review.svelte') then { default: Review }}<Review />{/await}{/if}
		<Press onclick={leave}>Leave this device to the next</Press>
	</Calm>
{:else if picture.state === 'carried_over'}
	<Calm title="You go on another time" paper={picture.paper.title} person={picture.candidate.name}>
		<p>
			Your paper has been put by. Every answer is safe{picture.time.remaining !== null
				? `, and you keep your ${minutesLeft(picture.time.remaining)} minutes`
				: ''}. Your proctor tells you when and where you go on.
		</p>
		<Press onclick={leave}>Leave this device to the next</Press>
	</Calm>
{:else}
	<Calm title="Please speak to your proctor" paper={picture.paper.title} person={picture.candidate.name}>
		{#if picture.turnedAway}<p>{picture.turnedAway}.</p>{/if}
		<p>You can come to the door again with the code.</p>
		<Press main onclick={leave}>To the door</Press>
	</Calm>
{/if}
