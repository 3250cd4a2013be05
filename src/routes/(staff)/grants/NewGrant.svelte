<script lang="ts">
	import { Input } from 'flowbite-svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import type { GrantEffect } from '$core/grants';
	import { localDate, localTime } from '$core/time';
	import DateField from '$ui/DateField.svelte';
	import TimeField from '$ui/TimeField.svelte';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import type { PageData } from './$types';

	type Line = PageData['lines'][number];
	type Props = {
		line: Line | null;
		ongiven: (sittingId: string) => void;
		onwithdraw: (line: Line, grant: Line['grants'][number]) => void;
	};
	let { line, ongiven, onwithdraw }: Props = $props();

	let person = $state.raw(untrack(() => line));
	let text = $state('');
	let found = $state.raw<Line[]>([]);
	let kind = $state<'factor' | 'minutes' | 'own_window'>('factor');
	let factor = $state('1.5');
	let minutes = $state('10');
	let date = $state('');
	let opens = $state('');
	let closes = $state('');
	let scope = $state<'session' | 'standing'>('session');
	let reason = $state('');
	let effects = $state.raw<GrantEffect[]>([]);
	let trouble = $state<string | null>(null);
	let done = $state<string | null>(null);
	let busy = $state(false);
	let id = $state(nanoid());

	$effect(() => {
		if (!person) return;
		const { base, session } = person;
		untrack(() => {
			date ||= localDate(base.opens, session.zone);
			opens ||= localTime(base.opens, session.zone);
			closes ||= localTime(base.closes ?? base.opens + 7_200_000, session.zone);
		});
	});
	const body = $derived(
		person && {
			id,
			sittingId: person.sittingId,
			what:
				kind === 'factor'
					? { kind, factor: Number(factor.replace(',', '.')) }
					: kind === 'minutes'
						? { kind, minutes: Number(minutes) }
						: { kind, date, opens, closes },
			scope: kind === 'own_window' ? 'session' : scope,
			reason
		}
	);
	const mine = $derived(effects.find((effect) => effect.sittingId === person?.sittingId));

	$effect(() => {
		const wanted = text;
		const timer = setTimeout(async () => {
			if (wanted.trim() === '') return void (found = []);
			const answer = await send<Line[]>('GET', `/grants/find?text=${encodeURIComponent(wanted)}`);
			if (answer.ok && wanted === text) found = answer.data;
		}, 180);
		return () => clearTimeout(timer);
	});
	// The effect is told before anything is saved, a moment after the form rests.
	$effect(() => {
		if (!body) return;
		const { reason: _reason, ...asked } = body;
		const text = JSON.stringify({ ...asked, reason: '' });
		const abort = new AbortController();
		const timer = setTimeout(async () => {
			const answer = await send<GrantEffect[]>('POST', '/grants/foresee', JSON.parse(text), { signal: abort.signal });
			if (abort.signal.aborted) return;
			effects = answer.ok ? answer.data : [];
			trouble = answer.ok ? null : inWords(answer.problem);
		}, 200);
		return () => {
			clearTimeout(timer);
			abort.abort();
		};
	});

	async function give(event: SubmitEvent) {
		event.preventDefault();
		if (busy || !body || !person) return;
		busy = true;
		const answer = await send<{ effects: GrantEffect[] }>('POST', '/grants/give', body);
		busy = false;
		if (!answer.ok) return void (trouble = inWords(answer.problem));
		done = `Given: ${mine?.after ?? 'saved'}.`;
		id = nanoid();
		reason = '';
		ongiven(person.sittingId);
	}
</script>

