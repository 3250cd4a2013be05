<!-- @component Papers that anyone may try, at any time and without a name. -->
<script lang="ts">
	import Calm from '../Calm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Practice · Otium</title></svelte:head>
<Calm title="Practice">
	<p>Try the screens and the questions for as long as you like. Nobody is told, and nothing is kept.</p>
	<ul class="space-y-3" data-testid="practice-papers">
		{#each data.papers as paper (paper.id)}
			<li class="bg-sheet border-line rounded-2xl border px-5 py-4">
				<a class="font-serif text-[20px] font-semibold underline" href="/sit/practice/{paper.id}">{paper.title}</a>
				<p class="text-ink-2 text-[16px]">
					{paper.about ? `${paper.about}. ` : ''}{paper.questions} questions, about {paper.minutes} minutes.
				</p>
			</li>
		{:else}
			<li class="text-ink-2">There is no paper for practice at present.</li>
		{/each}
	</ul>
	<p class="text-[16px]">
		<a class="font-semibold underline" href="/sit/rehearse">Check this device</a> ·
		<a class="font-semibold underline" href="/sit">To the door</a>
	</p>
</Calm>
