<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { tick, untrack } from 'svelte';
	import { seatRows, usableSeats } from '$core/seating';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import Field from '$ui/Field.svelte';
	import { Keeper, type Outcome } from '$ui/keeper.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	type Room = Omit<(typeof data.rooms)[number], 'id'> & { id: string | null };
	let rooms = $state.raw<Room[]>(untrack(() => data.rooms));
	let at = $state(0);
	let trouble = $state<string | null>(null);
	let notes = $state<string[]>([]);
	let saved = $state(false);
	/** What a press on a seat, or Enter on it, does. */
	let brush = $state<'outOfUse' | 'apart'>('outOfUse');
	const room = $derived(rooms[at]);
	const layout = $derived(room ? seatRows(Math.min(100, room.rows || 0), Math.min(60, room.perRow || 0)) : []);
	const usable = $derived(room ? usableSeats(room.rows || 0, room.perRow || 0, room.plan).length : 0);
	/** The rooms that were changed and are not with the server yet, by their place. */
	let unkept: number[] = [];
	const keeper = new Keeper(save, 500);
	$effect(() => keeper.start());

	function change(to: Partial<Room>) {
		rooms = rooms.map((one, i) => (i === at ? { ...one, ...to } : one));
		saved = false;
		// A room is made with its name: until then nothing of it is sent.
		if (rooms[at].name.trim() === '' && rooms[at].id === null) return;
		unkept = [...unkept.filter((i) => i !== at), at];
		keeper.touched();
	}
	function press(seat: string) {
		const { outOfUse, apart } = room.plan;
		const list = room.plan[brush];
		const isSet = list.includes(seat);
		const without = { outOfUse: outOfUse.filter((one) => one !== seat), apart: apart.filter((one) => one !== seat) };
		change({ plan: isSet ? without : { ...without, [brush]: [...without[brush], seat] } });
	}
	async function save(leaving: boolean): Promise<Outcome> {
		const indexes = unkept;
		unkept = [];
		// All at once: of a page that is being left, a second request would come too late.
		const outcomes = await Promise.all(indexes.map((index) => saveOne(index, leaving)));
		return outcomes.find((outcome) => outcome !== 'kept') ?? 'kept';
	}
	async function saveOne(index: number, leaving: boolean): Promise<Outcome> {
		const { id, siteId, revision, name, rows, perRow, plan } = rooms[index];
		const answer = await send<{ id: string; revision: number; notes: string[] }>(
			'POST',
			'/prepare/rooms',
			{ id, siteId, revision, name, rows, perRow, plan },
			{ leaving }
		);
		if (answer.ok) {
			const { data: kept } = answer;
			rooms = rooms.map((one, i) => (i === index ? { ...one, id: kept.id, revision: kept.revision } : one));
			if (index === at) {
				trouble = null;
				notes = kept.notes;
				saved = true;
			}
			return 'kept';
		}
		trouble = `${name || 'The new room'}: ${inWords(answer.problem)}`;
		if (answer.status !== 0) return 'refused';
		unkept = [...unkept.filter((i) => i !== index), index];
		return 'line_down';
	}
	/** Where a new room is made. */
	let newAt = $state(untrack(() => data.sites[0]?.id ?? ''));
	async function add(siteId: string) {
		const site = data.sites.find((one) => one.id === siteId)!;
		rooms = [
			...rooms,
			{
				id: null,
				name: '',
				siteId,
				site: site.name,
				rows: 4,
				perRow: 6,
				plan: { outOfUse: [], apart: [] },
				revision: 0,
				seats: 24,
				sessions: 0
			}
		];
		at = rooms.length - 1;
		await tick();
		document.getElementById('room-name')?.focus();
	}
	function move(event: KeyboardEvent, row: number, column: number) {
		const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
		if (!step) return;
		event.preventDefault();
		document.querySelector<HTMLElement>(`[data-seat="${layout[row + step[0]]?.[column + step[1]]}"]`)?.focus();
	}
	const number = (event: Event) => Number((event.target as HTMLInputElement).value);
</script>

