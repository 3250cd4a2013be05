<!-- @component Everything that binds whoever sits, by subject. The same sentences for candidates and for staff. -->
<script lang="ts">
	import type { ToldSubject } from '$core/told';

	let { told, isDark = false }: { told: ToldSubject[]; isDark?: boolean } = $props();
</script>

<div class="space-y-3" data-testid="told-list">
	{#each told as { subject, title, lines } (subject)}
		<section>
			<h2 class="font-sans text-[14px] font-semibold tracking-normal {isDark ? 'text-[#b9d6cd]' : 'text-tide'}">
				{title}
			</h2>
			<ul class="mt-0.5 list-disc space-y-0.5 pl-5 {isDark ? '' : 'text-ink-2 text-[15.5px]'}">
				{#each lines as line, i (i)}<li>{line}</li>{/each}
			</ul>
		</section>
	{/each}
</div>
