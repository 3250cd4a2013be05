<script lang="ts">
	import { page } from '$app/state';
</script>

<svelte:head><title>Otium: {page.status}</title></svelte:head>
<main class="mx-auto max-w-xl px-6 py-24">
	<p class="text-ink-3 font-mono">{page.status}</p>
	<h1 class="mt-2 text-3xl">{page.error?.message}</h1>
	{#if page.error?.instead}<p class="text-ink-2 mt-3 text-lg">{page.error.instead}</p>{/if}
	<p class="mt-8">
		<a class="text-tide font-semibold underline" href={page.url.pathname.startsWith('/sit') ? '/sit' : '/'}
			>Back to the start</a
		>
	</p>
</main>
