<script lang="ts">
	import { Checkbox, Input, Select } from 'flowbite-svelte';
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import type { Finding, SentencePart } from '$core/session';
	import { zoneName } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { inWords, send, type Problem } from '$ui/post';
	import Sentence from '$ui/Sentence.svelte';
	import type { PageData } from './new/$types';

	type Props = {
		title: string;
		choices: PageData['choices'];
		initial: PageData['input'];
		edit: { id: string; revision: number } | null;
		/** Why nothing can be changed any more. */
		locked: string | null;
	};
	let { title, choices, initial, edit, locked }: Props = $props();

	const clock = getClock();
	let input = $state(untrack(() => ({ ...initial })));
	let plan = $state.raw<{ sentence: SentencePart[]; findings: Finding[]; name: string } | null>(null);
	let errors = $state.raw<Partial<Record<string, string>>>({});
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	let touched = $state(false);

	const room = $derived(choices.rooms.find((one) => one.id === input.roomId));
	const blocked = $derived(plan?.findings.some((finding) => finding.level === 'block') ?? true);
	/** What has not been chosen yet is not wrong: it is said beneath the sentence, not in red. */
	const toChoose = $derived(
		[!input.paperId && 'a paper', input.groupIds.length === 0 && 'a group', !input.roomId && 'a room'].filter(Boolean)
	);
	const errorOf = (field: string) =>
		toChoose.length > 0 && ['paperId', 'groupIds', 'roomId'].includes(field) && !trouble ? undefined : errors[field];

	// The sentence follows what is entered, a moment after it rests.
	let asked = 0;
	function look() {
		const mine = ++asked;
		return setTimeout(async () => {
			const answer = await send<{
				errors: typeof errors;
				sentence?: SentencePart[];
				findings?: Finding[];
				name?: string;
			}>('POST', '/prepare/plan', { input, editing: edit?.id ?? null });
			if (mine !== asked) return;
			if (!answer.ok) {
				trouble = inWords(answer.problem);
				return;
			}
			errors = answer.data.errors;
			plan = answer.data.sentence
				? { sentence: answer.data.sentence, findings: answer.data.findings!, name: answer.data.name! }
				: null;
		}, 250);
	}
	$effect(() => {
		void JSON.stringify(input);
		const timer = look();
		return () => clearTimeout(timer);
	});

	// What was being entered outlives a closed tab or a lost line.
	const draftKey = untrack(() => `otium-draft-session-${edit?.id ?? 'new'}`);
	onMount(() => {
		if (edit) return;
		try {
			const kept = sessionStorage.getItem(draftKey);
			if (kept) input = { ...input, ...JSON.parse(kept) };
		} catch {
			// Storage is refused: the form starts afresh.
		}
	});
	$effect(() => {
		const text = JSON.stringify(input);
		if (!touched || edit) return;
		try {
			sessionStorage.setItem(draftKey, text);
		} catch {
			// Nothing is lost but the convenience.
		}
	});

	async function save() {
		if (busy) return;
		busy = true;
		trouble = null;
		const answer = await send<{ id: string }>('POST', '/prepare/save', { input, edit });
		busy = false;
		if (!answer.ok) {
			const refused = answer.problem as Problem & { errors?: typeof errors };
			errors = refused.errors ?? {};
			trouble = inWords(answer.problem);
			return;
		}
		sessionStorage.removeItem(draftKey);
		await goto('/prepare');
	}
	const typed = (event: Event) => (event.target as HTMLInputElement).value;
	/** What is no number is sent as it stands, to be refused at its field: it must not pass for "no limit". */
	function minutesOf(text: string): number | string | null {
		if (text.trim() === '') return null;
		return Number.isFinite(Number(text)) ? Number(text) : text;
	}
	function toggle(list: string[], id: string): string[] {
		return list.includes(id) ? list.filter((one) => one !== id) : [...list, id];
	}
</script>

