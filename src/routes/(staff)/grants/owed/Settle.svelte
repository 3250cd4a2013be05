<!-- @component Arranging what people are owed: a make-up for them, a planned session that they join, or that they need not sit. -->
<script lang="ts">
	import Checkbox from 'flowbite-svelte/Checkbox.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { counted, listed, someNames } from '$core/names';
	import { untrack } from 'svelte';
	import type { Proposal } from '$core/grants';
	import { asLocalWindow, clockTime, localDate, localTime, minutesInWords, timeAndDate } from '$core/time';
	import type { Joinable, MakeUpOffer, Owed } from '$lib/server/owed';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { mailsTold } from '$ui/mails-told';
	import { inWords, send } from '$ui/post';
	import WindowFields from '$ui/WindowFields.svelte';
	import { timeInFull, zoneBeside } from '$ui/zone-beside';

	type Props = {
		how: 'make_up' | 'join' | 'waive';
		owed: Owed[];
		onclose: () => void;
		onsettled: (told: string) => void;
	};
	let { how, owed, onclose, onsettled }: Props = $props();
	const clock = getClock();
	const people = untrack(() => owed);
	const ids = people.map((one) => one.sittingId);
	const names = someNames(people.map((one) => one.name));
	const goOn = people.filter((one) => one.hasBegun);

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let offer = $state.raw<{ makeUp: MakeUpOffer; sessions: Joinable[] } | null>(null);
	let date = $state('');
	let time = $state('');
	let until = $state('');
	let untilDate = $state<string | null>(null);
	let roomId = $state('');
	let proctorId = $state('');
	let tell = $state(true);
	let sessionId = $state('');
	let reason = $state('');

	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => {
		if (untrack(() => how) === 'waive') return;
		void (async () => {
			const answer = await send<{ makeUp: MakeUpOffer; sessions: Joinable[] }>('POST', '/grants/owed', {
				act: 'offer',
				sittingIds: ids
			});
			if (!answer.ok) return void (error = inWords(answer.problem));
			offer = answer.data;
			const [first] = answer.data.makeUp.proposals;
			if (first) take(first, answer.data.makeUp.zone);
			sessionId = answer.data.sessions[0]?.id ?? '';
		})();
	});
	function take(one: Proposal, zone: string) {
		const entered = asLocalWindow(one, zone);
		({ date, opens: time, lastDate: untilDate } = entered);
		until = entered.closes!;
		roomId = one.room.id;
		proctorId = one.proctor?.id ?? '';
	}
	const isTaken = (one: Proposal, zone: string) =>
		date === localDate(one.opens, zone) && time === localTime(one.opens, zone) && roomId === one.room.id;

	async function confirm() {
		if (busy) return;
		busy = true;
		error = null;
		const body =
			how === 'make_up'
				? {
						act: 'make_up',
						sittingIds: ids,
						date,
						time,
						until: until || null,
						untilDate,
						roomId,
						proctorIds: proctorId ? [proctorId] : [],
						tell
					}
				: how === 'join'
					? { act: 'join', sittingIds: ids, sessionId }
					: { act: 'waive', sittingIds: ids, reason };
		const answer = await send<{ name?: string; mails?: number; refused?: string[] }>('POST', '/grants/owed', body);
		busy = false;
		if (!answer.ok) return void (error = inWords(answer.problem));
		open = false;
		const { name, mails = 0, refused = [] } = answer.data;
		onsettled(
			how === 'make_up'
				? `Planned: ${name}, for ${names}. ${mailsTold(tell ? mails : 0)}`
				: how === 'join'
					? `${ids.length - refused.length} now stand on the list.${refused.length > 0 ? ` Not: ${refused.join(' ')}` : ''}`
					: `Need not sit: ${names}.`
		);
	}
	const title = { make_up: 'A make-up', join: 'Into a planned session', waive: 'Need not sit' } as const;
	const verb = { make_up: 'Plan the make-up', join: 'Put them there', waive: 'They need not sit' } as const;
	const isReady = $derived(
		how === 'make_up' ? Boolean(date && time && roomId) : how === 'join' ? sessionId !== '' : reason.trim() !== ''
	);
	const items = (all: { id: string; name: string }[]) => all.map(({ id, name }) => ({ value: id, name }));
