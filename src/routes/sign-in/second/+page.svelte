<script lang="ts">
	import { onMount } from 'svelte';
	import Input from 'flowbite-svelte/Input.svelte';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { hasPasskeys } from '$ui/passkey';
	import UsePasskey from '$ui/UsePasskey.svelte';
	import { inWords, send } from '$ui/post';
	import { typedIn } from '$ui/typed';
	import Card from '../Card.svelte';

	let { data } = $props();
	let isReady = $state(false);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let offersPasskey = $state(false);
	onMount(() => {
		offersPasskey = data.has.passkeys > 0 && hasPasskeys();
		isReady = true;
	});

	async function byCode(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const answer = await send<{ next: string }>('POST', '/sign-in/second', {
			code: typedIn(event, 'code'),
			to: data.to
		});
		busy = false;
		if (answer.ok) return location.assign(answer.data.next);
		trouble = inWords(answer.problem);
		(event.target as HTMLFormElement).reset();
	}
</script>

<svelte:head><title>Second step · Otium</title></svelte:head>
<Card title="One more step">
	<p class="text-ink-2 mt-1">{data.name}, show that it is you.</p>
	<div class="mt-4 space-y-4">
		{#if offersPasskey}<UsePasskey
				path="/sign-in/passkey"
				to={data.to}
				main
				onused={(next) => location.assign(next)}
				ontrouble={(message) => (trouble = message)}
			/>{/if}
		<form class="space-y-4" onsubmit={byCode}>
			<Field
				id="code"
				label={data.has.app ? 'Code from your app' : 'Recovery code'}
				hint={data.has.app && data.has.recoveryCodes > 0 ? 'or one of your recovery codes' : undefined}
			>
				<Input
					id="code"
					name="code"
					autocomplete="one-time-code"
					inputmode={data.has.app ? 'numeric' : 'text'}
					required
					autofocus
					class="font-mono"
				/>
			</Field>
			{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2">{trouble}</p>{/if}
			<Act tone={offersPasskey ? 'quiet' : 'main'} type="submit" {busy} disabled={!isReady} class="w-full">Continue</Act
			>
		</form>
		<p class="text-ink-2 text-[14px]">
			Have none of these with you? A coordinator can remove your second step, so that you can set up a new one.
		</p>
		<form method="POST" action="/sign-out">
			<button class="text-[14px] underline">Sign in as somebody else</button>
		</form>
	</div>
</Card>
