<!-- @component What somebody wrote on paper, typed in: one field a question, in the order and with the letters of the print. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { beforeNavigate, goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { firstWords, howTyped, MOST_PRINTED_FORMS, readTyped } from '$core/paper';
	import { answerInWords } from '$core/review';
	import { STATE_NAMES } from '$core/sitting';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';

	let { data } = $props();
	const paper = $derived(data.paper);
	let typed = $state<Record<string, string>>(untrack(() => asIs()));
	let form = $state(untrack(() => String(data.paper?.form ?? '')));
	let reason = $state('');
	let id = nanoid();
	let busy = $state(false);
	let asking = $state(false);
	let trouble = $state<string | null>(null);
	let told = $state<string | null>(null);

	function asIs(): Record<string, string> {
		return Object.fromEntries((data.paper?.questions ?? []).map(({ question, typed }) => [question.id, typed]));
	}
	const lines = $derived(
		(paper?.questions ?? []).map((one, i) => {
			const text = typed[one.question.id] ?? '';
			const read = readTyped(one.question, text);
			return {
				...one,
				number: i + 1,
				isChanged: text.trim() !== one.typed,
				why: text.trim() !== one.typed && !read.ok ? read.why : undefined,
				words: read.ok && read.value !== null ? answerInWords(one.question, read.value) : ''
			};
		})
	);
	const changed = $derived(lines.filter(({ isChanged }) => isChanged));
	const wrong = $derived(changed.filter(({ why }) => why !== undefined));
	const mayShow = $derived(/^\d+$/.test(form.trim()) && Number(form) >= 1 && Number(form) <= MOST_PRINTED_FORMS);

	async function show(event: SubmitEvent) {
		event.preventDefault();
		await goto(form.trim() === '' ? page.url.pathname : `?form=${Number(form)}`, {
			keepFocus: true,
			invalidateAll: true
		});
		typed = asIs();
		form = String(data.paper?.form ?? '');
	}
	/** Where somebody was going with something typed in that is not kept. */
	let leaving = $state.raw<{ to: URL; isSure: boolean } | null>(null);
	beforeNavigate((navigation) => {
		if (changed.length === 0 || leaving?.isSure) return;
		navigation.cancel();
		// Closing the tab is asked about by the browser itself.
		if (navigation.to && !navigation.willUnload) leaving = { to: navigation.to.url, isSure: false };
	});
	async function leave() {
		const { to } = leaving!;
		leaving = { to, isSure: true };
		await goto(to, { invalidateAll: true });
		[leaving, typed] = [null, asIs()];
	}
	/** From a line to the next by Enter, as one types down a column. */
	function next(event: KeyboardEvent) {
		if (event.key !== 'Enter' || !(event.target instanceof HTMLInputElement)) return;
		event.preventDefault();
		const fields = [...document.querySelectorAll<HTMLElement>('[data-typed]')];
		const at = fields.indexOf(event.target);
		(fields[at + 1] ?? document.querySelector<HTMLElement>('#reason'))?.focus();
	}
	async function save() {
		busy = true;
		const answer = await send<{ kept: number }>('POST', page.url.pathname, {
			id,
			form: paper!.form,
			reason,
			answers: changed.map(({ question, typed: before }) => ({
				questionId: question.id,
				text: typed[question.id],
				before
			}))
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		asking = false;
		id = nanoid();
		told = `${answer.data.kept} ${answer.data.kept === 1 ? 'answer is' : 'answers are'} kept.`;
		await invalidateAll();
		typed = asIs();
	}
</script>

<svelte:head><title>{data.name}: written on paper · Otium</title></svelte:head>
<main class="mx-auto max-w-4xl px-6 py-5">
	<p class="text-[14px]">
		<a class="text-tide underline" href="/close-out/{data.session.id}">{data.session.name}</a>
	</p>
	<h1 class="text-[26px]">{data.name} <span class="text-ink-2 font-mono text-[18px]">{data.number}</span></h1>
	{#if data.not}
		<p class="bg-sheet border-line mt-4 rounded-2xl border p-8 text-center">
			{data.not.message} <span class="text-ink-2">{data.not.instead}</span>
		</p>
	{:else if paper}
		<p class="text-ink-2 font-serif text-[16.5px]">
			{STATE_NAMES[paper.state]}. {paper.isNew
				? 'What is typed in here makes them handed in, with the printed form as theirs.'
				: 'What is typed in here counts in place of what stands; what stood is kept, and the log tells who typed.'}
		</p>
		<form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={show}>
			<Field
				id="form"
				label="Number of the printed form"
				hint={paper.isNew ? 'It stands at the head of the paper.' : 'Empty: in the order of their screen.'}
				class="w-64"><Input id="form" inputmode="numeric" bind:value={form} /></Field
			>
			<Act type="submit" class="mb-6" disabled={!mayShow && form.trim() !== ''} testid="show-form">Show</Act>
		</form>
		{#if told}<p role="status" class="bg-mist text-tide mt-2 rounded-lg px-3 py-2">{told}</p>{/if}
		<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
		<ol class="border-line bg-sheet mt-3 rounded-2xl border" onkeydown={next}>
			{#each lines as line (line.question.id)}
				<li
					class="border-line flex flex-wrap gap-x-4 border-b px-4 py-2 last:border-b-0"
					data-testid="line-{line.number}"
				>
					<span class="w-7 pt-2 text-right font-bold">{line.number}</span>
					<span class="text-ink-2 min-w-52 flex-1 pt-2 text-[14px]">{firstWords(line.question.stem, 160)}</span>
					<span class="w-80">
						{#if line.isForeign}
							<span class="text-ochre block pt-2 text-[14px]">Not among theirs: another draw was printed.</span>
						{:else if line.question.kind === 'upload'}
							<a class="text-tide block pt-2 text-[14px] underline" href="/close-out/sitting/{page.params.sitting}"
								>Add a scan of it</a
							>
						{:else}
							{#if line.question.kind === 'essay'}
								<Textarea
									aria-label="Question {line.number}"
									rows={4}
									class="w-full"
									data-typed
									placeholder={howTyped(line.question)}
									bind:value={typed[line.question.id]}
								/>
							{:else}
								<Input
									aria-label="Question {line.number}"
									autocomplete="off"
									data-typed
									placeholder={howTyped(line.question)}
									aria-invalid={line.why !== undefined}
									bind:value={typed[line.question.id]}
								/>
							{/if}
							{#if line.why}<span class="text-brick block text-[13px]" role="alert">{line.why}</span>
							{:else if line.words && line.question.kind !== 'essay'}<span class="text-ink-2 block text-[13px]"
									>{line.words}</span
								>{/if}
						{/if}
					</span>
				</li>
			{/each}
		</ol>
		<div class="mt-4 flex flex-wrap items-end gap-3">
			<Field id="reason" label="Why it was written on paper" class="min-w-72 flex-1"
				><Input id="reason" bind:value={reason} placeholder="The power failed at 10:40" /></Field
			>
			<Act
				tone="main"
				disabled={changed.length === 0 || wrong.length > 0 || reason.trim() === ''}
				onclick={() => ((trouble = null), (asking = true))}
				testid="save-typed">Save {changed.length === 1 ? '1 answer' : `${changed.length} answers`}</Act
			>
		</div>
		{#if wrong.length > 0}<p class="text-brick mt-2 text-[14px]">
				{wrong.length === 1 ? 'One line can’t' : `${wrong.length} lines can’t`} be read: {wrong
					.map(({ number }) => number)
					.join(', ')}.
			</p>{/if}
		<Ask bind:open={asking} title="Save what {data.name} wrote?" verb="Save" {busy} error={trouble} onconfirm={save}>
			<p>
				{changed.length === 1 ? 'One answer' : `${changed.length} answers`} of {data.name} ({data.number}), {paper.form
					? `by printed form ${paper.form}`
					: 'in the order of their screen'}.
				{paper.isNew ? 'They were absent and are handed in from then on.' : ''}
			</p>
		</Ask>
		<Ask
			bind:open={() => leaving !== null && !leaving.isSure, (open) => !open && !leaving?.isSure && (leaving = null)}
			title="Leave without saving?"
			verb="Leave"
			tone="danger"
			onconfirm={leave}
		>
			<p>
				{changed.length === 1 ? 'One answer' : `${changed.length} answers`} of {data.name}
				{changed.length === 1 ? 'is' : 'are'} typed in and not kept yet.
			</p>
		</Ask>
	{/if}
</main>
