<!-- @component The paper while it is sat: its questions, page by page or all together. -->
<script lang="ts">
	import { calculatorFor, sharedAround } from '$core/paper';
	import { forwardBy, isSameLanguage, mayGoOn, mayJump, mayTurn, pageAt } from '$core/session';
	import { Display, LOOKS } from '$player/display.svelte';
	import { spokenText } from '$player/spoken-text';
	import type { Line } from '$player/line.svelte';
	import type { Given, Paper } from '$player/paper.svelte';
	import { QuestionLeft } from '$player/question-left.svelte';
	import { TimeLeft } from '$player/time-left.svelte';
	import { TimeWarnings } from '$player/time-warnings.svelte';
	import type { Watch } from '$player/watch.svelte';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import { singleKeys } from '$ui/shortcuts.svelte';
	import { onMount, tick, untrack } from 'svelte';
	import HandIn from './HandIn.svelte';
	import Messages from './Messages.svelte';
	import PaperFoot from './PaperFoot.svelte';
	import PaperHead from './PaperHead.svelte';
	import PaperNotices from './PaperNotices.svelte';
	import QuestionView from './QuestionView.svelte';
	import Tools from './Tools.svelte';
	import Ruler from './tools/Ruler.svelte';
	import WatchGuard from './WatchGuard.svelte';

	type Props = {
		paper: Paper;
		line: Line;
		clock: ServerClock;
		watch: Watch | null;
		/** Held or on a break: it is not seen, and stays as it was left. */
		isResting: boolean;
	};
	let { paper, line, clock, watch, isResting }: Props = $props();

	const display = untrack(() => new Display(`otium display ${line.picture.sittingId}`, line.picture.display));
	const time = untrack(() => new TimeLeft(() => line.picture, clock));
	const each = untrack(() => new QuestionLeft(() => line.picture, paper, clock));
	const isClosed = $derived(time.isClosed || each.isUp);

	const picture = $derived(line.picture);
	/** Whoever asks for a language reads the paper in it from the first, as far as it is there. */
	let language = $state(
		untrack(() => {
			const asked = line.picture.display.language;
			return asked === null ? null : (paper.otherLanguages.find((tag) => isSameLanguage(tag, asked)) ?? null);
		})
	);
	const movement = $derived(picture.session.movement);
	const count = $derived(paper.order.length);
	const isAnswered = (index: number) => paper.isAnswered(paper.order[index]);
	const page = $derived(pageAt(movement, count, paper.at));
	const places = $derived(Array.from({ length: page.to - page.from }, (_, nth) => page.from + nth));
	const visible = $derived(places.flatMap((place) => paper.questionAt(place) ?? []));
	const calculator = $derived(
		calculatorFor(picture.session.tools.calculator, visible, picture.session.hasOwnCalculator)
	);
	const hasCome = $derived(visible.length > 0);
	$effect(() => (hasCome ? undefined : paper.receive(() => untrack(() => picture))));
	const isOne = $derived(page.perPage === 1);
	/** A text that questions share stands beside them where there is room. */
	const isBesideText = $derived(isOne && visible[0]?.stimulus !== undefined);
	const questionId = $derived(paper.order[paper.at]);
	const isForwardOnly = $derived(forwardBy(movement) !== null);
	/** Where nobody goes back, a page that is left without a line would leave them with none. */
	const waitsForLine = $derived(isForwardOnly && line.downSince !== null);

	$effect(() => {
		line.show(isResting ? null : paper.at);
		return () => line.show(null);
	});
	/** What is on the page, piece by piece, in the language in which it is read. */
	function spoken() {
		const own = paper.language;
		return visible.flatMap((each) => {
			const wording = language === null ? undefined : each.inOther?.[language];
			const parts = [...(each.choices ?? []), ...(each.items ?? []), ...(each.matches ?? [])];
			const read = (text: string, gaps?: string[]) => ({
				text: spokenText(text, gaps),
				language: wording ? language! : own
			});
			return [
				{ text: spokenText(each.stimulus?.text ?? ''), language: own },
				read(wording?.stem ?? each.stem, each.gaps),
				...parts.map((part) => read(wording?.texts?.[part.id] ?? part.text))
			];
		});
	}
	let isBeside = $state<boolean | 'wide'>(false);
	let handingIn = $state(false);
	let wasResting = false;
	const warnings = untrack(() => new TimeWarnings(line.picture.sittingId));
	$effect(() => warnings.look(picture.time.warnAtMinutes, time.remaining));
	$effect(() => () => warnings.stop());
	$effect(() => {
		if (time.isLastMoment) void untrack(() => paper.settle());
	});
	$effect(() => {
		if (each.isUp && !time.isClosed && !page.isLast) untrack(() => paper.goTo(paper.at + 1));
		else if (each.isUp) void untrack(() => paper.settle());
	});
	$effect(() => {
		const rests = isResting;
		const seen = () => paper.viewChanged(document.visibilityState === 'visible' && !rests);
		if (rests || wasResting) untrack(seen);
		wasResting = rests;
		document.addEventListener('visibilitychange', seen);
		return () => document.removeEventListener('visibilitychange', seen);
	});
	$effect(() => {
		const { outbox, handed } = paper;
		const stay = (event: BeforeUnloadEvent) => {
			if (handed.pending.length > 0 || (outbox.waiting > 0 && !outbox.isDurable)) event.preventDefault();
		};
		addEventListener('beforeunload', stay);
		return () => removeEventListener('beforeunload', stay);
	});

	function change(questionId: string, to: Partial<Given>, rests = false) {
		if (!isClosed) paper.change(questionId, to, rests && !time.isLastMoment && !each.isShort);
	}
	function played(of: string, place: number) {
		void paper.media.countPlay(of, place);
		void paper.keep(picture);
	}
	const stimulusAt = (place: number) => paper.questionAt(place)?.stimulus?.id;
	/** Which of the questions that have come share the text before this one; null: it stands on the page already. */
	function sharedBy(at: number): { from: number; to: number } | null {
		const isRepeated = at > page.from && stimulusAt(at) !== undefined && stimulusAt(at - 1) === stimulusAt(at);
		return isRepeated ? null : sharedAround(at, stimulusAt);
	}
	function toggleMark(questionId: string) {
		change(questionId, { marked: !paper.of(questionId).marked });
	}
	function choose(nth: number) {
		if (isOne) document.querySelectorAll<HTMLInputElement>('[data-question] input[name^="q-"]')[nth - 1]?.click();
	}
	const keys: Record<string, () => void> = {
		n: () => turn(1),
		ArrowRight: () => turn(1),
		p: () => turn(-1),
		ArrowLeft: () => turn(-1),
		m: () => void (picture.session.tools.marking && toggleMark(questionId)),
		...Object.fromEntries(Array.from({ length: 9 }, (_, i) => [String(i + 1), () => choose(i + 1)]))
	};
	untrack(() => singleKeys.of(line.picture.sittingId));

	/** Where nothing was asked for the focus stays; where a question was, it goes to its heading. */
	async function read(place: number) {
		await tick();
		document.querySelector<HTMLElement>(`[data-question="${paper.order[place]}"] h2`)?.focus({ preventScroll: !isOne });
	}
	onMount(() => {
		singleKeys.viewChanged();
		void read(page.from);
	});
	// What they were writing is where it was when the work goes on.
	let left: { element: HTMLElement; scrolled: number } | null = null;
	$effect.pre(() => {
		if (isResting) left = { element: document.activeElement as HTMLElement, scrolled: window.scrollY };
	});
	$effect(() => {
		if (isResting || left === null) return;
		const { element, scrolled } = left;
		left = null;
		singleKeys.viewChanged();
		window.scrollTo({ top: scrolled });
		if (element.isConnected && element !== document.body) element.focus({ preventScroll: true });
		else void read(paper.at);
	});
	/** Turns to the next page or the one before, as far as the rules allow. */
	function turn(by: 1 | -1) {
		if (waitsForLine || !mayTurn(movement, page, by, { isAnswered, readsOnly: isClosed })) return;
		const to = page.from + by * page.perPage;
		paper.goTo(to);
		if (!isOne) window.scrollTo({ top: 0 });
		void read(to);
	}
	const mayGoTo = (index: number) => mayJump(movement, count, paper.at, index, isAnswered);
	function jump(index: number) {
		if (!mayGoTo(index)) return;
		paper.goTo(index);
		if (!isOne) document.querySelector(`[data-question="${paper.order[index]}"]`)?.scrollIntoView({ block: 'start' });
		void read(index);
	}