<svelte:head><title>Rooms · Otium</title></svelte:head>
<div class="grid min-h-full grid-cols-[280px_1fr] max-md:grid-cols-1">
	<nav aria-label="Rooms" class="border-line border-r px-4 py-5">
		<h1 class="mb-3 px-2 text-[24px]">Rooms</h1>
		<ul>
			{#each rooms as one, i (one.id ?? `new ${i}`)}
				<li>
					<button
						class="aria-[current=true]:bg-mist flex w-full items-baseline gap-2 rounded-lg px-2 py-1.5 text-left"
						aria-current={i === at}
						onclick={() => ((at = i), (notes = []), (trouble = null), (saved = false))}
					>
						<strong>{one.name || 'New room'}</strong>
						<span class="text-ink-2 text-[13px]">{one.site}</span>
						<span class="ml-auto font-mono text-[14px]">{usableSeats(one.rows, one.perRow, one.plan).length}</span>
					</button>
				</li>
			{/each}
		</ul>
		<div class="mt-3 px-2">
			{#if data.sites.length === 0}
				<p class="text-ink-2 text-[14px]">
					Rooms belong to a site. <a class="text-tide font-semibold underline" href="/set-up">Make the first site</a>
				</p>
			{:else}
				{#if data.sites.length > 1}
					<Select
						size="sm"
						class="mb-2"
						aria-label="Site of a new room"
						bind:value={newAt}
						items={data.sites.map((site) => ({ value: site.id, name: site.name }))}
					/>
				{/if}
				<Act onclick={() => add(newAt)} testid="new-room">New room</Act>
			{/if}
		</div>
	</nav>
	{#if room}
		<main class="px-7 py-5">
			<div class="flex flex-wrap items-end gap-3">
				<Field id="room-name" label="Name" class="w-56"
					><Input
						id="room-name"
						value={room.name}
						oninput={(event) => change({ name: (event.target as HTMLInputElement).value })}
					/></Field
				>
				<Field id="room-rows" label="Rows" class="w-24"
					><Input
						id="room-rows"
						type="number"
						min="1"
						max="100"
						value={room.rows}
						oninput={(event) => change({ rows: number(event) })}
					/></Field
				>
				<Field id="room-per-row" label="Seats a row" class="w-28"
					><Input
						id="room-per-row"
						type="number"
						min="1"
						max="60"
						value={room.perRow}
						oninput={(event) => change({ perRow: number(event) })}
					/></Field
				>
				<p class="pb-2" data-testid="usable">
					<strong class="font-mono text-[20px]">{usable}</strong> seats in use{room.plan.apart.length > 0
						? `, ${room.plan.apart.length} of them apart`
						: ''}
				</p>
				<p class="text-tide pb-2 text-[14px] font-semibold" role="status">{saved ? 'saved' : ''}</p>
			</div>
			<div class="mt-4 flex flex-wrap items-center gap-3 text-[14px]">
				<span>Click a seat to:</span>
				<Choose
					name="brush"
					label="What clicking a seat does"
					bind:value={brush}
					options={[
						{ value: 'outOfUse', text: 'takes it out of use' },
						{ value: 'apart', text: 'keeps it apart' }
					]}
				/>
				<span class="text-ink-3"
					>Seats apart go first to those who are granted to sit apart, last to everyone else.</span
				>
			</div>
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
			{#each notes as note (note)}<p role="status" class="bg-ochre-ground text-ochre mt-3 rounded-lg px-3 py-2">
					{note}
				</p>{/each}
			<p class="bg-line text-ink mx-auto mt-6 w-64 rounded-b-2xl py-1 text-center text-[13px]">front</p>
			<div class="mt-4 overflow-auto pb-4">
				<div class="mx-auto w-max space-y-1.5" role="group" aria-label="Seats of the {room.name}">
					{#each layout as row, r (r)}
						<div class="flex gap-1.5">
							{#each row as seat, c (seat)}
								{@const state = room.plan.outOfUse.includes(seat)
									? 'out'
									: room.plan.apart.includes(seat)
										? 'apart'
										: 'use'}
								<button
									type="button"
									data-seat={seat}
									class="h-12 w-14 rounded-lg border text-[13px] leading-tight {state === 'out'
										? 'border-line-strong text-ink-3 border-dashed bg-transparent line-through'
										: state === 'apart'
											? 'border-plum bg-plum-ground text-plum font-semibold'
											: 'bg-sheet border-line-strong'}"
									aria-label="{seat}, {state === 'out' ? 'out of use' : state === 'apart' ? 'apart' : 'in use'}"
									onclick={() => press(seat)}
									onkeydown={(event) => move(event, r, c)}
								>
									{seat}<span class="block text-[10.5px] no-underline"
										>{state === 'apart' ? 'apart' : state === 'out' ? 'out' : ''}</span
									>
								</button>
							{/each}
						</div>
					{/each}
				</div>
			</div>
			{#if room.sessions > 0}<p class="text-ink-3 mt-2 text-[13px]">
					{room.sessions} open {room.sessions === 1 ? 'session is' : 'sessions are'} planned here.
				</p>{/if}
		</main>
	{:else}
		<main class="text-ink-2 p-10 text-center">
			{data.sites.length === 0
				? 'Rooms belong to a site, and there is none yet.'
				: 'No room yet. Press New room on the left.'}
		</main>
	{/if}
</div>
