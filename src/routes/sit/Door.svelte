<script lang="ts">
	import { newView } from '$player/new-view';
	import { onMount, untrack } from 'svelte';
	import { readDoorCode, SLIP_LENGTH } from '$core/access';
	import { clockLength, timeAndDate } from '$core/time';
	import { signer } from '$player/ask';
	import { deviceName } from '$player/device-name';
	import OwnTime from '$ui/OwnTime.svelte';
	import { sendCommand } from '$ui/command-keys';
	import type { Problem } from '$core/problem';
	import type { Recognised } from '$core/room';
	import { send } from '$ui/post';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import Calm from './Calm.svelte';
	import Entry from './Entry.svelte';
	import Press from './Press.svelte';
	import Trouble from './Trouble.svelte';

	/** `onrecognised`: somebody of that name is expected, who has yet to say that it is them. */
	type Props = { clock: ServerClock; code: string; onrecognised: () => void; onarrived: () => void };
	let { clock, code: fromLink, onrecognised, onarrived }: Props = $props();

	let code = $state(untrack(() => fromLink));
	let number = $state('');
	let family = $state('');
	let given = $state('');
	let day = $state('');
	let month = $state('');
	/** What the door asks for, once it has said so; a slip is enough by itself. */
	let asks = $state<'number' | 'names'>('number');
	const isSlip = $derived(readDoorCode(code).length === SLIP_LENGTH);
	let person = $state.raw<Recognised | null>(null);
	let problem = $state.raw<Problem | null>(null);
	type Help = { problem: string; name: string; telephone: string; hours: string };
	/** Whom to turn to, told with a refusal. */
	const help = $derived((problem as (Problem & { help?: Help[] }) | null)?.help ?? []);
	let busy = $state(false);
	let isReady = $state(false);
	let waitUntil = $state(0);
	let isEarly = $state(false);
	const wait = $derived(Math.max(0, Math.ceil((waitUntil - clock.now) / 1_000)));
	onMount(() => (isReady = true));

	async function knock(event: SubmitEvent) {
		event.preventDefault();
		if (busy || wait > 0) return;
		busy = true;
		problem = null;
		const answer = await send<Recognised>('POST', '/sit/api/knock', {
			code,
			number: asks === 'number' ? number : '',
			family,
			deviceName: deviceName(),
			...(asks === 'names' ? { given, birthday: `${day.padStart(2, '0')}-${month.padStart(2, '0')}` } : {})
		});
		busy = false;
		if (answer.ok) {
			person = answer.data;
			onrecognised();
			return;
		}
		if (answer.problem.code === 'names_needed') asks = 'names';
		problem = answer.problem;
		if (answer.problem.waitSeconds) waitUntil = clock.read() + answer.problem.waitSeconds * 1_000;
	}

	async function arrive() {
		if (busy || !person) return;
		busy = true;
		// From here on this browser signs for the sitting; one that can't is let in by the proctor.
		const publicKey = (await (await signer({ make: true }))?.publicKey()) ?? null;
		const answer = await sendCommand('POST', '/sit/api/arrive', {
			note: person.note,
			deviceName: deviceName(),
			publicKey
		});
		busy = false;
		if (answer.ok) return onarrived();
		isEarly = answer.problem.code === 'door_closed';
		if (isEarly) return;
		problem = answer.problem;
		person = null;
	}

	/** The details were somebody else's: back to the form, with what to do; the proctor is told. */
	async function deny() {
		const { note } = person!;
		person = null;
		problem = {
			code: 'not_me',
			message: 'These may be somebody else’s details.',
			instead: 'Check the number on your card and enter your own. Your proctor can see this and can help.'
		};
		number = '';
		await send('POST', '/sit/api/not-me', { note, deviceName: deviceName() });
	}

	// Early is not wrong: the page waits, and goes in by itself.
	$effect(() => {
		if (!isEarly) return;
		const timer = setInterval(() => void arrive(), 5_000);
		return () => clearInterval(timer);
	});
</script>

<svelte:head>
	<title>{person && isEarly ? 'You are early' : person ? 'Is this you?' : 'Sit a paper'} · Otium</title>
</svelte:head>

