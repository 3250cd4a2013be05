<!-- @component For whom: found by any part of name, number or group; one, several, or everyone of a group. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Input from 'flowbite-svelte/Input.svelte';
	import type { FoundForGrant, GrantLine } from '$lib/server/grants';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { send } from '$ui/post';
	import { timeInFull } from '$ui/zone-beside';

	type Chosen = Pick<GrantLine, 'sittingId' | 'name' | 'number'> & { session: { name: string } };
	type Props = {
		chosen: Chosen[];
		/** Everyone in the list beside, to be taken at once. */
		shown: GrantLine[];
		onchoose: (people: Chosen[], line: GrantLine | null) => void;
	};
	let { chosen, shown, onchoose }: Props = $props();
	const clock = getClock();

	let text = $state('');
	let found = $state.raw<FoundForGrant>({ people: [], groups: [] });
	let isAdding = $state(false);

	$effect(() => {
		const wanted = text;
		const timer = setTimeout(async () => {
			if (wanted.trim() === '') return void (found = { people: [], groups: [] });
			const answer = await send<FoundForGrant>('GET', `/grants/find?text=${encodeURIComponent(wanted)}`);
			if (answer.ok && wanted === text) found = answer.data;
		}, 180);
		return () => clearTimeout(timer);
	});
	function take(people: Chosen[], line: GrantLine | null) {
		const known = new Set(chosen.map((one) => one.sittingId));
		onchoose([...chosen, ...people.filter((one) => !known.has(one.sittingId))], chosen.length === 0 ? line : null);
		text = '';
		isAdding = false;
	}
	const ofGroup = (group: FoundForGrant['groups'][number]) =>
		group.people.map((person) => ({ ...person, session: { name: group.session } }));
</script>

{#if chosen.length > 1}
	<p class="text-[15px]"><strong>{counted(chosen.length, 'person', 'people')}</strong></p>
	<ul class="mt-1 flex max-h-36 flex-wrap gap-1.5 overflow-y-auto">
		{#each chosen as one (one.sittingId)}
			<li>
				<button
					class="border-line hover:border-brick rounded-full border px-2.5 py-0.5 text-[13.5px]"
					title="Leave {one.name} out"
					onclick={() =>
						onchoose(
							chosen.filter((each) => each.sittingId !== one.sittingId),
							null
						)}>{one.name}{one.number ? ` ${one.number}` : ''} ×</button
				>
			</li>
		{/each}
	</ul>
{/if}
{#if chosen.length === 0 || isAdding}
	<Field id="find" label={chosen.length === 0 ? 'For whom' : 'And for whom'} class="mt-3"
		><Input
			id="find"
			bind:value={text}
			autofocus
			placeholder="Any part of name, number or group"
			autocomplete="off"
		/></Field
	>
	<ul class="mt-2 space-y-1.5">
		{#each found.groups as group (`${group.name} ${group.session}`)}
			<li>
				<button
					class="border-plum/40 hover:border-plum w-full rounded-lg border px-3 py-2 text-left"
					onclick={() => take(ofGroup(group), null)}
					><strong>Everyone of {group.name}</strong>, {group.people.length}<span class="text-ink-2 block text-[13.5px]"
						>{group.session}, {timeInFull(group.opens, group.zone, clock.now)}</span
					></button
				>
			</li>
		{/each}
		{#each found.people as one (one.sittingId)}
			<li>
				<button
					class="border-line hover:border-plum w-full rounded-lg border px-3 py-2 text-left"
					onclick={() => take([one], one)}
					><strong>{one.name}</strong> <span class="font-mono text-[13.5px]">{one.number}</span><span
						class="text-ink-2 block text-[13.5px]"
						>{one.session.name}, {timeInFull(one.base.opens, one.session.zone, clock.now)}</span
					></button
				>
			</li>
		{:else}
			{#if text.trim() && found.groups.length === 0}<li class="text-ink-3 text-[14px]">
					Nobody who is planned for a session matches “{text}”.
				</li>{/if}
		{/each}
	</ul>
	{#if chosen.length === 0 && shown.length > 1}
		<p class="text-ink-2 mt-3 text-[14px]">
			Or <button class="text-tide font-semibold underline" onclick={() => take(shown, null)}
				>everyone in the list, {shown.length}</button
			>.
		</p>
	{/if}
{:else}
	<Act size="xs" class="mt-2" onclick={() => (isAdding = true)}>Somebody else as well…</Act>
{/if}
