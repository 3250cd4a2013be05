<!-- @component In which room, under whose eyes, and from which networks. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Select from 'flowbite-svelte/Select.svelte';
	import Field from '$ui/Field.svelte';
	import Chip from './Chip.svelte';
	import Part from './Part.svelte';
	import Rule from './Rule.svelte';
	import { toggled, type SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();
</script>

<Part name="Where">
	<div class="space-y-3">
		<div class="flex flex-wrap gap-3">
			<Field id="roomId" label="Room" error={setup.errorOf('roomId')} class="min-w-72">
				<Select
					id="roomId"
					value={setup.input.roomId}
					onchange={(event) => setup.set({ roomId: (event.target as HTMLSelectElement).value })}
					placeholder="Choose a room"
					items={setup.choices.rooms.map((one) => ({
						value: one.id,
						name: `${one.name}, ${counted(one.seats, 'seat')} · ${one.site}`
					}))}
				/>
			</Field>
			<Rule {setup} path="admission" />
		</div>
		<div>
			<p class="text-ink-2 mb-1 text-[13px] font-semibold">Proctors</p>
			<div class="flex flex-wrap gap-2" role="group" aria-label="Proctors">
				{#each setup.choices.proctors as proctor (proctor.id)}
					<Chip
						label={proctor.name}
						checked={setup.input.proctorIds.includes(proctor.id)}
						onchange={() => setup.set({ proctorIds: toggled(setup.input.proctorIds, proctor.id) })}
					/>
				{/each}
			</div>
		</div>
		<Rule {setup} path="door.networks" />
	</div>
</Part>
