<script lang="ts">
	import { readDecimal } from '$core/quantity';
	import { counted } from '$core/names';
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Fileupload from 'flowbite-svelte/Fileupload.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { KIND_NAMES } from '$core/session';
	import { STATE_NAMES } from '$core/sitting';
	import { clockTime, longDate } from '$core/time';
	import Registered from '../Registered.svelte';
	import History from './History.svelte';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	const person = $derived(data.person);
	const zone = $derived(person.site.zone);
	const path = $derived(`/prepare/people/${person.id}`);
	const start = () => ({
		number: data.person.number,
		given: data.person.given,
		family: data.person.family,
		email: data.person.email ?? '',
		birth: data.person.birth ?? '',
		language: data.person.language ?? '',
		grade: data.person.grade ?? '',
		userName: data.person.userName ?? '',
		elsewhere: data.person.elsewhere,
		groupIds: data.person.groups.map((group) => group.id),
		left: data.person.left
	});
	let form = $state(untrack(start));
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let withdrawing = $state.raw<(typeof data.person.standing)[number] | null>(null);
	let asksWithdraw = $state(false);
	const isChanged = $derived(JSON.stringify(form) !== JSON.stringify(start()));

	async function act(asked: unknown, done: string) {
		if (busy) return;
		busy = true;
		trouble = told = null;
		const answer = await send<{ effects?: string[] }>('POST', path, asked);
		busy = false;
		if (!answer.ok) {
			trouble = inWords(answer.problem);
			return;
		}
		told = [done, ...(answer.data.effects ?? [])].join(' ');
		await invalidateAll();
		form = start();
		asksWithdraw = false;
	}

	let kind = $state<'extra_time' | 'separate_room' | 'breaks' | 'display' | 'tools' | 'read_aloud'>('extra_time');
	let first = $state('1.5');
	let second = $state('0');
	let contrast = $state(false);
	let calculator = $state<'basic' | 'scientific'>('basic');
	let reason = $state('');
	let grantId = nanoid();
	const KINDS = {
		extra_time: { name: 'Extra time', first: 'Factor', second: 'Extra minutes' },
		breaks: { name: 'Breaks', first: 'How many', second: 'Minutes each' },
		separate_room: { name: 'Sits apart', first: null, second: null },
		display: { name: 'Enlarged, contrast', first: 'Times as large', second: null },
		tools: { name: 'Calculator', first: null, second: null },
		read_aloud: { name: 'Read aloud', first: null, second: null }
	} as const;
	async function give() {
		const [a, b] = [first, second].map((typed) => readDecimal(typed) ?? NaN);
		const body = {
			extra_time: { kind, factor: a, minutes: b },
			breaks: { kind, count: a, minutes: b },
			separate_room: { kind },
			display: { kind, magnification: a, contrast },
			tools: { kind, calculator },
			read_aloud: { kind }
		}[kind];
		await act({ act: 'give', id: grantId, body, reason }, 'Granted.');
		if (!trouble) {
			grantId = nanoid();
			reason = '';
		}
	}
	async function timetable(event: Event) {
		const file = (event.target as HTMLInputElement).files?.[0];
		if (!file) return;
		trouble = told = null;
		const response = await fetch(`${path}/timetable`, {
			method: 'POST',
			headers: { 'content-type': 'text/calendar' },
			body: file
		});
		const answer = await response.json();
		if (!response.ok) trouble = [answer.message, answer.instead].filter(Boolean).join(' ');
		else {
			told = `${counted(answer.entries, 'commitment')} imported.`;
			await invalidateAll();
		}
	}

	/** Raised with every new photo, so that the browser does not show the one before. */
	let photoTurn = $state(0);
	async function photo(method: 'PUT' | 'DELETE', body?: File) {
		if (busy) return;
		busy = true;
		trouble = told = null;
		const response = await fetch(`${path}/photo`, { method, body }).catch(() => null);
		busy = false;
		if (!response?.ok) {
			const answer = await response?.json().catch(() => null);
			trouble = answer
				? [answer.message, answer.instead].filter(Boolean).join(' ')
				: 'The server can’t be reached. Try again in a moment.';
			return;
		}
		told = method === 'PUT' ? 'The photo is kept.' : 'The photo is removed.';
		photoTurn++;
		await invalidateAll();
	}
	function putPhoto(event: Event) {
		const [file] = (event.currentTarget as HTMLInputElement).files ?? [];
		if (file) void photo('PUT', file);
	}
