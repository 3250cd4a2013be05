<!-- @component What colleagues remark on a question: said, settled, opened again. -->
<script lang="ts">
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import type { BankQuestion } from '$core/bank';
	import { longDate } from '$core/time';
	import Act from '$ui/Act.svelte';

	type Props = {
		remarks: BankQuestion['remarks'];
		zone: string;
		busy: boolean;
		onsettle(id: string, settled: boolean): void;
		/** Whether it was kept. */
		onremark(text: string): Promise<boolean>;
	};
	let { remarks, zone, busy, onsettle, onremark }: Props = $props();

	let remark = $state('');
</script>

<section>
	<h3 class="text-[16px]">Remarks</h3>
	<ul class="mt-1 space-y-1.5" data-testid="remarks">
		{#each remarks as one (one.id)}
			<li class="rounded-lg px-3 py-2 text-[14px] {one.settledAt === null ? 'bg-ochre-ground' : 'text-ink-3 bg-paper'}">
				{one.text}
				<span class="text-ink-3 block text-[13px]"
					>{one.by}, {longDate(one.at, zone)}
					<button
						type="button"
						class="text-tide ml-1 underline"
						onclick={() => onsettle(one.id, one.settledAt === null)}
						>{one.settledAt === null ? 'Settle' : 'Open again'}</button
					></span
				>
			</li>
		{/each}
	</ul>
	<form
		class="mt-2 flex items-end gap-2"
		onsubmit={async (event) => {
			event.preventDefault();
			if (remark.trim() !== '' && (await onremark(remark))) remark = '';
		}}
	>
		<Textarea rows={1} class="w-full" aria-label="Your remark" maxlength={2000} bind:value={remark} />
		<Act size="xs" type="submit" {busy} disabled={remark.trim() === ''} testid="remark">Remark</Act>
	</form>
</section>
