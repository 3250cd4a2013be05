<!-- @component One question of the bank: read, revised, remarked on, put into a paper; with its revisions and its papers. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { AUDIENCE_NAMES, AUDIENCES, type Audience, type BankQuestion } from '$core/bank';
	import { plainText, doubtsOf, isSame, type Question } from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import QuestionEdit from '../question/QuestionEdit.svelte';
	import QuestionRead from '../question/QuestionRead.svelte';
	import Remarks from './Remarks.svelte';
	import WhereItStood from './WhereItStood.svelte';

	type Props = {
		id: string;
		/** A question that is not kept yet. */
		isNew: Question | null;
		sites: { id: string; name: string }[];
		/** The sites for which this person may keep questions; null: all. */
		mySites: string[] | null;
		colleagues: { id: string; name: string }[];
		drafts: { id: string; title: string }[];
		topics: string[];
		zone: string;
		onchanged: () => Promise<void>;
		onopen: (id: string) => void;
		onclose: () => void;
	};
	let { id, isNew, sites, mySites, colleagues, drafts, topics, zone, onchanged, onopen, onclose }: Props = $props();

	let known = $state.raw<BankQuestion | null>(null);
	let trouble = $state<string | null>(null);
	let done = $state<string | null>(null);
	let busy = $state(false);
	let isEditing = $state(untrack(() => isNew !== null));
	let editor = $state<{ leave(): void } | null>(null);
	/** As it is being written here; nothing of it is kept before it is saved. */
	let mine = $state.raw<Question | null>(untrack(() => isNew));
	let audience = $state<Audience>('site');
	let siteId = $state<string | null>(untrack(() => (mySites === null ? null : (mySites[0] ?? null))));
	let named = $state<string[]>([]);
	let draftId = $state('');

	const question = $derived(mine ?? known?.question ?? null);
	const doubts = $derived(question ? doubtsOf(question, {}) : []);
	const mayChange = $derived(known === null ? isNew !== null : known.mayChange);
	const isChanged = $derived(
		isNew !== null && known === null
			? true
			: known !== null &&
					((mine !== null && !isSame(mine, known.question)) ||
						audience !== known.ownership.audience ||
						siteId !== known.ownership.siteId ||
						!isSame(named, known.ownership.named))
	);
	const mySiteNames = $derived(sites.filter((site) => mySites === null || mySites.includes(site.id)));

	/** Whether something of it would be lost; what is still being typed counts. */
	export function isUnsaved(): boolean {
		editor?.leave();
		return isNew !== null && known === null ? question !== null && question.stem.trim() !== '' : isChanged;
	}
	function take(now: BankQuestion) {
		known = now;
		mine = null;
		({ audience, siteId } = now.ownership);
		named = now.ownership.named;
	}
	onMount(async () => {
		if (isNew) return;
		const answer = await send<BankQuestion>('GET', `/papers/bank/${id}`);
		if (answer.ok) take(answer.data);
		else trouble = inWords(answer.problem);
	});

	async function save() {
		editor?.leave();
		if (busy || !question) return;
		busy = true;
		const answer = await send<{ revision: number }>('PUT', `/papers/bank/${id}`, {
			question,
			revision: known?.revision ?? null,
			siteId,
			audience,
			named: audience === 'named' ? named : []
		});
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok && answer.problem.code === 'paper_changed') {
			// Theirs is kept and shown among the revisions; mine stays, to be saved after it.
			const ours = question;
			const now = await send<BankQuestion>('GET', `/papers/bank/${id}`);
			if (now.ok) take(now.data);
			mine = ours;
			trouble = `Somebody else has saved revision ${known?.revision}. Compare it below; saving puts yours after it.`;
		}
		if (answer.ok) {
			const now = await send<BankQuestion>('GET', `/papers/bank/${id}`);
			if (now.ok) take(now.data);
			done = `Saved as revision ${answer.data.revision}.`;
			isEditing = false;
			await onchanged();
		}
		busy = false;
	}
	/** Whether it was kept. */
	async function post(body: object): Promise<boolean> {
		if (busy) return false;
		busy = true;
		const answer = await send<BankQuestion>('POST', `/papers/bank/${id}`, body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return false;
		const { remarks } = answer.data;
		known = { ...known!, remarks };
		await onchanged();
		return true;
	}
	async function putInto() {
		if (busy || draftId === '' || !question) return;
		busy = true;
		const edit = { kind: 'question', before: null, after: question, at: { part: 0, index: 500 } };
		const answer = await send('POST', `/papers/${draftId}`, edit);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) done = `Added at the end of part A of ${drafts.find((one) => one.id === draftId)?.title}.`;
	}
</script>

