<!-- @component The candidate's own photo. Without a line it may not be there; the name is. -->
<script lang="ts">
	import { ask } from '$player/ask';

	let { name }: { name: string } = $props();

	let address = $state<string | null>(null);
	$effect(() => {
		let made: string | null = null;
		let isGone = false;
		void ask<Blob>('GET', '/sit/api/own-photo', undefined, { file: true }).then((answer) => {
			if (!answer.ok || isGone) return;
			address = made = URL.createObjectURL(answer.data);
		});
		return () => {
			isGone = true;
			if (made) URL.revokeObjectURL(made);
		};
	});
</script>

{#if address}<img
		src={address}
		alt="The photo of {name}"
		class="h-12 w-12 shrink-0 rounded-lg object-cover max-sm:h-9 max-sm:w-9"
	/>{/if}
