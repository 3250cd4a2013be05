<!-- @component Before the door code is released ahead of its time: what it opens, and what it closes. -->
<script lang="ts">
	import { clockTime } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, onclose }: { room: LiveRoom; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	const head = $derived(room.head);
	$effect(() => {
		if (!open) onclose();
	});
	async function confirm() {
		if (busy) return;
		busy = true;
		error = await room.session('show_code');
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask bind:open title="Release the code of {head.paper} now?" verb="Release the code" {busy} {error} onconfirm={confirm}>
	<p class="text-[16px]">
		Whoever sees it can enter it. The door still opens at {clockTime(head.doorOpens, head.zone)}: whoever comes earlier
		waits. From now on the session can no longer be changed.
	</p>
</Ask>
