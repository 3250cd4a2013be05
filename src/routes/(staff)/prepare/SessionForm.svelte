<script lang="ts">
	import { Checkbox, Input, Select } from 'flowbite-svelte';
	import { onDestroy, untrack } from 'svelte';
	import { goto, replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import { differingRules, rulesFor, SECTIONS, SETTINGS, valueAt, withValue } from '$core/rules';
	import { applyFix, DEFAULT_RULES, type Finding, type Fix, type SentencePart } from '$core/session';
	import { localTime, MINUTE, zoneName } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Choose from '$ui/Choose.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import { Keeper, type Outcome } from '$ui/keeper.svelte';
	import { inWords, send, type Problem } from '$ui/post';
	import RuleField from '$ui/RuleField.svelte';
	import Sentence from '$ui/Sentence.svelte';
	import type { PageData } from './new/$types';
	import AddPeople from './AddPeople.svelte';
	import Parts from './Parts.svelte';

	type Setup = PageData['input'];
	type Told = {
		sentence: SentencePart[];
		findings: Finding[];
		name: string;
		protection: string;
		candidates: number;
		seats: number;
	};
	type Props = {
		title: string;
		choices: PageData['choices'];
		initial: Setup;
		edit: { id: string; revision: number } | null;
		draft: PageData['draft'];
		others: { id: string; name: string; opens: number; zone: string }[];
		/** Why nothing can be changed any more. */
		locked: string | null;
	};
	let { title, choices, initial, edit, draft, others, locked }: Props = $props();

	const clock = getClock();
	let input = $state.raw<Setup>(untrack(() => initial));
	let plans = $state.raw<Told[]>([]);
	/** The name of the one that this session would belong to. */
	let administration = $state<string | null>(null);
	let errors = $state.raw<Record<string, string>>({});
	let trouble = $state<string | null>(null);
	let busy = $state(false);
	let undo = $state.raw<Setup | null>(null);
	let added = $state.raw(untrack(() => draft?.added ?? []));

	const set = (change: Partial<Setup>) => {
		input = { ...input, ...change };
		keepSoon();
	};
	const rule = (path: string) => SETTINGS.find((setting) => setting.path === path)!;
	const setRule = (path: string, value: unknown) => set({ rules: withValue(input.rules, path, value) });

	const room = $derived(choices.rooms.find((one) => one.id === input.roomId));
	const sheet = $derived(choices.sheets.find((one) => one.id === input.ruleSheetId));
	const base = $derived(sheet?.rules ?? DEFAULT_RULES);
	const changed = $derived(differingRules(base, input.rules));
	const networks = $derived(room ? choices.networks.filter((one) => one.siteId === room.siteId) : choices.networks);
	const papers = $derived(
		choices.papers.filter(
			(paper) =>
				paper.id === input.paperId ||
				room === undefined ||
				paper.siteIds === null ||
				paper.siteIds.includes(room.siteId) ||
				input.groupIds.some((id) => paper.groupIds.includes(id))
		)
	);
	const findings = $derived(
		plans.flatMap((told, i) =>
			told.findings.map((finding) => ({
				...finding,
				part: input.parts?.[i]?.label,
				key: `${i}${finding.code}${finding.message}`
			}))
		)
	);
	const blocked = $derived(plans.length === 0 || findings.some((finding) => finding.level === 'block'));
	/** What has not been chosen yet is not wrong: it is said beneath the sentence, not in red. */
	const toChoose = $derived(
		[!input.paperId && 'a paper', input.groupIds.length === 0 && 'a group', !input.roomId && 'a room'].filter(Boolean)
	);
	const errorOf = (field: string) =>
		toChoose.length > 0 && ['paperId', 'groupIds', 'roomId'].includes(field) ? undefined : errors[field];

	// The sentence follows what is entered, a moment after it rests.
	let asked = 0;
	$effect(() => {
		const sent = input;
		const mine = ++asked;
		const timer = setTimeout(async () => {
			const answer = await send<{ errors: Record<string, string>; plans?: Told[]; administration?: string }>(
				'POST',
				'/prepare/plan',
				{
					input: sent,
					editing: edit?.id ?? null
				}
			);
			if (mine !== asked) return;
			if (!answer.ok) {
				trouble = inWords(answer.problem);
				return;
			}
			errors = answer.data.errors;
			plans = answer.data.plans ?? [];
			administration = answer.data.administration ?? administration;
			trouble = null;
		}, 200);
		return () => clearTimeout(timer);
	});

	// Every field is kept as it is entered: a closed tab, a lost line or another machine costs nothing.
	let kept = $state.raw<{ id: string; revision: number; savedAt: number } | null>(untrack(() => draft));
	const keeper = new Keeper(keep, 500);
	$effect(() => keeper.start());
	function keepSoon() {
		if (!edit && !locked) keeper.touched();
	}
	async function keep(leaving: boolean): Promise<Outcome> {
		const title = plans[0]?.name ?? 'Session without a name yet';
		const answer = await send<{ id: string; revision: number; savedAt: number }>(
			'POST',
			'/prepare/draft',
			{ id: kept?.id ?? null, revision: kept?.revision ?? 0, title, input, added },
			{ leaving }
		);
		if (answer.ok) {
			if (!kept && isHere) replaceState(`/prepare/new?draft=${answer.data.id}`, {});
			kept = answer.data;
			return 'kept';
		}
		if (answer.status !== 409) return 'line_down';
		trouble = inWords(answer.problem);
		return 'refused';
	}
	// A draft that is kept after its page was left must not write into the address of another page.
	let isHere = true;
	onDestroy(() => (isHere = false));

	function mend(fix: Fix) {
		undo = input;
		input = applyFix(input, fix);
		keepSoon();
	}
	function takeSheet(id: string) {
		const next = choices.sheets.find((one) => one.id === id);
		if (!next) return set({ ruleSheetId: null });
		undo = input;
		set({ ruleSheetId: id, rules: rulesFor(input.rules, next.rules) });
	}
	function oneForEachGroup() {
		set({
			parts: input.groupIds.map((id, i) => ({
				label: choices.groups.find((group) => group.id === id)?.name ?? '',
				groupIds: [id],
				only: null,
				roomId: input.roomId,
				time: input.time,
				until: input.until,
				proctorIds: i === 0 ? input.proctorIds : []
			}))
		});
	}

	async function save() {
		if (busy) return;
		busy = true;
		trouble = null;
		keeper.drop();
		const answer = await send<{ ids: string[] }>('POST', '/prepare/save', { input, edit, draftId: kept?.id ?? null });
		if (!answer.ok) {
			busy = false;
			const refused = answer.problem as Problem & { errors?: Record<string, string> };
			errors = refused.errors ?? {};
			trouble = inWords(answer.problem);
			keepSoon();
			return;
		}
		await goto(`/prepare?planned=${answer.data.ids.length}`);
	}
	const typed = (event: Event) => (event.target as HTMLInputElement).value;
	const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((one) => one !== id) : [...list, id]);

	const MAIN = new Set([
		'timing.limitMinutes',
		'timing.doorOpensMinutes',
		'timing.lastEntryMinutes',
		'admission',
		'door.networks',
		'door.code',
		'door.turnsEveryMinutes',
		'door.identity',
		'door.slips',
		'startWord',
		'finishWord',
		'lockdown.level',
		'lockdown.clientVersion',
		'movement.shown',
		'movement.goingBack',
		'order.questionsInOwnOrder',
		'order.choicesInOwnOrder',
		'timing.atTimeUp',
		'timing.graceMinutes',
		'timing.warnAtMinutes',
		'timing.clockStops',
		'timing.clockStarts',
		'timing.atClose'
	]);
	const further = SETTINGS.filter((setting) => !MAIN.has(setting.path));
	const furtherChanged = $derived(changed.filter(({ setting }) => !MAIN.has(setting.path)).length);
	const LOCKDOWNS = [
		{ value: 'open', name: 'Open', text: 'nothing is enforced' },
		{
			value: 'watched',
			name: 'Watched',
			text: 'full screen, leaving logged, copy and print stopped where a page can'
		},
		{ value: 'sealed', name: 'Sealed', text: 'only a client that proves itself' }
	];
	/** The times that follow, told beneath the ones that are entered. */
	const follows = $derived.by(() => {
		const told = plans[0];
		if (!told || !room) return '';
		const { timing } = input.rules;
		const at = (minutes: number) => {
			const [hour, minute] = input.time.split(':').map(Number);
			return localTime(Date.UTC(2000, 0, 2, hour, minute) + minutes * MINUTE, 'UTC');
		};
		const last =
			input.until && timing.limitMinutes !== null && timing.atClose === 'cut'
				? ` · last full start ${lessMinutes(input.until, timing.limitMinutes)}`
				: '';
		return `Door ${at(-timing.doorOpensMinutes)}${timing.lastEntryMinutes === null ? '' : ` · last entry ${at(timing.lastEntryMinutes)}`}${last} · the code dies at midnight`;
	});
	function lessMinutes(time: string, minutes: number): string {
		const [hour, minute] = time.split(':').map(Number);
		return localTime(Date.UTC(2000, 0, 2, hour, minute) - minutes * MINUTE, 'UTC');
	}
