<!-- @component Several sessions from one setup: what is each one's own. -->
<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import TimeField from '$ui/TimeField.svelte';
	import Act from '$ui/Act.svelte';
	import type { PageData } from '../new/$types';

	type Part = NonNullable<PageData['input']['parts']>[number];
	type Props = {
		parts: Part[];
		rooms: PageData['choices']['rooms'];
		proctors: PageData['choices']['proctors'];
		told: { candidates: number; seats: number }[];
		errors: Record<string, string>;
		onchange: (parts: Part[] | null) => void;
	};
	let { parts, rooms, proctors, told, errors, onchange }: Props = $props();

	const typed = (event: Event) => (event.target as HTMLInputElement).value;
	const change = (i: number, to: Partial<Part>) =>
		onchange(parts.map((part, j) => (i === j ? { ...part, ...to } : part)));
	const faults = $derived(Object.entries(errors).filter(([field]) => field.startsWith('parts.')));
</script>

<div class="space-y-2" data-testid="parts">
	{#each parts as part, i (i)}
		<div class="bg-sheet border-line flex flex-wrap items-center gap-2 rounded-lg border p-2 text-[14px]">
			<strong class="w-32">{part.label}</strong>
			<span class="text-ink-2 w-20">{told[i] ? `${told[i].candidates} of ${told[i].seats}` : ''}</span>
			<div class="w-28">
				<TimeField size="sm" label="Opens, {part.label}" value={part.time} onchange={(time) => change(i, { time })} />
			</div>
			<div class="w-28">
				<TimeField
					size="sm"
					label="Closes, {part.label}"
					value={part.until ?? ''}
					onchange={(until) => change(i, { until: until || null })}
				/>
			</div>
			<div class="w-44">
				<Select
					size="sm"
					aria-label="Room, {part.label}"
					value={part.roomId}
					items={rooms.map((room) => ({ value: room.id, name: `${room.name}, ${room.seats}` }))}
					onchange={(event) => change(i, { roomId: typed(event) })}
				/>
			</div>
			<div class="w-40">
				<Select
					size="sm"
					aria-label="Proctor, {part.label}"
					value={part.proctorIds[0] ?? ''}
					items={[{ value: '', name: 'no proctor yet' }, ...proctors.map((one) => ({ value: one.id, name: one.name }))]}
					onchange={(event) => change(i, { proctorIds: typed(event) ? [typed(event)] : [] })}
				/>
			</div>
		</div>
	{/each}
	{#each faults as [field, message] (field)}<p class="text-brick text-[13px]" role="alert">
			{parts[Number(field.split('.')[1])]?.label}: {message}
		</p>{/each}
	<Act size="xs" onclick={() => onchange(null)}>One session after all</Act>
	<span class="text-ink-3 text-[13px]">Each gets a name and a code of its own.</span>
</div>
