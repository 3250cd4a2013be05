<script lang="ts">
	import { nanoid } from 'nanoid';
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { clockFromNote, findKept } from '$player/kept';
	import { Leftovers } from '$player/leftovers.svelte';
	import { keepPage } from '$player/offline';
	import { ask } from '$player/ask';
	import type { SittingPicture } from '$core/room';
	import { ServerClock } from '$ui/server-clock.svelte';
	import Calm from './Calm.svelte';
	import Door from './Door.svelte';
	import Press from './Press.svelte';

	let { data } = $props();
	const clock = new ServerClock(untrack(() => data.now));
	$effect(() => clock.start());

	// This page may have come from the device itself, because the server could not be reached: then it is old, and what
	// the tab has kept is newer.
	let kept = $state.raw<Awaited<ReturnType<typeof findKept>>>(null);
	/** What the server told this device when it signed for it; null: not asked yet, or not told. */
	let told = $state.raw<{ device: Here['device']; picture: SittingPicture } | null>(null);
	let isAsking = $state(true);
	const ASK_AGAIN_MS = 2_000;
	// Not by `randomUUID`, which browsers withhold over plain HTTP.
	const view = nanoid();
	onMount(() => void keepPage());
	// Who is here is shown to the device that signs for it, so it is asked for after the page: at first, and after the door.
	$effect(() => {
		const { device, picture } = data;
		let timer: ReturnType<typeof setTimeout> | undefined;
		let isOver = false;
		const look = async () => {
			const found = untrack(() => kept) === null ? await findKept() : null;
			const asks = found !== null || (device && !picture);
			const answer = asks ? await ask<{ picture: SittingPicture }>('GET', '/sit/api/picture') : null;
			if (isOver) return;
			const isReachable = !answer || answer.ok || (answer.status > 0 && answer.status < 500);
			if (answer?.ok && device) told = { device, picture: answer.data.picture };
			else if (isReachable && found && !device) await invalidateAll();
			else if (!isReachable && found) {
				clock.set(clockFromNote() ?? clock.read());
				kept = found;
			} else if (!isReachable) return void (timer = setTimeout(() => void look(), ASK_AGAIN_MS));
			isAsking = false;
		};
		isAsking = true;
		void look();
		return () => {
			isOver = true;
			clearTimeout(timer);
		};
	});
	type Here = { device: { sittingId: string; epoch: number }; picture: SittingPicture };
	const here = $derived.by((): Here | null => {
		if (kept) return kept;
		const { device, picture } = data;
		if (!device) return null;
		if (picture) return { device, picture };
		const isTold = told?.device.sittingId === device.sittingId && told.device.epoch === device.epoch;
		return isTold ? told : null;
	});
	// What earlier lives of this device had kept goes to the server in any state; the paper at work has an outbox of its own.
	let live = $state.raw<{ sittingId: string; epoch: number } | null>(null);
	const leftovers = new Leftovers(() => live);
	onMount(() => leftovers.start());
	/** What comes after the door, larger than that: fetched as soon as somebody is recognised, and kept for a lost line. */
	let signedIn = $state.raw<Promise<typeof import('./SignedIn.svelte')> | null>(null);
	function fetchSignedIn() {
		signedIn = import('./SignedIn.svelte');
		void signedIn.then(keepPage, () => {});
	}
	$effect(() => {
		if ((data.device || here) && untrack(() => signedIn) === null) fetchSignedIn();
	});
	/** The server has let this device in, and the browser has not kept by what it is known. */
	let keepsNothing = $state(false);
	async function arrived() {
		await invalidateAll();
		keepsNothing = data.device === null;
	}
	function leave() {
		live = null;
		kept = null;
		void invalidateAll();
	}
</script>

{#if here}
	{#await signedIn}
		<Calm title="One moment"><p>Looking up your exam.</p></Calm>
	{:then loaded}
		{#if loaded}
			{#key `${here.device.sittingId} ${here.device.epoch} ${kept !== null}`}
				<loaded.default
					{clock}
					device={here.device}
					first={here.picture}
					{view}
					{leftovers}
					onpaper={(place) => (live = place)}
					onleave={leave}
				/>
			{/key}
		{/if}
	{:catch}
		<Calm title="One moment">
			<p>The connection dropped before this page had loaded. Nothing is lost.</p>
			<Press main onclick={fetchSignedIn}>Try again</Press>
		</Calm>
	{/await}
{:else if isAsking && data.device}
	<Calm title="One moment"><p>Looking up your exam.</p></Calm>
{:else if keepsNothing}
	<Calm title="This browser refuses cookies">
		<p>
			You were found and taken in, but by a cookie alone this exam knows the device again, and this browser has not kept
			it.
		</p>
		<p>
			Allow cookies for <strong>{location.host}</strong> and load this page again, or use another browser. Tell your proctor
			then to free your device.
		</p>
	</Calm>
{:else}
	<Door {clock} code={data.code} onrecognised={() => signedIn ?? fetchSignedIn()} onarrived={arrived} />
{/if}
