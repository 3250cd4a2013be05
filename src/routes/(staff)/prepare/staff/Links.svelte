<!-- @component Links by which people choose their password, to be handed over. They are shown once, and work once, within a week. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Act from '$ui/Act.svelte';

	let { links }: { links: { name: string; signIn: string; link: string }[] } = $props();
	let copied = $state(false);
	async function copy() {
		const text = links.map(({ name, signIn, link }) => `${name} (${signIn}): ${link}`).join('\n');
		await navigator.clipboard?.writeText(text).then(() => (copied = true));
	}
</script>

<section class="border-tide bg-sheet mb-4 rounded-2xl border-2 p-5 print:border-0" data-testid="links">
	<h2 class="text-[18px]">
		{counted(links.length, 'link')} to hand over
	</h2>
	<p class="text-ink-2 text-[14.5px]">
		No mail goes to {links.length === 1 ? 'this person' : 'these people'}. With the link they choose a password: once,
		within a week. It isn’t shown again; whoever has it can use it.
	</p>
	<ul class="mt-3 space-y-3">
		{#each links as { name, signIn, link } (link)}
			<li class="border-line break-inside-avoid border-t pt-2">
				<strong>{name}</strong> <span class="text-ink-2">signs in as {signIn}</span>
				<code class="bg-mist block rounded-lg px-3 py-1.5 text-[13.5px] break-all select-all">{link}</code>
			</li>
		{/each}
	</ul>
	<div class="mt-3 flex gap-2 print:hidden">
		<Act onclick={() => window.print()}>Print</Act>
		{#if typeof navigator !== 'undefined' && navigator.clipboard}<Act onclick={copy}>{copied ? 'Copied' : 'Copy'}</Act
			>{/if}
	</div>
</section>
