<!-- @component The rules that have no place of their own in the form, in the sections of the rule sheet. -->
<script lang="ts">
	import { SECTIONS, SETTINGS } from '$core/rules';
	import Rule from './Rule.svelte';
	import type { SessionSetup } from './setup.svelte';

	/** @param shown the paths of the rules that stand elsewhere */
	let { setup, shown }: { setup: SessionSetup; shown: Set<string> } = $props();

	const further = $derived(SETTINGS.filter((setting) => !shown.has(setting.path)));
	const changed = $derived(setup.changed.filter(({ setting }) => !shown.has(setting.path)).length);
</script>

<details class="py-4">
	<summary class="text-[15px] font-semibold">Further rules{changed > 0 ? ` (${changed} changed)` : ''}</summary>
	{#each SECTIONS as section (section)}
		{@const inside = further.filter((setting) => setting.section === section)}
		{#if inside.length > 0}
			<h3 class="mt-4 mb-2 text-[15px]">{section}</h3>
			<div class="grid grid-cols-2 gap-x-6 gap-y-4 max-md:grid-cols-1">
				{#each inside as setting (setting.path)}<Rule {setup} path={setting.path} explain />{/each}
			</div>
		{/if}
	{/each}
</details>
