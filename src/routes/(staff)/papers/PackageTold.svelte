<!-- @component What of a package came in otherwise than it was, by its files. -->
<script lang="ts">
	type Props = { told: { where: string; message: string }[] };
	let { told }: Props = $props();
</script>

{#if told.length > 0}
	<div class="bg-ochre-ground text-ochre max-h-56 overflow-auto rounded-lg px-3 py-2 text-[14px]" data-testid="told">
		<p class="font-semibold">
			{told.length}
			{told.length === 1 ? 'thing is' : 'things are'} different from the package:
		</p>
		<ul class="mt-1 space-y-1">
			{#each told as { where, message }, i (i)}<li>
					<span class="font-mono text-[13px] break-all">{where}</span>: {message}
				</li>{/each}
		</ul>
	</div>
{/if}
