<!-- @component Several forms of one paper that are as alike as can be, each a paper of its own. -->
<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import type { Paper } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import LongWork from '$ui/LongWork.svelte';
	import { inWords, send } from '$ui/post';
	import NumberEntry from '../question/NumberEntry.svelte';

	type Props = { open: boolean; id: string; paper: Paper; isKept: boolean };
	let { open = $bindable(), id, paper, isKept }: Props = $props();

	type Made = { id: string; title: string; points: number; expected: number; minutes: number };
	const count = $derived(paper.parts.reduce((sum, { questions }) => sum + questions.length, 0));
	let forms = $state(2);
	let each = $state<number | null>(null);
	const size = $derived(each ?? Math.floor(count / forms));
	let busy = $state(false);
	let stopping: AbortController | null = null;
	let trouble = $state<string | null>(null);
	let made = $state.raw<Made[] | null>(null);
	const figure = (value: number) => String(Number(value.toFixed(1)));

	async function make() {
		if (busy) return;
		busy = true;
		trouble = null;
		const stop = (stopping = new AbortController());
		const asked = { forms, each: size };
		const answer = await send<{ forms: Made[] }>('POST', `/papers/${id}/forms`, asked, { signal: stop.signal });
		busy = false;
		if (stop.signal.aborted) return;
		if (answer.ok) made = answer.data.forms;
		else trouble = inWords(answer.problem);
	}
</script>

<Modal bind:open title="Parallel forms of {paper.title}" size="md" class="bg-sheet">
	<div class="text-ink space-y-4" data-testid="parallel">
		<p class="text-ink-2 text-[14.5px]">
			The {count} questions of this paper are divided so that the forms differ as little as possible in points, expected score,
			topics and time. No question is in two forms. Each becomes a paper to be read and frozen; this one stays.
		</p>
		<div class="flex flex-wrap items-end gap-3">
			<NumberEntry
				id="forms"
				label="Forms, 2 to 6"
				value={forms}
				onchange={(read) => (forms = Math.min(6, Math.max(2, Math.round(read))))}
			/>
			<NumberEntry
				id="each"
				label="Questions in each"
				class="w-40"
				value={size}
				onchange={(read) => (each = Math.round(read))}
			/>
			<Act tone="main" {busy} disabled={!isKept || size < 1} onclick={make} testid="make-forms">Make {forms} forms</Act>
		</div>
		{#if busy}<LongWork what="Dividing" mostSeconds={25} onstop={() => stopping?.abort()} />{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if made}
			<table class="w-full text-left text-[14.5px]" data-testid="made-forms">
				<thead class="text-ink-2 text-[13px]">
					<tr>
						<th class="py-1 font-semibold">Form</th>
						<th class="py-1 text-right font-semibold">Points</th>
						<th class="py-1 text-right font-semibold">Expected</th>
						<th class="py-1 text-right font-semibold">Minutes</th>
					</tr>
				</thead>
				<tbody>
					{#each made as form (form.id)}<tr class="border-line border-t">
							<td class="py-1.5"
								><a class="text-tide underline" href="/papers/{form.id}" onclick={() => (open = false)}>{form.title}</a
								></td
							>
							<td class="py-1.5 text-right">{figure(form.points)}</td>
							<td class="py-1.5 text-right">{figure(form.expected)}</td>
							<td class="py-1.5 text-right">{figure(form.minutes)}</td>
						</tr>{/each}
				</tbody>
			</table>
		{/if}
	</div>
</Modal>
