<!-- @component One rule of the session, beside what its rule sheet says. -->
<script lang="ts">
	import { valueAt } from '$core/rules';
	import RuleField from '$ui/RuleField.svelte';
	import { settingAt, type SessionSetup } from './setup.svelte';

	type Props = { setup: SessionSetup; path: string; explain?: boolean };
	let { setup, path, explain = false }: Props = $props();
</script>

<RuleField
	setting={settingAt(path)}
	value={setup.valueOf(path)}
	base={setup.sheet || explain ? valueAt(setup.base, path) : undefined}
	networks={setup.networks}
	{explain}
	error={setup.errors[`rules.${path}`]}
	onchange={(value) => setup.setRule(path, value)}
/>
