<!-- @component A correction: chosen, read with all that it does to whom, and asked for. Another person confirms it. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { someNames } from '$core/names';
	import { nanoid } from 'nanoid';
	import { changesInWords, type Change } from '$core/correction';
	import type { Correction } from '$core/marking';
	import { isMarkedByHand, type FormQuestion, type Question } from '$core/paper';
	import { shownPoints } from '$core/results';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import type { Foreseen } from '$lib/server/marking';

	type Props = {
		of: { administrationId: string; paperId: string; questionId: string };
		question: Question;
		shown: FormQuestion;
		isCorrected: boolean;
		isDoubtful: boolean;
		correctors: string[];
		/** A correction that waits: it is read and confirmed here. */
		waiting: { id: string; words: string; reason: string; by: string; isMine: boolean } | null;
		onchanged: (told: string) => void;
	};
	let { of, question, shown, isCorrected, isDoubtful, correctors, waiting, onchanged }: Props = $props();

	let kind = $state<Correction['kind'] | null>(null);
	let choice = $state('');
	let text = $state('');
	let points = $state('');
	let reason = $state('');
	let foreseen = $state<Foreseen | null>(null);
	let seesAll = $state(false);
	let busy = $state(false);
	let trouble = $state<string | null>(null);

	const hasKey = $derived(!isMarkedByHand(question) && question.kind !== 'calculated');
	const isChosen = $derived(['single', 'true_false'].includes(question.kind));
	const isTyped = $derived(['short', 'numeric'].includes(question.kind));
	const options = $derived(
		question.kind === 'true_false'
			? [
					{ value: 'true', name: 'True' },
					{ value: 'false', name: 'False' }
				]
			: (shown.choices ?? []).map(({ id, text }) => ({ value: id, name: text }))
	);
	let several = $state<string[]>([]);
	const BUTTONS = $derived(
		[
			{
				kind: 'key' as const,
				text: 'Change the key…',
				shown: hasKey && (isChosen || isTyped || question.kind === 'multiple')
			},
			{ kind: 'accept' as const, text: 'Accept another too…', shown: hasKey && (isChosen || isTyped) },
			{ kind: 'for_all' as const, text: 'Count it for all', shown: true },
			{ kind: 'leave_out' as const, text: 'Leave it out', shown: true },
			{ kind: 'points' as const, text: 'Other points…', shown: true },
			{ kind: 'keep' as const, text: 'Keep it as it is', shown: isDoubtful },
			{ kind: 'restore' as const, text: 'As the paper has it', shown: isCorrected }
		].filter(({ shown }) => shown)
	);
	const correction = $derived.by((): Correction | null => {
		switch (kind) {
			case 'key':
			case 'accept': {
				const answer =
					question.kind === 'true_false'
						? choice === 'true'
						: question.kind === 'multiple'
							? several
							: isChosen
								? choice
								: text.trim();
				const isGiven =
					question.kind === 'multiple' ? several.length > 0 : isTyped ? text.trim() !== '' : choice !== '';
				return isGiven ? { kind, answer } : null;
			}
			case 'points':
				return points.trim() !== '' && Number(points) > 0 ? { kind, points: Number(points) } : null;
			case null:
				return null;
			default:
				return { kind };
		}
	});

	async function look() {
		if (!correction) return;
		busy = true;
		const answer = await send<Foreseen>('POST', '/close-out/questions', { act: 'foresee', ...of, correction });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		foreseen = answer.ok ? answer.data : null;
	}
	function choose(next: Correction['kind']) {
		[kind, choice, text, points, several, foreseen, trouble, seesAll] = [next, '', '', '', [], null, null, false];
		if (!['key', 'accept', 'points'].includes(next)) void look();
	}
	async function ask() {
		busy = true;
		const answer = await send('POST', '/close-out/questions', {
			act: 'propose',
			...of,
			id: nanoid(),
			correction,
			reason
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		[kind, foreseen, reason] = [null, null, ''];
		onchanged(`Asked for. It counts once ${correctors.slice(0, 2).join(' or ') || 'another person'} has confirmed it.`);
	}
	async function read() {
		busy = true;
		const answer = await send<Foreseen>('POST', '/close-out/questions', { act: 'read', id: waiting!.id });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		foreseen = answer.ok ? answer.data : null;
	}
	async function decide(act: 'confirm' | 'decline') {
		busy = true;
		const answer = await send('POST', '/close-out/questions', {
			act,
			id: waiting!.id,
			...(act === 'confirm' ? { basis: foreseen!.basis } : {})
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) {
			foreseen = null;
			onchanged(act === 'confirm' ? 'Confirmed: all results are marked by it now.' : 'It does not count.');
		} else if (answer.problem.code === 'changed_since_read') await read();
	}
	const moved = (change: Change) =>
		[
			change.pass === 'now_passes' && 'passes now',
			change.pass === 'now_fails' && 'fails now',
			change.band && `${change.band.from ?? 'no band'} → ${change.band.to ?? 'no band'}`
		]
			.filter(Boolean)
			.join(', ');
	const score = ({ points, outOf }: { points: number; outOf: number }) =>
		`${shownPoints(points)} of ${shownPoints(outOf)}`;
</script>

{#snippet effect(seen: Foreseen)}
	{@const passing = seen.changes.filter(({ pass }) => pass !== null)}
	<div class="bg-mist mt-3 rounded-xl px-4 py-3" data-testid="foreseen">
		<p>
			<strong>{changesInWords(seen.count, seen.of)}</strong>
			{#if passing.length > 0}
				{someNames(
					passing.map(
						({ name, before, after }) => `${name} (${shownPoints(before.points)} → ${shownPoints(after.points)})`
					),
					6
				)}.
			{/if}
			{seen.shown === 0 ? 'None of them has read a result.' : `${seen.shown} of them have read their result.`}
			{seen.told > 0 ? `${seen.told} are written to that it has changed.` : ''}
		</p>
		<p class="text-ink-2 mt-1 text-[13.5px]">
			The earlier marking stays in the record; a second person confirms before it counts.
		</p>
	</div>
	{#if seen.changes.length > 0}
		<button class="text-tide mt-2 text-[14px] underline" onclick={() => (seesAll = !seesAll)} data-testid="see-all"
			>{seesAll ? 'Hide the list' : `See all ${seen.changes.length}`}</button
		>
		{#if seesAll}
			<ul class="border-line mt-2 max-h-72 overflow-auto rounded-xl border text-[14px]" data-testid="changes">
				{#each seen.changes as change (change.sittingId)}
					<li class="border-line flex gap-3 border-b px-3 py-1.5 last:border-b-0">
						<span class="flex-1"
							>{change.name} <span class="text-ink-3 font-mono text-[13px]">{change.number}</span></span
						>
						<span class="font-mono">{score(change.before)} → {score(change.after)}</span>
						<span class="text-ink-2 w-40 text-right">{moved(change)}</span>
					</li>
				{/each}
			</ul>
		{/if}
	{/if}
{/snippet}

{#if waiting}
	<h3 class="text-[18px]">A correction waits</h3>
	<p class="mt-1" data-testid="waiting"><strong>{waiting.words}</strong> {waiting.by} asks for it: {waiting.reason}</p>
	{#if foreseen}{@render effect(foreseen)}{/if}
	<div class="mt-3 flex flex-wrap gap-2">
		{#if waiting.isMine}
			<p class="text-ink-2 text-[14px]">
				You asked for it, so another person confirms: {correctors.slice(0, 3).join(', ')}.
			</p>
			<Act onclick={() => decide('decline')} {busy} testid="decline">Take it back</Act>
		{:else if foreseen}
			<Act tone="main" onclick={() => decide('confirm')} {busy} testid="confirm-correction">Confirm it</Act>
			<Act onclick={() => decide('decline')} {busy} testid="decline">Decline</Act>
		{:else}
			<Act tone="main" onclick={read} {busy} testid="read-correction">Read what it does</Act>
		{/if}
	</div>
{:else}
	<h3 class="text-[18px]">Correct it</h3>
	<div class="mt-2 flex flex-wrap gap-2">
		{#each BUTTONS as button (button.kind)}
			<button
				class="rounded-lg border px-3.5 py-2 text-[14px] font-semibold {kind === button.kind
					? 'bg-mist border-tide text-tide'
					: 'border-line-strong hover:bg-paper'}"
				aria-pressed={kind === button.kind}
				onclick={() => choose(button.kind)}
				data-testid="correct-{button.kind}">{button.text}</button
			>
		{/each}
	</div>
	{#if kind === 'key' || kind === 'accept'}
		<div class="mt-3 flex items-end gap-2">
			{#if question.kind === 'multiple'}
				<fieldset>
					<legend class="text-ink-2 mb-1 text-[13px] font-semibold">The right answers</legend>
					{#each options as option (option.value)}<label class="mr-4 inline-flex items-center gap-1.5 text-[14.5px]"
							><input type="checkbox" value={option.value} bind:group={several} onchange={look} />{option.name}</label
						>{/each}
				</fieldset>
			{:else if isTyped}
				<Field id="typed-answer" label={kind === 'key' ? 'The right answer' : 'Right as well'}
					><Input id="typed-answer" bind:value={text} onchange={look} /></Field
				>
			{:else}
				<Field id="choice" label={kind === 'key' ? 'The right answer' : 'Right as well'}>
					<Select id="choice" class="w-80" bind:value={choice} onchange={look} placeholder="Choose…" items={options} />
				</Field>
			{/if}
		</div>
	{:else if kind === 'points'}
		<Field id="points" label="Points, instead of {question.points}" class="mt-3 w-52"
			><Input id="points" inputmode="decimal" bind:value={points} onchange={look} /></Field
		>
	{/if}
	{#if foreseen && kind}
		{@render effect(foreseen)}
		<div class="mt-3 flex flex-wrap items-end gap-2">
			<Field id="reason" label="Why" class="min-w-64 flex-1"><Input id="reason" bind:value={reason} /></Field>
			<Act tone="main" onclick={ask} {busy} disabled={!correction || reason.trim() === ''} testid="propose"
				>{correctors.length > 0 ? `Ask ${correctors[0]} to confirm` : 'Ask for it'}</Act
			>
		</div>
	{/if}
{/if}
{#if trouble}<p role="alert" class="text-brick mt-2">{trouble}</p>{/if}
