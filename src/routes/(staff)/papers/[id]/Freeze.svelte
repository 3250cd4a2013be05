<!-- @component Asks once more before a version is frozen, and says what each candidate will get of it. -->
<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import type { SentencePart } from '$core/session';
	import Ask from '$ui/Ask.svelte';
	import { inWords, send } from '$ui/post';
	import Sentence from '$ui/Sentence.svelte';
	import type { DraftPaper } from './draft.svelte';

	type Props = {
		open: boolean;
		draft: DraftPaper;
		gets: SentencePart[];
		version: number;
		onfrozen(version: number): void;
	};
	let { open = $bindable(), draft, gets, version, onfrozen }: Props = $props();

	let trouble = $state<string | null>(null);
	let busy = $state(false);

	async function freeze() {
		if (busy) return;
		busy = true;
		const answer = await send<{ version: number }>('POST', `/papers/${draft.id}/freeze`, { revision: draft.revision });
		busy = false;
		if (answer.ok) {
			onfrozen(answer.data.version);
			open = false;
			trouble = null;
			await invalidateAll();
		} else trouble = inWords(answer.problem);
	}
</script>

<Ask
	bind:open
	title="Ready to be sat: {draft.paper.title}"
	verb="Freeze version {version}"
	{busy}
	error={trouble}
	onconfirm={freeze}
>
	<p>Each candidate gets <Sentence parts={gets} /></p>
	<p class="text-ink-2 mt-2">
		The version never changes after this, and sessions can choose it from now on. Sessions that use an earlier version
		keep it.
	</p>
</Ask>
