<!-- @component A question as one candidate has it on their screen; what they answered is not shown. -->
<script lang="ts">
	import Modal from 'flowbite-svelte/Modal.svelte';
	import type { FormQuestion, Picture } from '$core/paper';
	import { inWords, send } from '$ui/post';
	import QuestionView from '../../../sit/QuestionView.svelte';
	import type { LiveRoom } from './room.svelte';

	type Props = { room: LiveRoom; sittingId: string; name: string; place: number; onclose: () => void };
	let { room, sittingId, name, place, onclose }: Props = $props();

	const NOTHING = { value: null, marked: false, struck: [], inViewMs: 0 };
	let open = $state(true);
	let shown = $state.raw<{ question: FormQuestion; picture: Picture | null } | null>(null);
	let trouble = $state<string | null>(null);
	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => {
		const path = `/live/${room.sessionId}/sitting/${sittingId}/question/${place}`;
		void send<{ question: FormQuestion; picture: Picture | null }>('GET', path).then((answer) => {
			if (answer.ok) shown = answer.data;
			else trouble = inWords(answer.problem);
		});
	});
</script>

<Modal aria-label="Question {place} of {name}" bind:open title="Question {place} of {name}" size="md" class="bg-sheet">
	{#if trouble}<p role="alert" class="text-brick">{trouble}</p>{/if}
	{#if shown}
		<div class="text-ink text-[16px]" data-testid="their-question">
			<QuestionView
				question={shown.question}
				picture={shown.picture ?? undefined}
				number={place}
				of={room.head.questions}
				given={NOTHING}
				isClosed
				addressOf={(file) => `/live/${room.sessionId}/media/${file}`}
				onchange={() => {}}
			/>
		</div>
	{/if}
</Modal>
