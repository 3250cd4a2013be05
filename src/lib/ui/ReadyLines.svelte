<!-- @component What must be right on the day: whether it is, who can settle it, and a link to where. -->
<script lang="ts">
	import type { ReadyLine } from '$core/session';

	let { lines }: { lines: ReadyLine[] } = $props();
	const MARKS = { done: '✓', open: '!', blocked: '✕' };
	const NAMES = { done: 'ready', open: 'not ready', blocked: 'in the way' };
	const TONES = {
		done: 'bg-mist text-tide',
		open: 'bg-ochre-ground text-ochre',
		blocked: 'bg-brick-ground text-brick'
	};
</script>

<ul>
	{#each lines as line (line.key)}
		<li class="border-line flex gap-2.5 border-b py-2 text-[14px] last:border-b-0">
			<span
				class="mt-0.5 grid h-4.5 w-4.5 shrink-0 place-items-center rounded-full text-[11px] font-bold {TONES[
					line.state
				]}"
				role="img"
				aria-label={NAMES[line.state]}>{MARKS[line.state]}</span
			>
			<span>
				{#if line.href}<a class="underline" href={line.href}>{line.text}</a>{:else}{line.text}{/if}
				{#if line.detail || line.who}<span class="text-ink-3 block text-[13px]"
						>{(line.detail ?? '').replace(/\.$/, '')}{line.detail && line.who ? ' · ' : ''}{line.who
							? `for ${line.who}`
							: ''}</span
					>{/if}
			</span>
		</li>
	{/each}
</ul>
