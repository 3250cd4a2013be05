<script lang="ts">
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import { DEVICE_CHECKS, type CheckResult, type DeviceCheck } from '$core/access';
	import { checkByItself, listen, playTone } from '$player/device-check';
	import { deviceName } from '$player/device-name';
	import type { Problem } from '$core/problem';
	import { send } from '$ui/post';
	import { cameraStandIn } from '../../../../stand-ins/camera';
	import Entry from '../Entry.svelte';
	import Press from '../Press.svelte';
	import Trouble from '../Trouble.svelte';

	let results = $state<Partial<Record<DeviceCheck, CheckResult>>>({});
	let doing = $state<DeviceCheck | null>(null);
	let heard = $state(false);
	let picture = $state<'none' | 'camera' | 'stand-in'>('none');
	let video = $state<HTMLVideoElement | null>(null);
	let code = $state('');
	/** The link in somebody's mail says whose it is. */
	const link = $derived(page.url.searchParams.get('for') ?? '');
	let busy = $state(false);
	let isReady = $state(false);
	let problem = $state.raw<Problem | null>(null);
	let outcome = $state.raw<{ ready: boolean; name: string | null; clientSays: CheckResult } | null>(null);

	const note = (result: CheckResult) => (results = { ...results, [result.key]: result });
	onMount(async () => {
		for (const result of await checkByItself()) note(result);
		isReady = true;
	});

	async function sound() {
		doing = 'sound';
		await playTone().catch(() => note({ key: 'sound', ok: false, says: 'this browser plays no sound' }));
		doing = null;
		heard = true;
	}
	async function microphone() {
		doing = 'microphone';
		const loudest = await listen();
		note(
			loudest === null
				? { key: 'microphone', ok: false, says: 'none here, or its use is refused' }
				: loudest > 0.02
					? { key: 'microphone', ok: true, says: 'it hears you' }
					: { key: 'microphone', ok: false, says: 'it is silent: speak, or raise its volume' }
		);
		doing = null;
	}
	async function camera() {
		doing = 'camera';
		let stream: MediaStream;
		try {
			stream = await navigator.mediaDevices.getUserMedia({ video: true });
			picture = 'camera';
			note({ key: 'camera', ok: true, says: 'it sees you' });
		} catch {
			stream = cameraStandIn();
			picture = 'stand-in';
			note({ key: 'camera', ok: false, says: 'none here, or its use is refused; this is a stand-in’s picture' });
		}
		doing = null;
		if (video) video.srcObject = stream;
	}

	async function finish(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		problem = null;
		const answer = await send<NonNullable<typeof outcome>>('POST', '/sit/api/rehearse', {
			by: link || code,
			deviceName: deviceName(),
			results: Object.values(results)
		});
		busy = false;
		if (!answer.ok) {
			problem = answer.problem;
			return;
		}
		outcome = answer.data;
		note(answer.data.clientSays);
	}
	/** What nobody but the person can try. */
	const BY_HAND: DeviceCheck[] = ['sound', 'microphone', 'camera'];
	const KEYS: DeviceCheck[] = ['screen', 'storage', 'line', 'clock', 'sound', 'microphone', 'camera', 'client'];
</script>

<svelte:head><title>Rehearse on this device · Otium</title></svelte:head>
<main class="mx-auto max-w-2xl px-5 py-10" data-ready={isReady}>
	<h1 class="text-[30px]">Rehearse on this device</h1>
	<p class="text-ink-2 mt-1 text-[17px]">
		It takes a minute and appears in no result. Use the device and the place that you will use on the day.
	</p>
	<ul class="bg-sheet border-line divide-line mt-6 divide-y rounded-2xl border">
		{#each KEYS as key (key)}
			{@const result = results[key]}
			<li
				class="grid grid-cols-[28px_150px_1fr] items-center gap-3 px-5 py-3 text-[17px] max-sm:grid-cols-[28px_1fr]"
				data-check={key}
			>
				<span
					class="grid h-6 w-6 place-items-center rounded-full text-[14px] font-bold {result === undefined
						? 'border-line-strong border border-dashed'
						: result.ok
							? 'bg-mist text-tide'
							: 'bg-ochre-ground text-ochre'}"
					role="img"
					aria-label={result === undefined ? 'not tried yet' : result.ok ? 'works' : 'does not work'}
					>{result === undefined ? '' : result.ok ? '✓' : '!'}</span
				>
				<strong>{DEVICE_CHECKS[key]}</strong>
				<div class="flex flex-wrap items-center gap-3 max-sm:col-span-2">
					{#if key === 'sound' && heard && result === undefined}
						<span>Did you hear it?</span>
						<Press onclick={() => note({ key: 'sound', ok: true, says: 'heard' })} testid="heard">Yes</Press>
						<Press
							onclick={() =>
								note({ key: 'sound', ok: false, says: 'nothing was heard: raise the volume and try again' })}>No</Press
						>
					{:else}
						{@const says =
							result?.says ??
							(key === 'client' ? 'looked at when you finish' : BY_HAND.includes(key) ? '' : 'looking…')}
						{#if says}<span class="text-ink-2 text-[16px]">{says}</span>{/if}
						{#if key === 'sound'}<Press onclick={sound} disabled={doing !== null} testid="tone"
								>{result ? 'Play it again' : 'Play a tone'}</Press
							>{/if}
						{#if key === 'microphone'}<Press onclick={microphone} disabled={doing !== null}
								>{doing === 'microphone' ? 'Say something…' : 'Try it'}</Press
							>{/if}
						{#if key === 'camera'}<Press onclick={camera} disabled={doing !== null} testid="camera">Try it</Press>{/if}
					{/if}
				</div>
			</li>
		{/each}
	</ul>
	<video
		bind:this={video}
		autoplay
		muted
		playsinline
		class="border-line mt-4 w-64 rounded-xl border {picture === 'none' ? 'hidden' : ''}"
		aria-label={picture === 'stand-in' ? 'The stand-in’s picture' : 'What the camera sees'}
	></video>
	{#if outcome}
		<div
			class="mt-6 rounded-2xl p-5 text-[18px] {outcome.ready ? 'bg-mist text-tide' : 'bg-ochre-ground text-ochre'}"
			role="status"
			data-testid="outcome"
		>
			<p class="font-semibold">
				{outcome.name ? `${outcome.name}, this` : 'This'} device is {outcome.ready ? 'ready' : 'not ready yet'}.
			</p>
			<p>
				{outcome.ready ? '' : 'Fix what is marked above, then try again.'}
				{outcome.name
					? 'It is noted, and your coordinator sees it.'
					: 'This result has not been sent to anyone. To send it, open the link in your mail or enter the code on your slip.'}
			</p>
		</div>
	{/if}
	<form class="mt-6 grid grid-cols-2 gap-4 max-sm:grid-cols-1" onsubmit={finish}>
		{#if !link}
			<Entry label="Code on your slip" most={20} mono optional bind:value={code} />
			<p class="text-ink-2 self-end text-[16px]">
				With it your coordinator sees what this device can do. You can leave it empty.
			</p>
		{/if}
		{#if problem}<div class="col-span-full"><Trouble {problem} /></div>{/if}
		<div class="col-span-full">
			<Press main type="submit" disabled={busy || !isReady} testid="finish-rehearsal"
				>{outcome ? 'Note it again' : 'Finish the rehearsal'}</Press
			>
		</div>
	</form>
</main>
