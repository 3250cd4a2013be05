<!-- @component A proctor asks for somebody in the room; whoever gives grants decides, and both are told. -->
<script lang="ts">
	import type { RequestWhat } from '$core/request';
	import Ask from '$ui/Ask.svelte';
	import { inWords, send } from '$ui/post';
	import RequestFields from '$ui/RequestFields.svelte';
	import { shownFrom } from '$ui/shown-from';

	type Props = { sessionId: string; sittingId: string; name: string; onclose: () => void };
	let { sessionId, sittingId, name, onclose }: Props = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let what = $state<RequestWhat>('more_time');
	let why = $state('');
	let files = $state<FileList>();
	$effect(() => {
		if (!open) onclose();
	});

	async function confirm() {
		if (busy) return;
		busy = true;
		const shown = await shownFrom(files?.[0]);
		const answer = await send('POST', `/live/${sessionId}/requests`, { sittingId, what, why, shown });
		busy = false;
		if (!answer.ok) return void (error = inWords(answer.problem));
		open = false;
	}
</script>

<Ask bind:open title="Ask for {name}" verb="Ask" {busy} {error} disabled={why.trim() === ''} onconfirm={confirm}>
	<p class="mb-3">
		The people who give grants decide. You and the candidate are told by mail, where there is an address.
	</p>
	<div class="space-y-3"><RequestFields bind:what bind:why bind:files /></div>
</Ask>
