<!-- @component Which paper, by which rules, and for what. -->
<script lang="ts">
	import { counted } from '$core/names';
	import Select from 'flowbite-svelte/Select.svelte';
	import Choose from '$ui/Choose.svelte';
	import Field from '$ui/Field.svelte';
	import Part from './Part.svelte';
	import type { SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();

	const typed = (event: Event) => (event.target as HTMLSelectElement).value;
</script>

<Part name="What">
	<div>
		<div class="flex flex-wrap gap-3">
			<Field id="paperId" label="Paper" error={setup.errorOf('paperId')} class="min-w-64 flex-1">
				<Select
					id="paperId"
					value={setup.input.paperId}
					onchange={(event) => setup.set({ paperId: typed(event) })}
					placeholder="Choose a paper"
					items={setup.papers.map((paper) => ({
						value: paper.id,
						name: `${paper.title}, version ${paper.version}${paper.isWithdrawn ? ', withdrawn' : ''} · ${counted(paper.questions, 'question')} · ${counted(paper.points, 'point')}`
					}))}
				/>
			</Field>
			<Field id="ruleSheetId" label="Rule sheet" class="w-56">
				<Select
					id="ruleSheetId"
					placeholder=""
					value={setup.input.ruleSheetId ?? ''}
					onchange={(event) => setup.takeSheet(typed(event))}
					items={[
						{ value: '', name: 'No rule sheet (safe defaults)' },
						...setup.choices.sheets.map((one) => ({ value: one.id, name: one.name }))
					]}
				/>
			</Field>
			{#if setup.choices.administrations.length > 1}
				<Field id="administrationId" label="Administration" class="w-56">
					<Select
						id="administrationId"
						placeholder=""
						disabled={setup.edit !== null}
						value={setup.input.administrationId ?? ''}
						onchange={(event) => setup.set({ administrationId: typed(event) || null })}
						items={[
							{ value: '', name: `by its day${setup.administration ? `: ${setup.administration}` : ''}` },
							...setup.choices.administrations.map((one) => ({ value: one.id, name: one.name }))
						]}
					/>
				</Field>
			{/if}
			<div>
				<p class="text-ink-2 mb-1 text-[13px] font-semibold">For</p>
				<Choose
					name="kind"
					label="What the session is for"
					value={setup.input.kind}
					onchange={(kind) => setup.set({ kind })}
					options={[
						{ value: 'live', text: 'Live' },
						{ value: 'make_up', text: 'Make-up' },
						{ value: 'rehearsal', text: 'Rehearsal' }
					]}
				/>
			</div>
		</div>
		<p class="text-ink-3 mt-1.5 text-[13px]">
			Only papers that {setup.room?.site ?? 'your sites'} may use are offered.
			{#if setup.sheet}{setup.changed.length === 0
					? `All rules as in ${setup.sheet.name}.`
					: `${setup.changed.length} ${setup.changed.length === 1 ? 'rule differs' : 'rules differ'} from ${setup.sheet.name}.`}{/if}
		</p>
	</div>
</Part>
