<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto } from '$app/navigation';
	import { DEVICE_CHECKS, type DeviceCheck } from '$core/access';
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import FirstOf from '$ui/FirstOf.svelte';
	import { getClock } from '$ui/clock-context';
	import { zoneBeside } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const addressOf = (session: string, which: string) => `/prepare/devices?${new URLSearchParams({ session, which })}`;
</script>

<svelte:head><title>Devices · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-2 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Devices</h1>
		<div class="w-96">
			<Select
				aria-label="Session"
				placeholder=""
				value={data.session?.id ?? ''}
				items={data.sessions.map((session) => ({ value: session.id, name: session.name }))}
				onchange={(event) => void goto(addressOf((event.target as HTMLSelectElement).value, data.which))}
			/>
		</div>
		<Choose
			name="which"
			label="Which candidates"
			value={data.which}
			onchange={(which) => void goto(addressOf(data.session?.id ?? '', which))}
			options={[
				{ value: 'all', text: `all ${data.expected}` },
				{ value: 'not', text: `not ready ${data.expected - data.ready}` }
			]}
		/>
		{#if data.session}<Act class="ml-auto" href="/prepare/mail?session={data.session.id}">Remind by mail</Act>{/if}
	</div>
	<p class="text-ink-2 mb-4">
		{data.ready} of {data.expected} have shown a device that is ready.
		{data.session?.sealed
			? `It needs the sealed client, ${data.session.sealed} or newer.`
			: 'No sealed client is needed.'}
		Candidates rehearse at <span class="font-mono text-[14px]">{data.address}</span>; it uses up nothing.
	</p>
	<ul class="bg-sheet border-line rounded-2xl border">
		{#each data.people as person (person.id)}
			<li
				class="border-line grid grid-cols-[220px_110px_1fr] gap-3 border-b px-4 py-2.5 text-[14.5px] last:border-b-0 max-sm:grid-cols-1"
			>
				<span
					><a class="font-semibold underline decoration-1 underline-offset-2" href="/prepare/people/{person.id}"
						>{person.name}</a
					>
					<span class="font-mono text-[13px]">{person.number}</span></span
				>
				<span
					class="font-semibold {person.check === null ? 'text-ink-3' : person.check.ready ? 'text-tide' : 'text-brick'}"
					>{person.check === null ? 'not tried' : person.check.ready ? '✓ ready' : '! not ready'}</span
				>
				<span class="text-ink-2"
					>{#if person.check}{person.check.device}{person.check.client ? `, client ${person.check.client}` : ''}, {longDate(
							person.check.at,
							data.session!.zone,
							clock.now
						)}
						{clockTime(person.check.at, data.session!.zone)}{zoneBeside(
							person.check.at,
							data.session!.zone
						)}{#if person.check.faults.length > 0}<span class="text-ochre block"
								>{person.check.faults
									.map((fault) => `${DEVICE_CHECKS[fault.name as DeviceCheck]}: ${fault.says}`)
									.join(' · ')}</span
							>{/if}{/if}</span
				>
			</li>
		{:else}<li class="text-ink-2 p-8 text-center">
				{data.expected === 0 ? 'Choose a session that expects somebody.' : 'Everyone is ready.'}
			</li>{/each}
	</ul>
	<FirstOf shown={data.people.length} of={data.of} />
</main>
