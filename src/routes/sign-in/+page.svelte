<script lang="ts">
	import { onMount } from 'svelte';
	import { enhance } from '$app/forms';
	import Input from 'flowbite-svelte/Input.svelte';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { hasPasskeys } from '$ui/passkey';
	import UsePasskey from '$ui/UsePasskey.svelte';
	import Card from './Card.svelte';
	let { data, form } = $props();
	let busy = $state(false);
	let offersPasskey = $state(false);
	let trouble = $state<string | null>(null);
	onMount(() => (offersPasskey = hasPasskeys()));

	const TROUBLES: Record<string, string> = {
		unknown: 'You signed in there, but nobody here has that e-mail address. Ask a coordinator to add you.',
		failed: 'Signing in there was not completed. Try again, or use your password here.'
	};
</script>

<svelte:head><title>Sign in · Otium</title></svelte:head>
<Card title="Sign in">
	<p class="text-ink-2 mt-1 mb-6">
		For staff. Candidates go to <a class="text-tide underline" href="/sit">the door</a>.
	</p>
	<form
		method="POST"
		class="space-y-4"
		use:enhance={() => {
			busy = true;
			trouble = null;
			return async ({ update }) => {
				await update({ reset: false });
				busy = false;
			};
		}}
	>
		<input type="hidden" name="to" value={data.to} />
		<Field id="name" label="Name or e-mail">
			<Input id="name" name="name" autocomplete="username webauthn" required value={form?.name ?? ''} autofocus />
		</Field>
		<Field id="password" label="Password">
			<Input id="password" name="password" type="password" autocomplete="current-password" required />
		</Field>
		{#if trouble ?? form?.message ?? (data.trouble && TROUBLES[data.trouble])}
			<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">
				{trouble ?? form?.message ?? TROUBLES[data.trouble!]}
			</p>
		{/if}
		<Act tone="main" type="submit" {busy} class="w-full">Sign in</Act>
	</form>
	<div class="mt-4 space-y-2.5">
		{#if offersPasskey}<UsePasskey
				path="/sign-in/passkey"
				to={data.to}
				onused={(next) => location.assign(next)}
				ontrouble={(message) => (trouble = message)}
			/>{/if}
		{#if data.service}<Act href="/sign-in/oidc?to={encodeURIComponent(data.to)}" class="w-full" testid="service"
				>Sign in with {data.service}</Act
			>{/if}
		<p class="text-[14px]"><a class="text-tide underline" href="/sign-in/forgot">I don’t know my password</a></p>
	</div>
</Card>