</script>

<Ask
	bind:open
	title="{title[how]}: {people[0].paper.title}"
	verb={verb[how]}
	{busy}
	{error}
	tone={how === 'waive' ? 'danger' : 'main'}
	disabled={!isReady}
	onconfirm={confirm}
>
	<p class="mb-3">
		{#if how === 'make_up'}For {names}, and nobody else. The rules are those of the session that they missed, and the
			room has a code of its own.
			{#if goOn.length < people.length}Questions and choices stand in other orders{goOn.length > 0
					? ' for those who have not begun'
					: ''}.{/if}
			{#each goOn as one (one.sittingId)}
				{one.name} keeps {listed([
					`${one.answered === 1 ? '1 answer' : `${one.answered} answers`}`,
					...(one.minutesLeft === null ? [] : [`the ${minutesInWords(one.minutesLeft)} that are left`])
				])}.
			{/each}
		{:else if how === 'join'}{names} will stand on the list of that session. What was answered already stays.
		{:else}{names} will not be owed {people[0].paper.title} any more. It stays in the record, with your reason, and can be
			taken back.{/if}
	</p>
	{#if how === 'waive'}
		<Field id="waive-reason" label="Why"
			><Input id="waive-reason" bind:value={reason} maxlength={300} autocomplete="off" /></Field
		>
	{:else if offer === null}
		{#if !error}<p class="text-ink-3">Looking for times…</p>{/if}
	{:else if how === 'join'}
		{#if offer.sessions.length === 0}
			<p class="bg-ochre-ground text-ochre rounded-lg px-3 py-2">
				No session of this paper is to come at this site. Plan a make-up instead.
			</p>
		{:else}
			<Field id="join" label="Which session"
				><Select
					id="join"
					placeholder=""
					bind:value={sessionId}
					items={offer.sessions.map((one) => ({
						value: one.id,
						name: `${one.name}, ${timeInFull(one.opens, one.zone, clock.now)}, ${one.room} (${counted(one.free, 'seat')} free)`
					}))}
				/></Field
			>
		{/if}
	{:else}
		{@const { proposals, zone, rooms, proctors, minutes, withoutMail } = offer.makeUp}
		<p class="mb-1 text-[14px] font-semibold">
			Times that fit everybody{minutes === null ? '' : `, ${minutesInWords(minutes)} each`}
		</p>
		{#if proposals.length === 0}<p class="text-ink-2 mb-2 text-[14px]">
				None in the next days has a room, a proctor and nothing else in anybody’s way. Give one by hand.
			</p>{/if}
		<ul class="mb-3 grid gap-1.5" data-testid="make-up-times">
			{#each proposals as one (one.opens)}
				<li>
					<button
						type="button"
						aria-pressed={isTaken(one, zone)}
						class="w-full rounded-lg border px-3 py-1.5 text-left text-[14.5px] {isTaken(one, zone)
							? 'border-tide bg-mist'
							: 'border-line hover:border-tide'}"
						onclick={() => take(one, zone)}
						><strong
							>{timeAndDate(one.opens, zone, clock.now)} to {clockTime(one.closes, zone)}{zoneBeside(
								one.closes,
								zone
							)}</strong
						>, {one.room.name}{one.proctor ? `, ${one.proctor.name}` : ''}</button
					>
				</li>
			{/each}
		</ul>
		<div class="grid grid-cols-2 gap-2">
			<WindowFields prefix="mu-" bind:date bind:opens={time} bind:closes={until} bind:lastDate={untilDate} />
			<Field id="mu-room" label="Room"
				><Select id="mu-room" placeholder="Choose a room" items={items(rooms)} bind:value={roomId} /></Field
			>
			<Field id="mu-proctor" label="Proctor"
				><Select
					id="mu-proctor"
					placeholder=""
					items={[{ value: '', name: 'Nobody yet' }, ...items(proctors)]}
					bind:value={proctorId}
				/></Field
			>
		</div>
		<Checkbox class="mt-3" bind:checked={tell}
			>Tell them and the proctor by mail at once{withoutMail > 0
				? ` (${withoutMail} without an address: tell them yourself)`
				: ''}</Checkbox
		>
	{/if}
</Ask>