<div class="space-y-4" data-testid="one-question">
	<div class="flex items-center gap-2">
		<h2 class="text-[18px]">{isNew && !known ? 'New question' : `Revision ${known?.revision ?? '…'}`}</h2>
		{#if known?.isRetired}<span class="text-ink-2 text-[13px]">no longer offered</span>{/if}
		<span class="ml-auto flex gap-2">
			{#if mayChange && !isEditing}<Act size="xs" onclick={() => (isEditing = true)} testid="revise">Revise</Act>{/if}
			<Act size="xs" onclick={onclose}>Close</Act>
		</span>
	</div>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
	{#if done}<p role="status" class="bg-mist text-tide rounded-lg px-3 py-2 text-[14px] font-semibold">{done}</p>{/if}
	{#if question}
		<ol>
			{#if isEditing}
				<QuestionEdit
					bind:this={editor}
					{question}
					name=""
					{doubts}
					{topics}
					onkeep={(_, after) => (mine = after)}
					onclose={() => {
						editor?.leave();
						isEditing = false;
					}}
				/>
			{:else}
				<QuestionRead
					{question}
					name=""
					{doubts}
					isChosen={false}
					onedit={() => mayChange && (isEditing = true)}
					onfix={(after) => (mine = after)}
				/>
			{/if}
		</ol>
		{#if question.note}<p class="text-ink-2 text-[14px] whitespace-pre-line">{question.note}</p>{/if}
		{#if mayChange}
			<div class="flex flex-wrap items-end gap-2 text-[14px]">
				<label class="text-ink-2 text-[13px]"
					>Who may use it
					<select
						class="bg-sheet border-line-strong mt-0.5 block rounded-lg border py-1.5 pr-8 pl-2 text-[14px]"
						bind:value={audience}
						data-testid="audience"
					>
						{#each AUDIENCES as one (one)}<option value={one}>{AUDIENCE_NAMES[one]}</option>{/each}
					</select></label
				>
				<label class="text-ink-2 text-[13px]"
					>Site
					<select
						class="bg-sheet border-line-strong mt-0.5 block rounded-lg border py-1.5 pr-8 pl-2 text-[14px]"
						bind:value={siteId}
					>
						{#if mySites === null}<option value={null}>all sites</option>{/if}
						{#each mySiteNames as site (site.id)}<option value={site.id}>{site.name}</option>{/each}
					</select></label
				>
				<Act tone="main" {busy} disabled={!isChanged} onclick={save} testid="save-question"
					>{known ? `Save revision ${known.revision + (mine && !isSame(mine, known.question) ? 1 : 0)}` : 'Save'}</Act
				>
			</div>
			{#if audience === 'named'}
				<fieldset class="flex flex-wrap gap-x-4 gap-y-1 text-[14px]">
					<legend class="text-ink-2 text-[13px]">Who else</legend>
					{#each colleagues as one (one.id)}
						<label class="flex items-center gap-1.5"
							><input
								type="checkbox"
								class="border-line-strong text-tide rounded"
								checked={named.includes(one.id)}
								onchange={(event) =>
									(named = event.currentTarget.checked ? [...named, one.id] : named.filter((name) => name !== one.id))}
							/>{one.name}</label
						>
					{/each}
				</fieldset>
			{/if}
		{:else if known}
			<p class="text-ink-2 text-[14px]">You may use this question. Only its owner and their site may change it.</p>
		{/if}
	{:else if !trouble}<p class="text-ink-2">One moment…</p>{/if}

	{#if known}
		{#if drafts.length > 0 && !known.isRetired}
			<div class="flex items-end gap-2">
				<label class="text-ink-2 flex-1 text-[13px]"
					>Put into a paper that is being written
					<select
						class="bg-sheet border-line-strong mt-0.5 w-full rounded-lg border px-2 py-1.5 text-[14px]"
						bind:value={draftId}
						data-testid="into"
					>
						<option value="">Choose…</option>
						{#each drafts as draft (draft.id)}<option value={draft.id}>{draft.title}</option>{/each}
					</select></label
				>
				<Act size="xs" {busy} disabled={draftId === ''} onclick={putInto} testid="put-into">Add</Act>
			</div>
		{/if}
		{#if known.alike.length > 0}
			<section>
				<h3 class="text-[16px]">Nearly the same</h3>
				<ul class="mt-1 space-y-1.5" data-testid="alike">
					{#each known.alike as other (other.id)}
						<li class="bg-ochre-ground rounded-lg px-3 py-2 text-[14px]">
							<button type="button" class="text-left font-serif underline" onclick={() => onopen(other.id)}
								>{plainText(other.question.stem)}</button
							>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		<Remarks
			remarks={known.remarks}
			{zone}
			{busy}
			onsettle={(remark, settled) => post({ remark, settled })}
			onremark={(text) => post({ text })}
		/>
		<WhereItStood {known} {question} {zone} onback={(before) => (mine = before)} />
	{/if}
</div>
