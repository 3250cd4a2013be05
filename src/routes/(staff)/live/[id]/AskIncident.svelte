<script lang="ts">
	import Fileupload from 'flowbite-svelte/Fileupload.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { INCIDENT_KINDS, incidentInWords, type IncidentKind } from '$core/incident';
	import type { SeatView } from '$core/room';
	import { clockTime } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { shownFrom } from '$ui/shown-from';
	import { named } from './asks';
	import type { LiveRoom } from './room.svelte';

	/** Whom it concerns at first: those selected; nobody selected means everyone in the room. */
	let { room, seats, now, onclose }: { room: LiveRoom; seats: SeatView[]; now: number; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let kind = $state<IncidentKind>('alarm');
	let note = $state('');
	let done = $state('');
	let minutes = $state(0);
	let minutesAgo = $state(0);
	let whom = $state<'chosen' | 'room' | 'nobody'>(untrack(() => (seats.length > 0 ? 'chosen' : 'room')));
	let files = $state<FileList>();
	const id = nanoid();
	const inRoom = $derived(room.all.filter((seat) => !['expected', 'absent', 'set_aside'].includes(seat.state)));
	const people = $derived(whom === 'chosen' ? seats : whom === 'room' ? inRoom : []);
	const summary = $derived(incidentInWords({ kind, minutes: minutes || 0, people: people.length }, inRoom.length));
	$effect(() => {
		if (!open) onclose();
	});

	async function confirm() {
		if (busy || note.trim() === '') return;
		const file = files?.[0];
		if (file && file.size > 700_000) return void (error = 'This file is too large: at most 700 kB.');
		busy = true;
		error = await room.tellIncident({
			id,
			kind,
			happenedAt: Math.round(now - (minutesAgo || 0) * 60_000),
			note: note.trim(),
			done: done.trim(),
			minutes: minutes || 0,
			sittingIds: people.map((seat) => seat.id),
			attachment: await shownFrom(file)
		});
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="Report an incident"
	verb={minutes > 0 ? `Report and give ${minutes} min` : 'Report'}
	tone={minutes > 0 ? 'grant' : 'main'}
	{busy}
	{error}
	disabled={note.trim() === '' || !Number.isInteger(minutes) || minutes < 0}
	onconfirm={confirm}
>
	<div class="grid grid-cols-2 gap-3">
		<Field id="incident-kind" label="What"
			><Select
				id="incident-kind"
				bind:value={kind}
				placeholder=""
				items={Object.entries(INCIDENT_KINDS).map(([value, name]) => ({ value, name }))}
			/></Field
		>
		<Field id="incident-ago" label="Minutes ago"
			><Input id="incident-ago" type="number" min={0} max={600} bind:value={minutesAgo} /></Field
		>
	</div>
	<div class="mt-3">
		<Field id="incident-note" label="What happened"
			><Textarea id="incident-note" class="w-full" rows={2} maxlength={2000} bind:value={note} autofocus /></Field
		>
	</div>
	<div class="mt-3">
		<Field id="incident-done" label="What was done about it"
			><Input id="incident-done" maxlength={500} bind:value={done} autocomplete="off" /></Field
		>
	</div>
	<fieldset class="mt-3">
		<legend class="text-ink-2 mb-1 text-[13px] font-semibold">Whom it concerns</legend>
		<div class="flex flex-wrap gap-x-4 gap-y-1">
			{#if seats.length > 0}<label class="flex items-center gap-1.5"
					><input type="radio" class="text-tide" value="chosen" bind:group={whom} />{named(seats)}</label
				>{/if}
			<label class="flex items-center gap-1.5"
				><input type="radio" class="text-tide" value="room" bind:group={whom} />everyone in the room ({inRoom.length})</label
			>
			<label class="flex items-center gap-1.5"
				><input type="radio" class="text-tide" value="nobody" bind:group={whom} />nobody by name</label
			>
		</div>
	</fieldset>
	<div class="mt-3 grid grid-cols-2 gap-3">
		<Field id="incident-minutes" label="Lost time given back, minutes"
			><Input
				id="incident-minutes"
				type="number"
				min={0}
				max={240}
				bind:value={minutes}
				disabled={people.length === 0 || room.head.endedAt !== null}
			/></Field
		>
		<Field id="incident-file" label="Attach a picture or a PDF"
			><Fileupload
				id="incident-file"
				size="sm"
				bind:files
				accept="image/png,image/jpeg,application/pdf,text/plain"
			/></Field
		>
	</div>
	<p class="bg-plum-ground text-plum mt-3 rounded-lg px-3 py-2 font-serif text-[16px]" data-testid="incident-sentence">
		{clockTime(now - (minutesAgo || 0) * 60_000, room.head.zone)}: {summary}.
	</p>
</Ask>
