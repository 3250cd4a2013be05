<script lang="ts">
	import { clockTime, longDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import { zoneBeside } from '$ui/zone-beside';

	let { data } = $props();
	const clock = getClock();
	const at = $derived(data.mail.sent_at ?? data.mail.made_at);
</script>

<svelte:head><title>{data.mail.subject} · Otium</title></svelte:head>
<main class="mx-auto max-w-3xl px-6 py-6">
	<Act href="/prepare/mail?session={data.session.id}">Outbox of {data.session.name}</Act>
	<article class="bg-sheet border-line mt-4 rounded-2xl border p-6">
		<h1 class="text-[22px]">{data.mail.subject}</h1>
		<p class="text-ink-2 mt-1 text-[14.5px]">
			To {data.mail.to_name} &lt;{data.mail.to_address}&gt; · {data.mail.state}
			{longDate(at, data.session.zone, clock.now)}
			{clockTime(at, data.session.zone)}{zoneBeside(at, data.session.zone)}
		</p>
		{#if data.mail.trouble}<p class="bg-brick-ground text-brick mt-2 rounded-lg px-3 py-2">{data.mail.trouble}</p>{/if}
		<div class="mt-4 text-[16px] whitespace-pre-wrap">{data.mail.body}</div>
		{#if data.mail.hasCalendar}<p class="text-ink-3 mt-4 text-[13px]">With a calendar file: session.ics</p>{/if}
	</article>
</main>
