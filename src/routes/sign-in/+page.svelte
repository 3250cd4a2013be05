<script lang="ts">
	import { enhance } from '$app/forms';
	import { Input } from 'flowbite-svelte';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	let { data, form } = $props();
	let busy = $state(false);
</script>

<svelte:head><title>Sign in · Otium</title></svelte:head>
<main class="grid min-h-dvh place-items-center px-4">
	<form
		method="POST"
		class="bg-sheet border-line w-full max-w-sm rounded-2xl border p-8"
		use:enhance={() => {
			busy = true;
			return async ({ update }) => {
				await update({ reset: false });
				busy = false;
			};
		}}
	>
		<h1 class="text-3xl">Otium</h1>
		<p class="text-ink-2 mt-1 mb-6">
			For staff. Candidates go to <a class="text-tide underline" href="/sit">the door</a>.
		</p>
		<input type="hidden" name="to" value={data.to} />
		<div class="space-y-4">
			<Field id="name" label="Name">
				<Input id="name" name="name" autocomplete="username" required value={form?.name ?? ''} autofocus />
			</Field>
			<Field id="password" label="Password">
				<Input id="password" name="password" type="password" autocomplete="current-password" required />
			</Field>
			{#if form?.message}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{form.message}</p>{/if}
			<Act tone="main" type="submit" {busy} class="w-full">Sign in</Act>
		</div>
	</form>
</main>
