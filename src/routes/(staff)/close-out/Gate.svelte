<!-- @component One gate at one site: settled, or what is open and where to settle it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Gate } from '$core/closing';

	type Props = { gate: Gate; columns?: number; children?: Snippet };
	let { gate, columns = 1, children }: Props = $props();
</script>

<td
	colspan={columns}
	data-testid="gate-{gate.key}"
	class="border-line border-l px-3.5 py-2.5 align-top {gate.isSettled || gate.who.length === 0
		? ''
		: 'bg-ochre-ground/45'}"
>
	{#if gate.isSettled}
		<p class="text-tide font-semibold">✓ {gate.words}</p>
	{:else if gate.who.length === 0}
		<p class="text-ink-2">{gate.words}</p>
	{:else}
		<p class="text-ochre font-semibold">{gate.words}</p>
	{/if}
	{#if gate.done !== undefined}
		<div class="bg-line-strong my-1.5 h-2 overflow-hidden rounded-full" role="img" aria-label="{gate.done} % done">
			<div class="bg-tide h-full" style:width="{gate.done}%"></div>
		</div>
	{/if}
	{#if gate.detail}<p class="text-ink-2 text-[13.5px]">{gate.detail}</p>{/if}
	{@render children?.()}
</td>
