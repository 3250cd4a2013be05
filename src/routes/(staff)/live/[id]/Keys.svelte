<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	let { open = $bindable(), coordinates }: { open: boolean; coordinates: boolean } = $props();
	const keys = $derived([
		['Arrows', 'move from seat to seat'],
		['Space', 'select or deselect'],
		['Enter', 'let in the selected person, or the first one waiting'],
		['L', 'let in all at the door; it names them first'],
		['U', 'turn away'],
		['H', 'hold'],
		['R', 'resume'],
		['M', 'give minutes'],
		['D', 'free the device'],
		['F', 'hand in for them'],
		['A', 'mark absent'],
		...(coordinates ? [['O', 'reopen']] : []),
		['E', 'end the session'],
		['Z', 'undo the last act, until the next'],
		['/', 'find somebody, here or in another session today'],
		['B', 'door board'],
		['N', 'numbers instead of names'],
		['K', 'done: settles what needs nothing more'],
		['S', 'postpone the first need for five minutes'],
		['W', 'write a message'],
		['I', 'report an incident'],
		['Alt ↑↓←→', 'swap seats with the neighbour'],
		['1 … 5', 'seats, list, answers, over time, incidents'],
		['Esc', 'clear selection and filter']
	]);
</script>

<Modal aria-label="Keys" bind:open title="Keys" size="sm" class="bg-sheet">
	<dl class="text-ink grid grid-cols-[90px_1fr] gap-y-1.5 text-[14.5px]">
		{#each keys as [key, what] (key)}
			<dt><kbd class="border-line-strong rounded border px-2 font-mono text-[13px]">{key}</kbd></dt>
			<dd>{what}</dd>
		{/each}
	</dl>
	<p class="text-ink-3 text-[14px]">
		With nobody selected, a key acts on the first person under Needs you who needs exactly that.
	</p>
</Modal>
