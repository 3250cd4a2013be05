<!-- @component The parts of an administration in their order, and how each candidate stands with them. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Select from 'flowbite-svelte/Select.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { goto, invalidateAll } from '$app/navigation';
	import type { Step } from '$core/steps';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import NumberField from '$ui/NumberField.svelte';
	import { inWords, send } from '$ui/post';
	import OfAdministration from '../OfAdministration.svelte';

	let { data } = $props();
	const copied = () => data.steps.map((step) => ({ ...step }));
	let steps = $state<Step[]>(untrack(copied));
	/** Parts whose minimum can't be read: as long as there is one, nothing is saved. */
	const unread = new SvelteSet<string>();
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let opening = $state.raw<{ stepId: string; title: string; id: string; name: string; why: string } | null>(null);
	let asksOpening = $state(false);
	let reason = $state('');
	const isChanged = $derived(JSON.stringify(steps) !== JSON.stringify(data.steps));
	const cannotSave = $derived(!isChanged || steps.some(({ id }) => unread.has(id)));
	const OFF = '';

	function move(i: number, by: -1 | 1) {
		const next = [...steps];
		[next[i], next[i + by]] = [next[i + by], next[i]];
		steps = next;
	}
	async function act(body: object): Promise<boolean> {
		if (busy) return false;
		busy = true;
		const answer = await send('POST', '/prepare/parts', { administrationId: data.administration!.id, ...body });
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) await invalidateAll();
		return answer.ok;
	}
	async function save() {
		if (await act({ act: 'save', was: data.steps, steps })) steps = copied();
	}
	const tick = (stepId: string, candidateIds: string[], on: boolean) => act({ act: 'tick', stepId, candidateIds, on });
	async function open() {
		const { stepId, id } = opening!;
		const done = await act({ act: 'tick', stepId, candidateIds: [id], on: true, why: reason });
		if (done) asksOpening = false;
	}
	const earlier = (i: number) => [
		{ value: '', name: 'open from the start' },
		...steps.slice(0, i).map((step) => ({ value: step.id, name: `after ${step.title || 'an unnamed part'}` }))
	];
	const beforeOf = (step: Step) => steps.find((one) => one.id === step.afterId);
</script>

