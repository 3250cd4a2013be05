<!-- @component Who marks a question, by which criteria, and what of it twice. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { planFault, type HandPlan } from '$core/by-hand';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	type Props = {
		of: { administrationId: string; paperId: string; questionId: string };
		plan: HandPlan;
		revision: number;
		points: number;
		people: { id: string; name: string }[];
		onsaved: () => void;
	};
	let { of, plan, revision, points, people, onsaved }: Props = $props();
	let edited = $state<HandPlan>(untrack(() => structuredClone($state.snapshot(plan)) as HandPlan));
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const fault = $derived(planFault(edited, points));
	const nameOf = (id: string) => people.find((one) => one.id === id)?.name ?? id;
	const others = $derived(people.filter(({ id }) => !edited.markers.some((one) => one.id === id)));
	let added = $state('');

	async function save() {
		busy = true;
		const answer = await send('POST', '/close-out/marking/plan', { act: 'plan', ...of, revision, plan: edited });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) onsaved();
	}
	function add() {
		if (added) edited.markers.push({ id: added, share: 1 });
		added = '';
	}
</script>

<div class="space-y-4">
	<section>
		<h3 class="text-[16px]">Who marks</h3>
		<p class="text-ink-2 text-[13.5px]">
			Shares are relative: 2 and 1 give two thirds to the first. A share of 0 stops new answers from coming to somebody.
		</p>
		{#each edited.markers as marker (marker.id)}
			<div class="mt-1.5 flex items-center gap-2">
				<span class="w-44 truncate">{nameOf(marker.id)}</span>
				<Input
					class="w-20"
					type="number"
					min={0}
					max={100}
					aria-label="Share of {nameOf(marker.id)}"
					bind:value={marker.share}
				/>
				<Act size="xs" onclick={() => (edited.markers = edited.markers.filter((one) => one !== marker))}>Remove</Act>
			</div>
		{/each}
		<div class="mt-2 flex gap-2">
			<Select
				class="w-56"
				aria-label="Another marker"
				placeholder="Add a marker…"
				bind:value={added}
				onchange={add}
				items={others.map(({ id, name }) => ({ value: id, name }))}
			/>
		</div>
	</section>
	<div class="flex gap-4">
		<Field id="second" label="Marked twice" hint="Per cent of the answers" class="w-40">
			<Input id="second" type="number" min={0} max={100} bind:value={edited.secondPercent} />
		</Field>
		<Field
			id="tolerance"
			label="Tolerance"
			hint="Points that two marks may differ; beyond, a third person decides"
			class="w-64"
		>
			<Input id="tolerance" type="number" min={0} step={0.5} bind:value={edited.tolerance} />
		</Field>
	</div>
	<section>
		<h3 class="text-[16px]">Criteria</h3>
		<p class="text-ink-2 text-[13.5px]">
			None: one number from 0 to {points}. Changing them leaves marks that were given as they are.
		</p>
		{#each edited.rubric as criterion (criterion.id)}
			<div class="mt-1.5 flex items-center gap-2">
				<Input class="flex-1" aria-label="Criterion" bind:value={criterion.text} />
				<Input class="w-20" type="number" min={0} step={0.5} aria-label="Points of it" bind:value={criterion.points} />
				<Act size="xs" onclick={() => (edited.rubric = edited.rubric.filter((one) => one !== criterion))}>Remove</Act>
			</div>
		{/each}
		<Act size="xs" class="mt-2" onclick={() => edited.rubric.push({ id: nanoid(8), text: '', points: 1 })}
			>Add a criterion</Act
		>
	</section>
	{#if fault ?? trouble}<p role="alert" class="text-brick text-[14px]">{fault ?? trouble}</p>{/if}
	<Act tone="main" onclick={save} {busy} disabled={fault !== null} testid="save-plan">Save</Act>
</div>