{#if !person}
	<h2 class="text-[19px]">New grant</h2>
	<Field id="find" label="For whom" class="mt-3"
		><Input
			id="find"
			bind:value={text}
			autofocus
			placeholder="Any part of name, number or group"
			autocomplete="off"
		/></Field
	>
	<ul class="mt-2 space-y-1.5">
		{#each found as one (one.sittingId)}
			<li>
				<button
					class="border-line hover:border-plum w-full rounded-lg border px-3 py-2 text-left"
					onclick={() => (person = one)}
					><strong>{one.name}</strong> <span class="font-mono text-[13.5px]">{one.number}</span><span
						class="text-ink-2 block text-[13.5px]">{one.session.name}</span
					></button
				>
			</li>
		{:else}
			{#if text.trim()}<li class="text-ink-3 text-[14px]">Nobody with an open sitting matches “{text}”.</li>{/if}
		{/each}
	</ul>
{:else}
	<h2 class="text-[19px]">{person.name}</h2>
	<p class="text-ink-2 font-mono text-[13.5px]">{person.number}</p>
	<p class="text-ink-2 text-[14px]">{person.session.name}</p>
	{#if mine}
		<div class="bg-plum-ground text-plum mt-3 rounded-xl px-4 py-3" aria-live="polite">
			<p class="font-serif text-[20px] font-semibold" data-testid="effect">{mine.after}</p>
			<p class="text-[13.5px]">now: {mine.before}</p>
			{#if mine.misfit}<p class="text-brick mt-1 text-[14px]">{mine.misfit}</p>{/if}
			{#if effects.length > 1}<p class="mt-1 text-[13.5px]">Applies to {effects.length} of their sittings.</p>{/if}
		</div>
	{/if}
	<form class="mt-4 space-y-4" onsubmit={give}>
		<Choose
			name="kind"
			label="What is given"
			bind:value={kind}
			options={[
				{ value: 'factor', text: 'Factor' },
				{ value: 'minutes', text: 'Minutes' },
				{ value: 'own_window', text: 'Own window' }
			]}
		/>
		{#if kind === 'factor'}
			<Field
				id="factor"
				label="Multiply the time limit by"
				hint="1.25 is time and a quarter, 1.5 time and a half. The largest factor counts."
				><Input id="factor" inputmode="decimal" class="w-32" bind:value={factor} /></Field
			>
		{:else if kind === 'minutes'}
			<Field id="extra" label="Extra minutes" hint="This is what is added; the total is shown above."
				><Input id="extra" inputmode="numeric" class="w-32" bind:value={minutes} /></Field
			>
		{:else}
			<div class="grid grid-cols-2 gap-2">
				<Field id="date" label="Date" class="col-span-2"><DateField id="date" bind:value={date} /></Field>
				<Field id="opens" label="Opens"><TimeField id="opens" bind:value={opens} /></Field>
				<Field id="closes" label="Closes"><TimeField id="closes" bind:value={closes} /></Field>
			</div>
		{/if}
		{#if kind !== 'own_window'}<Choose
				name="scope"
				label="What it applies to"
				bind:value={scope}
				options={[
					{ value: 'session', text: 'this session' },
					{ value: 'standing', text: 'every session, standing' }
				]}
			/>{/if}
		<Field id="reason" label="Why, and who asked"
			><Input
				id="reason"
				bind:value={reason}
				maxlength={300}
				placeholder="Agreed with the access office"
				autocomplete="off"
			/></Field
		>
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if done}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2 text-[14px]" data-testid="given">
				{done}
			</p>{/if}
		<p class="text-ink-2 text-[14px]">
			<strong>What changes.</strong> Only {person.name.split(' ')[0]}’s sitting. Everyone else stays as they are; no
			answer is touched.
		</p>
		<Act tone="grant" type="submit" {busy} disabled={reason.trim() === '' || trouble !== null}>Grant it</Act>
	</form>
	{#if person.grants.length > 0}
		<h3 class="mt-6 mb-1 text-[16px]">Has already</h3>
		<ul>
			{#each (line ?? person).grants as grant (grant.id)}
				<li class="border-line flex items-start gap-2 border-b py-2 text-[14px]">
					<span class="flex-1"
						>{grant.what}, {grant.scope === 'standing' ? 'standing' : 'for this session'}<span
							class="text-ink-3 block text-[13px]">{grant.reason}</span
						></span
					>
					{#if grant.canWithdraw}<Act size="xs" onclick={() => onwithdraw(line ?? person!, grant)}>Withdraw…</Act>{/if}
				</li>
			{/each}
		</ul>
	{/if}
{/if}
