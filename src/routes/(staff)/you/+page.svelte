<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>What you may do · Otium</title></svelte:head>
<main class="mx-auto max-w-3xl px-6 py-6">
	<h1 class="text-[28px]">What you may do</h1>
	<p class="text-ink-2 mt-1">{data.person.name}: {data.roles.join(' · ') || 'no role yet'}</p>
	<ul class="bg-sheet border-line divide-line mt-4 divide-y rounded-2xl border">
		{#each data.acts as act (act.words)}
			<li class="grid grid-cols-[24px_1fr] gap-3 px-4 py-2.5">
				<span class="font-bold {act.where.length > 0 ? 'text-tide' : 'text-ink-3'}" aria-hidden="true"
					>{act.where.length > 0 ? '✓' : '–'}</span
				>
				<span>
					You {act.where.length > 0 ? 'may' : 'may not'} <strong>{act.words}</strong>
					<span class="text-ink-2 block text-[14px]"
						>{act.where.length > 0 ? `at ${act.where.join('; ')}` : `that takes: ${act.roles.join(' or ')}`}</span
					>
				</span>
			</li>
		{/each}
	</ul>
	<p class="mt-3 text-[15px]"><a class="text-tide underline" href="/you/sign-in">How I sign in</a></p>
	<h2 class="mt-6 text-[19px]">Who can give you more</h2>
	<ul class="mt-2">
		{#each data.givers as giver (giver.name)}
			<li class="py-1">
				<strong>{giver.name}</strong>, coordinator at {giver.sites.join(' and ')}{giver.email ? `: ${giver.email}` : ''}
			</li>
		{:else}<li class="text-ink-2">Nobody else coordinates here. Ask the person who runs this server.</li>{/each}
	</ul>
</main>
