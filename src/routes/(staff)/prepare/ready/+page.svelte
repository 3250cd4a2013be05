<script lang="ts">
	import { counted } from '$core/names';
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import { goto } from '$app/navigation';
	import { clockTime } from '$core/time';
	import DateField from '$ui/DateField.svelte';
	import Act from '$ui/Act.svelte';
	import ReadyLines from '$ui/ReadyLines.svelte';
	import { zoneBeside } from '$ui/zone-beside';

	let { data } = $props();
	let onlyOpen = $state(true);
	const count = $derived(
		data.sessions.flatMap((session) => session.lines).filter((line) => line.state !== 'done').length
	);
</script>

<svelte:head><title>Ready? · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="text-[28px]">Ready?</h1>
		<div class="w-44">
			<DateField label="Day" value={data.day} onchange={(day) => void (day && goto(`/prepare/ready?day=${day}`))} />
		</div>
		<span class="text-ink-2"
			>{data.sessions.length} open {data.sessions.length === 1 ? 'session' : 'sessions'}, {count === 0
				? 'everything is ready'
				: `${count} ${count === 1 ? 'thing' : 'things'} to sort out`}</span
		>
		<Checkbox bind:checked={onlyOpen} class="text-[14px]">only what needs sorting out</Checkbox>
		<Act class="ml-auto" href="/prepare">All sessions</Act>
	</div>
	{#if data.sessions.length === 0}<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			No session is open on this day.
		</p>{/if}
	<div class="columns-2 gap-4 max-md:columns-1">
		{#each data.sessions as session (session.id)}
			{@const lines = session.lines.filter((line) => !onlyOpen || line.state !== 'done')}
			<section class="bg-sheet border-line mb-4 break-inside-avoid rounded-2xl border p-4">
				<h2 class="text-[17px]">
					<span class="mr-1.5 font-mono"
						>{clockTime(session.opens, session.zone)}{zoneBeside(session.opens, session.zone)}</span
					>
					<a class="underline decoration-1 underline-offset-3" href="/prepare/{session.id}/ready">{session.name}</a>
				</h2>
				<p class="text-ink-2 text-[14px]">{session.room}, {counted(session.candidates, 'candidate')}</p>
				{#if lines.length === 0}<p class="text-tide mt-1 font-semibold">✓ Ready</p>{:else}<ReadyLines {lines} />{/if}
			</section>
		{/each}
	</div>
</main>
