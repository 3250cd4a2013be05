<script lang="ts">
	import { localTime } from '$core/time';
	import type { Line } from '$player/line.svelte';
	import type { Paper } from '$player/paper.svelte';
	import { clockLength, minutesLeft } from '$ui/durations';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import HandIn from './HandIn.svelte';
	import Press from './Press.svelte';
	import QuestionView from './QuestionView.svelte';

	let { paper, line, clock }: { paper: Paper; line: Line; clock: ServerClock } = $props();

	const picture = $derived(line.picture);
	const zone = $derived(picture.session.zone);
	const one = $derived(picture.session.shown === 'one');
	const question = $derived(paper.questions[paper.at]);
	const remaining = $derived.by(() => {
		const { time } = picture;
		if (time.remaining === null) return null;
		return time.standing || time.deadline === null ? time.remaining : Math.max(0, time.deadline - clock.now);
	});
	const inGrace = $derived(remaining === 0 && picture.time.graceEnds !== null && clock.now < picture.time.graceEnds);
	let handingIn = $state(false);
	let warned = $state<number[]>([]);
	let warning = $state<number | null>(null);
	// A warning comes once, the nearest one, and goes by itself.
	$effect(() => {
		if (remaining === null || remaining === 0) return;
		const due = picture.time.warnAtMinutes.filter((minutes) => remaining <= minutes * 60_000);
		const nearest = Math.min(...due);
		if (due.length === 0 || warned.includes(nearest)) return;
		warned = [...warned, ...due];
		warning = nearest;
		const timer = setTimeout(() => (warning = null), 12_000);
		return () => clearTimeout(timer);
	});
	$effect(() => {
		const seen = () => paper.viewChanged(document.visibilityState === 'visible');
		document.addEventListener('visibilitychange', seen);
		return () => document.removeEventListener('visibilitychange', seen);
	});
	$effect(() => {
		const { queue } = paper;
		const stay = (event: BeforeUnloadEvent) => {
			if (queue.waiting > 0 && !paper.isDurable) event.preventDefault();
		};
		addEventListener('beforeunload', stay);
		return () => removeEventListener('beforeunload', stay);
	});

	const saved = $derived.by(() => {
		const { waiting, savedAt, trouble } = paper.queue;
		if (waiting > 0 && (trouble || line.downSince)) {
			return {
				calm: false,
				text: `Not saved yet: ${waiting === 1 ? '1 answer is' : `${waiting} answers are`} kept here. Just go on.`
			};
		}
		if (line.downSince) return { calm: false, text: 'The line is down. Just go on: answers are kept here.' };
		if (waiting > 0) return { calm: true, text: 'Saving…' };
		return { calm: true, text: savedAt === null ? 'Saved as you go' : `Saved ${localTime(savedAt, zone, true)}` };
	});

	function onkeydown(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (
			handingIn ||
			event.ctrlKey ||
			event.metaKey ||
			event.altKey ||
			target.matches('input:not([type=radio]), textarea, select')
		)
			return;
		const choices =
			question.kind === 'single'
				? question.choices!.map((choice) => choice.id)
				: question.kind === 'true_false'
					? [true, false]
					: [];
		const digit = Number(event.key);
		if (one && digit >= 1 && digit <= choices.length) paper.change(question.id, { value: choices[digit - 1] });
		else if (event.key === 'n' || (event.key === 'ArrowRight' && !target.matches('input'))) paper.goTo(paper.at + 1);
		else if (event.key === 'p' || (event.key === 'ArrowLeft' && !target.matches('input'))) paper.goTo(paper.at - 1);
		else if (event.key === 'm') paper.change(question.id, { marked: !paper.of(question.id).marked });
		else return;
		event.preventDefault();
	}
	function jump(index: number) {
		paper.goTo(index);
		if (!one)
			document.querySelector(`[data-question="${paper.questions[index].id}"]`)?.scrollIntoView({ block: 'start' });
	}
</script>

<svelte:window {onkeydown} />