{#if person && isEarly}
	<Calm title="You are early" paper={person.paper} person={person.name}>
		<p>
			This paper starts at <strong>{timeAndDate(person.opens, person.zone, clock.now)}</strong><OwnTime
				at={person.opens}
				zone={person.zone}
			/>. Stay on this page: the door opens automatically.
		</p>
		<p class="font-mono text-[44px] font-semibold tabular-nums">{clockLength(person.opens - clock.now)}</p>
		<p class="text-ink-3 text-[16px]">until the start</p>
	</Calm>
{:else if person}
	<Calm title="Is this you?">
		{#if person.photo}<img
				src="/sit/api/photo?note={encodeURIComponent(person.note)}"
				alt="The photo that is kept of {person.name}"
				class="border-line h-40 w-32 rounded-2xl border object-cover"
			/>{/if}
		<dl class="bg-sheet border-line grid grid-cols-[90px_1fr] gap-y-2 rounded-2xl border p-5">
			<dt class="text-ink-3">Name</dt>
			<dd class="font-semibold" data-testid="name">{person.name}</dd>
			<dt class="text-ink-3">Number</dt>
			<dd class="font-mono">{person.number}</dd>
			<dt class="text-ink-3">Paper</dt>
			<dd class="font-semibold">
				{person.paper}{person.kind === 'rehearsal'
					? ' (rehearsal: does not count)'
					: person.kind === 'make_up'
						? ' (make-up)'
						: ''}
			</dd>
			<dt class="text-ink-3">Where</dt>
			<dd>
				{person.room}{person.seat ? `, seat ${person.seat}` : ''}, {timeAndDate(
					person.opens,
					person.zone,
					clock.now
				)}<OwnTime at={person.opens} zone={person.zone} />
			</dd>
		</dl>
		<div class="flex flex-wrap gap-3">
			<Press main onclick={arrive} disabled={busy} testid="yes">Yes, this is me</Press>
			<Press onclick={deny} testid="no">No</Press>
		</div>
	</Calm>
{:else}
	<main class="mx-auto flex min-h-dvh max-w-md flex-col justify-center px-5 py-10">
		<h1 class="text-[30px] outline-none" {@attach newView}>Sit a paper</h1>
		<p class="text-ink-2 mt-1 text-[17px]">
			{isSlip ? 'Your slip is enough.' : 'The code is on the board, or on your slip.'}{asks === 'number' && !isSlip
				? ' Your number is on your card or slip.'
				: ''}
		</p>
		<form class="mt-6 space-y-5" onsubmit={knock}>
			<label class="block">
				<span class="mb-1 block text-[16px] font-semibold">Code</span>
				<input
					bind:value={code}
					name="code"
					required
					maxlength="60"
					autocomplete="off"
					autocapitalize="characters"
					spellcheck="false"
					class="bg-sheet border-line-strong w-full rounded-xl border px-4 py-3 font-mono text-[26px] font-semibold tracking-wider uppercase"
					placeholder="K7PX-3MQ"
				/>
			</label>
			{#if !isSlip}
				{#if asks === 'number'}<Entry label="Candidate number" name="number" most={60} mono bind:value={number} />{/if}
				{#if asks === 'names'}<Entry label="Given name" name="given" most={120} optional bind:value={given} />{/if}
				<Entry label="Family name" name="family" most={120} bind:value={family} />
			{/if}
			{#if asks === 'names' && !isSlip}
				<fieldset>
					<legend class="mb-1 block text-[16px] font-semibold">Birthday: day and month</legend>
					<div class="flex gap-3">
						{#each [['Day', 31], ['Month', 12]] as const as [label, most] (label)}
							<input
								aria-label={label}
								placeholder={label}
								required
								inputmode="numeric"
								type="number"
								min="1"
								max={most}
								value={label === 'Day' ? day : month}
								oninput={(event) =>
									label === 'Day' ? (day = event.currentTarget.value) : (month = event.currentTarget.value)}
								class="bg-sheet border-line-strong w-32 rounded-xl border px-4 py-3 font-mono text-[20px]"
							/>
						{/each}
					</div>
				</fieldset>
			{/if}
			<Trouble {problem}>
				{#if problem?.code.startsWith('client_')}<p class="mt-1">
						<a class="font-semibold underline" href="/sit/client">How to get the sealed client</a>
					</p>{/if}
				{#if wait > 0}<p class="mt-1">You can try again in {wait} s.</p>{/if}
				{#if help.length > 0}
					<ul class="mt-2 space-y-0.5 text-[15px]" data-testid="help">
						{#each help as one (one.problem + one.name)}
							<li>
								{one.problem}: {one.name}, <span class="font-mono">{one.telephone}</span>{one.hours
									? ` (${one.hours})`
									: ''}
							</li>
						{/each}
					</ul>
				{/if}
			</Trouble>
			<Press main type="submit" disabled={busy || wait > 0 || !isReady} class="w-full" testid="knock">Continue</Press>
		</form>
		<p class="text-ink-2 mt-6 text-[15px]">
			<a class="underline" href="/sit/practice">Practise</a> ·
			<a class="underline" href="/sit/rehearse">Check this device</a>
		</p>
	</main>
{/if}
