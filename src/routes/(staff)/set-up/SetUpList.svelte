<!-- @component What is left until the first session can be held: each step with what it is for, how far it is, and its button. -->
<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import type { SetUpStep } from '$core/setting-up';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';

	let { steps }: { steps: SetUpStep[] } = $props();
	const needed = $derived(steps.filter(({ isNeeded }) => isNeeded));
	const later = $derived(steps.filter(({ isNeeded }) => !isNeeded));
	const left = $derived(needed.filter(({ state }) => state !== 'done').length);
	let trouble = $state<string | null>(null);

	async function hide() {
		const answer = await send('POST', '/set-up', { act: 'hide', isHidden: true });
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
	}
</script>

{#snippet line(step: SetUpStep, at: number | null)}
	<li
		class="flex items-center gap-4 rounded-xl px-3 py-2.5 {step.state === 'next' ? 'bg-mist' : ''}"
		data-testid="step-{step.key}"
	>
		<span
			class="grid h-7 w-7 shrink-0 place-items-center rounded-full border text-[13px] font-semibold {step.state ===
			'done'
				? 'bg-tide border-tide text-on-tide'
				: step.state === 'next'
					? 'border-tide text-tide border-2'
					: 'border-line-strong text-ink-3'}"
			aria-hidden="true">{step.state === 'done' ? '✓' : (at ?? '')}</span
		>
		<p class="min-w-0 flex-1 leading-snug">
			<strong class={step.state === 'done' ? 'text-ink-2' : ''}>{step.name}</strong><span class="sr-only"
				>{step.state === 'done' ? ', done' : step.state === 'next' ? ', next' : ', to do'}</span
			>
			<span class="text-ink-2 block text-[14px]">{step.why}</span>
		</p>
		{#if step.state !== 'done'}<Act tone={step.state === 'next' ? 'main' : undefined} href={step.href}>{step.act}</Act
			>{:else}<a class="text-tide text-[14px] underline" href={step.href}>look at it</a>{/if}
	</li>
{/snippet}

<section
	class="bg-sheet border-line rounded-2xl border px-3 py-4"
	aria-labelledby="set-up-list"
	data-testid="set-up-list"
>
	<div class="flex items-baseline gap-3 px-3">
		<h2 id="set-up-list" class="text-[19px]">
			{left === 0 ? 'All is there for the first session' : 'Until the first session'}
		</h2>
		<p class="text-ink-2 text-[14px]">
			{left === 0 ? 'This list goes away once somebody has sat.' : `${left} of ${needed.length} left`}
		</p>
		<Act size="xs" class="ml-auto" onclick={hide}>Hide</Act>
	</div>
	<ol class="mt-2">
		{#each needed as step, i (step.key)}{@render line(step, i + 1)}{/each}
	</ol>
	<h3 class="text-ink-2 mt-3 px-3 text-[14px] font-semibold">Before the day, or when you need it</h3>
	<ul class="mt-1">
		{#each later as step (step.key)}{@render line(step, null)}{/each}
	</ul>
	{#if trouble}<p role="alert" class="text-brick px-3 text-[14px]">{trouble}</p>{/if}
</section>
