<!-- @component Changes the selected questions at once, after saying how many and what. -->
<script lang="ts">
	import { readDecimal } from '$core/quantity';
	import Input from 'flowbite-svelte/Input.svelte';
	import { AUDIENCE_NAMES, type TopicBranch } from '$core/bank';
	import { DIFFICULTIES } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import type { Bank } from './bank.svelte';

	type Props = { bank: Bank; topics: TopicBranch[]; onchanged: () => Promise<void> };
	let { bank, topics, onchanged }: Props = $props();

	const WHAT = {
		points: 'Points',
		topic: 'Topic',
		difficulty: 'Difficulty',
		audience: 'Who may use them',
		retired: 'Offered'
	};
	type What = keyof typeof WHAT;
	let isAsking = $state(false);
	let what = $state<What>('topic');
	let value = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const count = $derived(bank.selected.size);
	const OPTIONS: Partial<Record<What, [string, string][]>> = {
		difficulty: [...DIFFICULTIES.map((one): [string, string] => [one, one]), ['none', 'not known']],
		audience: (['me', 'site', 'all'] as const).map((one): [string, string] => [one, AUDIENCE_NAMES[one]]),
		retired: [
			['false', 'offered'],
			['true', 'no longer offered']
		]
	};
	const points = $derived(readDecimal(value) ?? NaN);
	const isReady = $derived(
		what === 'points' ? value.trim() !== '' && points >= 0 && points <= 1_000 : what === 'topic' || value !== ''
	);

	async function change() {
		if (busy || !isReady) return;
		busy = true;
		const to = what === 'points' ? points : what === 'retired' ? value === 'true' : value;
		const answer = await send<{ changed: number; notYours: number }>('POST', '/papers/bank', {
			ids: [...bank.selected],
			change: { [what]: to }
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		const { changed, notYours } = answer.data;
		if (notYours > 0) trouble = `${changed} changed. ${notYours} belong to others and stay as they are.`;
		else isAsking = false;
		bank.selected.clear();
		await onchanged();
	}
</script>

<Act
	onclick={() => {
		[value, trouble] = ['', null];
		isAsking = true;
	}}
	testid="bulk">Change {count}…</Act
>
<button type="button" class="text-tide text-[14px] underline" onclick={() => bank.selected.clear()}>Clear</button>

<Ask
	bind:open={isAsking}
	title="Change {count} {count === 1 ? 'question' : 'questions'}"
	verb="Change {count}"
	{busy}
	disabled={!isReady || count === 0}
	error={trouble}
	onconfirm={change}
>
	<div class="space-y-3">
		<Field id="bulk-what" label="What">
			<select
				id="bulk-what"
				class="bg-sheet border-line-strong w-full rounded-lg border px-2 py-2"
				bind:value={what}
				onchange={() => (value = '')}
			>
				{#each Object.entries(WHAT) as [key, name] (key)}<option value={key}>{name}</option>{/each}
			</select>
		</Field>
		<Field id="bulk-value" label="To">
			{#if OPTIONS[what]}
				<select id="bulk-value" class="bg-sheet border-line-strong w-full rounded-lg border px-2 py-2" bind:value>
					<option value="" disabled>Choose…</option>
					{#each OPTIONS[what] as [key, name] (key)}<option value={key}>{name}</option>{/each}
				</select>
			{:else}
				<Input id="bulk-value" list="bulk-topics" maxlength={120} autocomplete="off" bind:value />
				<datalist id="bulk-topics"
					>{#each what === 'topic' ? topics : [] as { path } (path)}<option value={path}></option>{/each}</datalist
				>
			{/if}
		</Field>
		<p class="text-ink-2 text-[14px]">
			Each gets a new revision where its content changes. Papers that have them keep theirs.
		</p>
	</div>
</Ask>
