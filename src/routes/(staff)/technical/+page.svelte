<!-- @component What rooms, devices and networks need for each session to come, and what of it is done. -->
<script lang="ts">
	import { counted } from '$core/names';
	import { invalidateAll } from '$app/navigation';
	import { STAGES } from '$core/technical';
	import { clockTime, longDate, timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import { zoneBeside } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let onlyOpen = $state(false);
	type Session = (typeof data.sessions)[number];
	const open = (session: Session) => session.tasks.filter(({ done }) => done === null).length;
	const shown = $derived(data.sessions.filter((session) => !onlyOpen || open(session) > 0));

	async function tick(sessionId: string, task: string, on: boolean) {
		if (busy) return;
		busy = true;
		const answer = await send('POST', '/technical', { sessionId, task, on });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
	}
</script>

<svelte:head><title>Technical list · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="flex flex-wrap items-baseline gap-4">
		<h1 class="text-[28px]">Technical list</h1>
		<label class="text-ink-2 flex items-center gap-2 text-[14px]"
			><input type="checkbox" class="border-line-strong text-tide rounded" bind:checked={onlyOpen} />only what is not
			done</label
		>
	</div>
	<p class="text-ink-2">
		What each session asks of rooms, devices and networks, by its rules. Coordinators see what you tick.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	{#if data.help.length > 0}
		<ul class="text-ink-2 mt-3 flex flex-wrap gap-x-6 gap-y-1 text-[14px]">
			{#each data.help as one, i (i)}<li>
					<strong>{one.problem}</strong>: {one.name}, <span class="font-mono">{one.telephone}</span>
				</li>{/each}
		</ul>
	{/if}
	{#each shown as session (session.id)}
		<section class="bg-sheet border-line mt-4 rounded-2xl border p-5" data-testid="technical">
			<div class="flex flex-wrap items-baseline gap-x-3">
				<h2 class="text-[18px]">{session.name}</h2>
				<span class="text-ink-2">{session.room}, {session.site}</span>
				<span class="ml-auto font-semibold {open(session) > 0 ? 'text-ochre' : 'text-tide'}"
					>{open(session) > 0 ? `${open(session)} of ${session.tasks.length} to do` : 'all done'}</span
				>
			</div>
			<p class="text-ink-2 text-[14px]">
				{longDate(session.opens, session.zone, clock.now)}, {clockTime(session.opens, session.zone)}{zoneBeside(
					session.opens,
					session.zone
				)} · {session.checked.ready} of {counted(session.checked.candidates, 'candidate')}’ devices are ready{session
					.checked.notReady > 0
					? `, ${session.checked.notReady} are not`
					: ''}
				{#if data.mayPrepare}<a class="text-tide underline" href="/prepare/devices?session={session.id}">which</a>{/if}
			</p>
			<ul class="mt-3">
				{#each session.tasks as task (task.key)}
					<li class="border-line border-t py-2 first:border-t-0">
						<label class="flex items-start gap-3">
							<input
								type="checkbox"
								class="border-line-strong text-tide mt-1 rounded"
								checked={task.done !== null}
								disabled={busy}
								onchange={(event) => tick(session.id, task.key, event.currentTarget.checked)}
							/>
							<span class="text-ink-3 w-20 shrink-0 text-[13px]">{STAGES[task.stage]}</span>
							<span class="flex-1"
								>{task.text}{#if task.done}<span class="text-ink-3 block text-[13px]"
										>{task.done.by}, {timeAndDate(task.done.at, data.site.zone, clock.now)}</span
									>{/if}</span
							>
						</label>
					</li>
				{/each}
			</ul>
		</section>
	{:else}
		<p class="bg-sheet border-line text-ink-2 mt-4 rounded-2xl border p-10 text-center">
			{onlyOpen && data.sessions.length > 0 ? 'Everything is done.' : 'No session is planned at your sites.'}
			{#if data.places.some(({ href }) => href === '/prepare')}<a class="text-tide underline" href="/prepare"
					>See what is planned</a
				>{/if}
		</p>
	{/each}
</main>
