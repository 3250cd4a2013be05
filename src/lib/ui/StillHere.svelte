<!--
@component Tells before somebody is signed out for doing nothing, and keeps them in as long as they do something. Not
beside a live room: its open line says that somebody is there.
-->
<script lang="ts">
	import { onMount } from 'svelte';
	import { minutesInWords, clockTime } from '$core/time';
	import Act from './Act.svelte';
	import { send } from './post';
	import type { ServerClock } from './server-clock.svelte';

	type Props = { clock: ServerClock; zone: string; idleUntil: number; idleMinutes: number; isWatching: boolean };
	let { clock, zone, idleUntil, idleMinutes, isWatching }: Props = $props();

	const WARN_MS = 5 * 60_000;
	const TELL_EVERY_MS = 60_000;
	let until = $state(0);
	let isOut = $state(false);
	let toldAt = 0;
	$effect(() => {
		until = idleUntil;
		isOut = false;
	});
	const warnMs = $derived(Math.min(WARN_MS, (idleMinutes * 60_000) / 3));
	const isLate = $derived(!isWatching && clock.now > until - warnMs);
	const isOver = $derived(isOut || (!isWatching && clock.now > until));

	async function iAmHere() {
		toldAt = clock.read();
		const answer = await send('POST', '/you/here', {});
		if (answer.ok) until = clock.read() + idleMinutes * 60_000;
		else if (answer.status === 401) isOut = true;
	}
	/** A press or a key says as much, and is told once a minute; once the question stands, it is answered by its button. */
	function didSomething() {
		if (!isLate && clock.read() - toldAt > TELL_EVERY_MS) void iAmHere();
	}
	onMount(() => {
		toldAt = clock.read();
	});
</script>

<!-- eslint-disable-next-line no-restricted-syntax -- it acts on no key, it only notes that somebody is there -->
<svelte:window onpointerdown={didSomething} onkeydown={didSomething} />
{#if isLate || isOver}
	<div
		role="alert"
		class="bg-sheet border-ochre-mark fixed right-5 bottom-5 z-50 flex items-center gap-4 rounded-xl border-2 px-4 py-3 shadow-lg print:hidden"
		data-testid="still-here"
	>
		{#if isOver}
			<p>You were signed out after {minutesInWords(idleMinutes)} without activity. What you had entered stays here.</p>
			<Act tone="main" href="/sign-in">Sign in</Act>
		{:else}
			<p>Still here? You will be signed out at {clockTime(until, zone)}.</p>
			<Act tone="main" onclick={iAmHere}>I am here</Act>
		{/if}
	</div>
{/if}