{#snippet minutes(
	field: 'limitMinutes' | 'doorOpensMinutes' | 'lastEntryMinutes' | 'graceMinutes',
	label: string,
	hint: string
)}
	<Field id={field} {label} {hint} error={errorOf(field)}>
		<Input
			id={field}
			inputmode="numeric"
			class="w-full"
			value={input[field] ?? ''}
			oninput={(event) => (input[field] = minutesOf(typed(event)) as never)}
		/>
	</Field>
{/snippet}
{#snippet part(name: string)}<h2 class="pt-1 text-[17px]">{name}</h2>{/snippet}

<div class="grid min-h-full grid-cols-[1fr_400px] max-lg:grid-cols-1">
	<main class="px-7 py-5" oninput={() => (touched = true)} onchange={() => (touched = true)}>
		<h1 class="mb-1 text-[28px]">{title}</h1>
		{#if choices.papers.length === 0 || choices.rooms.length === 0}
			<p class="bg-ochre-ground text-ochre mb-3 rounded-lg px-3 py-2">
				There are no papers or rooms at your sites yet, so nothing can be planned.
			</p>
		{/if}
		{#if locked}<p class="bg-ochre-ground text-ochre mb-3 rounded-lg px-3 py-2">{locked}</p>{/if}
		<fieldset
			disabled={locked !== null}
			class="divide-line divide-y [&>section]:grid [&>section]:grid-cols-[110px_1fr] [&>section]:gap-4 [&>section]:py-4"
		>
			<section>
				{@render part('What')}
				<div class="flex flex-wrap gap-3">
					<Field id="paperId" label="Paper" error={errorOf('paperId')} class="min-w-64 flex-1">
						<Select
							id="paperId"
							bind:value={input.paperId}
							placeholder="Choose a paper"
							items={choices.papers.map((paper) => ({
								value: paper.id,
								name: `${paper.title}, version ${paper.version} · ${paper.questions} questions · ${paper.points} points`
							}))}
						/>
					</Field>
					<div>
						<p class="text-ink-2 mb-1 text-[13px] font-semibold">For</p>
						<Choose
							name="kind"
							label="What the session is for"
							bind:value={input.kind}
							options={[
								{ value: 'live', text: 'Live' },
								{ value: 'make_up', text: 'Make-up' },
								{ value: 'rehearsal', text: 'Rehearsal' }
							]}
						/>
					</div>
				</div>
			</section>
			<section>
				{@render part('Who')}
				<div>
					<div class="flex flex-wrap gap-2" role="group" aria-label="Groups">
						{#each choices.groups as group (group.id)}
							<label
								class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet flex cursor-pointer items-center gap-2 rounded-lg border px-3 py-2 text-[14px]"
							>
								<Checkbox
									checked={input.groupIds.includes(group.id)}
									onchange={() => (input.groupIds = toggle(input.groupIds, group.id))}
								/>{group.name} <strong>{group.count}</strong> <span class="text-ink-2">{group.site}</span>
							</label>
						{/each}
					</div>
					{#if errorOf('groupIds')}<p class="text-brick mt-1 text-[13px]" role="alert">{errorOf('groupIds')}</p>{/if}
					{#if input.kind === 'make_up'}<p class="text-ink-3 mt-1.5 text-[13px]">
							A make-up takes only those of these groups who were absent or carried over.
						</p>{/if}
				</div>
			</section>
			<section>
				{@render part('When')}
				<div class="flex flex-wrap items-start gap-3">
					<Field id="date" label="Date" error={errorOf('date')}
						><Input id="date" type="date" bind:value={input.date} /></Field
					>
					<Field id="time" label="Opens" error={errorOf('time')}
						><Input id="time" type="time" bind:value={input.time} /></Field
					>
					<Field id="until" label="Closes" error={errorOf('until')}
						><Input
							id="until"
							type="time"
							value={input.until ?? ''}
							oninput={(event) => (input.until = typed(event) || null)}
						/></Field
					>
					<p class="text-ink-2 pt-8 text-[14px]">
						{room ? `${zoneName(clock.now, room.zone)}, as at ${room.site}` : ''}
					</p>
				</div>
			</section>
			<section>
				{@render part('Where')}
				<div class="flex flex-wrap gap-3">
					<Field id="roomId" label="Room" error={errorOf('roomId')} class="min-w-72">
						<Select
							id="roomId"
							bind:value={input.roomId}
							placeholder="Choose a room"
							items={choices.rooms.map((one) => ({
								value: one.id,
								name: `${one.name}, ${one.seats} seats · ${one.site}`
							}))}
						/>
					</Field>
					<div>
						<p class="text-ink-2 mb-1 text-[13px] font-semibold">Proctors</p>
						<div class="flex flex-wrap gap-2">
							{#each choices.proctors as proctor (proctor.id)}
								<label
									class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet flex cursor-pointer items-center gap-2 rounded-lg border px-3 py-2 text-[14px]"
									><Checkbox
										checked={input.proctorIds.includes(proctor.id)}
										onchange={() => (input.proctorIds = toggle(input.proctorIds, proctor.id))}
									/>{proctor.name}</label
								>
							{/each}
						</div>
					</div>
				</div>
			</section>
			<section>
				{@render part('Time')}
				<div class="space-y-3">
					<div class="grid grid-cols-4 gap-3 max-md:grid-cols-2">
						{@render minutes('limitMinutes', 'Limit, minutes', 'empty: no limit')}
						{@render minutes('graceMinutes', 'Grace after it', 'to finish up and hand in')}
						{@render minutes('doorOpensMinutes', 'Door opens before', 'minutes')}
						{@render minutes('lastEntryMinutes', 'Last entry after', 'empty: until it closes')}
					</div>
					<div class="flex flex-wrap gap-2">
						<Choose
							name="clockStarts"
							label="When the clock starts"
							bind:value={input.clockStarts}
							options={[
								{ value: 'candidate', text: 'each clock from beginning' },
								{ value: 'room', text: 'all start together' }
							]}
						/>
						<Choose
							name="clockStops"
							label="When the clock stops"
							bind:value={input.clockStops}
							options={[
								{ value: 'never', text: 'never stops' },
								{ value: 'hold', text: 'stops on hold' },
								{ value: 'hold_or_lost', text: 'and on a lost line' }
							]}
						/>
						<Choose
							name="atClose"
							label="At the close"
							bind:value={input.atClose}
							options={[
								{ value: 'finish', text: 'who began may finish' },
								{ value: 'cut', text: 'the close ends work' }
							]}
						/>
						<Choose
							name="atTimeUp"
							label="When time is up"
							bind:value={input.atTimeUp}
							options={[
								{ value: 'hand_in', text: 'handed in for them' },
								{ value: 'stop', text: 'no more answers' },
								{ value: 'flag', text: 'may go on, marked late' },
								{ value: 'zero', text: 'counts nothing' }
							]}
						/>
					</div>
				</div>
			</section>
			<section>
				{@render part('Door, paper')}
				<div class="flex flex-wrap items-start gap-3">
					<Choose
						name="admission"
						label="Who lets candidates in"
						bind:value={input.admission}
						options={[
							{ value: 'proctor', text: 'the proctor lets in' },
							{ value: 'automatic', text: 'lets in by itself' }
						]}
					/>
					<Choose
						name="shown"
						label="How questions are shown"
						bind:value={input.shown}
						options={[
							{ value: 'one', text: 'one at a time' },
							{ value: 'all', text: 'all on one page' }
						]}
					/>
					<Checkbox bind:checked={input.questionsInOwnOrder} class="py-2 text-[14px]">questions in own order</Checkbox>
					<Checkbox bind:checked={input.choicesInOwnOrder} class="py-2 text-[14px]">choices in own order</Checkbox>
					<Field id="startWord" label="Start word" error={errorOf('startWord')} hint="empty: none"
						><Input
							id="startWord"
							class="w-36 font-mono"
							value={input.startWord ?? ''}
							oninput={(event) => (input.startWord = typed(event) || null)}
						/></Field
					>
					<Field id="finishWord" label="Finish word" error={errorOf('finishWord')} hint="empty: none"
						><Input
							id="finishWord"
							class="w-36 font-mono"
							value={input.finishWord ?? ''}
							oninput={(event) => (input.finishWord = typed(event) || null)}
						/></Field
					>
					<Field
						id="name"
						label="Name"
						error={errorOf('name')}
						hint="proposed from paper, group and time"
						class="min-w-72 flex-1"><Input id="name" placeholder={plan?.name ?? ''} bind:value={input.name} /></Field
					>
				</div>
			</section>
		</fieldset>
	</main>

	<aside class="bg-tide-deep px-7 py-6 text-[#f6f2e8]" aria-live="polite">
		<p class="mb-2 text-[14px] text-[#b9d6cd]">It reads</p>
		{#if plan}
			<p class="font-serif text-[21px] leading-[1.45]" data-testid="sentence"><Sentence parts={plan.sentence} /></p>
		{:else if toChoose.length > 0}
			<p class="font-serif text-[21px] leading-snug text-[#dcebe5]">
				Choose {toChoose.join(', ').replace(/, ([^,]*)$/, ' and $1')}, and the session is told here in a sentence.
			</p>
		{:else}
			<p class="font-serif text-[21px] leading-snug text-[#dcebe5]">
				Something can’t be read yet: see the fields on the left.
			</p>
		{/if}
		{#if plan && plan.findings.length > 0}
			<p class="mt-6 mb-2 text-[14px] text-[#b9d6cd]">{blocked ? 'Before it can be planned' : 'Worth knowing'}</p>
			<ul class="space-y-2.5">
				{#each plan.findings as finding (finding.message)}
					<li
						class="rounded-xl px-3.5 py-2.5 text-[14.5px] {finding.level === 'block'
							? 'bg-[#f8ddd6] text-[#7a2415]'
							: 'bg-[#fbeccb] text-[#6b4500]'}"
					>
						{finding.message}
					</li>
				{/each}
			</ul>
		{/if}
		{#if trouble}<p role="alert" class="mt-4 rounded-xl bg-[#f8ddd6] px-3.5 py-2.5 text-[#7a2415]">{trouble}</p>{/if}
		<div class="mt-6 flex gap-2">
			<Act onclick={save} {busy} disabled={locked !== null || plan === null || blocked} testid="plan"
				>{edit ? 'Save the changes' : 'Plan it'}</Act
			>
			<a href="/prepare" class="rounded-lg border border-white/40 px-4 py-2 text-[14px] font-semibold">Leave</a>
		</div>
	</aside>
</div>
