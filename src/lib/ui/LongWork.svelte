<!-- @component Work of the server that takes a while: for how long it has gone on, the most that it takes, and a way to stop it. -->
<script lang="ts">
	import { counted } from '$core/names';
	import { onMount } from 'svelte';
	import Act from './Act.svelte';

	type Props = { what: string; mostSeconds: number; onstop: () => void };
	let { what, mostSeconds, onstop }: Props = $props();
	let seconds = $state(0);
	onMount(() => {
		const tick = setInterval(() => seconds++, 1_000);
		return () => clearInterval(tick);
	});
</script>

<div class="flex items-center gap-3 text-[14px]">
	<progress class="accent-tide h-2 w-40" max={mostSeconds} value={Math.min(seconds, mostSeconds)} aria-label={what}
	></progress>
	<span class="text-ink-2" role="status">{what}; at most {counted(mostSeconds, 'second')}.</span>
	<Act size="xs" onclick={onstop} testid="stop-work">Stop</Act>
</div>
