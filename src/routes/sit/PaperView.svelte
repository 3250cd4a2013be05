<script lang="ts">
	import { isSameLanguage } from '$core/session';
	import { localTime } from '$core/time';
	import type { Line } from '$player/line.svelte';
	import type { Given, Paper } from '$player/paper.svelte';
	import { clockLength, minutesLeft } from '$ui/durations';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import { untrack } from 'svelte';
	import { Display } from '$player/display.svelte';
	import { TimeWarnings } from '$player/time-warnings.svelte';
	import type { Watch } from '$player/watch.svelte';
	import HandIn from './HandIn.svelte';
	import Messages from './Messages.svelte';
	import Press from './Press.svelte';
	import QuestionView from './QuestionView.svelte';
	import Tools from './Tools.svelte';
	import Ruler from './tools/Ruler.svelte';
	import WatchGuard from './WatchGuard.svelte';

	type Props = { paper: Paper; line: Line; clock: ServerClock; watch: Watch | null };
	let { paper, line, clock, watch }: Props = $props();

	const display = untrack(() => new Display(`otium display ${line.picture.sittingId}`, line.picture.display));

	const picture = $derived(line.picture);
	/** Whoever asks for a language reads the paper in it from the first, as far as it is there. */
	let language = $state(
		untrack(() => {
			const asked = line.picture.display.language;
			return asked === null ? null : (paper.otherLanguages.find((tag) => isSameLanguage(tag, asked)) ?? null);
		})
	);
	const zone = $derived(picture.session.zone);
	const movement = $derived(picture.session.movement);
	const isForwardOnly = $derived(paper.forwardBy !== null);
	const perPage = $derived(
		movement.shown === 'one' ? 1 : movement.shown === 'all' ? paper.questions.length : movement.perPage
	);
	const page = $derived(Math.floor(paper.at / perPage));
	const visible = $derived(paper.questions.slice(page * perPage, (page + 1) * perPage));
	const isLastPage = $derived((page + 1) * perPage >= paper.questions.length);
	const one = $derived(perPage === 1);
	/** Whether the next page may be seen, by the rule that each question must be answered first. */
	const mayGoOn = $derived(!movement.answerToGoOn || visible.every((each) => paper.isAnswered(each.id)));
	const question = $derived(paper.questions[paper.at]);
	const remaining = $derived.by(() => {
		const { time } = picture;
		if (time.remaining === null) return null;
		return time.standing || time.deadline === null ? time.remaining : Math.max(0, time.deadline - clock.now);
	});
	const inGrace = $derived(remaining === 0 && picture.time.graceEnds !== null && clock.now < picture.time.graceEnds);
	$effect(() => {
		line.show(paper.at);
		return () => line.show(null);
	});
	const LOOKS = { paper: '', strong: 'look-strong', night: 'dark', sand: 'look-sand' };
	const spoken = $derived(
		visible
			.map((each) => {
				const wording = language === null ? undefined : each.inOther?.[language];
				const texts = [...(each.choices ?? []), ...(each.items ?? []), ...(each.matches ?? [])];
				const said = texts.map((one) => wording?.texts?.[one.id] ?? one.text).join('. ');
				return `${wording?.stem ?? each.stem} ${said}`.replaceAll('$', '');
			})
			.join(' ')
	);
	let isBeside = $state(false);
	let handingIn = $state(false);
	const warnings = untrack(() => new TimeWarnings(line.picture.sittingId));
	$effect(() => warnings.look(picture.time.warnAtMinutes, remaining));
	$effect(() => () => warnings.stop());
	/** The last seconds in which answers are taken: typing no longer waits there until it rests. */
	const isLastMoment = $derived.by(() => {
		const { graceEnds, standing } = picture.time;
		return graceEnds !== null && !standing && graceEnds > clock.now && graceEnds - clock.now < 3_000;
	});
	const isClosed = $derived(remaining === 0 && !inGrace && picture.time.atTimeUp !== 'flag');
	$effect(() => {
		if (isLastMoment) void untrack(() => paper.settle());
	});
	$effect(() => {
		const seen = () => paper.viewChanged(document.visibilityState === 'visible');
		document.addEventListener('visibilitychange', seen);
		return () => document.removeEventListener('visibilitychange', seen);
	});
	$effect(() => {
		const { outbox } = paper;
		const stay = (event: BeforeUnloadEvent) => {
			if (outbox.waiting > 0 && !outbox.isDurable) event.preventDefault();
		};
		addEventListener('beforeunload', stay);
		return () => removeEventListener('beforeunload', stay);
	});

	const saved = $derived.by(() => {
		const { waiting, savedAt, trouble, aside, isDurable } = paper.outbox;
		if (aside.length > 0) {
			const numbers = aside.map(({ questionId }) => paper.questions.findIndex(({ id }) => id === questionId) + 1);
			return {
				calm: false,
				text: `The answer to question ${numbers.join(', ')} could not be saved. Enter it again, or tell your proctor.`
			};
		}
		if (waiting > 0 && !isDurable) {
			return { calm: false, text: 'Not saved yet, and this browser keeps nothing: leave this page open.' };
		}
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

	function change(questionId: string, to: Partial<Given>, rests = false) {
		if (!isClosed) paper.change(questionId, to, rests && !isLastMoment);
	}
	function toggleMark(questionId: string) {
		change(questionId, { marked: !paper.of(questionId).marked });
	}
	function onkeydown(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (
			handingIn ||
			event.ctrlKey ||
			event.metaKey ||
			event.altKey ||
			target.matches('input:not([type=radio]):not([type=checkbox]), textarea, select')
		)
			return;
		const digit = Number(event.key);
		const inputs =
			one && digit >= 1 ? document.querySelectorAll<HTMLInputElement>('[data-question] input[name^="q-"]') : [];
		if (inputs.length >= digit && digit >= 1) inputs[digit - 1].click();
		else if (event.key === 'n' || (event.key === 'ArrowRight' && !target.matches('input'))) turn(1);
		else if (event.key === 'p' || (event.key === 'ArrowLeft' && !target.matches('input'))) turn(-1);
		else if (event.key === 'm' && picture.session.tools.marking) toggleMark(question.id);
		else return;
		event.preventDefault();
	}
	/** Turns to the next page or the one before, as far as the rules allow. */
	function turn(by: 1 | -1) {
		if (by === 1 ? isLastPage || !(mayGoOn || isClosed) : page === 0 || isForwardOnly) return;
		paper.goTo((page + by) * perPage);
		if (!one) window.scrollTo({ top: 0 });
	}
	function mayJump(index: number): boolean {
		const to = Math.floor(index / perPage);
		if (isForwardOnly) return to === page;
		return (
			to <= page ||
			!movement.answerToGoOn ||
			paper.questions.slice(0, to * perPage).every((each) => paper.isAnswered(each.id))
		);
	}
	function jump(index: number) {
		if (!mayJump(index)) return;
		paper.goTo(index);
		if (!one)
			document.querySelector(`[data-question="${paper.questions[index].id}"]`)?.scrollIntoView({ block: 'start' });
	}
</script>

<svelte:window {onkeydown} />

<div
	class="bg-paper text-ink flex min-h-dvh flex-col {LOOKS[display.look]}"
	class:not-printed={!(picture.session.watch?.printing ?? true)}
>
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
				{#if picture.time.deadline !== null && !picture.time.standing && remaining > 0}<span
						class="text-ink-2 block text-[13px]">finish by {localTime(picture.time.deadline, zone)}</span
					>{/if}
			</p>
		{/if}
	</header>
	<Tools
		{paper}
		{picture}
		{display}
		{watch}
		{spoken}
		bind:language
		bind:isOpen={isBeside}
		onchanged={() => line.refresh()}
	/>
	<Messages {picture} onread={() => line.refresh()} />
	{#if watch && picture.session.watch}<WatchGuard {watch} rules={picture.session.watch} />{/if}
	{#if picture.session.kind === 'rehearsal'}<p
			class="bg-plum-ground text-plum px-6 py-1.5 text-center text-[15px] font-semibold"
		>
			This is a rehearsal. It counts for nothing.
		</p>{/if}
	{#if warnings.shown !== null}
		<p
			class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold"
			role="status"
			data-testid="warning"
		>
			{warnings.shown === 1 ? 'One minute' : `${warnings.shown} minutes`} left.
		</p>
	{/if}
	{#if inGrace}
		<p class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold" role="status">
			Time is up. Finish your last answer and hand in: {clockLength(picture.time.graceEnds! - clock.now)}{picture.time
				.atTimeUp === 'zero'
				? '. What is not handed in by then counts nothing.'
				: ''}
		</p>
	{/if}
	{#if remaining === 0 && !inGrace}
		<p class="bg-ochre-ground text-ochre px-6 py-2 text-center text-[17px] font-semibold" role="status">
			{isClosed
				? 'Time is up. Hand in now; nothing more is taken.'
				: 'Time is up. You may go on: answers from now on are marked late.'}
		</p>
	{/if}
	{#if !paper.outbox.isDurable}<p class="bg-ochre-ground text-ochre px-6 py-1.5 text-center text-[15px]">
			This browser keeps nothing on the device. Do not close this page while the line is down.
		</p>{/if}

	<main
		class="mx-auto w-full flex-1 px-5 py-8 {isBeside ? 'lg:mr-[380px]' : ''}"
		style="max-width:{780 + (display.size - 100) * 4}px;font-size:{(16 * display.size) /
			100}px;line-height:{display.spacing}"
	>
		{#if one}
			{#key question.id}
				<QuestionView
					{question}
					number={paper.at + 1}
					of={paper.questions.length}
					picture={paper.pictures[question.picture ?? '']}
					{language}
					hints={picture.session.tools.hints}
					given={paper.of(question.id)}
					{isClosed}
					onchange={(to, rests) => change(question.id, to, rests)}
				/>
			{/key}
		{:else}
			<div class="space-y-12">
				{#each visible as each, nth (each.id)}
					{@const i = page * perPage + nth}
					<div class="scroll-mt-24">
						<QuestionView
							question={each}
							number={i + 1}
							of={paper.questions.length}
							picture={paper.pictures[each.picture ?? '']}
							{language}
							hints={picture.session.tools.hints}
							given={paper.of(each.id)}
							{isClosed}
							onchange={(to, rests) => ((paper.at = i), change(each.id, to, rests))}
						/>
						{#if picture.session.tools.marking}<button
								type="button"
								class="mt-3 text-[15px] font-semibold underline"
								aria-pressed={paper.of(each.id).marked}
								onclick={() => toggleMark(each.id)}
								>{paper.of(each.id).marked ? 'Marked for later: unmark' : 'Mark for later'}</button
							>{/if}
					</div>
				{/each}
			</div>
		{/if}
	</main>

	<footer class="bg-sheet border-line sticky bottom-0 flex flex-wrap items-center gap-3 border-t px-6 py-3 max-sm:px-4">
		{#if perPage < paper.questions.length && !isForwardOnly}
			<Press onclick={() => turn(-1)} disabled={page === 0}>← Back</Press>
		{/if}
		{#if one && picture.session.tools.marking}
			<Press
				disabled={isClosed}
				pressed={paper.of(question.id).marked}
				onclick={() => toggleMark(question.id)}
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
					disabled={!mayJump(i)}
					onclick={() => jump(i)}
				>
					{i + 1}{#if given.marked}<span class="bg-ochre-mark absolute inset-x-0 bottom-0 h-1.5 rounded-b-[5px]"
						></span>{/if}
				</button>
			{/each}
		</nav>
		{#if !isLastPage}
			<Press main={!isClosed} onclick={() => turn(1)} disabled={!mayGoOn && !isClosed} testid="next"
				>{mayGoOn || isClosed ? 'Next →' : 'Answer to go on'}</Press
			>
		{/if}
		<Press main={isLastPage || isClosed} onclick={() => (handingIn = true)} testid="hand-in">Hand in</Press>
	</footer>
</div>

{#if display.ruler}<Ruler />{/if}
{#if handingIn}<HandIn
		{paper}
		{line}
		isTimeUp={remaining === 0}
		onclose={() => (handingIn = false)}
		onjump={(index) => ((handingIn = false), jump(index))}
	/>{/if}
