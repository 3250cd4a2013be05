<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { onMount, untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { isHereAlone, readAddress } from '$core/setting-up';
	import { clockTime } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const clock = getClock();
	let name = $state(untrack(() => data.card.name ?? ''));
	let site = $state('');
	let zone = $state('');
	let address = $state(untrack(() => data.card.address ?? (data.reachedHereAlone ? '' : data.reached)));
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let busy = $state(false);
	onMount(() => (zone = Intl.DateTimeFormat().resolvedOptions().timeZone));

	const isFirst = $derived(data.sites.length === 0);
	const isZone = $derived(data.zones.includes(zone) || zone === 'UTC');
	const read = $derived(address.trim() === '' ? null : readAddress(address));
	const faults = $derived({
		name: name.trim() === '' ? 'Needed: it stands on pages, emails and prints.' : undefined,
		zone: isFirst && !isZone ? 'Choose one from the list, like Europe/Lisbon.' : undefined,
		address: address.trim() !== '' && read === null ? 'Write it like http://192.168.1.20:4600.' : undefined
	});
	let isTried = $state(false);

	async function save() {
		isTried = true;
		told = trouble = null;
		if (busy || Object.values(faults).some(Boolean)) return;
		busy = true;
		const answer = await send('POST', '/set-up', {
			act: 'place',
			name,
			site: isFirst ? site.trim() || name.trim() : '',
			zone: isFirst ? zone : null,
			address
		});
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		if (isFirst) return void (await goto('/'));
		told = 'Saved.';
		await invalidateAll();
	}
	async function showList() {
		await send('POST', '/set-up', { act: 'hide', isHidden: false });
		await goto('/');
	}
</script>

<svelte:head><title>Set up · Otium</title></svelte:head>
<main class="mx-auto max-w-3xl px-6 py-6">
	<h1 class="text-[28px]">{isFirst ? 'Set up your place' : 'Your place'}</h1>
	<p class="text-ink-2 mt-1">
		{isFirst
			? 'Three lines to begin with. Rooms, people and a paper come next, each in its own time; all of this can be changed later.'
			: 'What the whole house shares. Further sites are made under Prepare, Administration.'}
	</p>
	<section class="bg-sheet border-line mt-4 space-y-4 rounded-2xl border p-5">
		<Field id="house-name" label="Name of your school or board" error={isTried ? faults.name : undefined}>
			<Input id="house-name" bind:value={name} maxlength={120} placeholder="Saltmarsh Maritime College" autofocus />
		</Field>
		{#if isFirst}
			<div class="grid grid-cols-2 gap-4 max-sm:grid-cols-1">
				<Field id="site-name" label="First site" hint="where rooms are; leave it empty where there is only one">
					<Input id="site-name" bind:value={site} maxlength={80} placeholder={name} />
				</Field>
				<Field
					id="site-zone"
					label="Its time zone"
					hint={isZone
						? `There it is ${clockTime(clock.now, zone)} now. It can’t be changed once sessions are planned.`
						: ''}
					error={zone === '' ? undefined : faults.zone}
				>
					<Input id="site-zone" bind:value={zone} list="zones" autocomplete="off" />
				</Field>
				<datalist id="zones">
					{#each data.zones as one (one)}<option value={one}></option>{/each}
				</datalist>
			</div>
		{:else}
			<p>
				<strong>Sites:</strong>
				{data.sites.map((one) => `${one.name} (${one.zone})`).join(', ')}.
				<a class="text-tide underline" href="/prepare/administration">Add or change sites</a>
			</p>
		{/if}
		<Field
			id="house-address"
			label="Address that candidates type"
			hint="Stands on slips, boards, emails and prints, whoever makes them. Empty: the address at which each is made."
			error={faults.address}
		>
			<Input id="house-address" bind:value={address} placeholder="http://192.168.1.20:4600" autocomplete="off" />
		</Field>
		<p class="text-[14.5px]" data-testid="address-told" role="status">
			{#if read !== null && isHereAlone(read)}
				<span class="text-ochre font-semibold">Only this machine reaches {read}.</span> Candidates on other devices need its
				name or number in the network. Whoever installed Otium starts it with --lan.
			{:else if read !== null}
				Candidates type <strong class="font-mono">{read}/sit</strong>{read.startsWith('https:')
					? '.'
					: '. It is plain HTTP: all works, but whoever listens on the network can read along, and the proctor lets each device in.'}
			{:else if data.reachedHereAlone}
				<span class="text-ochre font-semibold"
					>You have reached this house at {data.reached}, which only this machine can.</span
				>
				Name an address before slips are printed.
			{:else}
				You have reached this house at <strong class="font-mono">{data.reached}</strong>.
			{/if}
		</p>
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
		{#if told}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2 font-semibold">{told}</p>{/if}
		<div class="flex flex-wrap items-center gap-3">
			<Act tone="main" onclick={save} {busy} testid="save-place"
				>{isFirst ? 'Save, and see what comes next' : 'Save'}</Act
			>
			<Act href="/">{isFirst ? 'Later' : 'Back to Today'}</Act>
			{#if data.card.isListHidden}<Act class="ml-auto" onclick={showList}>Show the list of steps again</Act>{/if}
		</div>
	</section>
</main>