<div class="flex min-h-dvh flex-col">
	<header
		class="bg-sheet border-line sticky top-0 z-10 flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-6 py-2 max-sm:px-4"
	>
		<p class="min-w-0">
			<strong class="font-serif text-[19px]">{picture.paper.title}</strong>
			<span class="text-ink-2 text-[15px] max-sm:hidden"
				>{picture.candidate.name}{picture.candidate.seat ? ` · ${picture.candidate.seat}` : ''}</span
			>
		</p>
		<p
			class="ml-auto text-[15px] {saved.calm
				? 'text-tide'
				: 'bg-ochre-ground text-ochre rounded-lg px-3 py-1 font-semibold'}"
			role="status"
			data-testid="saved"
		>
			{saved.text}
		</p>
		{#if remaining !== null}
			<p class="text-right leading-tight" data-testid="time">
				<span class="block font-mono text-[22px] font-semibold tabular-nums"
					>{remaining > 120_000 ? `${minutesLeft(remaining)} min` : clockLength(remaining)}</span
				>
				{#if picture.time.deadline !== null && !picture.time.standing}<span class="text-ink-2 block text-[13px]"
						>finish by {localTime(picture.time.deadline, zone)}</span
					>{/if}
			</p>
		{/if}
	</header>
	{#if picture.session.kind === 'rehearsal'}<p
			class="bg-plum-ground text-plum px-6 py-1.5 text-center text-[15px] font-semibold"
		>
			This is a rehearsal. It counts for nothing.
		</p>{/if}
	{#if warning !== null}
		<p
			class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold"
			role="status"
			data-testid="warning"
		>
			{warning === 1 ? 'One minute' : `${warning} minutes`} left.
		</p>
	{/if}
	{#if inGrace}
		<p class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold" role="status">
			Time is up. Finish your last answer and hand in: {clockLength(picture.time.graceEnds! - clock.now)}
		</p>
	{/if}
	{#if remaining === 0 && !inGrace}
		<p class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold" role="status">
			{picture.time.atTimeUp === 'flag'
				? 'Time is up. You may go on: answers from now on are marked late.'
				: 'Time is up. Hand in now; nothing more is taken.'}
		</p>
	{/if}
	{#if !paper.isDurable}<p class="bg-ochre-ground text-ochre px-6 py-1.5 text-center text-[15px]">
			This browser keeps nothing on the device. Do not close this page while the line is down.
		</p>{/if}

	<main class="mx-auto w-full max-w-[780px] flex-1 px-5 py-8">
		{#if one}
			{#key question.id}
				<QuestionView
					{question}
					number={paper.at + 1}
					of={paper.questions.length}
					given={paper.of(question.id)}
					onchange={(change, rests) => paper.change(question.id, change, rests)}
				/>
			{/key}
		{:else}
			<div class="space-y-12">
				{#each paper.questions as each, i (each.id)}
					<div class="scroll-mt-24">
						<QuestionView
							question={each}
							number={i + 1}
							of={paper.questions.length}
							given={paper.of(each.id)}
							onchange={(change, rests) => ((paper.at = i), paper.change(each.id, change, rests))}
						/>
						<button
							type="button"
							class="mt-3 text-[15px] font-semibold underline"
							aria-pressed={paper.of(each.id).marked}
							onclick={() => paper.change(each.id, { marked: !paper.of(each.id).marked })}
							>{paper.of(each.id).marked ? 'Marked for later: unmark' : 'Mark for later'}</button
						>
					</div>
				{/each}
			</div>
		{/if}
	</main>

	<footer class="bg-sheet border-line sticky bottom-0 flex flex-wrap items-center gap-3 border-t px-6 py-3 max-sm:px-4">
		{#if one}
			<Press onclick={() => paper.goTo(paper.at - 1)} disabled={paper.at === 0}>← Back</Press>
			<Press
				pressed={paper.of(question.id).marked}
				onclick={() => paper.change(question.id, { marked: !paper.of(question.id).marked })}
				testid="mark">{paper.of(question.id).marked ? 'Marked' : 'Mark'}</Press
			>
		{/if}
		<nav
			class="flex min-w-0 flex-1 flex-wrap justify-center gap-1 max-sm:order-last max-sm:basis-full"
			aria-label="Questions"
		>
			{#each paper.questions as each, i (each.id)}
				{@const given = paper.of(each.id)}
				<button
					type="button"
					class="relative h-7 w-7 rounded-md border text-[12px] {paper.isAnswered(each.id)
						? 'bg-tide border-tide text-on-tide'
						: 'bg-sheet border-line-strong'} {i === paper.at
						? 'outline-ochre-mark outline-[2.5px] outline-offset-1'
						: ''}"
					aria-label="Question {i + 1}, {paper.isAnswered(each.id) ? 'answered' : 'blank'}{given.marked
						? ', marked'
						: ''}"
					aria-current={i === paper.at ? 'true' : undefined}
					onclick={() => jump(i)}
				>
					{i + 1}{#if given.marked}<span class="bg-ochre-mark absolute inset-x-0 bottom-0 h-1.5 rounded-b-[5px]"
						></span>{/if}
				</button>
			{/each}
		</nav>
		{#if one && paper.at < paper.questions.length - 1}
			<Press main onclick={() => paper.goTo(paper.at + 1)} testid="next">Next →</Press>
		{/if}
		<Press main={!one || paper.at === paper.questions.length - 1} onclick={() => (handingIn = true)} testid="hand-in"
			>Hand in</Press
		>
	</footer>
</div>

{#if handingIn}<HandIn
		{paper}
		{line}
		onclose={() => (handingIn = false)}
		onjump={(index) => ((handingIn = false), jump(index))}
	/>{/if}
