<!-- @component Giving a grant: for whom, what, and what it does to their day, told before it is saved. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Fileupload from 'flowbite-svelte/Fileupload.svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import type { Foreseen, Proposal } from '$core/grants';
	import { hasEnded } from '$core/sitting';
	import { asLocalWindow } from '$core/time';
	import type { Given, GrantLine } from '$lib/server/grants';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import DateField from '$ui/DateField.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import { shownFrom } from '$ui/shown-from';
	import EffectTold from './EffectTold.svelte';
	import Recipients from './Recipients.svelte';
	import Reopen from './Reopen.svelte';
	import TheirDay from './TheirDay.svelte';
	import { BLANK, whatOf, type Entered, type WhatKind } from './what';
	import WhatFields from './WhatFields.svelte';
	import Windows from './Windows.svelte';

	type Chosen = Pick<GrantLine, 'sittingId' | 'name' | 'number'> & { session: { name: string } };
	type Scope = 'session' | 'paper' | 'administration' | 'standing';
	type Props = {
		line: GrantLine | null;
		/** What is offered first. */
		kind?: WhatKind;
		shown: GrantLine[];
		/** With what one person has now; null: several were given something. */
		ongiven: (now: GrantLine | null, effect: string) => void;
		/** Somebody else has changed what they have. */
		onchanged?: () => void;
		onwithdraw: (line: GrantLine, grant: GrantLine['grants'][number]) => void;
	};
	let { line, kind = 'factor', shown, ongiven, onchanged = () => {}, onwithdraw }: Props = $props();

	let person = $state.raw(untrack(() => line));
	let chosen = $state.raw<Chosen[]>(untrack(() => (line ? [line] : [])));
	let entered = $state<Entered>(untrack(() => ({ ...BLANK, kind })));
	let scope = $state<Scope>('session');
	let from = $state('');
	let until = $state('');
	let reason = $state('');
	let askedBy = $state('');
	let files = $state<FileList>();
	let foreseen = $state.raw<Foreseen>({ effects: [], look: null });
	let trouble = $state<string | null>(null);
	let done = $state<string | null>(null);
	let busy = $state(false);
	let id = $state(nanoid());
	let isTold = false;
	/** The code that lets them in again stays to be read, though nothing of theirs has ended any more. */
	let isReopened = $state(false);
	/** As the server told it after the last grant; the list around this form may still be on its way to it. */
	let latest = $state.raw<GrantLine | null>(null);
	$effect(() => {
		if (line) latest = null;
	});
	/** The window in the form is still the session’s. */
	let isUntouched = true;

	$effect(() => {
		if (!person) return;
		const { base, session } = person;
		untrack(() => {
			if (entered.date !== '') return;
			enterWindow({ ...base, closes: base.closes ?? base.opens + 7_200_000 }, session.zone);
		});
	});
	const holds = $derived(entered.kind === 'own_window' ? 'session' : scope);
	const asked = $derived({
		sittingIds: chosen.map((one) => one.sittingId),
		what: whatOf(entered),
		scope: holds,
		from: holds === 'session' ? null : from || null,
		until: holds === 'session' ? null : until || null
	});
	const look = $derived(foreseen.look);
	const mine = $derived(
		foreseen.effects.find((effect) => effect.sittingId === person?.sittingId) ?? foreseen.effects[0]
	);
	const isShort = $derived((mine?.misfits.length ?? 0) > 0);
	// The effect is told before anything is saved, a moment after the form rests.
	$effect(() => {
		if (chosen.length === 0) return;
		const body = JSON.stringify({ id: 'foreseen-only', reason: '', ...asked });
		const abort = new AbortController();
		const timer = setTimeout(async () => {
			const answer = await send<Foreseen>('POST', '/grants/foresee', JSON.parse(body), { signal: abort.signal });
			if (abort.signal.aborted) return;
			trouble = answer.ok ? null : inWords(answer.problem);
			if (answer.ok) return void take(answer.data);
			// What was typed can't be given; the windows that could are told all the same.
			const stands = await send<Foreseen>(
				'POST',
				'/grants/foresee',
				{ ...JSON.parse(body), what: null },
				{ signal: abort.signal }
			);
			if (!abort.signal.aborted) take(stands.ok ? stands.data : { effects: [], look: null });
		}, 200);
		return () => {
			clearTimeout(timer);
			abort.abort();
		};
	});

	/** The first window that fits is entered by itself, as long as nobody has typed another. */
	function take(told: Foreseen) {
		foreseen = told;
		const [first] = told.look?.proposals ?? [];
		if (entered.kind === 'own_window' && isUntouched && first && told.look) propose(first, told.look.zone);
	}
	function propose(one: Proposal, zone: string) {
		isUntouched = false;
		enterWindow(one, zone);
		Object.assign(entered, { kind: 'own_window', roomId: one.room.id, proctorId: one.proctor?.id ?? '' });
	}
	function enterWindow(window: { opens: number; closes: number }, zone: string) {
		const local = asLocalWindow(window, zone);
		Object.assign(entered, { ...local, closes: local.closes! });
	}
	async function give(event: SubmitEvent) {
		event.preventDefault();
		if (busy || chosen.length === 0) return;
		busy = true;
		const shown = await shownFrom(files?.[0]);
		const has = (latest ?? line ?? person)?.grants.map((grant) => grant.id) ?? null;
		const answer = await send<{ given: Given[]; line: GrantLine | null }>('POST', '/grants/give', {
			id,
			...asked,
			reason,
			askedBy,
			shown,
			seen: chosen.length === 1 && !isTold ? has : null
		});
		busy = false;
		// What somebody else has given meanwhile is told once; whoever presses again means it.
		isTold = !answer.ok && answer.problem.code === 'changed_meanwhile';
		if (isTold) onchanged();
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		// What the server has made of it: the form may have been changed since it was last told.
		const { given, line: now } = answer.data;
		const effect = given[0]?.effects.find((one) => one.sittingId === chosen[0].sittingId)?.after ?? '';
		done =
			chosen.length > 1 ? `Given to ${counted(given.length, 'person', 'people')}.` : `Given: ${effect || 'saved'}.`;
		id = nanoid();
		reason = '';
		files = undefined;
		if (now) person = latest = now;
		ongiven(now, effect);
	}
