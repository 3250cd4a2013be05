<!-- @component What is given, with the fields that its kind needs. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { GRANTED_LOOKS, LOOK_NAMES, type Called } from '$core/grants';
	import Choose from '$ui/Choose.svelte';
	import Field from '$ui/Field.svelte';
	import WindowFields from '$ui/WindowFields.svelte';
	import { WHAT_NAMES, type Entered, type WhatKind } from './what';

	type Props = {
		entered: Entered;
		rooms: Called[];
		proctors: Called[];
		/** Somebody has entered a window of their own. */
		ontyped: () => void;
	};
	let { entered = $bindable(), rooms, proctors, ontyped }: Props = $props();
	const KINDS = Object.entries(WHAT_NAMES).map(([value, name]) => ({ value: value as WhatKind, name }));
	const named = (all: Called[], none: string) => [
		{ value: '', name: none },
		...all.map(({ id, name }) => ({ value: id, name }))
	];
	const LOOKS = [
		{ value: '', name: 'as on the device' },
		...GRANTED_LOOKS.map((look) => ({ value: look, name: LOOK_NAMES[look] }))
	];
	const NUMBER = 'w-28';
</script>

<Field id="kind" label="What is given"
	><Select id="kind" placeholder="" items={KINDS} bind:value={entered.kind} /></Field
>
{#if entered.kind === 'factor'}
	<Field
		id="factor"
		label="Multiply the time limit by"
		hint="1.25 is time and a quarter, 1.5 time and a half. The largest factor counts."
		><Input id="factor" inputmode="decimal" class={NUMBER} bind:value={entered.factor} /></Field
	>
{:else if entered.kind === 'minutes'}
	<Field id="extra" label="Extra minutes" hint="This is what is added; the total is shown above."
		><Input id="extra" inputmode="numeric" class={NUMBER} bind:value={entered.minutes} /></Field
	>
{:else if entered.kind === 'own_window'}
	<div class="grid grid-cols-2 gap-2">
		<WindowFields
			bind:date={entered.date}
			bind:opens={entered.opens}
			bind:closes={entered.closes}
			bind:lastDate={entered.lastDate}
			onchange={ontyped}
		/>
		<Field id="room" label="Room"
			><Select id="room" placeholder="" items={named(rooms, 'As for the others')} bind:value={entered.roomId} /></Field
		>
		<Field id="proctor" label="Who supervises"
			><Select
				id="proctor"
				placeholder=""
				items={named(proctors, 'As for the others')}
				bind:value={entered.proctorId}
			/></Field
		>
	</div>
{:else if entered.kind === 'breaks'}
	<div class="flex gap-3">
		<Field id="breaks" label="How many"
			><Input id="breaks" inputmode="numeric" class={NUMBER} bind:value={entered.breaks} /></Field
		>
		<Field id="break-minutes" label="Minutes each"
			><Input id="break-minutes" inputmode="numeric" class={NUMBER} bind:value={entered.breakMinutes} /></Field
		>
	</div>
{:else if entered.kind === 'extra_attempt'}
	<Field id="attempts" label="How many more" hint="Which attempt counts follows from the rules; all are kept and seen."
		><Input id="attempts" inputmode="numeric" class={NUMBER} bind:value={entered.attempts} /></Field
	>
{:else if entered.kind === 'tools'}
	<Choose
		name="calculator"
		label="Which calculator"
		bind:value={entered.calculator}
		options={[
			{ value: 'basic', text: 'Basic' },
			{ value: 'scientific', text: 'Scientific' }
		]}
	/>
{:else if entered.kind === 'language'}
	<Field id="tag" label="Language tag" hint="pt is Portuguese. The paper is in it as far as it was written in it."
		><Input id="tag" class={NUMBER} maxlength={35} autocomplete="off" bind:value={entered.tag} /></Field
	>
{:else if entered.kind === 'display'}
	<Field id="magnification" label="Enlarged so many times"
		><Input id="magnification" inputmode="decimal" class={NUMBER} bind:value={entered.magnification} /></Field
	>
	<div class="grid grid-cols-2 gap-2">
		<Field id="colours" label="Colours at first"
			><Select id="colours" placeholder="" items={LOOKS} bind:value={entered.colours} /></Field
		>
		<Field id="wider" label="Lines"
			><Select
				id="wider"
				placeholder=""
				items={[
					{ value: '', name: 'as usual' },
					{ value: '1.8', name: 'wider' },
					{ value: '2.2', name: 'widest' }
				]}
				bind:value={entered.wider}
			/></Field
		>
	</div>
	<Checkbox bind:checked={entered.contrast}>Strong contrast</Checkbox>
	<Checkbox bind:checked={entered.ruler}>A reading ruler</Checkbox>
{:else if entered.kind === 'beside'}
	<Choose
		name="as"
		label="What they do"
		bind:value={entered.as}
		options={[
			{ value: 'reader', text: 'Reads' },
			{ value: 'scribe', text: 'Writes' },
			{ value: 'assistant', text: 'Helps' }
		]}
	/>
	<Field id="beside-name" label="Who, if it is known"
		><Input id="beside-name" maxlength={80} autocomplete="off" bind:value={entered.name} /></Field
	>
{:else if entered.kind === 'read_aloud'}
	<p class="text-ink-2 text-[14px]">By a voice of their device, also where the session gives it to nobody else.</p>
{:else if entered.kind === 'aid'}
	<Field id="aid" label="Which aid" hint="As the candidate and the proctor read it: “a bilingual dictionary”."
		><Input id="aid" maxlength={120} autocomplete="off" bind:value={entered.aid} /></Field
	>
{:else if entered.kind === 'paper_copy'}
	<p class="text-ink-2 text-[14px]">The proctor sees it; papers are printed from the paper’s own page.</p>
{:else if entered.kind === 'reopen'}
	<p class="text-ink-2 text-[14px]">Without it a sitting can only be reopened on the day on which it was handed in.</p>
{:else if entered.kind === 'other_form'}
	<p class="text-ink-2 text-[14px]">Also where the rules keep the paper’s order. It holds for who has not begun.</p>
{/if}