<svelte:head><title>Parts in order · Otium</title></svelte:head>
<OfAdministration title="Parts in order" path="/prepare/parts" {data}>
	<p class="text-ink-2">
		What comes first, and what it takes to go on. A part off the screen, like an oral, is ticked as done. Whoever comes
		too early is told why at the door, and so are you.
	</p>
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
	<fieldset disabled={!data.mayChange} class="mt-4">
		<ol class="space-y-2" data-testid="parts-list">
			{#each steps as step, i (step.id)}
				<li class="bg-sheet border-line flex flex-wrap items-center gap-2 rounded-xl border p-3">
					<span class="text-ink-3 w-6 text-right font-mono">{i + 1}</span>
					<div class="w-60">
						<Select
							size="sm"
							aria-label="What part {i + 1} is"
							placeholder=""
							value={step.paperTitle ?? OFF}
							items={[
								{ value: OFF, name: 'off the screen' },
								...data.titles.map((title) => ({ value: title, name: title }))
							]}
							onchange={(event) => {
								const title = (event.target as HTMLSelectElement).value;
								step.paperTitle = title || null;
								if (title) step.title = title;
							}}
						/>
					</div>
					<div class="w-52">
						<Input size="sm" aria-label="Name of part {i + 1}" bind:value={step.title} placeholder="Name" />
					</div>
					<div class="w-60">
						<Select
							size="sm"
							aria-label="What part {i + 1} comes after"
							placeholder=""
							value={step.afterId ?? ''}
							items={earlier(i)}
							onchange={(event) => {
								step.afterId = (event.target as HTMLSelectElement).value || null;
								if (step.afterId === null) step.leastPercent = null;
							}}
						/>
					</div>
					{#if beforeOf(step)?.paperTitle}
						<label class="flex items-center gap-1.5 text-[14px]"
							>with at least
							<NumberField
								size="sm"
								class="w-28"
								label="Least per cent before part {i + 1}"
								most={100}
								value={unread.has(step.id) ? undefined : step.leastPercent}
								onchange={(value) => {
									if (value === undefined) unread.add(step.id);
									else {
										unread.delete(step.id);
										step.leastPercent = value;
									}
								}}
							/> %</label
						>
					{/if}
					<span class="ml-auto flex gap-1">
						<Act size="xs" disabled={i === 0} onclick={() => move(i, -1)}>Up</Act>
						<Act size="xs" disabled={i === steps.length - 1} onclick={() => move(i, 1)}>Down</Act>
						<Act size="xs" onclick={() => (steps = steps.filter((one) => one !== step))}>Remove</Act>
					</span>
				</li>
			{:else}
				<li class="text-ink-2 bg-sheet border-line rounded-xl border p-6 text-center">
					No order is set: every paper is open whenever its session is.
				</li>
			{/each}
		</ol>
		<div class="mt-3 flex gap-2">
			<Act
				testid="add-part"
				onclick={() =>
					(steps = [...steps, { id: nanoid(), title: '', paperTitle: null, afterId: null, leastPercent: null }])}
				>Add a part</Act
			>
			<Act tone="main" class="ml-auto" {busy} disabled={cannotSave} onclick={save} testid="save-parts">Save</Act>
		</div>
	</fieldset>

	{#if data.steps.length > 0 && data.group}
		<section class="mt-8">
			<div class="flex items-end gap-3">
				<h2 class="text-[20px]">Who has done what</h2>
				<div class="w-60">
					<Select
						size="sm"
						aria-label="Group"
						placeholder=""
						value={data.group.id}
						items={data.groups.map((group) => ({
							value: group.id,
							name: `${group.name}, ${group.count} · ${group.site}`
						}))}
						onchange={(event) =>
							goto(`/prepare/parts?id=${data.administration!.id}&group=${(event.target as HTMLSelectElement).value}`, {
								noScroll: true
							})}
					/>
				</div>
			</div>
			<div class="border-line bg-sheet mt-3 overflow-x-auto rounded-2xl border">
				<table class="w-full text-[14.5px]" data-testid="who">
					<thead class="text-ink-2 text-left text-[13px]">
						<tr>
							<th class="px-4 py-2">Name</th>
							{#each data.steps as step (step.id)}
								<th class="px-3 py-2"
									>{step.title}{#if step.paperTitle === null}<Act
											size="xs"
											class="ml-2"
											{busy}
											onclick={() =>
												tick(
													step.id,
													data.people.map(({ id }) => id),
													true
												)}>all done</Act
										>{/if}</th
								>
							{/each}
						</tr>
					</thead>
					<tbody>
						{#each data.people as person (person.id)}
							<tr class="border-line border-t">
								<td class="px-4 py-1.5"
									><strong>{person.name}</strong>
									<span class="text-ink-3 font-mono text-[13px]">{person.number}</span></td
								>
								{#each data.steps as step, i (step.id)}
									{@const one = person.steps[i]}
									<td class="px-3 py-1.5">
										{#if step.paperTitle === null}
											<label class="flex items-center gap-2"
												><input
													type="checkbox"
													class="border-line-strong text-tide rounded"
													checked={one.isDone}
													disabled={busy}
													onchange={(event) => tick(step.id, [person.id], event.currentTarget.checked)}
												/>{one.isDone ? 'done' : 'not yet'}</label
											>
										{:else if one.isDone}
											done{one.percent === null ? '' : `, ${Math.floor(one.percent)} %`}
										{:else if one.standing.open}
											{one.isOpened ? 'opened by hand' : 'open'}
										{:else}
											<span class="text-ochre">{one.standing.why}</span>
											<button
												type="button"
												class="text-tide ml-1 underline"
												onclick={() => {
													const { id, name } = person;
													opening = {
														stepId: step.id,
														title: step.title,
														id,
														name,
														why: one.standing.open ? '' : one.standing.why
													};
													reason = '';
													asksOpening = true;
												}}>open it</button
											>
										{/if}
									</td>
								{/each}
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		</section>
	{/if}
</OfAdministration>

{#if opening}
	<Ask
		bind:open={asksOpening}
		title="Open {opening.title} for {opening.name}?"
		verb="Open it for {opening.name.split(' ')[0]}"
		{busy}
		error={trouble}
		disabled={reason.trim() === ''}
		onconfirm={open}
	>
		<p>{opening.why} It opens for {opening.name} alone.</p>
		<Field id="open-why" label="Why" class="mt-3"
			><Input id="open-why" bind:value={reason} maxlength={300} autocomplete="off" /></Field
		>
	</Ask>
{/if}
