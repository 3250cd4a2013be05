<script lang="ts">
	import { timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	let { data } = $props();
	const clock = getClock();
</script>

<svelte:head><title>Live · Otium</title></svelte:head>
<main class="mx-auto max-w-3xl px-6 py-8">
	<h1 class="text-[28px]">Live rooms</h1>
	{#each [{ title: 'Open now', list: data.running, empty: 'No door is open at the moment.' }, { title: 'Later', list: data.later, empty: 'Nothing further is planned for you.' }] as part (part.title)}
		<h2 class="mt-6 mb-2 text-[18px]">{part.title}</h2>
		<ul class="space-y-2">
			{#each part.list as session (session.id)}
				<li>
					<a
						href="/live/{session.id}"
						class="bg-sheet border-line hover:border-tide flex items-baseline gap-3 rounded-xl border px-4 py-3"
					>
						<span class="font-semibold">{session.name}</span>
						<span class="text-ink-2">{session.room}</span>
						<span class="text-ink-3 ml-auto font-mono text-[14px]"
							>{timeAndDate(session.opens, session.zone, clock.now)}</span
						>
					</a>
				</li>
			{:else}
				<li class="text-ink-3">{part.empty}</li>
			{/each}
		</ul>
	{/each}
</main>
