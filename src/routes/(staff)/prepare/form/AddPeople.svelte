<!-- @component Finds single candidates to add to a session, beside its groups, or to leave out of it. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { send } from '$ui/post';

	type Person = { id: string; name: string; number: string };
	type Props = {
		/** What is done with whoever is found. */
		label: string;
		/** Stands before each name, `+` for added. */
		sign: string;
		added: Person[];
		onadd: (person: Person) => void;
		onremove: (id: string) => void;
	};
	let { label, sign, added, onadd, onremove }: Props = $props();

	let text = $state('');
	let found = $state.raw<(Person & { group: string })[] | null>(null);
	let asked = 0;
	$effect(() => {
		const sought = text.trim();
		const mine = ++asked;
		if (sought.length < 2) {
			found = null;
			return;
		}
		const timer = setTimeout(async () => {
			const answer = await send<{ people: (Person & { group: string })[] }>(
				'GET',
				`/prepare/people/find?text=${encodeURIComponent(sought)}`
			);
			if (mine === asked) found = answer.ok ? answer.data.people : [];
		}, 150);
		return () => clearTimeout(timer);
	});
</script>

<div class="mt-2">
	<div class="flex flex-wrap items-center gap-2">
		{#each added as person (person.id)}
			<button
				type="button"
				class="bg-mist border-tide rounded-lg border px-3 py-1.5 text-[14px]"
				onclick={() => onremove(person.id)}
				>{sign} {person.name} <span class="font-mono text-[13px]">{person.number}</span> ✕</button
			>
		{/each}
		<div class="w-64">
			<Input size="sm" placeholder="{label}: name or number" aria-label={label} bind:value={text} />
		</div>
	</div>
	{#if found}
		<ul class="border-line bg-sheet mt-1 max-w-md rounded-lg border text-[14px]">
			{#each found.filter((one) => !added.some((other) => other.id === one.id)) as person (person.id)}
				<li>
					<button
						type="button"
						class="hover:bg-mist flex w-full gap-3 px-3 py-1.5 text-left"
						onclick={() => {
							onadd({ id: person.id, name: person.name, number: person.number });
							text = '';
						}}
						><strong>{person.name}</strong> <span class="font-mono">{person.number}</span>
						<span class="text-ink-2 ml-auto">{person.group}</span></button
					>
				</li>
			{:else}<li class="text-ink-2 px-3 py-2">Nobody matches “{text.trim()}”.</li>{/each}
		</ul>
	{/if}
</div>