</script>

{#snippet part(name: string)}<h2 class="pt-1 text-[17px]">{name}</h2>{/snippet}
{#snippet field(path: string)}
	<RuleField
		setting={rule(path)}
		value={valueAt(input.rules, path)}
		base={sheet ? valueAt(base, path) : undefined}
		{networks}
		error={errors[`rules.${path}`]}
		onchange={(value) => setRule(path, value)}
	/>
{/snippet}
{#snippet chip(label: string, checked: boolean, onchange: () => void, count: number | null = null, note = '')}
	<label
		class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet flex cursor-pointer items-center gap-2 rounded-lg border px-3 py-2 text-[14px]"
	>
		<Checkbox {checked} {onchange} />{label}
		{#if count !== null}<strong>{count}</strong>{/if}
		{#if note}<span class="text-ink-2">{note}</span>{/if}
	</label>
{/snippet}

<div class="grid min-h-full grid-cols-[1fr_400px] max-lg:grid-cols-1">
	<main class="px-7 py-5">
		<div class="mb-1 flex flex-wrap items-center gap-3">
			<h1 class="text-[28px]">{title}</h1>
			{#if !edit && !locked}
				<span
					class="rounded-full px-3 py-1 text-[13px] font-semibold {keeper.isUnkept && !keeper.isKeeping
						? 'bg-ochre-ground text-ochre'
						: 'bg-mist text-tide'}"
					role="status"
					data-testid="kept"
					>{kept === null
						? 'kept as you go'
						: keeper.isUnkept
							? 'keeping…'
							: `kept as you go · ${localTime(kept.savedAt, page.data.site.zone)}`}</span
				>
			{/if}
			{#if !edit && others.length > 0}
				<div class="ml-auto w-64">
					<Select
						aria-label="Start from another session"
						placeholder="Start from another session…"
						value=""
						items={others.map((one) => ({ value: one.id, name: one.name }))}
						onchange={(event) => void goto(`/prepare/new?from=${typed(event)}`, { invalidateAll: true })}
					/>
				</div>
			{/if}
		</div>
		{#if choices.papers.length === 0 || choices.rooms.length === 0}
			<p class="bg-ochre-ground text-ochre mb-3 rounded-lg px-3 py-2">
				There are no papers or rooms at your sites yet, so nothing can be planned.
			</p>
		{/if}
		{#if locked}<p class="bg-ochre-ground text-ochre mb-3 rounded-lg px-3 py-2">{locked}</p>{/if}
		<fieldset
			disabled={locked !== null}
			class="divide-line divide-y [&>section]:grid [&>section]:grid-cols-[110px_1fr] [&>section]:gap-4 [&>section]:py-4 max-sm:[&>section]:grid-cols-1"
		>
			<section>
				{@render part('What')}
				<div>
					<div class="flex flex-wrap gap-3">
						<Field id="paperId" label="Paper" error={errorOf('paperId')} class="min-w-64 flex-1">
							<Select
								id="paperId"
								value={input.paperId}
								onchange={(event) => set({ paperId: typed(event) })}
								placeholder="Choose a paper"
								items={papers.map((paper) => ({
									value: paper.id,
									name: `${paper.title}, version ${paper.version} · ${paper.questions} questions · ${paper.points} points`
								}))}
							/>
						</Field>
						<Field id="ruleSheetId" label="Rule sheet" class="w-56">
							<Select
								id="ruleSheetId"
								placeholder=""
								value={input.ruleSheetId ?? ''}
								onchange={(event) => takeSheet(typed(event))}
								items={[
									{ value: '', name: 'none: the safe choices' },
									...choices.sheets.map((one) => ({ value: one.id, name: one.name }))
								]}
							/>
						</Field>
						{#if choices.administrations.length > 1}
							<Field id="administrationId" label="Administration" class="w-56">
								<Select
									id="administrationId"
									placeholder=""
									disabled={edit !== null}
									value={input.administrationId ?? ''}
									onchange={(event) => set({ administrationId: typed(event) || null })}
									items={[
										{ value: '', name: `by its day${administration ? `: ${administration}` : ''}` },
										...choices.administrations.map((one) => ({ value: one.id, name: one.name }))
									]}
								/>
							</Field>
						{/if}
						<div>
							<p class="text-ink-2 mb-1 text-[13px] font-semibold">For</p>
							<Choose
								name="kind"
								label="What the session is for"
								value={input.kind}
								onchange={(kind) => set({ kind })}
								options={[
									{ value: 'live', text: 'Live' },
									{ value: 'make_up', text: 'Make-up' },
									{ value: 'rehearsal', text: 'Rehearsal' }
								]}
							/>
						</div>
					</div>
					<p class="text-ink-3 mt-1.5 text-[13px]">
						Only papers that {room?.site ?? 'your sites'} may use are offered.
						{#if sheet}{changed.length === 0
								? `All rules as in ${sheet.name}.`
								: `${changed.length} ${changed.length === 1 ? 'rule differs' : 'rules differ'} from ${sheet.name}.`}{/if}
					</p>
				</div>
			</section>
			<section>
				{@render part('Who')}
				<div>
					<div class="flex flex-wrap gap-2" role="group" aria-label="Groups">
						{#each choices.groups as group (group.id)}
							{@render chip(
								group.name,
								input.groupIds.includes(group.id),
								() => set({ groupIds: toggle(input.groupIds, group.id), only: null, parts: null }),
								group.count,
								group.site
							)}
						{/each}
						{#if !edit && input.groupIds.length > 1 && input.parts === null}
							<Act onclick={oneForEachGroup} testid="for-each-group">A session for each group</Act>
						{/if}
					</div>
					<AddPeople
						{added}
						onadd={(person) => ((added = [...added, person]), set({ alsoIds: [...input.alsoIds, person.id] }))}
						onremove={(id) => (
							(added = added.filter((one) => one.id !== id)),
							set({ alsoIds: input.alsoIds.filter((one) => one !== id) })
						)}
					/>
					{#if errorOf('groupIds')}<p class="text-brick mt-1 text-[13px]" role="alert">{errorOf('groupIds')}</p>{/if}
					{#if input.kind === 'make_up'}<p class="text-ink-3 mt-1.5 text-[13px]">
							A make-up takes only those of these groups who were absent or carried over.
						</p>{/if}
					{#if input.only}<p class="text-ink-2 mt-1.5 text-[14px]">
							Only {input.only.length} of them, as chosen before.
							<button type="button" class="font-semibold underline" onclick={() => set({ only: null })}
								>Take all of them</button
							>
						</p>{/if}
				</div>
			</section>
			<section>
				{@render part('When')}
				<div>
					<div class="flex flex-wrap items-start gap-3">
						<Field id="date" label="Date" error={errorOf('date')}
							><Input
								id="date"
								type="date"
								value={input.date}
								oninput={(event) => set({ date: typed(event) })}
							/></Field
						>
						<Field id="time" label="Opens" error={errorOf('time')}
							><Input
								id="time"
								type="time"
								value={input.time}
								oninput={(event) => set({ time: typed(event) })}
							/></Field
						>
						{@render field('timing.limitMinutes')}
						<Field id="until" label="Closes" error={errorOf('until')}
							><Input
								id="until"
								type="time"
								value={input.until ?? ''}
								oninput={(event) => set({ until: typed(event) || null })}
							/></Field
						>
						{@render field('timing.doorOpensMinutes')}
						{@render field('timing.lastEntryMinutes')}
					</div>
					<p class="text-ink-3 mt-1.5 text-[13px]">
						{follows}{room ? ` · ${zoneName(clock.now, room.zone)}, as at ${room.site}` : ''}
					</p>
				</div>
			</section>
			<section>
				{@render part('Where')}
				<div class="space-y-3">
					<div class="flex flex-wrap gap-3">
						<Field id="roomId" label="Room" error={errorOf('roomId')} class="min-w-72">
							<Select
								id="roomId"
								value={input.roomId}
								onchange={(event) => set({ roomId: typed(event) })}
								placeholder="Choose a room"
								items={choices.rooms.map((one) => ({
									value: one.id,
									name: `${one.name}, ${one.seats} seats · ${one.site}`
								}))}
							/>
						</Field>
						{@render field('admission')}
					</div>
					<div>
						<p class="text-ink-2 mb-1 text-[13px] font-semibold">Proctors</p>
						<div class="flex flex-wrap gap-2" role="group" aria-label="Proctors">
							{#each choices.proctors as proctor (proctor.id)}
								{@render chip(proctor.name, input.proctorIds.includes(proctor.id), () =>
									set({ proctorIds: toggle(input.proctorIds, proctor.id) })
								)}
							{/each}
						</div>
					</div>
					{@render field('door.networks')}
				</div>
			</section>
			{#if input.parts}
				<section>
					{@render part('Sessions')}
					<Parts
						parts={input.parts}
						rooms={choices.rooms}
						proctors={choices.proctors}
						told={plans}
						{errors}
						onchange={(parts) => set({ parts })}
					/>
				</section>
			{/if}
			<section>
				{@render part('Lockdown')}
				<div>
					<div class="grid grid-cols-3 gap-2 max-sm:grid-cols-1" role="radiogroup" aria-label="Lockdown">
						{#each LOCKDOWNS as level (level.value)}
							<label
								class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet has-focus-visible:outline-ochre-mark cursor-pointer rounded-lg border px-3 py-2 has-focus-visible:outline-3"
							>
								<input
									type="radio"
									class="sr-only"
									name="lockdown"
									checked={input.rules.lockdown.level === level.value}
									onchange={() => setRule('lockdown.level', level.value)}
								/>
								<span class="block font-semibold">{level.name}</span>
								<span class="text-ink-2 block text-[13px]"
									>{level.text}{level.value === 'sealed'
										? `, ${input.rules.lockdown.clientVersion} or newer`
										: ''}</span
								>
							</label>
						{/each}
					</div>
					{#if input.rules.lockdown.level === 'sealed'}
						<div class="mt-3">{@render field('lockdown.clientVersion')}</div>
					{/if}
				</div>
			</section>
			<section>
				{@render part('Secrets')}
				<div class="flex flex-wrap items-start gap-x-5 gap-y-3">
					{@render field('door.code')}
					{#if input.rules.door.code === 'turning'}{@render field('door.turnsEveryMinutes')}{/if}
					{@render field('startWord')}
					{@render field('finishWord')}
					{@render field('door.identity')}
					<div class="pt-7">{@render field('door.slips')}</div>
				</div>
			</section>
			<section>
				{@render part('Paper shown')}
				<div class="flex flex-wrap items-start gap-x-5 gap-y-3">
					{@render field('movement.shown')}
					<div class="space-y-2 pt-1">
						{@render field('movement.goingBack')}
						{@render field('order.questionsInOwnOrder')}
						{@render field('order.choicesInOwnOrder')}
					</div>
				</div>
			</section>
			<section>
				{@render part('If time runs out')}
				<div class="flex flex-wrap items-start gap-x-5 gap-y-3">
					<div class="w-60">{@render field('timing.atTimeUp')}</div>
					{@render field('timing.graceMinutes')}
					{@render field('timing.warnAtMinutes')}
					{@render field('timing.clockStops')}
					{@render field('timing.clockStarts')}
					{@render field('timing.atClose')}
				</div>
			</section>
			<section>
				{@render part('Name')}
				<div class="max-w-lg">
					<Field id="name" label="Name" error={errorOf('name')} hint="proposed from paper, group and time"
						><Input
							id="name"
							placeholder={plans[0]?.name ?? ''}
							value={input.name}
							oninput={(event) => set({ name: typed(event) })}
						/></Field
					>
				</div>
			</section>
			<details class="py-4">
				<summary class="text-[15px] font-semibold"
					>Further rules{furtherChanged > 0 ? ` (${furtherChanged} changed)` : ''}</summary
				>
				{#each SECTIONS as section (section)}
					{@const inside = further.filter((setting) => setting.section === section)}
					{#if inside.length > 0}
						<h3 class="mt-4 mb-2 text-[15px]">{section}</h3>
						<div class="grid grid-cols-2 gap-x-6 gap-y-4 max-md:grid-cols-1">
							{#each inside as setting (setting.path)}
								<RuleField
									{setting}
									value={valueAt(input.rules, setting.path)}
									base={valueAt(base, setting.path)}
									{networks}
									explain
									error={errors[`rules.${setting.path}`]}
									onchange={(value) => setRule(setting.path, value)}
								/>
							{/each}
						</div>
					{/if}
				{/each}
			</details>
		</fieldset>
	</main>

	<aside class="bg-tide-deep text-[#f6f2e8]">
		<div class="sticky top-0 flex max-h-[calc(100dvh-92px)] flex-col px-7 py-6 max-lg:max-h-none" aria-live="polite">
			<p class="mb-2 text-[14px] text-[#b9d6cd]">It reads</p>
			{#if plans.length > 0}
				{#each plans as told, i (i)}
					<p
						class="font-serif leading-[1.45] {plans.length > 1 ? 'mb-3 text-[17px]' : 'text-[21px]'}"
						data-testid="sentence"
					>
						<Sentence parts={told.sentence} />
					</p>
				{/each}
			{:else if toChoose.length > 0}
				<p class="font-serif text-[21px] leading-snug text-[#dcebe5]">
					Choose {toChoose.join(', ').replace(/, ([^,]*)$/, ' and $1')}, and the session is told here in a sentence.
				</p>
			{:else}
				<p class="font-serif text-[21px] leading-snug text-[#dcebe5]">
					Something can’t be read yet: see the fields on the left.
				</p>
			{/if}
			{#if findings.length > 0}
				<p class="mt-6 mb-2 text-[14px] text-[#b9d6cd]">{blocked ? 'Before it can be planned' : 'Worth knowing'}</p>
				<ul class="min-h-24 space-y-2.5 overflow-auto" data-testid="findings">
					{#each findings as finding (finding.key)}
						<li
							class="rounded-xl px-3.5 py-2.5 text-[14.5px] {finding.level === 'block'
								? 'bg-[#f8ddd6] text-[#7a2415]'
								: finding.level === 'warn'
									? 'bg-[#fbeccb] text-[#6b4500]'
									: 'bg-[#2a625a] text-[#f6f2e8]'}"
							data-code={finding.code}
						>
							<strong>{finding.part ? `${finding.part}: ` : ''}{finding.title}</strong>
							{finding.message}
							{#each finding.fixes as fix, i (fix.text)}
								{#if i > 0}or{/if}
								<button
									type="button"
									class="font-semibold underline"
									disabled={locked !== null}
									onclick={() => mend(fix)}>{fix.text}</button
								>{i === finding.fixes.length - 1 ? '.' : ' '}
							{/each}
						</li>
					{/each}
				</ul>
			{/if}
			{#if plans.length > 0}
				<p class="mt-3 rounded-xl bg-[#2a625a] px-3.5 py-2.5 text-[14.5px]" data-testid="protection">
					<strong>Protection.</strong>
					{plans[0].protection}
				</p>
			{/if}
			{#if undo}<p class="mt-3 text-[14px]">
					<button
						type="button"
						class="font-semibold underline"
						onclick={() => {
							set(undo!);
							undo = null;
						}}>Undo the last change made for you</button
					>
				</p>{/if}
			{#if trouble}<p role="alert" class="mt-4 rounded-xl bg-[#f8ddd6] px-3.5 py-2.5 text-[#7a2415]">{trouble}</p>{/if}
			<div class="mt-5 flex flex-wrap gap-2">
				<Act onclick={save} {busy} disabled={locked !== null || blocked} testid="plan"
					>{edit ? 'Save the changes' : plans.length > 1 ? `Plan all ${plans.length}` : 'Plan it'}</Act
				>
				<a href="/prepare" class="rounded-lg border border-white/40 px-4 py-2 text-[14px] font-semibold"
					>{edit ? 'Leave' : 'Keep as draft'}</a
				>
			</div>
		</div>
	</aside>
</div>
