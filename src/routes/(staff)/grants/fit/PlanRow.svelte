<!-- @component One person whose time does not fit: what is in the way, and the window of the plan, which can be changed. -->
<script lang="ts">
	import Select from 'flowbite-svelte/Select.svelte';
	import type { Span } from '$core/grants';
	import type { Place } from '$core/optimal';
	import { clockTime } from '$core/time';
	import type { FitDay } from '$lib/server/grants';
	import Act from '$ui/Act.svelte';
	import Placed from './Placed.svelte';

	type Props = {
		person: FitDay['people'][number];
		/** Where the plan puts them. */
		place: Place | undefined;
		/** What is wrong with that place. */
		misfits: string[];
		/** There is a plan, with or without them. */
		isPlanned: boolean;
		fit: Pick<FitDay, 'zone' | 'rooms' | 'proctors'>;
		span: Span;
		onchange(to: Partial<Place>): void;
		onleave(): void;
	};
	let { person, place, misfits, isPlanned, fit, span, onchange, onleave }: Props = $props();

	const typed = (event: Event) => (event.currentTarget as HTMLSelectElement).value;
	const items = (all: { id: string; name: string }[]) => all.map(({ id, name }) => ({ value: id, name }));
</script>

<tr class="border-line border-b last:border-b-0">
	<td class="px-3.5 py-2"
		><strong>{person.name}</strong><span class="text-ink-3 block text-[13px]"
			>{person.session.name}, {person.minutes} min</span
		></td
	>
	<td class="px-3 py-2 text-[13.5px] {place ? 'text-ink-3' : 'text-brick'}">{person.misfits.join(' ')}</td>
	<td class="relative px-0 py-2">
		{#if place}
			<Placed
				{place}
				name={person.name}
				{span}
				zone={fit.zone}
				base={person.base}
				commitments={person.commitments}
				isWrong={misfits.length > 0}
				onmove={(by) => onchange({ opens: place.opens + by, closes: place.closes + by })}
			/>
		{/if}
	</td>
	<td class="px-3 py-2">
		{#if place}
			<span class="flex items-center gap-2"
				><strong>{clockTime(place.opens, fit.zone)} to {clockTime(place.closes, fit.zone)}</strong><Act
					size="xs"
					class="ml-auto"
					title="Leave {person.name} out"
					onclick={() => onleave()}>Leave out</Act
				></span
			>
			<span class="mt-1 grid grid-cols-2 gap-1">
				<Select
					size="sm"
					placeholder=""
					aria-label="Room of {person.name}"
					items={items(fit.rooms)}
					value={place.roomId}
					onchange={(event) => onchange({ roomId: typed(event) })}
				/>
				<Select
					size="sm"
					placeholder=""
					aria-label="Who supervises {person.name}"
					items={[{ value: '', name: 'Supervised then' }, ...items(fit.proctors)]}
					value={place.proctorId ?? ''}
					onchange={(event) => onchange({ proctorId: typed(event) || null })}
				/>
			</span>
			{#each misfits as misfit, i (i)}<span class="text-brick block text-[13px]">{misfit}</span>{/each}
		{:else if isPlanned}
			<span class="text-ink-2">No window</span>
			<a class="text-tide block text-[13.5px] underline" href="/grants?for={person.sittingId}&give=own_window"
				>Give one by hand</a
			>
		{/if}
	</td>
</tr>
