<!-- @component How the device is kept to the paper, told by what that is. -->
<script lang="ts">
	import type { SessionSetup } from './setup.svelte';

	let { setup }: { setup: SessionSetup } = $props();

	const LEVELS = [
		{ value: 'open', name: 'Open', text: 'nothing is enforced' },
		{
			value: 'watched',
			name: 'Watched',
			text: 'full screen, leaving logged, copy and print stopped where a page can'
		},
		{ value: 'sealed', name: 'Sealed', text: 'only a client that proves itself' }
	];
	const lockdown = $derived(setup.input.rules.lockdown);
</script>

<div class="mb-4">
	<div class="grid grid-cols-3 gap-2 max-sm:grid-cols-1" role="radiogroup" aria-label="Lockdown">
		{#each LEVELS as level (level.value)}
			<label
				class="border-line-strong has-checked:bg-mist has-checked:border-tide bg-sheet has-focus-visible:outline-ochre-mark cursor-pointer rounded-lg border px-3 py-2 has-focus-visible:outline-3"
			>
				<input
					type="radio"
					class="sr-only"
					name="lockdown"
					checked={lockdown.level === level.value}
					onchange={() => setup.setRule('lockdown.level', level.value)}
				/>
				<span class="block font-semibold">{level.name}</span>
				<span class="text-ink-2 block text-[13px]"
					>{level.text}{level.value === 'sealed' ? `, ${lockdown.clientVersion} or newer` : ''}</span
				>
			</label>
		{/each}
	</div>
</div>