</script>

<svelte:head><title>{person.name} · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<div class="flex flex-wrap items-center gap-3">
		{#if person.photo}<img
				src="{path}/photo?{photoTurn}"
				alt={person.name}
				class="border-line h-16 w-14 rounded-xl border object-cover"
			/>{/if}
		<h1 class="text-[28px]">{person.name}</h1>
		<span class="font-mono text-[17px]">{person.number}</span>
		<span class="text-ink-2">{person.site.name}</span>
		{#if person.left}<span class="bg-ochre-ground text-ochre rounded-full px-3 py-0.5 text-[14px]"
				>no longer listed</span
			>{/if}
		<Act class="ml-auto" href="/prepare/people">All people</Act>
	</div>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if told}<p role="status" class="bg-mist text-tide mt-3 rounded-lg px-3 py-2 font-semibold">{told}</p>{/if}

	<div class="mt-4 grid grid-cols-2 gap-5 max-lg:grid-cols-1">
		<section class="bg-sheet border-line rounded-2xl border p-5">
			<h2 class="text-[18px]">As registered</h2>
			<Registered bind:form groups={data.groups} />
			<div class="mt-3 flex flex-wrap items-end gap-3">
				<Field id="photo" label="Photo, shown at the door and to proctors" hint="JPEG or PNG, at most 400 kB"
					><Fileupload id="photo" size="sm" accept="image/jpeg,image/png" onchange={putPhoto} /></Field
				>
				{#if person.photo}<Act size="xs" {busy} onclick={() => photo('DELETE')}>Remove the photo</Act>{/if}
			</div>
			<div class="mt-3">
				<Checkbox class="text-[14px]" bind:checked={form.left}
					>no longer listed: offered nowhere, kept for what they sat</Checkbox
				>
			</div>
			<div class="mt-4 flex gap-2">
				<Act
					tone="main"
					{busy}
					disabled={!isChanged}
					onclick={() => act({ act: 'change', change: form }, 'Saved.')}
					testid="save-person">Save</Act
				>
				{#if isChanged}<Act onclick={() => (form = start())}>Undo the changes</Act>{/if}
			</div>
		</section>

		<section class="bg-sheet border-line rounded-2xl border p-5">
			<h2 class="text-[18px]">Standing accommodations</h2>
			<p class="text-ink-3 text-[13px]">They apply to every session, at once.</p>
			<ul class="mt-2" data-testid="standing">
				{#each person.standing as grant (grant.id)}
					<li class="border-line flex items-center gap-3 border-b py-2 last:border-b-0">
						<span class="bg-plum-ground text-plum rounded-lg px-2.5 py-1 text-[14px] font-semibold">{grant.what}</span>
						<span class="text-ink-2 text-[14px]"
							>{grant.reason} · {grant.by}, {longDate(grant.at, zone, clock.now)}</span
						>
						<Act
							size="xs"
							class="ml-auto"
							onclick={() => {
								withdrawing = grant;
								asksWithdraw = true;
							}}>Withdraw</Act
						>
					</li>
				{:else}<li class="text-ink-2 py-2">None.</li>{/each}
			</ul>
			<div class="mt-3 flex flex-wrap items-end gap-2">
				<div class="w-44">
					<Select
						aria-label="What"
						bind:value={kind}
						items={Object.entries(KINDS).map(([value, one]) => ({ value, name: one.name }))}
						onchange={() => ([first, second] = kind === 'breaks' ? ['2', '10'] : ['1.5', '0'])}
					/>
				</div>
				{#if KINDS[kind].first}<Field id="first" label={KINDS[kind].first!} class="w-28"
						><Input id="first" inputmode="decimal" bind:value={first} /></Field
					>{/if}
				{#if KINDS[kind].second}<Field id="second" label={KINDS[kind].second!} class="w-32"
						><Input id="second" inputmode="numeric" bind:value={second} /></Field
					>{/if}
				{#if kind === 'tools'}<div class="w-40">
						<Select
							aria-label="Which calculator"
							bind:value={calculator}
							items={[
								{ value: 'basic', name: 'basic' },
								{ value: 'scientific', name: 'scientific' }
							]}
						/>
					</div>{/if}
				{#if kind === 'display'}<Checkbox bind:checked={contrast} class="py-2 text-[14px]">strong contrast</Checkbox
					>{/if}
				<Field id="reason" label="Why" class="min-w-40 flex-1"><Input id="reason" bind:value={reason} /></Field>
				<Act tone="grant" {busy} disabled={reason.trim() === ''} onclick={give} testid="give-standing">Grant</Act>
			</div>
		</section>

		<section class="bg-sheet border-line rounded-2xl border p-5">
			<h2 class="text-[18px]">Commitments</h2>
			<p class="text-ink-3 text-[13px]">What their sessions must not clash with.</p>
			<ul class="mt-2 max-h-56 overflow-auto text-[14.5px]">
				{#each person.commitments as one (one.id)}
					<li class="border-line flex gap-3 border-b py-1.5 last:border-b-0">
						<span class="text-ink-2 w-44">{longDate(one.from, zone, clock.now)}</span>
						<span class="font-mono">{clockTime(one.from, zone)} to {clockTime(one.to, zone)}</span>
						{one.title}
					</li>
				{:else}<li class="text-ink-2 py-1.5">None are known.</li>{/each}
			</ul>
			<div class="mt-3 flex flex-wrap items-end gap-3">
				<div class="w-72">
					<label for="timetable" class="text-ink-2 mb-1 block text-[13px] font-semibold"
						>Timetable (.ics), in place of these</label
					>
					<Fileupload id="timetable" accept=".ics" onchange={timetable} />
				</div>
				<a class="pb-2 text-[14px] underline" href="{path}/timetable" data-sveltekit-reload
					>Their sessions as a calendar</a
				>
			</div>
		</section>

		<section class="bg-sheet border-line rounded-2xl border p-5">
			<h2 class="text-[18px]">Sittings</h2>
			<ul class="mt-2 text-[14.5px]">
				{#each person.sittings as sitting (sitting.id)}
					<li class="border-line flex flex-wrap gap-x-3 border-b py-1.5 last:border-b-0">
						<a class="underline" href="/live/{sitting.sessionId}">{sitting.session}</a>
						<span class="text-ink-2">{longDate(sitting.opens, zone, clock.now)}</span>
						{#if sitting.kind !== 'live'}<span class="text-plum"
								>{KIND_NAMES[sitting.kind as keyof typeof KIND_NAMES]}</span
							>{/if}
						<span class="ml-auto">{STATE_NAMES[sitting.state as keyof typeof STATE_NAMES]}</span>
					</li>
				{:else}<li class="text-ink-2 py-1.5">None yet.</li>{/each}
			</ul>
			<h2 class="mt-5 text-[18px]">Devices</h2>
			<ul class="mt-2 text-[14.5px]">
				{#each person.checks as check (check.at)}
					<li class="border-line border-b py-1.5 last:border-b-0">
						<span class="font-semibold {check.ready ? 'text-tide' : 'text-brick'}"
							>{check.ready ? 'Ready' : 'Not ready'}</span
						>
						{check.device}, {longDate(check.at, zone, clock.now)}
						{clockTime(check.at, zone)}{check.client ? `, sealed client ${check.client}` : ''}
						<span class="text-ink-2 block text-[13px]"
							>{check.checks
								.filter((one) => !one.ok)
								.map((one) => `${one.name}: ${one.says}`)
								.join(' · ')}</span
						>
					</li>
				{:else}<li class="text-ink-2 py-1.5">No device has been rehearsed.</li>{/each}
			</ul>
		</section>

		<p class="mt-3 text-[14px]">
			<a class="text-tide underline" href="{path}/data" data-sveltekit-reload download
				>All that is kept about them, as a file</a
			>
		</p>
		<History requests={data.requests} given={data.given} {zone} now={clock.now} />
	</div>
</main>

{#if withdrawing}
	<Ask
		bind:open={asksWithdraw}
		title="Withdraw {withdrawing.what}?"
		verb="Withdraw it"
		tone="danger"
		{busy}
		error={trouble}
		onconfirm={() => act({ act: 'withdraw', id: withdrawing!.id }, 'Taken back.')}
	>
		<p>
			{person.name}, {person.number}, no longer has it from now on, also in a session that is running. It stays in the
			record.
		</p>
	</Ask>
{/if}
