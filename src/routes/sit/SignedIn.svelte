<!-- @component Somebody's own side of their sitting, from the door to the receipt, as its state has it. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { SittingPicture } from '$core/room';
	import { minutesInWords, minutesLeft, timeAndDate } from '$core/time';
	import { deviceName } from '$player/device-name';
	import type { Leftovers } from '$player/leftovers.svelte';
	import { Line } from '$player/line.svelte';
	import { keepPage } from '$player/offline';
	import { OneTab } from '$player/one-tab.svelte';
	import { Paper } from '$player/paper.svelte';
	import { Snapshots } from '$player/snapshots.svelte';
	import { Watch } from '$player/watch.svelte';
	import OwnTime from '$ui/OwnTime.svelte';
	import { sendCommand } from '$ui/command-keys';
	import type { Problem } from '$core/problem';
	import { ask } from '$player/ask';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import Calm from './Calm.svelte';
	import DeviceList from './DeviceList.svelte';
	import Press from './Press.svelte';
	import Trouble from './Trouble.svelte';
	import Waiting from './Waiting.svelte';

	type Props = {
		clock: ServerClock;
		device: { sittingId: string; epoch: number };
		first: SittingPicture;
		/** This page's own name, another each time it is opened. */
		view: string;
		/** What earlier lives of this device have sent. */
		leftovers: Leftovers;
		/** This sitting's own outbox is at work now; null: it no longer is. */
		onpaper: (place: { sittingId: string; epoch: number } | null) => void;
		onleave: () => void;
	};
	let { clock, device, first, view, leftovers, onpaper, onleave }: Props = $props();

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
		line.isFreed ||
			(picture.epoch !== device.epoch &&
				!['handed_in', 'time_up', 'carried_over', 'absent', 'expected'].includes(picture.state))
	);
	// The door loads fast because the paper's own screen and the last one come behind it, while the candidate still waits.
	let startView = $state.raw(import('./Start.svelte'));
	let paperView = $state.raw(import('./PaperView.svelte'));
	let endedView = $state.raw(import('./Ended.svelte'));
	let paper = $state.raw<Paper | null>(null);
	let problem = $state.raw<Problem | null>(null);
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
		const { formulaSheet, forwardBy } = paper;
		const questions = untrack(() => paper!.order.map((_, place) => paper!.questionAt(place)));
		const parts: Promise<unknown>[] = [untrack(() => paperView), untrack(() => endedView)];
		if (untrack(() => picture.session.tools.calculator) !== 'none') parts.push(import('./tools/Calculator.svelte'));
		// What comes later may hold a formula when nothing here does.
		if (formulaSheet.length > 0 || forwardBy !== null || JSON.stringify(questions).includes('$'))
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
		const loaded = await Paper.load(device, picture, view);
		busy = false;
		if (loaded.ok) paper = loaded.paper;
		else {
			problem = loaded.problem;
			await line.refresh();
		}
	}
	// Opened without the server: it hears of that when it is there again.
	$effect(() => {
		if (!paper?.isUnseen || line.downSince !== null) return;
		void paper.show(view).then((shown) => (shown ? undefined : line.refresh()));
	});

	async function begin(startWord: string) {
		if (busy) return;
		busy = true;
		problem = null;
		// Browsers grant the full screen on a press only, and this is the one that begins.
		if (watched === 'watched') await document.documentElement.requestFullscreen?.().catch(() => {});
		const answer = await sendCommand('POST', '/sit/api/begin', { startWord }, { by: ask });
		busy = false;
		if (!answer.ok) problem = answer.problem;
		await line.refresh();
	}

	async function takeBreak(on: boolean) {
		await ask('POST', '/sit/api/break', { on });
		await line.refresh();
	}

	async function again() {
		if (busy) return;
		busy = true;
		problem = null;
		const answer = await sendCommand('POST', '/sit/api/again', { deviceName: deviceName() }, { by: ask });
		busy = false;
		if (answer.ok) return onleave();
		problem = answer.problem;
		await line.refresh();
	}

	async function leave() {
		await ask('POST', '/sit/api/leave', {});
		onleave();
	}
</script>

