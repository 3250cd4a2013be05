<!--
@component The rules of one subject, folded, with what of them differs from the rule sheet or the defaults. Each says what it
does where it stands.
-->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { valueInWords } from '$core/rules';
	import Rule from './Rule.svelte';
	import type { SessionSetup } from './setup.svelte';

	type Props = {
		setup: SessionSetup;
		name: string;
		/** The paths of its rules, in their order. */
		paths: string[];
		/** A line that tells the whole of it. */
		told?: string;
		/** Rules that are entered in a way of their own, above the others. */
		children?: Snippet;
		/** Which of the paths those are. */
		own?: string[];
	};
	let { setup, name, paths, told, children, own = [] }: Props = $props();

	const changed = $derived(setup.changedIn(new Set(paths)));
	const hasError = $derived(paths.some((path) => setup.errors[`rules.${path}`]));
	const names = $derived(new Map(setup.networks.map((one) => [one.id, one.name])));
	const summary = $derived(
		changed
			.slice(0, 4)
			.map(({ setting, after }) => `${setting.name.toLowerCase()} ${valueInWords(setting, after, names)}`)
			.join(', ') + (changed.length > 4 ? ' …' : '')
	);
	let isOpen = $state(false);
</script>

<details
	class="group py-3"
	open={isOpen || hasError}
	ontoggle={(event) => (isOpen = event.currentTarget.open)}
	data-testid="fold-{name}"
>
	<summary class="flex cursor-pointer flex-wrap items-baseline gap-x-3 gap-y-0.5">
		<span class="text-ink-3 w-3 text-[13px] transition-transform group-open:rotate-90" aria-hidden="true">▸</span>
		<span class="font-serif text-[17px] font-semibold">{name}</span>
		{#if changed.length > 0}<span class="text-plum text-[14px] font-semibold" data-testid="changed"
				>{changed.length} changed: {summary}</span
			>{:else}<span class="text-ink-3 text-[14px]">{setup.sheet ? `as in ${setup.sheet.name}` : 'safe defaults'}</span
			>{/if}
	</summary>
	<div class="mt-3 pl-6">
		{#if told}<p class="bg-mist text-ink mb-3 rounded-lg px-3 py-2 text-[14.5px]" data-testid="fold-told">
				{told}
			</p>{/if}
		{@render children?.()}
		<div class="grid grid-cols-2 gap-x-6 gap-y-4 max-md:grid-cols-1">
			{#each paths.filter((path) => !own.includes(path)) as path (path)}<Rule {setup} {path} explain />{/each}
		</div>
	</div>
</details>
