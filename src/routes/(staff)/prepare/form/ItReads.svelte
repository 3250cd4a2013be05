<!-- @component The session told back in a sentence, what speaks against it, and the planning of it. -->
<script lang="ts">
	import Act from '$ui/Act.svelte';
	import Sentence from '$ui/Sentence.svelte';
	import ToldList from '$ui/ToldList.svelte';
	import type { SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();
</script>

<aside class="bg-tide-deep text-[#f6f2e8]">
	<div class="sticky top-0 flex max-h-[calc(100dvh-92px)] flex-col px-7 py-5 max-lg:max-h-none" aria-live="polite">
		<!-- What speaks against it comes first. Where all of it does not fit, what is told below the sentence gives way first,
			then the findings scroll: the sentence and the buttons are always seen. -->
		{#if setup.findings.length > 0}
			<div class="mb-4 min-h-24 shrink overflow-auto max-lg:overflow-visible">
				<p class="mb-2 text-[14px] text-[#b9d6cd]">
					{setup.isBlocked ? 'Before it can be planned' : 'Worth knowing'} ({setup.findings.length})
				</p>
				<ul class="space-y-2" data-testid="findings">
					{#each setup.findings as finding (finding.key)}
						<li
							class="rounded-xl px-3.5 py-2 text-[14px] {finding.level === 'block'
								? 'bg-[#f8ddd6] text-[#7a2415]'
								: finding.level === 'warn'
									? 'bg-[#fbeccb] text-[#6b4500]'
									: 'bg-[#2a625a] text-[#f6f2e8]'}"
							data-code={finding.code}
						>
							<strong>{finding.part ? `${finding.part}: ` : ''}{finding.title}</strong>
							{finding.message}
							{#each finding.fixes as fix, i (fix.text)}
								{#if i > 0}or{/if}
								<button
									type="button"
									class="font-semibold underline"
									disabled={setup.locked !== null}
									onclick={() => setup.mend(fix)}>{fix.text}</button
								>{i === finding.fixes.length - 1 ? '.' : ' '}
							{/each}
						</li>
					{/each}
				</ul>
			</div>
		{/if}
		<div class="max-h-[50dvh] shrink-0 overflow-auto max-lg:max-h-none">
			<p class="mb-2 text-[14px] text-[#b9d6cd]">It reads</p>
			{#if setup.plans.length > 0}
				{#each setup.plans as told, i (i)}
					<p
						class="font-serif leading-[1.45] {setup.plans.length > 1
							? 'mb-3 text-[17px]'
							: setup.findings.length > 2
								? 'text-[18px]'
								: 'text-[21px]'}"
						data-testid="sentence"
					>
						<Sentence parts={told.sentence} />
					</p>
				{/each}
			{:else if setup.toChoose.length > 0}
				<p class="font-serif text-[21px] leading-snug text-[#dcebe5]">
					Choose {setup.toChoose.join(', ').replace(/, ([^,]*)$/, ' and $1')}, and this box describes the session in a
					sentence.
				</p>
			{:else}
				<p class="font-serif text-[21px] leading-snug text-[#dcebe5]">
					Something can’t be read yet: see the fields on the left.
				</p>
			{/if}
		</div>
		{#if setup.plans.length > 0}
			<div class="min-h-24 shrink-[4] overflow-auto max-lg:overflow-visible">
				<p class="mt-2 text-[15px] text-[#dcebe5]" data-testid="rules-in-short">{setup.plans[0].rulesInShort}</p>
				<p class="mt-3 rounded-xl bg-[#2a625a] px-3.5 py-2.5 text-[14.5px]" data-testid="protection">
					<strong>Protection.</strong>
					{setup.plans[0].protection}
				</p>
				<details class="mt-2 rounded-xl bg-[#2a625a] px-3.5 py-2 text-[14.5px]" data-testid="told">
					<summary class="font-semibold">What candidates are told</summary>
					<ToldList told={setup.plans[0].told} isDark />
				</details>
			</div>
		{/if}
		{#if setup.before}<p class="mt-3 text-[14px]">
				<button type="button" class="font-semibold underline" onclick={() => setup.undo()}
					>Undo the last change made for you</button
				>
			</p>{/if}
		{#if setup.trouble}<p role="alert" class="mt-4 rounded-xl bg-[#f8ddd6] px-3.5 py-2.5 text-[#7a2415]">
				{setup.trouble}
			</p>{/if}
		<div class="mt-5 flex flex-wrap gap-2">
			<Act
				onclick={() => setup.save()}
				busy={setup.busy}
				disabled={setup.locked !== null || setup.isBlocked}
				testid="plan"
				>{setup.edit ? 'Save the changes' : setup.plans.length > 1 ? `Plan all ${setup.plans.length}` : 'Plan it'}</Act
			>
			<a href="/prepare" class="rounded-lg border border-white/40 px-4 py-2 text-[14px] font-semibold"
				>{setup.edit ? 'Leave' : 'Keep as draft'}</a
			>
		</div>
	</div>
</aside>
