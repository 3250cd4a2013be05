<!-- @component What the proctor said, until it has been read. -->
<script lang="ts">
	import type { SittingPicture } from '$core/room';
	import { clockTime } from '$core/time';
	import { ask } from '$player/ask';

	let { picture, onread }: { picture: SittingPicture; onread: () => void } = $props();
	let busy = $state(false);

	async function read() {
		if (busy) return;
		busy = true;
		await ask('POST', '/sit/api/messages', { seen: picture.messages.map((message) => message.id) });
		busy = false;
		onread();
	}
</script>

{#if picture.messages.length > 0}
	<div class="bg-slate-ground text-ink border-slate-sea/40 border-b px-6 py-3" role="alert" data-testid="message">
		<div class="mx-auto flex max-w-[780px] flex-wrap items-center gap-4">
			<div class="min-w-0 flex-1 text-[17px]">
				{#each picture.messages as message (message.id)}
					<p>
						<span class="text-slate-sea text-[14px] font-semibold"
							>Your proctor, {clockTime(message.at, picture.session.zone)}:</span
						>
						{message.text}
					</p>
				{/each}
			</div>
			<button
				type="button"
				class="bg-sheet border-line-strong rounded-xl border px-4 py-2 text-[16px] font-semibold"
				disabled={busy}
				onclick={read}>I have read it</button
			>
		</div>
	</div>
{/if}
