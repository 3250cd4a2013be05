<!-- @component What somebody passes the second step with: passkeys, an app that makes codes, recovery codes. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import { browserName } from '$core/access';
	import Act from './Act.svelte';
	import Field from './Field.svelte';
	import { hasPasskeys, makePasskey } from './passkey';
	import { inWords, send, type Answer } from './post';

	type Props = {
		has: { app: boolean; passkeys: number; recoveryCodes: number };
		passkeys: { id: string; name: string; madeAt: number; usedAt: number | null }[];
		onchange: () => Promise<unknown>;
	};
	let { has, passkeys, onchange }: Props = $props();

	const PATH = '/you/sign-in/second';
	let canPasskey = $state(true);
	onMount(() => (canPasskey = hasPasskeys()));
	let app = $state.raw<{ secret: string; picture: string } | null>(null);
	let code = $state('');
	let codes = $state.raw<string[] | null>(null);
	let busy = $state(false);
	let trouble = $state<string | null>(null);

	async function did(answer: Answer<unknown> | null, otherwise = ''): Promise<boolean> {
		busy = false;
		trouble = answer === null ? otherwise : answer.ok ? null : inWords(answer.problem);
		if (answer?.ok) await onchange();
		return answer?.ok ?? false;
	}
	async function addPasskey() {
		busy = true;
		const answer = await makePasskey(PATH, browserName(navigator.userAgent));
		await did(answer, 'No passkey was created. Try again, or use an app.');
	}
	async function offerApp() {
		busy = true;
		const answer = await send<{ secret: string; picture: string }>('POST', PATH, { act: 'offer_app' });
		if (answer.ok) app = answer.data;
		await did(answer);
	}
	async function takeApp(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		if (await did(await send('POST', PATH, { act: 'take_app', code }))) app = null;
		code = '';
	}
	async function remove(what: { act: 'remove_app' } | { act: 'remove_passkey'; id: string }) {
		busy = true;
		await did(await send('POST', PATH, what));
	}
	async function newCodes() {
		busy = true;
		const answer = await send<{ codes: string[] }>('POST', PATH, { act: 'new_codes' });
		if (answer.ok) codes = answer.data.codes;
		await did(answer);
	}
</script>

<div class="space-y-5">
	<section>
		<h3 class="text-[17px]">Passkeys</h3>
		<p class="text-ink-2 text-[14px]">
			A key kept on this device, your phone or a USB stick, and unlocked by fingerprint, face or PIN.
		</p>
		{#if passkeys.length > 0}
			<ul class="divide-line border-line my-2 divide-y rounded-xl border">
				{#each passkeys as passkey (passkey.id)}
					<li class="flex items-center gap-3 px-3.5 py-2">
						<span class="flex-1"><strong>{passkey.name}</strong></span>
						<Act size="xs" onclick={() => remove({ act: 'remove_passkey', id: passkey.id })} {busy}>Remove</Act>
					</li>
				{/each}
			</ul>
		{/if}
		{#if canPasskey}<Act size="xs" onclick={addPasskey} {busy} testid="add-passkey">Add a passkey</Act>
		{:else}<p class="text-ink-3 text-[14px]">
				This browser cannot create one here: that takes HTTPS and a named address.
			</p>{/if}
	</section>
	<section>
		<h3 class="text-[17px]">App that makes codes</h3>
		{#if has.app}
			<p class="flex items-center gap-3 text-[14.5px]">
				Set up. <Act size="xs" onclick={() => remove({ act: 'remove_app' })} {busy}>Remove</Act>
			</p>
		{:else if app}
			<div class="mt-2 flex flex-wrap items-start gap-5">
				<img
					src={app.picture}
					alt="The key as a code for the app’s camera"
					class="border-line h-40 w-40 rounded-xl border bg-white"
				/>
				<form class="min-w-60 flex-1 space-y-3" onsubmit={takeApp}>
					<p class="text-[14.5px]">
						Scan it with the app, or enter the key there: <span class="font-mono break-all" data-testid="secret"
							>{app.secret}</span
						>
					</p>
					<Field id="first-code" label="The code it shows now">
						<Input
							id="first-code"
							bind:value={code}
							inputmode="numeric"
							autocomplete="one-time-code"
							required
							class="font-mono"
						/>
					</Field>
					<Act tone="main" type="submit" {busy} testid="take-app">This is it</Act>
				</form>
			</div>
		{:else}
			<p class="text-ink-2 text-[14px]">
				Six digits that change every 30 seconds, on your phone, even without a network.
			</p>
			<div class="mt-1.5"><Act size="xs" onclick={offerApp} {busy} testid="offer-app">Set up an app</Act></div>
		{/if}
	</section>
	{#if has.app || has.passkeys > 0}
		<section>
			<h3 class="text-[17px]">Recovery codes</h3>
			{#if codes}
				<p class="text-[14.5px]">
					For a day when you have none of the above with you. Each works once. They are shown only now: print them, or
					write them down.
				</p>
				<ul
					class="bg-mist my-2 grid grid-cols-2 gap-x-6 gap-y-1 rounded-xl px-4 py-3 font-mono text-[15px]"
					data-testid="codes"
				>
					{#each codes as one (one)}<li>{one}</li>{/each}
				</ul>
			{:else}
				<p class="text-ink-2 text-[14px]">
					{has.recoveryCodes > 0
						? `${has.recoveryCodes} are left.`
						: 'You have none: without them, a lost phone means asking a coordinator.'}
				</p>
				<div class="mt-1.5">
					<Act size="xs" onclick={newCodes} {busy} testid="new-codes"
						>{has.recoveryCodes > 0 ? 'Make new ones, and end these' : 'Make ten'}</Act
					>
				</div>
			{/if}
		</section>
	{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
</div>