</script>

{#if !isResting}<Shortcuts {keys} />{/if}
<svelte:head><title>Question {paper.at + 1} of {count} · {picture.paper.title} · Otium</title></svelte:head>

{#snippet asked(at: number)}
	{@const each = paper.questionAt(at)}
	{#if each}<QuestionView
			question={each}
			number={at + 1}
			of={count}
			picture={paper.pictures[each.picture ?? '']}
			ownLanguage={paper.language}
			{language}
			hints={picture.session.tools.hints}
			striking={picture.session.tools.striking}
			given={paper.of(each.id)}
			{isClosed}
			addressOf={(file) => paper.media.addressOf(file)}
			isMissing={(file) => paper.media.isMissing(file)}
			leftOf={(medium, of, place) => paper.media.leftOf(medium, of, place)}
			onplay={(of, place) => played(of, place)}
			sharedBy={sharedBy(at)}
			handed={paper.handed}
			onchange={(to, rests) => ((paper.at = at), change(each.id, to, rests))}
		/>{/if}
{/snippet}

<div
	class="bg-paper text-ink min-h-dvh flex-col {isResting ? '' : 'flex'} {LOOKS[display.look].class}"
	class:plain-letters={display.plain}
	class:not-printed={!(picture.session.watch?.printing ?? true)}
	hidden={isResting}
	inert={isResting}
>
	<h1 class="sr-only">{picture.paper.title}</h1>
	<!-- What is told stays in sight however far the page is scrolled; a low window keeps its height for the paper. -->
	<div class="sticky top-0 z-10 [@media(max-height:420px)]:static">
		<PaperHead {paper} {line} {time} {each} {clock} isCalm={display.calm} />
		<Messages {picture} onread={() => line.refresh()} />
		<PaperNotices
			{picture}
			{time}
			isLastUp={each.isUp && page.isLast}
			warning={warnings.shown}
			isDurable={paper.outbox.isDurable}
		/>
	</div>
	<Tools
		{paper}
		{picture}
		{display}
		{watch}
		{calculator}
		{spoken}
		view={isResting ? '' : isOne ? questionId : String(page.from)}
		bind:language
		bind:isOpen={isBeside}
		onchanged={() => line.refresh()}
	/>
	{#if watch && picture.session.watch}<WatchGuard {watch} rules={picture.session.watch} />{/if}

	<main
		class="mx-auto w-full flex-1 px-5 py-8 {isBeside === 'wide'
			? 'lg:mr-[calc(min(50rem,48vw)_+_40px)]'
			: isBeside
				? 'lg:mr-[380px]'
				: ''}"
		style="max-width:{(isBesideText ? 1280 : 780) + (display.size - 100) * 4}px;font-size:{(16 * display.size) /
			100}px;line-height:{display.spacing};letter-spacing:{display.letters}em;word-spacing:{display.letters * 1.5}em"
	>
		{#if !hasCome}
			<p class="coming text-ink-2 text-[1.125em]" role="status">
				{page.from + 1 === page.to ? `Question ${page.to}` : `Questions ${page.from + 1} to ${page.to}`} will appear here
				as soon as the connection allows. Everything you have answered is kept.
			</p>
		{:else if isOne}
			{#key questionId}{@render asked(paper.at)}{/key}
		{:else}
			<div class="space-y-12">
				{#each places as place (place)}
					{@const id = paper.order[place]}
					<div class="scroll-mt-24">
						{@render asked(place)}
						{#if picture.session.tools.marking}<button
								type="button"
								class="mt-3 text-[15px] font-semibold underline"
								aria-pressed={paper.of(id).marked}
								onclick={() => toggleMark(id)}
								>{paper.of(id).marked ? 'Marked for later: unmark' : 'Mark for later'}</button
							>{/if}
					</div>
				{/each}
			</div>
		{/if}
	</main>

	<PaperFoot
		{paper}
		{page}
		marks={isOne && picture.session.tools.marking}
		{isForwardOnly}
		{waitsForLine}
		{isClosed}
		mayGoOn={mayGoOn(movement, page, isAnswered)}
		mayJump={mayGoTo}
		isCalm={display.calm}
		onturn={turn}
		onjump={jump}
		onmark={toggleMark}
		onhandin={() => (handingIn = true)}
	/>
</div>

{#if display.ruler && !isResting}<Ruler />{/if}
{#if handingIn && !isResting}<HandIn
		{paper}
		{line}
		isTimeUp={time.isUp}
		mayJump={mayGoTo}
		onclose={() => (handingIn = false)}
		onjump={(index) => ((handingIn = false), jump(index))}
	/>{/if}

<style>
	/* A page that comes at once shows nothing first. */
	.coming {
		animation: appear 0s 0.6s both;
	}
	@keyframes appear {
		from {
			visibility: hidden;
		}
	}
</style>
