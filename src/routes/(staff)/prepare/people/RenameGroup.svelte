<!-- @component A group's name, and another for it. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { untrack } from 'svelte';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';

	type Props = { group: { id: string; name: string; count: number }; onrenamed: () => Promise<void> };
	let { group, onrenamed }: Props = $props();

	let isOpen = $state(false);
	let name = $state(untrack(() => group.name));
	let trouble = $state<string | null>(null);
	let busy = $state(false);

	async function rename(event: Event) {
		event.preventDefault();
		busy = true;
		const answer = await send('POST', '/prepare/people', { act: 'rename_group', groupId: group.id, name });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		isOpen = false;
		await onrenamed();
	}
</script>

{#if isOpen}
	<form class="flex items-center gap-2" onsubmit={rename}>
		<div class="w-48"><Input size="sm" aria-label="The group’s new name" bind:value={name} /></div>
		<Act tone="main" size="xs" type="submit" disabled={busy || name.trim() === ''} testid="rename"
			>Rename for {group.count === 1 ? 'its one member' : `its ${group.count} members`}</Act
		>
		<Act size="xs" onclick={() => ((isOpen = false), (name = group.name), (trouble = null))}>Cancel</Act>
	</form>
{:else}
	<Act size="xs" onclick={() => (isOpen = true)} testid="rename-group">Rename {group.name}</Act>
{/if}
{#if trouble}<p role="alert" class="text-brick w-full text-[14px]">{trouble}</p>{/if}
