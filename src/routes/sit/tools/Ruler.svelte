<!-- @component A band that follows the pointer or the keyboard's focus, and leaves the lines in it bright. -->
<script lang="ts">
	let y = $state(260);
	const HALF = 34;
</script>

<svelte:window
	onpointermove={(event) => (y = event.clientY)}
	onfocusin={(event) => {
		const box = (event.target as HTMLElement).getBoundingClientRect();
		y = box.top + Math.min(box.height, 2 * HALF) / 2;
	}}
/>
<div class="bg-ink/20 pointer-events-none fixed inset-x-0 top-0 z-20" style="height:{Math.max(0, y - HALF)}px"></div>
<div class="bg-ink/20 pointer-events-none fixed inset-x-0 bottom-0 z-20" style="top:{y + HALF}px"></div>
