<!-- @component Who can get at a version now, and withdrawing it or offering it again. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { invalidateAll } from '$app/navigation';
	import type { Reach } from '$core/paper';
	import { timeAndDate } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send, type Answer } from '$ui/post';
	import { timeInFull } from '$ui/zone-beside';

	type Props = { id: string; zone: string; onclose: () => void };
	let { id, zone, onclose }: Props = $props();

	const clock = getClock();
	let open = $state(true);
	let reach = $state.raw<Reach | null>(null);
	let why = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const candidates = $derived(reach?.sessions.reduce((sum, one) => sum + one.candidates, 0) ?? 0);
	const working = $derived(reach?.sessions.reduce((sum, one) => sum + one.working, 0) ?? 0);
	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => void ask(send<Reach>('GET', `/papers/version/${id}`)));

	async function ask(asked: Promise<Answer<Reach>>): Promise<boolean> {
		const answer = await asked;
		if (answer.ok) reach = answer.data;
		trouble = answer.ok ? null : inWords(answer.problem);
		return answer.ok;
	}
	async function change() {
		if (busy || !reach) return;
		busy = true;
		const body = reach.withdrawn ? { act: 'offer' } : { act: 'withdraw', why };
		const isDone = await ask(send<Reach>('POST', `/papers/version/${id}`, body));
		busy = false;
		if (!isDone) return;
		open = false;
		await invalidateAll();
	}
	const many = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;
</script>

<Ask
	bind:open
	title={reach ? `${reach.title}, version ${reach.version}` : 'A version'}
	verb={reach?.withdrawn ? 'Offer it again' : 'Withdraw it'}
	tone={reach?.withdrawn ? 'main' : 'danger'}
	{busy}
	disabled={!reach || (!reach.withdrawn && why.trim() === '')}
	error={trouble}
	onconfirm={change}
>
	{#if reach}
		<div class="space-y-3 text-[15px]" data-testid="reach-of">
			{#if reach.withdrawn}<p class="bg-brick-ground text-brick rounded-lg px-3 py-2">
					Withdrawn {timeAndDate(reach.withdrawn.at, zone, clock.now)} by {reach.withdrawn.by}: {reach.withdrawn.why}
				</p>{/if}
			<p>
				{#if reach.sessions.length === 0}No session that is open or to come uses it, so nobody can get at it now.
				{:else}<strong>{many(reach.sessions.length, 'session')}</strong> with
					<strong>{many(candidates, 'candidate')}</strong>
					{reach.sessions.length === 1 ? 'uses' : 'use'} it, {working === 0
						? 'and nobody is working on it now'
						: `and ${working} ${working === 1 ? 'is' : 'are'} working on it now`}:{/if}
			</p>
			<ul class="max-h-40 overflow-auto text-[14px]">
				{#each reach.sessions as one (one.id)}
					<li>
						<strong>{one.name}</strong>, {timeInFull(one.opens, one.zone, clock.now)}: {many(
							one.candidates,
							'candidate'
						)}{one.working > 0 ? `, ${one.working} at work` : ''}
					</li>
				{/each}
			</ul>
			{#if !reach.withdrawn}
				<p class="text-ink-2">
					Withdrawn, it can’t be chosen any more. Whoever is working on it goes on; sessions to come are told to choose
					another; {reach.over === 0 ? 'what will have been sat' : `what ${many(reach.over, 'candidate')} sat`} stays readable.
				</p>
				<Field id="why" label="Why it is withdrawn">
					<Input
						id="why"
						bind:value={why}
						maxlength={300}
						autocomplete="off"
						placeholder="Question 7 has a wrong key"
					/>
				</Field>
			{/if}
		</div>
	{:else if !trouble}<p class="text-ink-2">Looking who uses it…</p>{/if}
</Ask>
