<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import { goto } from '$app/navigation';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	let chosen = $state<string[]>([]);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const toggle = (id: string) =>
		(chosen = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id].slice(-3));

	async function copy(id: string) {
		if (busy) return;
		busy = true;
		const answer = await send<{ id: string }>('POST', '/prepare/rules/copy', { from: id });
		busy = false;
		if (answer.ok) await goto(`/prepare/rules/${answer.data.id}`);
		else trouble = inWords(answer.problem);
	}
</script>

<svelte:head><title>Rule sheets · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex flex-wrap items-center gap-3">
		<h1 class="mr-2 text-[28px]">Rule sheets</h1>
		<Act
			class="ml-auto"
			disabled={chosen.length < 2}
			href={chosen.length < 2 ? undefined : `/prepare/rules/compare?${chosen.map((id) => `sheet=${id}`).join('&')}`}
			>{chosen.length < 2 ? 'Choose two or three to compare' : `Compare these ${chosen.length}`}</Act
		>
	</div>
	<p class="text-ink-2 mb-4 max-w-3xl">
		A session takes a copy of its sheet and may change it. Changing a sheet changes no session; apply it to those you
		mean.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	<ul class="space-y-3">
		{#each data.sheets as sheet (sheet.id)}
			<li class="bg-sheet border-line grid grid-cols-[auto_1fr_auto] items-start gap-4 rounded-2xl border p-4">
				<Checkbox
					class="mt-1"
					checked={chosen.includes(sheet.id)}
					onchange={() => toggle(sheet.id)}
					aria-label="Compare {sheet.name}"
				/>
				<div>
					<h2 class="text-[18px]">
						<a href="/prepare/rules/{sheet.id}" class="underline decoration-1 underline-offset-3">{sheet.name}</a>
						{#if sheet.shipped}<span class="text-ink-3 ml-1 text-[13px] font-normal">comes with Otium</span
							>{:else if sheet.site}<span class="text-ink-3 ml-1 text-[13px] font-normal">{sheet.site}</span>{/if}
					</h2>
					{#if sheet.note}<p class="text-ink-2 text-[14.5px]">{sheet.note}</p>{/if}
					<p class="mt-1 text-[14px]"><strong>Protection.</strong> {sheet.protection}</p>
					<p class="text-ink-3 mt-0.5 text-[13px]">
						{sheet.changed}
						{sheet.changed === 1 ? 'setting' : 'settings'} changed from the default{sheet.sessions > 0
							? ` · ${sheet.sessions} open ${sheet.sessions === 1 ? 'session' : 'sessions'}`
							: ''}
					</p>
				</div>
				<div class="flex gap-2">
					<Act size="xs" onclick={() => copy(sheet.id)} {busy}>Copy</Act>
					<Act size="xs" href="/prepare/rules/apply?sheet={sheet.id}">Apply…</Act>
				</div>
			</li>
		{/each}
	</ul>
</main>
