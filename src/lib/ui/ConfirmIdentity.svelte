<!-- @component Asks, before what matters most, that somebody shows once more that it is them; what they did then goes on. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import { onMount } from 'svelte';
	import Act from './Act.svelte';
	import { setConfirmIdentity } from './confirm-identity';
	import Field from './Field.svelte';
	import { hasPasskeys } from './passkey';
	import UsePasskey from './UsePasskey.svelte';
	import { inWords, send } from './post';

	type How = { password: boolean; code: boolean; passkey: boolean };
	let open = $state(false);
	let how = $state.raw<How>({ password: true, code: false, passkey: false });
	let typed = $state('');
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let settle: ((done: boolean) => void) | null = null;

	onMount(() => {
		setConfirmIdentity(async () => {
			const answer = await send<How>('POST', '/confirm', { act: 'how' });
			if (!answer.ok) return false;
			how = { ...answer.data, passkey: answer.data.passkey && hasPasskeys() };
			typed = '';
			trouble = null;
			open = true;
			return new Promise<boolean>((resolve) => (settle = resolve));
		});
		return () => setConfirmIdentity(null);
	});
	function done(isConfirmed: boolean) {
		open = false;
		settle?.(isConfirmed);
		settle = null;
	}
	async function byTyping(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const what = how.password ? { act: 'password', password: typed } : { act: 'code', code: typed };
		const answer = await send('POST', '/confirm', what);
		busy = false;
		typed = '';
		if (answer.ok) done(true);
		else trouble = inWords(answer.problem);
	}
</script>

<Modal
	aria-label="Is it still you?"
	bind:open
	title="Is it still you?"
	size="xs"
	class="bg-sheet"
	onclose={() => done(false)}
>
	<p class="text-ink text-[15px]">
		This changes what others may do or get, so it is asked once an hour. What you entered stays.
	</p>
	{#if how.passkey}<UsePasskey
			path="/confirm"
			main
			onused={() => done(true)}
			ontrouble={(message) => (trouble = message)}
		/>{/if}
	{#if how.password || how.code}
		<form class="space-y-3" onsubmit={byTyping}>
			<Field id="confirm-typed" label={how.password ? 'Your password' : 'Code from your app, or a recovery code'}>
				<Input
					id="confirm-typed"
					type={how.password ? 'password' : 'text'}
					autocomplete={how.password ? 'current-password' : 'one-time-code'}
					bind:value={typed}
					required
					autofocus
				/>
			</Field>
			<Act tone={how.passkey ? 'quiet' : 'main'} type="submit" {busy} class="w-full" testid="confirm-identity"
				>It is me</Act
			>
		</form>
	{/if}
	<p class="text-ink-2 text-[13.5px]">Can’t do any of these? Sign in again in another window, then continue here.</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
</Modal>
