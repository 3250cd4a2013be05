<!-- @component How many stand in each state; each count shows just those. -->
<script lang="ts">
	import { TALLY_ORDER, tallyKeyOf, type TallyKey } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import { clockLength } from '$core/time';
	import Act from '$ui/Act.svelte';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, now }: { room: LiveRoom; now: number } = $props();

	const tallyShown = $derived(TALLY_ORDER.filter((key) => room.tally[key] > 0));
	const accounted = $derived(Object.values(room.tally).reduce((sum, count) => sum + count, 0));
	const nameOf = (key: TallyKey) => (key === 'line_lost' ? 'Line lost' : STATE_NAMES[key]);
</script>

<footer
	class="bg-sheet border-line flex flex-wrap items-center gap-x-4 gap-y-1 border-t px-5 py-2.5 text-[14px]"
	data-testid="tally"
>
	<strong class={accounted === room.head.expected ? '' : 'text-brick'}
		>{accounted} of {room.head.expected} accounted for</strong
	>
	{#each tallyShown as key (key)}
		<button
			class="flex items-center gap-1.5 rounded-full px-2 py-0.5 {room.filter === key
				? 'bg-mist ring-tide ring-1'
				: 'hover:bg-paper'}"
			aria-pressed={room.filter === key}
			data-keyed
			onclick={() => (room.filter = room.filter === key ? null : key)}
			ondblclick={() =>
				room.all.filter((seat) => tallyKeyOf(seat) === key).forEach((seat) => room.selected.add(seat.id))}
		>
			<StateGlyph state={key} />{nameOf(key)} <strong>{room.tally[key]}</strong>
		</button>
	{/each}
	{#if room.filter}<span data-keyed
			><Act size="xs" onclick={() => room.shown.forEach((seat) => room.selected.add(seat.id))}
				>Select these {room.shown.length}</Act
			></span
		>{/if}
	<span class="text-ink-3 ml-auto"
		>{room.isStale ? 'not live' : 'live'} · last change {clockLength(now - room.changedAt)} ago</span
	>
</footer>