{#snippet deviceCheck()}
	{#if picture.session.checklist !== 'none' && !picture.begun && !isDeviceReady}<DeviceList
			needed={picture.session.checklist === 'needed'}
			camera={picture.session.snapshotSeconds !== null}
			language={picture.display.language ?? picture.paper.language}
			onready={(ready) => (isDeviceReady = ready)}
		/>{/if}
{/snippet}

{#snippet paused()}
	<Calm
		title={picture.breaks?.until ? 'Your break' : 'A pause'}
		paper={picture.paper.title}
		person={picture.candidate.name}
	>
		{#if picture.breaks?.until}
			<p>
				Your break lasts until <strong>{timeAndDate(picture.breaks.until, zone, now)}</strong><OwnTime
					at={picture.breaks.until}
					{zone}
				/>. {picture.breaks.stopsClock ? 'The clock is stopped.' : 'The clock runs on.'} Your paper continues automatically
				then.
			</p>
			<Press main onclick={() => takeBreak(false)} testid="end-break">Continue now</Press>
		{:else}
			{#if picture.heldByRules}
				<p>
					Your exam has been paused by its rules. All your answers are safe. Your proctor has been told, and it
					continues automatically when they let it.
				</p>
			{:else}
				<p>Your proctor has paused your exam. All your answers are safe, and it will continue automatically.</p>
			{/if}
			<p class="text-ink-2">
				{#if picture.time.standing}The clock has stopped.{:else if picture.time.deadline}You finish by {timeAndDate(
						picture.time.deadline,
						zone,
						now
					)}<OwnTime at={picture.time.deadline} {zone} />.{/if}
			</p>
		{/if}
	</Calm>
{/snippet}

{#if line.isSignedOut}
	<Calm title="Please sign in again">
		<p>This device is no longer signed in. Your answers are safe.</p>
		<Press main onclick={onleave}>To the door</Press>
	</Calm>
{:else if isFreed}
	<Calm title="This exam has moved to another device" paper={picture.paper.title} person={picture.candidate.name}>
		<p>Your proctor has freed this device so that you can continue on another one. All your answers are safe.</p>
		<p>To continue here instead, enter the code again.</p>
		<Press main onclick={leave}>To the door</Press>
	</Calm>
{:else if tab.isHere === false && ['let_in', 'working', 'on_hold'].includes(picture.state)}
	<Calm title="This paper is open in another tab" paper={picture.paper.title} person={picture.candidate.name}>
		<p>Continue there, or work here instead and the other tab will stop. All your answers are safe either way.</p>
		<Press main onclick={() => tab.takeOver()}>Work here instead</Press>
	</Calm>
{:else if picture.state === 'at_door' || (picture.state === 'let_in' && (picture.session.roomWaits || isEarly))}
	<Waiting {picture} {now} isLineDown={line.downSince !== null}>{@render deviceCheck()}</Waiting>
{:else if picture.state === 'let_in'}
	{#await startView then { default: Start }}
		<Start
			{picture}
			{busy}
			{problem}
			isDeviceReady={isDeviceReady || picture.begun || picture.session.checklist !== 'needed'}
			{deviceCheck}
			onbegin={begin}
		/>
	{:catch}
		<Calm title="One moment" paper={picture.paper.title} person={picture.candidate.name}>
			<p>The connection dropped before this page had loaded. Nothing is lost.</p>
			<Press main onclick={() => (startView = import('./Start.svelte'))}>Try again</Press>
		</Calm>
	{/await}
{:else if picture.state === 'working' || picture.state === 'on_hold'}
	{#if picture.state === 'on_hold'}{@render paused()}{/if}
	<!-- It stays where it is during a pause: nothing that somebody is writing is taken off the page. -->
	{#if paper}{#await paperView then { default: PaperView }}
			<PaperView {paper} {line} {clock} {watch} isResting={picture.state === 'on_hold'} />
		{:catch}
			<Calm title="One moment" paper={picture.paper.title} person={picture.candidate.name}>
				<p>The connection dropped before your paper had loaded. Nothing is lost.</p>
				<Press main onclick={() => (paperView = import('./PaperView.svelte'))}>Try again</Press>
			</Calm>
		{/await}
	{:else if picture.state === 'working'}
		<Calm title="One moment" paper={picture.paper.title} person={picture.candidate.name}>
			<p>Your paper is loading.</p>
			<Trouble {problem} />
			{#if problem}<Press onclick={() => ((problem = null), load())}>Try again</Press>{/if}
		</Calm>
	{/if}
{:else if picture.state === 'handed_in' || picture.state === 'time_up'}
	{#await endedView then { default: Ended }}
		<Ended
			{picture}
			{now}
			{busy}
			{problem}
			arrivedLate={leftovers.kept}
			keptNote={paper?.outbox.keptNote ?? null}
			isReviewLocked={locksReview && !(reviewing && watch?.isFull)}
			onagain={again}
			onlookback={lookBack}
			onleave={leave}
		/>
	{:catch}
		<Calm title="Your work has ended" paper={picture.paper.title} person={picture.candidate.name}>
			<p>The connection dropped before this page had loaded. We have your work.</p>
			<Press main onclick={() => (endedView = import('./Ended.svelte'))}>Try again</Press>
		</Calm>
	{/await}
{:else if picture.state === 'carried_over'}
	<Calm title="You will continue another time" paper={picture.paper.title} person={picture.candidate.name}>
		<p>
			Your exam has been put aside for now. All your answers are safe{picture.time.remaining !== null
				? `, and you keep your ${minutesInWords(minutesLeft(picture.time.remaining))}`
				: ''}. Your proctor will tell you when and where you continue.
		</p>
		<Press onclick={leave}>Clear this device for the next person</Press>
	</Calm>
{:else if picture.state === 'set_aside'}
	<Calm title="Your paper has been set aside" paper={picture.paper.title} person={picture.candidate.name}>
		<p>All your answers are kept. Please speak to your proctor: they tell you how it goes on.</p>
		<Press onclick={leave}>Clear this device for the next person</Press>
	</Calm>
{:else}
	<Calm title="Please speak to your proctor" paper={picture.paper.title} person={picture.candidate.name}>
		{#if picture.turnedAway}<p>{picture.turnedAway}.</p>{/if}
		<p>You can come to the door again with the code.</p>
		<Press main onclick={leave}>To the door</Press>
	</Calm>
{/if}
