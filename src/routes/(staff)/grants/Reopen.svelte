<!-- @component Opening one sitting again that has ended: why, when, where and with whom. Answers and time left stay. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { nanoid } from 'nanoid';
	import { REOPEN_WHY, type DayLook, type Proposal, type ReopenWhy } from '$core/grants';
	import { asLocalWindow, clockTime, MINUTE, timeAndDate } from '$core/time';
	import type { GrantLine, Reopened } from '$lib/server/grants';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import WindowFields from '$ui/WindowFields.svelte';
	import { zoneBeside } from '$ui/zone-beside';

	let { line, look, onreopened }: { line: GrantLine; look: DayLook; onreopened: () => void } = $props();
	const clock = getClock();
	const { zone } = $derived(look);

	let why = $state<ReopenWhy>('by_mistake');
	let words = $state<string>(REOPEN_WHY.by_mistake.words);
	let minutes = $state('0');
	let when = $state<'now' | 'window'>('now');
	let date = $state('');
	let opens = $state('');
	let closes = $state('');
	let lastDate = $state<string | null>(null);
	let roomId = $state('');
	let proctorId = $state('');
	let anotherDay = $state(false);
	let asksDay = $state(false);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let done = $state.raw<Reopened | null>(null);
	let id = $state(nanoid());
	/** The session's own window is still open, so that no other is needed. */
	const goesOn = $derived(!line.ended && (line.base.closes === null || line.base.closes > clock.now));

	function enter(from: number, to: number, room = '', proctor = '') {
		const entered = asLocalWindow({ opens: from, closes: to }, zone);
		({ date, opens, lastDate } = entered);
		closes = entered.closes!;
		roomId = room;
		proctorId = proctor;
	}
	const take = (one: Proposal) => enter(one.opens, one.closes, one.room.id, one.proctor?.id ?? '');
	const items = (all: { id: string; name: string }[]) => [
		{ value: '', name: 'As for the others' },
		...all.map(({ id, name }) => ({ value: id, name }))
	];
	const isWindow = $derived(when === 'window' || !goesOn);
	$effect(() => {
		if (!isWindow || date !== '') return;
		// Now, for as long as they may need, unless somebody enters another.
		enter(clock.now, clock.now + ((look.minutes ?? 60) + 15) * MINUTE);
	});

	async function reopen(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const answer = await send<Reopened>('POST', '/grants/reopen', {
			id,
			sittingId: line.sittingId,
			reason: words,
			minutes: Number(minutes || 0),
			window: isWindow ? { date, opens, closes, lastDate, roomId: roomId || null, proctorId: proctorId || null } : null,
			anotherDay
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return void (asksDay ||= answer.problem.code === 'another_day');
		done = answer.data;
		id = nanoid();
		onreopened();
	}
</script>

<section class="border-line mt-4 border-t pt-4" data-testid="reopen">
	<h3 class="text-[16px]">Open it again for {line.name.split(' ')[0]}</h3>
	{#if done}
		<div role="status" class="bg-mist text-tide mt-2 rounded-lg px-3 py-2 text-[14.5px]">
			<p>{done.words}</p>
			{#if done.code}<p>
					They come in with the code <strong class="font-mono">{done.code}</strong>; it lets in nobody else.
				</p>{:else}<p>That day’s code is on the session’s board that morning, and lets in nobody else.</p>{/if}
			{#if done.slip}<p>Or with their own: <strong class="font-mono">{done.slip}</strong></p>{/if}
		</div>
	{:else}
		<p class="text-ink-2 text-[14px]">Answers and the time that was left stay. Nobody else’s window opens.</p>
		<form class="mt-3 space-y-3" onsubmit={reopen}>
			<Field id="reopen-why" label="Why"
				><Select
					id="reopen-why"
					placeholder=""
					items={Object.entries(REOPEN_WHY).map(([value, { name }]) => ({ value: value as ReopenWhy, name }))}
					bind:value={why}
					onchange={() => (words = REOPEN_WHY[why].words)}
				/></Field
			>
			<Field id="reopen-words" label="In the record"
				><Input id="reopen-words" bind:value={words} maxlength={300} autocomplete="off" /></Field
			>
			<Field id="reopen-minutes" label="More minutes, on top of what was left"
				><Input id="reopen-minutes" inputmode="numeric" class="w-28" bind:value={minutes} /></Field
			>
			{#if goesOn}
				<Choose
					name="when"
					label="When they go on"
					bind:value={when}
					options={[
						{ value: 'now', text: 'Now, in the session' },
						{ value: 'window', text: 'In a window of their own' }
					]}
				/>
			{/if}
			{#if isWindow}
				{#if look.proposals.length > 0}
					<ul class="space-y-1">
						{#each look.proposals as one (one.opens)}
							<li>
								<button
									type="button"
									class="border-line hover:border-plum w-full rounded-lg border px-3 py-1.5 text-left text-[14px]"
									onclick={() => take(one)}
									><strong
										>{timeAndDate(one.opens, zone, clock.now)} to {clockTime(one.closes, zone)}{zoneBeside(
											one.closes,
											zone
										)}</strong
									>, {one.room.name}{one.proctor ? `, with ${one.proctor.name}` : ''}</button
								>
							</li>
						{/each}
					</ul>
				{/if}
				<div class="grid grid-cols-2 gap-2">
					<WindowFields prefix="re-" bind:date bind:opens bind:closes bind:lastDate />
					<Field id="re-room" label="Room"
						><Select id="re-room" placeholder="" items={items(look.rooms)} bind:value={roomId} /></Field
					>
					<Field id="re-proctor" label="Who supervises"
						><Select id="re-proctor" placeholder="" items={items(look.proctors)} bind:value={proctorId} /></Field
					>
				</div>
			{/if}
			{#if asksDay}<Checkbox bind:checked={anotherDay}>It may go on on another day than it ended</Checkbox>{/if}
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">
					{trouble}
				</p>{/if}
			<Act tone="grant" type="submit" {busy} disabled={words.trim() === ''}>Open it again</Act>
		</form>
	{/if}
</section>
