<!-- @component All rules that are not asked for first, folded by subject. -->
<script lang="ts">
	import { SECTIONS, SETTINGS, type Section } from '$core/rules';
	import { scheduleInWords } from '$core/told';
	import Levels from './Levels.svelte';
	import RuleFold from './RuleFold.svelte';
	import type { SessionSetup } from './setup.svelte';

	/** @param shown the paths of the rules that stand elsewhere */
	let { setup, shown }: { setup: SessionSetup; shown: Set<string> } = $props();

	const NAMES: Record<Section, string> = {
		Time: 'Time',
		Door: 'Coming in',
		Lockdown: 'Lockdown',
		Paper: 'The paper',
		Afterwards: 'Afterwards'
	};
	const pathsOf = (section: Section) =>
		SETTINGS.filter((setting) => setting.section === section && !shown.has(setting.path)).map(({ path }) => path);
</script>

<div class="divide-line divide-y" data-testid="rules">
	{#each SECTIONS as section (section)}
		{#if section === 'Lockdown'}
			<RuleFold {setup} name={NAMES[section]} paths={pathsOf(section)} own={['lockdown.level']}
				><Levels {setup} /></RuleFold
			>
		{:else}
			<RuleFold
				{setup}
				name={NAMES[section]}
				paths={pathsOf(section)}
				told={section === 'Time' ? scheduleInWords(setup.input.rules) : undefined}
			/>
		{/if}
	{/each}
</div>
