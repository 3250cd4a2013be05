<!-- @component Who is expected: groups, and people beside them. -->
<script lang="ts">
	import Act from '$ui/Act.svelte';
	import AddPeople from './AddPeople.svelte';
	import Chip from './Chip.svelte';
	import Part from './Part.svelte';
	import Stagger from './Stagger.svelte';
	import { toggled, type SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();

	const input = $derived(setup.input);
</script>

<Part name="Who">
	<div>
		<div class="flex flex-wrap gap-2" role="group" aria-label="Groups">
			{#each setup.choices.groups as group (group.id)}
				<Chip
					label={group.name}
					checked={input.groupIds.includes(group.id)}
					onchange={() => setup.set({ groupIds: toggled(input.groupIds, group.id), only: null, parts: null })}
					count={group.count}
					note={group.site}
				/>
			{/each}
			{#if !setup.edit && input.groupIds.length > 1 && input.parts === null}
				<Act onclick={() => setup.oneForEachGroup()} testid="for-each-group">A session for each group</Act>
			{/if}
		</div>
		<AddPeople
			label="Add people"
			sign="+"
			added={setup.added}
			onadd={(person) => {
				setup.added = [...setup.added, person];
				setup.set({ alsoIds: [...input.alsoIds, person.id] });
			}}
			onremove={(id) => {
				setup.added = setup.added.filter((one) => one.id !== id);
				setup.set({ alsoIds: input.alsoIds.filter((one) => one !== id) });
			}}
		/>
		{#if input.groupIds.length > 0}
			<AddPeople
				label="Leave out"
				sign="−"
				added={setup.leftOut}
				onadd={(person) => {
					setup.leftOut = [...setup.leftOut, person];
					setup.set({ withoutIds: [...(input.withoutIds ?? []), person.id] });
				}}
				onremove={(id) => {
					setup.leftOut = setup.leftOut.filter((one) => one.id !== id);
					setup.set({ withoutIds: (input.withoutIds ?? []).filter((one) => one !== id) });
				}}
			/>
		{/if}
		{#if !setup.edit && input.parts === null && setup.plans.length > 0}<Stagger {setup} />{/if}
		{#if setup.errorOf('groupIds')}
			<p class="text-brick mt-1 text-[13px]" role="alert">{setup.errorOf('groupIds')}</p>
		{/if}
		{#if input.kind === 'rehearsal' && setup.room && !setup.added.some(({ number }) => number.startsWith('TRIAL'))}
			<p class="mt-2">
				<Act size="xs" testid="add-trial" onclick={() => setup.addTrial()}>Add a trial person, to sit it yourself</Act>
			</p>
		{/if}
		{#if input.kind === 'make_up'}
			<p class="text-ink-3 mt-1.5 text-[13px]">
				A make-up takes only those of these groups who were absent or carried over.
			</p>
		{/if}
		{#if input.only}
			<p class="text-ink-2 mt-1.5 text-[14px]">
				Only {input.only.length} of them, as chosen before.
				<button type="button" class="font-semibold underline" onclick={() => setup.set({ only: null })}
					>Take all of them</button
				>
			</p>
		{/if}
	</div>
</Part>