</script>

<h2 class="text-[19px]">
	{person && chosen.length === 1 ? person.name : chosen.length > 1 ? 'A grant for several' : 'New grant'}
</h2>
{#if person && chosen.length === 1}
	<p class="text-ink-2 font-mono text-[13.5px]">{person.number}</p>
	<p class="text-ink-2 text-[14px]">{person.session.name}</p>
{/if}
<Recipients
	{chosen}
	{shown}
	onchoose={(people, found) => {
		chosen = people;
		person = people.length === 1 ? (found ?? person) : person;
		latest = null;
		done = null;
		isReopened = false;
	}}
/>
{#if chosen.length > 0}
	<EffectTold effects={foreseen.effects} {mine} people={chosen.length} />
	{#if look && chosen.length === 1}<TheirDay {look} {isShort} />{/if}
	<form class="mt-4 space-y-4" onsubmit={give}>
		<WhatFields
			bind:entered
			ontyped={() => (isUntouched = false)}
			rooms={look?.rooms ?? []}
			proctors={look?.proctors ?? []}
		/>
		{#if look && chosen.length === 1}<Windows
				{look}
				{entered}
				{isShort}
				onchoose={(one) => propose(one, look.zone)}
			/>{/if}
		{#if entered.kind !== 'own_window'}
			<div>
				<p class="text-ink-2 mb-1 text-[13px] font-semibold">What it applies to</p>
				<Choose
					name="scope"
					label="What it applies to"
					bind:value={scope}
					options={[
						{ value: 'session', text: 'This session' },
						{ value: 'paper', text: 'This paper' },
						{ value: 'administration', text: 'This administration' },
						{ value: 'standing', text: 'For good' }
					]}
				/>
				{#if scope !== 'session'}
					<div class="mt-2 grid grid-cols-2 gap-2">
						<Field id="from" label="From, or empty"><DateField id="from" bind:value={from} /></Field>
						<Field id="until" label="Until and with, or empty"><DateField id="until" bind:value={until} /></Field>
					</div>
				{/if}
			</div>
		{/if}
		<Field id="reason" label="Why"
			><Input
				id="reason"
				bind:value={reason}
				maxlength={300}
				placeholder="Agreed with the access office"
				autocomplete="off"
			/></Field
		>
		<details>
			<summary class="text-ink-2 cursor-pointer text-[14px]">Who asked, and what they showed</summary>
			<div class="mt-2 space-y-3">
				<Field id="asked-by" label="Who asked"
					><Input id="asked-by" bind:value={askedBy} maxlength={120} autocomplete="off" /></Field
				>
				<Field
					id="evidence"
					label="A letter or certificate"
					hint="Only grants officers and coordinators of the site can open it. It is kept sealed, for a year."
					><Fileupload id="evidence" size="sm" accept=".pdf,.png,.jpg,.jpeg,.txt" bind:files /></Field
				>
			</div>
		</details>
		{#if look && chosen.length === 1}
			<details data-testid="told">
				<summary class="text-ink-2 cursor-pointer text-[14px]">As they will see it</summary>
				<ul class="border-line mt-2 list-disc rounded-lg border py-2 pr-3 pl-7 text-[14.5px]">
					{#each look.told as sentence, i (i)}<li>{sentence}</li>{/each}
				</ul>
			</details>
		{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if done}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2 text-[14px]" data-testid="given">
				{done}
			</p>{/if}
		<p class="text-ink-2 text-[14px]">
			<strong>What changes.</strong>
			{chosen.length === 1 && person
				? `Only ${person.name.split(' ')[0]}’s sitting.`
				: `Only the sittings of these ${counted(chosen.length, 'person', 'people')}.`} Everyone else stays as they are; no
			answer is touched.
		</p>
		<!-- It stays where it is while what is told above it grows and shrinks: a press must not miss it. -->
		<div class="bg-sheet sticky bottom-0 z-10 py-2">
			<Act tone="grant" type="submit" {busy} disabled={reason.trim() === '' || trouble !== null}
				>{chosen.length > 1 ? `Grant it to ${counted(chosen.length, 'person', 'people')}` : 'Grant it'}</Act
			>
		</div>
	</form>
	{#if person && look && chosen.length === 1 && (isReopened || hasEnded((line ?? person).state))}
		<Reopen line={line ?? person} {look} onreopened={() => ((isReopened = true), ongiven(person, ''))} />
	{/if}
	{#if person && chosen.length === 1 && (line ?? person).grants.length > 0}
		<h3 class="mt-6 mb-1 text-[16px]">Has already</h3>
		<ul>
			{#each (line ?? person).grants as grant (grant.id)}
				<li class="border-line flex items-start gap-2 border-b py-2 text-[14px]">
					<span class="flex-1"
						>{grant.what}, {grant.scope}<span class="text-ink-3 block text-[13px]"
							>{[
								grant.reason,
								grant.askedBy && `asked for by ${grant.askedBy}`,
								grant.source === 'profile' && 'from a file'
							]
								.filter(Boolean)
								.join(' · ')}{#if grant.evidence}
								· <a class="underline" href="/grants/evidence/{grant.evidence}" download>what was shown</a>{/if}</span
						></span
					>
					{#if grant.canWithdraw}<Act size="xs" onclick={() => onwithdraw(line ?? person!, grant)}>Withdraw…</Act>{/if}
				</li>
			{/each}
		</ul>
	{/if}
{/if}
