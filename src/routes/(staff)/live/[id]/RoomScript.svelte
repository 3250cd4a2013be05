<!-- @component Beside the room: how it is run, what is read aloud, and what helps when something goes wrong. -->
<script lang="ts">
	import type { Script } from '$core/session';

	let { sessionId }: { sessionId: string } = $props();

	let script = $state<Script | null>(null);
	let isFailed = $state(false);
	async function read() {
		isFailed = false;
		try {
			const answer = await fetch(`/live/${sessionId}/script`);
			if (!answer.ok) throw new Error(answer.statusText);
			script = await answer.json();
		} catch {
			isFailed = true;
		}
	}
	$effect(() => void read());
	const FOLD = 'border-line border-b py-1.5 text-[14.5px]';
	const HEAD = 'text-tide font-semibold';
</script>

{#if isFailed}
	<p class="text-ink-2 text-[14px]">
		The script could not be read. <button class="text-tide underline" onclick={read}>Try again</button>
	</p>
{:else if script}
	<div data-testid="script">
		<details class={FOLD}>
			<summary class={HEAD}>Step by step</summary>
			<ol class="mt-1.5 list-decimal space-y-1.5 pl-5">
				{#each script.steps as step (step)}<li>{step}</li>{/each}
			</ol>
		</details>
		<details class={FOLD}>
			<summary class={HEAD}>To read aloud</summary>
			<p class="mt-1.5 text-[17px] leading-relaxed">{script.aloud}</p>
		</details>
		<details class={FOLD}>
			<summary class={HEAD}>When something goes wrong</summary>
			{#each script.trouble as { title, lines } (title)}
				<h3 class="mt-2.5 font-sans text-[14.5px] font-semibold tracking-normal">{title}</h3>
				{#each lines as line (line)}<p class="mt-0.5">{line}</p>{/each}
			{/each}
		</details>
	</div>
{:else}
	<p class="text-ink-3 text-[14px]">Reading the script…</p>
{/if}
