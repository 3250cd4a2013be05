<!-- @component The short list at the door: what the page can see by itself, and a tone that has to be heard. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { DEVICE_CHECKS, type CheckResult, type DeviceCheck } from '$core/access';
	import { checkByItself, playTone } from '$player/device-check';
	import { deviceName } from '$player/device-name';
	import { ask } from '$player/ask';
	import Press from './Press.svelte';

	/** `language`: that of the paper. */
	type Props = { needed: boolean; camera: boolean; language: string; onready: (ready: boolean) => void };
	let { needed, camera, language, onready }: Props = $props();

	let results = $state<Partial<Record<DeviceCheck, CheckResult>>>({});
	let isOpen = $state(false);
	let played = $state(false);
	/** Nothing that a page can see: the candidate says so. */
	let isSignedOut = $state(false);
	let busy = $state(false);
	let outcome = $state<{ ready: boolean } | null>(null);
	let trouble = $state<string | null>(null);
	const note = (result: CheckResult) => (results = { ...results, [result.key]: result });
	const list = $derived(Object.values(results));

	onMount(() => (isOpen = needed));
	async function look() {
		isOpen = true;
		for (const result of await checkByItself(language)) note(result);
		if (camera) {
			const stream = await navigator.mediaDevices?.getUserMedia({ video: true }).catch(() => null);
			note({ key: 'camera', ok: Boolean(stream), says: stream ? 'it sees you' : 'none here, or its use is refused' });
			stream?.getTracks().forEach((track) => track.stop());
		}
	}
	$effect(() => {
		if (isOpen && list.length === 0) void look();
	});
	async function sound() {
		played = false;
		await playTone().catch(() => note({ key: 'sound', ok: false, says: 'this browser plays no sound' }));
		played = true;
	}
	async function finish(heard: 'yes' | 'no' | 'never') {
		if (busy) return;
		busy = true;
		note({
			key: 'sound',
			ok: heard === 'yes',
			says: {
				yes: 'you heard it',
				no: 'not heard: raise the volume, or put in headphones',
				never: 'you continue without it: that is noted'
			}[heard],
			...(heard === 'never' ? { without: true } : {})
		});
		note({
			key: 'accounts',
			ok: isSignedOut,
			says: isSignedOut ? 'you are signed out of them' : 'sign out of them, and say so below'
		});
		const answer = await ask<{ ready: boolean }>('POST', '/sit/api/ready', {
			deviceName: deviceName(),
			results: Object.values(results)
		});
		busy = false;
		trouble = answer.ok ? null : answer.problem.message;
		if (answer.ok) {
			outcome = answer.data;
			onready(answer.data.ready);
		}
	}
</script>

{#if outcome?.ready}
	<p class="text-tide font-semibold" data-testid="device-ready">This device is ready.</p>
{:else if !isOpen}
	<p>
		<button type="button" class="text-tide font-semibold underline" onclick={look}
			>Check this device while you wait</button
		>
	</p>
{:else}
	<section class="bg-sheet border-line rounded-2xl border p-5" aria-label="This device">
		<h2 class="text-[19px]">This device</h2>
		<ul class="mt-2 space-y-1 text-[16px]">
			{#each list as one (one.key)}
				<li class="flex gap-2">
					<span class="w-6 font-semibold {one.ok ? 'text-tide' : 'text-ochre'}" aria-hidden="true"
						>{one.ok ? '✓' : '!'}</span
					>
					<span>{DEVICE_CHECKS[one.key]}: {one.says}</span>
				</li>
			{:else}
				<li class="text-ink-3">One moment…</li>
			{/each}
		</ul>
		<label class="mt-3 flex items-start gap-3 text-[16px]">
			<input type="checkbox" class="text-tide mt-1 h-5 w-5 rounded border-2" bind:checked={isSignedOut} />
			<span>I am signed out of my own accounts on this device, and no other program is open.</span>
		</label>
		<div class="mt-3 flex flex-wrap items-center gap-3">
			<Press onclick={sound}>Play a tone</Press>
			{#if played}
				<Press main onclick={() => finish('yes')} disabled={busy} testid="heard">I heard it</Press>
				<Press onclick={() => finish('no')} disabled={busy}>I heard nothing</Press>
			{/if}
			<Press onclick={() => finish('never')} disabled={busy} testid="without-sound"
				>I don’t hear: continue without</Press
			>
		</div>
		{#if outcome && !outcome.ready}<p class="text-ochre mt-2 text-[16px]" role="status">
				Something is not right yet: see the lines with “!”. {needed
					? 'Put it right and play the tone once more, or ask your proctor.'
					: 'You can continue anyway. Ask your proctor if in doubt.'}
			</p>{/if}
		{#if trouble}<p class="text-ochre mt-2" role="alert">{trouble}</p>{/if}
	</section>
{/if}
