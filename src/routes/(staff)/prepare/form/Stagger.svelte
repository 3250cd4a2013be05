<!-- @component Groups of so many people that start one after the other, so that everybody is let in before the entry closes. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import type { SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();
	let people = $state('12');
	let every = $state('20');
	const isWhole = (text: string, most: number) => /^\d{1,3}$/.test(text) && Number(text) >= 1 && Number(text) <= most;
</script>

<details class="mt-2 text-[14px]">
	<summary class="text-tide cursor-pointer">Start in groups</summary>
	<div class="mt-2 flex flex-wrap items-end gap-3">
		<Field id="stagger-people" label="People in a group"
			><Input id="stagger-people" size="sm" inputmode="numeric" class="w-24" bind:value={people} /></Field
		>
		<Field id="stagger-every" label="A group every, min"
			><Input id="stagger-every" size="sm" inputmode="numeric" class="w-24" bind:value={every} /></Field
		>
		<Act
			disabled={!isWhole(people, 500) || !isWhole(every, 240)}
			busy={setup.busy}
			testid="stagger"
			onclick={() => setup.stagger(Number(people), Number(every))}>Split it</Act
		>
		<span class="text-ink-3 pb-2">Each group is a session of its own, with its own code.</span>
	</div>
</details>
