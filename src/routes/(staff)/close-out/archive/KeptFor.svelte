<!-- @component After how many years answers and the log go, chosen by whoever may; what would go at once is named before. -->
<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { KEPT_YEARS, termsFault, type RetentionTerms } from '$core/retention';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { terms }: { terms: RetentionTerms } = $props();
	let chosen = $state({ ...untrack(() => terms) });
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);
	let due = $state.raw<string[]>([]);
	let asking = $state(false);
	const fault = $derived(termsFault(chosen));
	const isChanged = $derived(chosen.answers !== terms.answers || chosen.log !== terms.log);
	const TIMES = [
		{ value: null, name: 'No end: kept with the house' },
		...KEPT_YEARS.map((value) => ({
			value,
			name: value === 1 ? '1 year after the closing' : `${value} years after the closing`
		}))
	];

	async function save(read: string[] | null) {
		busy = true;
		const answer = await send<{ due: string[]; saved: boolean }>('POST', '/close-out/archive/kept', {
			...chosen,
			read
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		({ due } = answer.data);
		if (answer.data.saved) {
			told = due.length > 0 ? 'Saved. What is due is deleted within a quarter of an hour.' : 'Saved.';
			await invalidateAll();
		} else if (read === null && due.length === 0) return save([]);
		asking = !answer.data.saved;
	}
</script>

<form
	class="mt-3 flex flex-wrap items-end gap-3"
	onsubmit={(event) => {
		event.preventDefault();
		told = null;
		void save(null);
	}}
>
	<Field id="kept-answers" label="Answers, marks and results"
		><Select id="kept-answers" class="w-64" items={TIMES} bind:value={chosen.answers} placeholder="" /></Field
	>
	<Field id="kept-log" label="What the log says"
		><Select id="kept-log" class="w-64" items={TIMES} bind:value={chosen.log} placeholder="" /></Field
	>
	<Act type="submit" {busy} disabled={!isChanged || fault !== null} testid="save-kept">Save</Act>
</form>
{#if fault}<p role="alert" class="text-brick mt-1 text-[14px]">{fault}</p>{/if}
{#if trouble}<p role="alert" class="text-brick mt-1 text-[14px]">{trouble}</p>{/if}
{#if told}<p role="status" class="text-tide mt-1 text-[14px]">{told}</p>{/if}

<Ask
	bind:open={asking}
	title="Delete at once?"
	verb="Save and delete"
	tone="danger"
	{busy}
	error={trouble}
	onconfirm={() => save(due)}
>
	<p>
		{due.length === 1 ? 'One administration was' : `${due.length} administrations were`} closed longer ago than that:
		<strong>{due.join(', ')}</strong>.
	</p>
	<p class="mt-2">
		What candidates answered in {due.length === 1 ? 'it' : 'them'} is deleted with their results and what was written about
		them, and can’t be brought back here. The sealed archives stay.
	</p>
</Ask>
