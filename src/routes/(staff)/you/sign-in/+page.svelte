<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { invalidateAll } from '$app/navigation';
	import { LEAST_PASSWORD } from '$core/access';
	import { timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import SecondSteps from '$ui/SecondSteps.svelte';

	let { data } = $props();
	const clock = getClock();
	const when = (at: number) => timeAndDate(at, data.site.zone, clock.now);
	let now = $state('');
	let password = $state('');
	let again = $state('');
	let busy = $state(false);
	let told = $state<{ ok: boolean; text: string } | null>(null);

	async function change(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		if (password !== again) return void (told = { ok: false, text: 'The two new passwords are not the same.' });
		busy = true;
		const answer = await send('POST', '/you/sign-in', { act: 'password', now, password });
		busy = false;
		told = answer.ok
			? { ok: true, text: 'Your password is changed. You are signed out everywhere else.' }
			: { ok: false, text: inWords(answer.problem) };
		if (!answer.ok) return;
		now = password = again = '';
		await invalidateAll();
	}
	async function end(what: { act: 'end'; id: string } | { act: 'end_others' }) {
		busy = true;
		const answer = await send<{ ended: number }>('POST', '/you/sign-in', what);
		busy = false;
		if (!answer.ok) told = { ok: false, text: inWords(answer.problem) };
		await invalidateAll();
	}
</script>

<svelte:head><title>How you sign in · Otium</title></svelte:head>
<main class="mx-auto max-w-5xl px-6 py-6">
	<div class="mb-4 flex items-baseline gap-4">
		<h1 class="text-[28px]">How you sign in</h1>
		<a class="text-[14px] underline" href="/you">What you may do</a>
	</div>
	{#if told}<p
			role="status"
			class="mb-4 rounded-lg px-3 py-2 {told.ok ? 'bg-mist text-tide' : 'bg-brick-ground text-brick'}"
		>
			{told.text}
		</p>{/if}
	<div class="grid gap-5 md:grid-cols-2">
		<section class="bg-sheet border-line rounded-2xl border p-5" aria-label="Second step">
			<h2 class="mb-3 text-[19px]">Second step</h2>
			<SecondSteps has={data.has} passkeys={data.passkeys} onchange={invalidateAll} />
		</section>
		<div class="space-y-5">
			<section class="bg-sheet border-line rounded-2xl border p-5" aria-label="Password">
				<h2 class="mb-3 text-[19px]">Password</h2>
				<form class="space-y-3" onsubmit={change}>
					<Field id="now" label="As it is now"
						><Input id="now" type="password" autocomplete="current-password" bind:value={now} required /></Field
					>
					<Field id="password" label="New" hint="at least {LEAST_PASSWORD} letters"
						><Input id="password" type="password" autocomplete="new-password" bind:value={password} required /></Field
					>
					<Field id="again" label="New, once more"
						><Input id="again" type="password" autocomplete="new-password" bind:value={again} required /></Field
					>
					<Act type="submit" {busy} testid="change-password">Change it</Act>
				</form>
			</section>
			<section class="bg-sheet border-line rounded-2xl border p-5" aria-label="Where you are signed in">
				<h2 class="mb-2 text-[19px]">Where you are signed in</h2>
				<ul class="divide-line divide-y" data-testid="sessions">
					{#each data.sessions as session (session.id)}
						<li class="flex items-center gap-3 py-2.5">
							<span class="flex-1 text-[14.5px]">
								<strong>{session.browser}</strong>{session.isHere ? ', here' : ''}
								<span class="text-ink-2 block text-[13px]"
									>since {when(session.madeAt)}, last seen {when(session.seenAt)}, {session.address}</span
								>
							</span>
							{#if !session.isHere}<Act size="xs" {busy} onclick={() => end({ act: 'end', id: session.id })}>End it</Act
								>{/if}
						</li>
					{/each}
				</ul>
				{#if data.sessions.length > 1}<div class="mt-3">
						<Act {busy} onclick={() => end({ act: 'end_others' })} testid="end-others">Sign out everywhere else</Act>
					</div>{/if}
			</section>
		</div>
	</div>
</main>
