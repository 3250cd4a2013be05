<script lang="ts">
	import { Input, Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { KIND_NAMES } from '$core/session';
	import { localTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';

	let { data } = $props();
	const clock = getClock();
	let part = $state<'today' | 'later' | 'past'>('today');
	let text = $state('');
	const shown = $derived(
		data.sessions
			.filter(
				(session) =>
					session.part === part &&
					`${session.name} ${session.room} ${session.site}`.toLowerCase().includes(text.trim().toLowerCase())
			)
			.sort((a, b) => (part === 'past' ? b.opens - a.opens : a.opens - b.opens))
	);
	const count = (which: typeof part) => data.sessions.filter((session) => session.part === which).length;
</script>

<svelte:head><title>Sessions · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">Sessions</h1>
		<Choose
			name="part"
			label="Which sessions"
			bind:value={part}
			options={[
				{ value: 'today', text: `Today ${count('today')}` },
				{ value: 'later', text: `Later ${count('later')}` },
				{ value: 'past', text: `Past ${count('past')}` }
			]}
		/>
		<div class="w-56"><Input placeholder="Name, room or site" aria-label="Find a session" bind:value={text} /></div>
		<Act tone="main" href="/prepare/new" class="ml-auto">New session</Act>
	</div>
	{#if shown.length === 0}
		<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center">
			{text ? `No session here matches “${text}”.` : 'No sessions here.'}
		</p>
	{:else}
		<div class="border-line overflow-x-auto rounded-2xl border">
			<Table class="text-ink text-[14.5px]">
				<TableHead class="bg-sheet text-ink-2 text-[13px] normal-case">
					{#each ['When', 'Session', 'Where', 'Expected', 'Stands', ''] as title (title)}<TableHeadCell
							class="px-4 py-2.5 font-semibold">{title}</TableHeadCell
						>{/each}
				</TableHead>
				<TableBody>
					{#each shown as session (session.id)}
						<TableBodyRow class="bg-sheet border-line">
							<TableBodyCell class="px-4 py-2.5"
								><span class="font-mono font-semibold">{localTime(session.opens, session.zone)}</span>
								<span class="text-ink-3 block text-[13px]">{longDate(session.opens, session.zone, clock.now)}</span
								></TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5 font-semibold whitespace-normal"
								>{session.name}{#if session.kind !== 'live'}<span
										class="bg-plum-ground text-plum ml-2 rounded-full px-2 py-0.5 text-[12.5px]"
										>{KIND_NAMES[session.kind]}</span
									>{/if}</TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5"
								>{session.room}<span class="text-ink-3 block text-[13px]">{session.site}</span></TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5">{session.expected}</TableBodyCell>
							<TableBodyCell class="px-4 py-2.5"
								>{session.stage}{#if !session.hasProctor && session.stage !== 'ended'}<span
										class="text-ochre block text-[13px]">no proctor yet</span
									>{/if}</TableBodyCell
							>
							<TableBodyCell class="px-4 py-2.5">
								{#if session.stage === 'planned'}<Act size="xs" href="/prepare/{session.id}">Change</Act>
								{:else if session.stage === 'ended'}<Act size="xs" href="/close-out/{session.id}">Ledger</Act>
								{:else}<Act size="xs" href="/live/{session.id}">Room</Act>{/if}
							</TableBodyCell>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		</div>
	{/if}
</main>
